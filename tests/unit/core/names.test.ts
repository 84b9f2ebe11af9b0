import { readFileSync } from 'node:fs'
import { questionsOf } from '#core/foods'
import { foodSearch } from '#core/foods/search'
import { toldAtUse } from '#core/safety'
import { BOOK } from '../../support/foods'

const ALL = [...BOOK.foods, ...BOOK.goods]
const search = foodSearch(ALL)
/** Whether a food tells of an allergen: that it holds it, or that nobody knows and who does. */
const tells = (allergens: readonly string[], allergen: string) => allergens.some(name => name === allergen || name.startsWith('unknown: '))

/** Dishes, grains and goods by what they hold as a rule (common practice; EU 1169/2011 Annex II for which are allergens, from memory). */
const DISHES: Record<string, string> = {
  gluten:
    "couscous bulgur bulghur barley;pearl barley;freekeh;farro;spelt;cracked wheat;wheat berries;wheat;rye grain;pasta;spaghetti;macaroni;penne;noodles;ramen noodles;egg noodle;tagliatelle;fettuccine;spaetzle;orzo;fusilli;lasagne;cannelloni;ravioli;gnocchi;dumpling;bread;toast;croutons;panko;bagel;baguette;brioche;breadcrumbs;sourdough;wheat flour;plain flour;couscous;bulgur;burrito;pizza;pancake;waffle;cake;biscuit;cookie;pie;quiche;schnitzel;chicken nugget;fish finger;fish cake;meatballs;meatloaf;burger;hamburger patty;stuffing;seitan;veggie burger;soy sauce;teriyaki;granola;muesli;cereal;macaroni cheese;mac and cheese;beef stew;gravy;stock powder;bouillon;ramen;moussaka;shepherd's pie;sausage;hot dog;frankfurter;corn bread;tabbouleh;falafel;crab stick;surimi;enchilada;dumplings;casserole with pasta;tuna casserole;tostones crumb;chowder;cream soup;bake;cheese pasta;pudding",
  milk: 'whole milk;raw milk;skimmed milk;goat milk;kefir;buttermilk;yoghurt;greek yogurt;cottage cheese;ricotta;quark;paneer;sour cream;creme fraiche;cream cheese;mascarpone;mozzarella;cheddar;parmesan;gouda;hard cheese;cheese;ice cream;gelato;frozen yogurt;scalloped potatoes;mashed potato;mashed potatoes;instant potato;potato gratin;creamed corn;quiche;lasagne;macaroni cheese;mac and cheese;pizza;pancake;waffle;cake;custard;pudding;rice pudding;milkshake;cream soup;chowder;potato soup;pesto;risotto;cheese pasta;omelette;scrambled eggs with milk;skyr;labneh;ayran;lassi;clotted cream;overnight oats;moussaka;cannelloni;tuna casserole;ice cream sandwich;smoothie;dip;spread;dressing;pizza cheese;burrata;soft cheese;curd;butter milk;ewe milk;2% milk',
  egg: 'egg;whole egg;egg white;egg yolk;omelette;frittata;scrambled eggs;quiche;quiche filling;egg pasta;egg noodles;fresh pasta;tagliatelle;mayonnaise;custard;cake;pancake;waffle;meatballs;meatloaf;fried rice;ice cream;potato salad;coleslaw;fish cake;schnitzel;gnocchi;ramen noodles',
  fish: 'cod;haddock;white fish;salmon;trout;mackerel;herring;sardine;anchovy;tuna;tinned tuna;tuna steak;tinned sardines;tilapia;hake;halibut;sole;plaice;fish cake;fish finger;sushi;paella;fish stock;bonito;pilchard;sprat;surimi',
  crustacean: 'shrimp;prawn;scampi;crab;crab meat;lobster;crayfish;langoustine;paella;gumbo stew;crab cake',
  mollusc: 'mussel;clam;oyster;squid;calamari;octopus;scallop;paella',
  soya: 'tofu;tempeh;edamame;soybean;soy sauce;teriyaki;veggie burger;meat substitute;bean curd;silken tofu',
  celery:
    'celery;celeriac;celery leaf;celery salt;celery root;vegetable stock;bouillon;stock;soup;tomato soup;minestrone;bolognese;ragu;stew;marinara;pasta sauce;spaghetti sauce;curry paste;relish',
  mustard:
    'mustard;mustard seed;mustard powder;mustard greens;dill pickle;pickle;pickled cucumber;pickled vegetables;mayonnaise;dressing;barbecue sauce;potato salad;coleslaw;curry;curry sauce;ketchup;salsa;enchilada sauce;pizza sauce;taco meat',
  sesame: 'hummus;houmous;sesame;sesame seed;falafel',
}
const LIST = Object.entries(DISHES).flatMap(([allergen, dishes]) => dishes.split(';').map(dish => [dish.trim(), allergen] as const))

