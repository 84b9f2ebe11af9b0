import { isOfStandardHours, WAYS, type WayKey } from '#core/ways'
import { isDeepStrictEqual } from 'node:util'
import { foodBook, questionsOf, slugOf, usualOfFamily, type Food, type FoodBook, type FoodSource, type OwnCardSource } from '#core/foods'
import { InputError, type Problem } from '#core/errors'
import { cautionsOf } from '#core/safety'
import type { FoodFile, FoodHoursAnswer, FoodPageAnswer, FoodPartsAnswer, FoodSummary, ImportAnswer } from '#shared/contracts'
import { reference } from '#reference'
import {
  batchIdsOfFood,
  countBatchesOf,
  dropOwnCard,
  dropOwnFood,
  listOwnCards,
  listOwnFoods,
  pickingsOf,
  putOwnCard,
  putOwnFood,
} from '#server/db/foods'
import { blendFood } from '#server/db/jars'
import type { Db } from '#server/db/open'
import { listMachines } from '#server/db/settings'
import type { Context } from './context'
import { reviewsFor } from './insight'
import { basketLearned, densityLearned, hoursOfCard, rawWaterBelieved } from './learning'
import { project } from './projections'
import { Conflict, NotFound } from './refusals'

/** The foods of this household as its tables have them now. */
export function openFoodBook(db: Db): FoodBook {
  const book = foodBook(reference, { foods: listOwnFoods(db).map(item => item.source), cards: listOwnCards(db).map(item => item.source) })
  return { ...book, product: key => book.product(key) ?? blendOf(db, key) }
}

function blendOf(db: Db, key: string): Food | undefined {
  const json = key.startsWith('blend-') ? blendFood(db, key) : undefined
  return json === undefined ? undefined : (JSON.parse(json) as Food)
}

export function foodList({ foods }: Context): FoodSummary[] {
  return foods.foods.map(food => ({
    key: food.key,
    name: food.name,
    otherNames: [...food.otherNames],
    foundBy: [...food.foundBy],
    group: food.group,
    groupName: food.groupName,
    water: food.rawMoisture.value,
    colour: food.powderColour,
    heatUnits: food.heatUnits?.value,
    allergens: [...food.allergens],
    cards: food.cards.map(({ key, name, own }) => ({ key, name, own })),
    own: food.own,
  }))
}

export function foodPage(context: Context, key: string): FoodPageAnswer {
  const { db, foods } = context
  const food = foods.find(key)
  if (!food) throw new NotFound('foodKey', 'There is no such food in the reference.')
  return {
    food,
    schools: questionsOf(foods.schools, food),
    cautions: cautionsOf(food),
    source: foods.sourceOf(key)!,
    reviews: reviewsFor(context, key),
    pickings: pickingsOf(db, key).map(row => ({
      plant: row.plant ?? undefined,
      cultivar: row.cultivar ?? undefined,
      year: row.year,
      baskets: row.baskets,
      weightG: row.grams,
      lastAt: row.last_at,
    })),
    batches: countBatchesOf(db, key),
    version: listOwnFoods(db).find(item => item.source.key === key)?.version,
    ownLots: ownLots(context, food),
  }
}

/** Usual hours of each cut in each machine that dries it, from card and own runs: the same figures as at intake and loading. */
export function foodHours(context: Context, key: string): FoodHoursAnswer {
  const food = context.foods.find(key)
  if (!food) throw new NotFound('foodKey', 'There is no such food in the reference.')
  return {
    machines: listMachines(context.db).flatMap(machine => {
      const cards = food.cards.filter(card => card.ways.some(way => way.way === machine.kind))
      return cards.length === 0
        ? []
        : [
            {
              machineId: machine.id,
              name: machine.name,
              cards: Object.fromEntries(cards.map(card => [card.key, hoursOfCard(context, machine.id, food, card)])),
            },
          ]
    }),
  }
}

/** What own lots of a food say beside the reference; undefined where there are none. */
function ownLots(context: Context, food: Food): FoodPageAnswer['ownLots'] {
  const learned = basketLearned(context, food)
  const cards = food.cards.flatMap(({ key, name }) => {
    const dry = learned.dry(key)
    return dry ? [{ cardKey: key, name, dry: dry.factor, lots: dry.lots }] : []
  })
  const water = rawWaterBelieved(context, food, { card: '' })
  const density = densityLearned(context, food)
  return water || density || cards.length > 0 ? { water, cards, density } : undefined
}

