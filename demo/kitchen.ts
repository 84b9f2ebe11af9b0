import { uuidv7 } from 'uuidv7'
import { jarsHolding } from '#server/db/jars'
import { saveRecipe } from '#server/services/recipes'
import { logOnJar } from '#server/services/writeLog'
import type { Recipe } from '#shared/contracts'
import type { Context } from '#server/services/context'
import type { Deed, Stage } from './write'

const DAY = 86_400_000
const RUB = uuidv7()

const RECIPES: Recipe[] = [
  {
    id: RUB,
    kind: 'blend',
    name: 'Ember rub',
    heat: { low: 4000, high: 7000 },
    parts: [
      { foodKey: 'dried-mild-chili', amount: { by: 'weight', grams: 36 } },
      { foodKey: 'hot-chili', amount: { by: 'weight', grams: 6 } },
      { foodKey: 'cumin', amount: { by: 'vessel', count: 1, vessel: 'tablespoon' }, toasted: true, fixed: true },
      { foodKey: 'dried-oregano', amount: { by: 'vessel', count: 1, vessel: 'tablespoon' }, fixed: true },
      { foodKey: 'garlic', amount: { by: 'weight', grams: 6 }, fixed: true },
      { foodKey: 'salt', amount: { by: 'weight', grams: 8 }, fixed: true },
    ],
  },
  {
    id: uuidv7(),
    kind: 'blend',
    name: 'Garden all-sorts',
    note: 'Whatever is over; no salt, so that it suits every pot.',
    parts: ['carrot', 'celery', 'kale', 'onion', 'tomato', 'parsley'].map(foodKey => ({
      foodKey,
      amount: { by: 'weight' as const, grams: foodKey === 'parsley' ? 4 : 10 },
    })),
  },
  {
    id: uuidv7(),
    kind: 'dish',
    name: 'Pumpkin flatbreads',
    serves: 'eight',
    powders: [{ foodKey: 'pumpkin', amount: { by: 'product', grams: 240, product: 'puree' }, rehydrate: true }],
    others: ['300 g flour', '5 g salt', '1 teaspoon baking powder', 'oil for the pan'],
    steps: [
      'The pumpkin has its water back first, or the dough ends too dry.',
      'Knead it with flour, salt and baking powder; leave it half an hour.',
      'Roll out eight rounds and bake them in a hot pan, two minutes a side.',
    ],
  },
  {
    id: uuidv7(),
    kind: 'dish',
    name: 'Red lentil pot',
    serves: 'four bowls',
    note: 'The chili goes in by taste, last.',
    powders: [
      { foodKey: 'tomato', amount: { by: 'product', grams: 170, product: 'paste' }, rehydrate: true },
      { foodKey: 'onion', purpose: 'powder', amount: { by: 'fresh', grams: 110 } },
      { foodKey: 'celery', amount: { by: 'vessel', count: 2, vessel: 'teaspoon' } },
      { foodKey: 'garlic', amount: { by: 'fresh', grams: 8 } },
    ],
    others: ['250 g red lentils', '1.1 L water', 'salt, since the powders have none'],
    steps: [
      'Stir the tomato paste together and let it stand.',
      'Simmer the lentils in the water with onion, celery and garlic, 15 minutes.',
      'Stir in the paste, salt it, and simmer five minutes more.',
    ],
  },
]

export function writeRecipes(context: Context): void {
  for (const recipe of RECIPES) saveRecipe(context, recipe)
}

/** Spices of the market, and the rub that was made with them. */
export function* inTheKitchen({ context, now }: Stage): Generator<Deed> {
  const bought = (daysAgo: number, foodKey: string, netG: number, price: number): Deed => {
    const at = Math.round(now - daysAgo * DAY)
    const jarId = uuidv7()
    return {
      at,
      act: () => {
        logOnJar(context, jarId, {
          id: uuidv7(),
          at,
          body: {
            kind: 'stock',
            jarId,
            foodKey,
            purpose: 'powder',
            netG,
            price,
            source: 'Spice stall',
            packageKey: 'screw-jar',
            place: 'By the stove',
            sizeMl: 100,
          },
        })
      },
    }
  }
  yield bought(6.4, 'cumin', 45, 2.2)
  yield bought(6.39, 'dried-oregano', 18, 1.9)
  yield bought(6.38, 'salt', 620, 1.1)
  yield bought(6.37, 'smoked-paprika', 55, 3.4)
  const at = Math.round(now - 5.2 * DAY)
  yield {
    at,
    act: () => {
      const jarId = uuidv7()
      const from = (foodKey: string, weightG: number, toastedG?: number) =>
        jarsHolding(context.db, foodKey, 'powder', 99)
          .filter(jar => jar.left_g > weightG)
          .slice(0, 1)
          .map(jar => ({ jarId: jar.jar_id, weightG, ...(toastedG !== undefined && { toastedG }) }))
      logOnJar(context, jarId, {
        id: uuidv7(),
        at,
        body: {
          kind: 'fill',
          jarId,
          packageKey: 'screw-jar',
          place: 'By the stove',
          sizeMl: 150,
          blend: { name: 'Ember rub', recipeId: RUB },
          from: [
            ...from('dried-mild-chili', 36),
            ...from('hot-chili', 6),
            ...from('cumin', 6.8, 6.4),
            ...from('dried-oregano', 2.7),
            ...from('garlic', 6),
            ...from('salt', 8),
          ],
        },
      })
    },
  }
}