describe('no name hides an allergen', () => {
  it('has some three hundred dishes and goods to ask', () => expect(LIST.length).toBeGreaterThan(280))
  it.each(Object.keys(DISHES))('%s', allergen => {
    const hidden = LIST.flatMap(([dish, of]) => {
      const [first] = of === allergen ? search(dish) : []
      return first && !tells(first.allergens, allergen) ? [`${dish} → ${first.name}`] : []
    })
    expect(hidden).toEqual([])
  })
  /** Words in a name that say what is in it, with the names in which they do not. */
  const WORDS: [RegExp, string, RegExp?][] = [
    [
      /\b(bread|pasta|noodle|couscous|bulgh?ur|barley|wheat|rye|spaghetti|macaroni|flour|cake|pie|burger|biscuit)s?\b/i,
      'gluten',
      /squash|vegetable spaghetti|pumpkin|plant|cherry|maize|corn|pie/i,
    ],
    [
      /\b(milk|cream|cheese|yog(h)?urt|butter|curds?)\b/i,
      'milk',
      /butter ?bean|apple butter|butter lettuce|bean[- ]curd|soy curd|pumpkin|coconut|buttercup/i,
    ],
    [/\b(eggs?|omelet(te)?|mayonnaise|quiche)\b/i, 'egg', /egg ?plant|egg mushroom|garden egg/i],
    [/\b(fish|cod|salmon|tuna|mackerel|sardines?|herring|anchov(y|ies))\b/i, 'fish', /shellfish|crayfish/i],
    [/\b(soya?|tofu|edamame|tempeh)\b/i, 'soya'],
    [/\b(sesame|tahini|hummus)\b/i, 'sesame'],
    [/\b(celery|celeriac)\b/i, 'celery', /wild celery/i],
    [/\bmustard\b/i, 'mustard', /sea mustard/i],
    [
      /\b(soup|sauce|stew|casserole|meatballs?|meatloaf|gratin|scalloped|salad|dip|dressing|gravy|stock)s?\b/i,
      'celery',
      /sea mustard|salad (onion|tomato)|tomato sauce|apple ?sauce|stew(ed|ing)? (apple|beef)|seed stock|beef stew/i,
    ],
  ]
  it('by the words in every name of every food', () => {
    const hidden = ALL.flatMap(food =>
      [food.name, ...food.otherNames, ...food.foundBy].flatMap(name =>
        WORDS.flatMap(([word, allergen, but]) =>
          word.test(name) && !but?.test(name) && !tells(food.allergens, allergen) ? [`${name} → ${food.name}: ${allergen}`] : [],
        ),
      ),
    )
    expect(hidden).toEqual([])
  })
  it('poisonous and wild namesakes find nothing that is not warned of', () => {
    for (const name of ['buckthorn berry', 'field mushroom', 'wild mushroom', 'black elder', 'ramp leaf', 'raw milk', 'false morel']) {
      const [first] = search(name)
      if (!first || first.name.toLowerCase() === name) continue
      expect([name, first.name, first.traits.includes('wild') || first.cautions.some(({ step }) => step === 'intake')]).toEqual([
        name,
        first.name,
        true,
      ])
    }
  })
  it('every key of the names is a food', () => {
    const keys = readFileSync('core/foods/data/names.yaml', 'utf8').match(/^[a-z-]+(?=:)/gm)!
    expect(keys.filter(key => !BOOK.find(key))).toEqual([])
  })
})

describe('what infants may not have of it', () => {
  it.each(['carrot', 'pumpkin', 'butternut', 'winter-squash', 'zucchini', 'green-bean', 'beetroot', 'beet-greens', 'spinach', 'chard'])(
    '%s carries nitrate to its label',
    key => expect(toldAtUse(BOOK.find(key)!).label).toContain('Not for infants: nitrate'),
  )
  it('nothing is made for babies', () => {
    const texts = BOOK.schools.flatMap(question => question.schools.map(({ reason }) => reason))
    expect(texts.filter(text => /baby food/.test(text))).toEqual([])
  })
})

describe('schools of a food', () => {
  const schools = (foodKey: string, question: string) =>
    questionsOf(BOOK.schools, BOOK.find(foodKey)!).find(({ key }) => key === question)?.schools ?? []
  it('none is offered, nor taken, that the food forbids', () => {
    const forbidding = BOOK.foods.filter(({ forbids }) => Object.keys(forbids).length > 0)
    expect(forbidding.map(({ key }) => key).sort()).toEqual(['cassava', 'taro', 'true-yam'])
    for (const food of forbidding)
      for (const [question, keys] of Object.entries(food.forbids))
        for (const school of keys) {
          expect(schools(food.key, question).map(({ key }) => key)).not.toContain(school)
          expect(Object.keys(food.schoolEffects)).not.toContain(`${question}/${school}`)
        }
  })
  it('one is the default, and no other says that it is', () => {
    for (const food of BOOK.foods)
      for (const question of questionsOf(BOOK.schools, food)) {
        const said = question.schools.map(({ reason }) => /^The default/.test(reason))
        expect([food.key, question.key, said.slice(1).filter(Boolean)]).toEqual([food.key, question.key, []])
      }
    expect(schools('potato', 'blanch')[0]).toMatchObject({ key: 'blanch', reason: expect.stringMatching(/^The default here\. /) })
    expect(schools('carrot', 'blanch')[0]).toMatchObject({ key: 'skip', reason: expect.stringMatching(/^The default for powder/) })
  })
})