/** Families and forms to choose from. */
export function foodParts(): FoodPartsAnswer {
  return {
    families: Object.entries(reference.families).map(([key, { name }]) => ({
      key,
      name,
      usual: usualOfFamily(reference.foods.filter(food => food.family === key)),
    })),
    forms: Object.entries(reference.forms).map(([key, { name }]) => ({ key, name })),
  }
}

/** The household's own foods and cards as a file, or one food of the reference to begin a file with. */
export function exportFoods({ db, foods }: Context, key?: string): FoodFile {
  if (key !== undefined) {
    const source = foods.sourceOf(key)
    if (!source) throw new NotFound('foodKey', 'There is no such food in the reference.')
    return { dulse: 'foods 1', foods: [source] }
  }
  return { dulse: 'foods 1', foods: listOwnFoods(db).map(item => item.source), cards: listOwnCards(db).map(item => item.source) }
}

/**
 * Takes in foods and cards, all or nothing. An own food with a key that is there is replaced.
 * @throws InputError naming each field, such as `foods.2.name`
 */
export function importFoods(context: Context, file: FoodFile): ImportAnswer {
  const { db } = context
  return db
    .transaction(() => {
      const before = { foods: listOwnFoods(db).map(item => item.source), cards: listOwnCards(db).map(item => item.source) }
      const problems = problemsOf(file, before)
      if (problems.length > 0) throw new InputError(problems)
      const known = new Set(before.foods.map(food => food.key))
      for (const food of file.foods ?? []) putOwnFood(db, food)
      for (const card of file.cards ?? []) putOwnCard(db, cardKeyOf(card), card)
      refresh(context, [...(file.foods ?? [])].map(food => food.key).concat((file.cards ?? []).map(card => card.food)))
      return {
        foods: file.foods?.length ?? 0,
        cards: file.cards?.length ?? 0,
        replaced: (file.foods ?? []).filter(food => known.has(food.key)).length,
      }
    })
    .immediate()
}

/** Saves one own food, new or changed. A change names the version that it was made on. */
export function saveFood(context: Context, source: FoodSource, version?: number): FoodPageAnswer {
  const { db } = context
  const known = listOwnFoods(db).find(item => item.source.key === source.key)
  if (known && version !== known.version && !isDeepStrictEqual(known.source, source))
    throw new Conflict('This food was changed meanwhile, or another one has this key. Open it again.', [
      { field: 'key', code: 'under-key', message: `There is “${known.source.name}” under this key.` },
    ])
  strip(() => importFoods(context, { dulse: 'foods 1', foods: [source] }), 'foods.0.')
  return foodPage(context, source.key)
}

/** Saves one own card of a food. */
export function saveCard(context: Context, source: OwnCardSource): FoodPageAnswer {
  strip(() => importFoods(context, { dulse: 'foods 1', cards: [source] }), 'cards.0.')
  return foodPage(context, source.food)
}

/** Takes an own food or card away; one that batches rest on stays. */
export function removeOwn(context: Context, foodKey: string, cardKey?: string): void {
  const { db } = context
  db.transaction(() => {
    if (countBatchesOf(db, foodKey, cardKey) > 0)
      throw new Conflict('Batches rest on it: it stays. Its name can be changed.', [
        { field: 'foodKey', code: 'in-use', message: 'Batches rest on it: it stays. Its name can be changed.' },
      ])
    if (cardKey === undefined && listOwnCards(db).some(item => item.source.food === foodKey))
      throw new Conflict('It has cards of its own: take them away first.', [
        { field: 'foodKey', code: 'in-use', message: 'It has cards of its own: take them away first.' },
      ])
    if (!(cardKey === undefined ? dropOwnFood(db, foodKey) : dropOwnCard(db, foodKey, cardKey)))
      throw new NotFound('foodKey', 'There is no such food or card of your own; those of the reference stay.')
    refresh(context, [])
  }).immediate()
}

/** Opens the book anew and works out again what rests on the foods. */
function refresh(context: Context, keys: readonly string[]): void {
  context.foods = openFoodBook(context.db)
  for (const key of new Set(keys)) for (const batchId of batchIdsOfFood(context.db, key)) project(context, batchId)
}

function strip(act: () => unknown, prefix: string): void {
  try {
    act()
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    throw new InputError(
      error.problems.map(problem => ({
        ...problem,
        field: problem.field.startsWith(prefix) ? problem.field.slice(prefix.length) : problem.field,
      })),
    )
  }
}

const formOf = (text: string) => text.split(' ')[0]!
/** As the card will be called in logs. */
const cardKeyOf = (card: OwnCardSource) => `${card.form.replace(' ', '-')}${card.name ? `-${slugOf(card.name)}` : ''}`
const named = (name: string) => name.normalize('NFC').trim().toLowerCase()

/** What is wrong with a file beyond its shape: families, forms and hours that are missing, names that are taken. */
function problemsOf(file: FoodFile, own: { foods: readonly FoodSource[]; cards: readonly OwnCardSource[] }): Problem[] {
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, code: 'food-file', message })
  const families = Object.keys(reference.families)
  const forms = Object.keys(reference.forms)
  const referenceKeys = new Map(reference.foods.map(food => [food.key, food.name]))
  const coming = file.foods ?? []
  const others = own.foods.filter(food => !coming.some(item => item.key === food.key))
  const names = new Map([...reference.foods, ...others].map(food => [named(food.name), food.name]))
  const keys = new Set<string>()
  coming.forEach((food, i) => {
    const at = `foods.${i}`
    if (referenceKeys.has(food.key))
      say(`${at}.key`, `“${food.key}” is ${referenceKeys.get(food.key)!} of the reference: give yours a key of its own.`)
    if (keys.has(food.key)) say(`${at}.key`, `Two foods have the key “${food.key}”.`)
    keys.add(food.key)
    if (names.has(named(food.name)))
      say(`${at}.name`, `There is “${names.get(named(food.name))!}” already: two foods of one name cannot be told apart.`)
    names.set(named(food.name), food.name)
    const family = reference.families[food.family]
    if (!family) say(`${at}.family`, `There is no family “${food.family}”: ${families.join(', ')}.`)
    for (const [form, card] of Object.entries(food.forms))
      checkForm(
        `${at}.forms.${form}`,
        form,
        typeof card === 'string' ? { hours: card } : card,
        (typeof card === 'string' ? undefined : card.ways) ?? food.ways ?? family?.ways ?? [],
      )
    for (const school of food.schools ?? [])
      if (!reference.schools[school])
        say(`${at}.schools`, `There is no question “${school}”: ${Object.keys(reference.schools).join(', ')}.`)
  })
  function checkForm(field: string, form: string, card: { hours?: string }, ways: readonly WayKey[]) {
    const known = reference.forms[formOf(form)]
    if (!known) return say(field, `There is no form “${formOf(form)}”: ${forms.join(', ')}.`)
    if (known.name.includes('{n}') && !form.includes(' ')) say(field, `“${form}” needs a number, such as “${form} 6”.`)
    const needs = (known.ways ?? ways).filter(way => isOfStandardHours(WAYS[way]) && !(way in card))
    if (!card.hours && needs.length > 0) say(`${field}`, 'Hours are missing, such as “8 to 13”.')
  }
  const cardKeys = new Set<string>()
  ;(file.cards ?? []).forEach((card, i) => {
    const at = `cards.${i}`
    const food = reference.foods.find(item => item.key === card.food) ?? [...others, ...coming].find(item => item.key === card.food)
    if (!food) return say(`${at}.food`, `There is no food “${card.food}”.`)
    checkForm(`${at}.form`, card.form, card, card.ways ?? food.ways ?? reference.families[food.family]?.ways ?? [])
    const key = cardKeyOf(card)
    const taken = Object.keys(food.forms).some(form => form.replace(' ', '-') === key)
    if (taken || cardKeys.has(`${card.food}/${key}`))
      say(`${at}.name`, `${food.name} has a card “${card.form}” already: give yours a name.`)
    cardKeys.add(`${card.food}/${key}`)
  })
  return problems
}
