import { capital } from '../text'
import { cycleRange, USUAL_DEPTH_MM } from '../freezing'
import { pacePerHour } from '../kinetics'
import { hoursFactor, STANDARD_WAY, WAYS, type WayKey } from '../ways'
import { parseRange, parseSpread } from './amounts'
import type { CardSource, FamilySource, FoodSource, FormSource, OwnCardSource, ReferenceSource } from './source'
import { questionsFrom } from './schools'
import type { CardStep, CardWay, Food, MethodCard, Purpose, Range, SchoolEffects, Sourced, Spread } from './types'

/** "From memory" marks what was not open on the desk when it was written down. */
const USDA = 'USDA FoodData Central, water content, from memory'
export const PRACTICE = 'common practice'
/** Minutes of hands a kilogram of the basket. */
const USUAL_HANDS = 10
const EXTENSION = 'extension guidance on drying foods, from memory'

/** Spoiled by a slip in a file: the key of the food and what is wrong. */
const slip = (food: FoodSource, message: string) => new Error(`${food.key}: ${message}`)

/**
 * A food in full from what a file says of it, with its family and forms filled in.
 * @param own cards of the household for it
 * @throws Error for a file that was not checked before: an unknown family or form, an amount that is none
 */
export function expandFood(
  food: FoodSource,
  reference: Pick<ReferenceSource, 'families' | 'forms'> & Partial<Pick<ReferenceSource, 'names' | 'schools' | 'measures'>>,
  options: { own?: boolean; ownCards?: readonly OwnCardSource[] } = {},
): Food {
  const family = reference.families[food.family]
  if (!family) throw slip(food, `no family “${food.family}”`)
  const percent = (text: string): Spread => {
    const { mean, sd } = spread(food, text)
    return { mean: mean / 100, sd: sd / 100 }
  }
  const cards = [
    ...Object.entries(food.forms).map(([form, card]) => expandCard(food, family, reference.forms, form, card, options.own ?? false)),
    ...(options.ownCards ?? []).map(card => expandCard(food, family, reference.forms, card.form, card, true)),
  ]
  const target = { ...family.target, ...food.target }
  const each = <T>(make: (purpose: Purpose) => T): Record<Purpose, T> => ({
    pieces: make('pieces'),
    flakes: make('flakes'),
    powder: make('powder'),
  })
  return {
    key: food.key,
    name: food.name,
    otherNames: food.others ?? [],
    foundBy: reference.names?.[food.key] ?? [],
    group: food.family,
    groupName: family.name,
    isotherm: food.isotherm ?? family.isotherm,
    fat: (food.fat ?? 0) / 100,
    ...(food.salt !== undefined && { saltShare: food.salt / 100 }),
    rawMoisture: { value: percent(food.water), source: food.waterSource ?? USDA },
    ...(food.uncooked && { uncooked: { value: percent(food.uncooked), source: USDA } }),
    ...measure(food, 'each', reference.measures?.each[food.key]),
    ...measure(food, 'litre', reference.measures?.litre[food.key] ?? reference.measures?.litre[food.family]),
    trimShare: { value: percent(food.trim), source: PRACTICE },
    freshDays: { value: food.waits, source: PRACTICE },
    handsMinutesKg: { value: food.hands ?? family.hands ?? USUAL_HANDS, source: PRACTICE },
    cards,
    target: each(purpose => target[purpose] / 100),
    targetSource: EXTENSION,
    drynessTest: { value: food.dry ?? family.dry, source: food.dry ? PRACTICE : EXTENSION },
    pliable: food.pliable ?? family.pliable ?? false,
    powderColour: food.colour,
    powderDensity: { value: spread(food, food.density ?? family.density), source: PRACTICE },
    keepsMonths: each(purpose => range(food, food.keeps?.[purpose] ?? family.keeps[purpose])),
    keepsReason: food.keepsWhy ?? family.keepsWhy,
    keepsSource: PRACTICE,
    ...(food.heatUnits && { heatUnits: { value: range(food, food.heatUnits), source: 'common practice, from memory' } }),
    ...(food.blanch && { blanch: { value: food.blanch, source: 'extension tables, from memory' } }),
    allergens: food.allergens ?? [],
    traits: food.traits ?? family.traits,
    cautions: food.cautions ?? [],
    schools: (food.schools ?? family.schools).filter(key => key !== 'blanch' || food.blanch).filter(key => key !== 'dip' || food.dip),
    prefer: food.prefer ?? {},
    forbids: food.forbids ?? {},
    schoolEffects: reference.schools ? effectsIn(reference.schools, food.forbids) : {},
    own: options.own ?? false,
  }
}

function expandCard(
  food: FoodSource,
  family: FamilySource,
  forms: Record<string, FormSource>,
  formText: string,
  given: string | CardSource,
  own: boolean,
): MethodCard {
  const [formKey, number] = formText.split(' ')
  const form = forms[formKey!]
  if (!form) throw slip(food, `no form “${formText}”`)
  const card: CardSource = typeof given === 'string' ? { hours: given } : given
  // The number is what is measured of the cut; of a piece it is the side, and the flesh is as thick as the form says.
  const thicknessMm = card.thick ?? form.thick ?? (number ? Number(number) : undefined)
  const name = card.name ?? form.name.replaceAll('{n}', number ?? '')
  const ways = (
    card.ways ??
    form.ways?.filter(way => family.ways.includes(way) || form.ways!.length === 1) ??
    food.ways ??
    family.ways
  ).map(way => wayOfCard(food, family, form, card, way, thicknessMm ?? USUAL_DEPTH_MM))
  const main = ways[0]!
  return {
    key: `${formKey}${number ? `-${number}` : ''}${own && card.name ? `-${slugOf(card.name)}` : ''}`,
    name,
    feelForm: form.feel,
    thicknessMm,
    usualHours: main.usualHours,
    temperatureC: main.temperatureC,
    temperatureReason: main.temperatureReason,
    ways,
    trayLoadKgM2: card.load ? spread(food, card.load) : loadOf(form, thicknessMm ?? USUAL_DEPTH_MM),
    ...part(food, 'trimShare', card.trim ?? form.trim),
    ...part(food, 'moisture', card.water),
    ...part(food, 'afterShare', card.after ?? form.after),
    steps: stepsOf(food, family, form, card, number),
    spread: form.spread,
    portions: form.portions ?? false,
    liquid: form.pourable ?? false,
    raw: card.raw ?? form.uncooked ?? false,
    ...(form.target && { target: shares(form.target) }),
    ...(form.heatAfter && { heatAfter: true }),
    own,
  }
}

/** Percent as shares. */
const shares = (percent: Partial<Record<Purpose, number>>) =>
  Object.fromEntries(Object.entries(percent).map(([purpose, value]) => [purpose, value / 100])) as Partial<Record<Purpose, number>>

/** A weight in grams, where the file says one. */
const measure = <Key extends string>(food: FoodSource, key: Key, text: string | undefined) =>
  text === undefined ? undefined : ({ [key]: { value: spread(food, text), source: PRACTICE } } as Record<Key, Sourced<Spread>>)

const known = new WeakMap<object, Record<string, SchoolEffects>>()
/** What follows from every school of the reference, worked out once: all foods share it. */
/** What follows from each school that the food does not forbid. */
function effectsIn(schools: ReferenceSource['schools'], forbids: FoodSource['forbids'] = {}): Record<string, SchoolEffects> {
  let effects = known.get(schools)
  if (!effects) {
    const list = questionsFrom(schools).flatMap(({ key, schools: of }) =>
      of.map(school => [`${key}/${school.key}`, school.effects ?? {}] as const),
    )
    known.set(schools, (effects = Object.fromEntries(list)))
  }
  const barred = Object.entries(forbids).flatMap(([question, keys]) => keys.map(school => `${question}/${school}`))
  return barred.length === 0 ? effects : Object.fromEntries(Object.entries(effects).filter(([key]) => !barred.includes(key)))
}

/** A share in percent, where the file says one. */
const part = <Key extends string>(food: FoodSource, key: Key, text: string | undefined) =>
  text === undefined
    ? undefined
    : ({ [key]: { value: { mean: spread(food, text).mean / 100, sd: spread(food, text).sd / 100 }, source: PRACTICE } } as Record<
        Key,
        Sourced<Spread>
      >)

function wayOfCard(food: FoodSource, family: FamilySource, form: FormSource, card: CardSource, way: WayKey, thicknessMm: number): CardWay {
  const facts = WAYS[way]
  const heat = card.heat ?? food.heat ?? family.heat
  const heatWhy = card.heatWhy ?? food.heatWhy ?? family.heatWhy
  const { celsius } = facts
  const temperatureC = celsius === undefined ? heat : celsius.least ? Math.max(celsius.value, heat) : celsius.value
  return {
    way,
    temperatureC,
    temperatureReason: celsius === undefined ? heatWhy : facts.reason,
    usualHours: hoursOf(food, family, form, card, way, { heat, temperatureC, thicknessMm }),
    ...(facts.partOnly && { partOnly: true }),
  }
}

/** Hours of a way: as the file says, else by the rule of the way from those in a dehydrator. */
function hoursOf(
  food: FoodSource,
  family: FamilySource,
  form: FormSource,
  card: CardSource,
  way: WayKey,
  heat: { heat: number; temperatureC: number; thicknessMm: number },
): Sourced<Range> {
  const { hours: rule } = WAYS[way]
  // Of a cut that is dried in one way only, the hours are that way's.
  const only = card.ways ?? form.ways ?? []
  const said = card[way] ?? (way === STANDARD_WAY || (only.length === 1 && only[0] === way) ? card.hours : undefined)
  if (said) return { value: range(food, said), source: card.hoursSource ?? PRACTICE }
  if (rule.from === 'pass') return { value: { low: rule.low, high: rule.high }, source: PRACTICE }
  if (rule.from === 'form')
    return { value: cycleOf(food, family, form, card, heat.thicknessMm), source: 'reckoned from load, water and depth' }
  if (!card.hours) throw slip(food, `no hours for ${way}`)
  const hours = range(food, card.hours)
  const factor = factorOf(way, family, heat)
  return {
    value: { low: tidyHours(hours.low * factor), high: tidyHours(hours.high * factor) },
    source: `${PRACTICE}, reckoned from those in a dehydrator`,
  }
}

/** The heat that the factors of the ways are said of, °C: most food's own. */
const FACTORS_AT_C = 57
/** A way's factor at the heat that a food has of its own: leaves at 41 °C gain more by an oven than meat at 68 °C does. */
function factorOf(way: WayKey, family: FamilySource, { heat, temperatureC }: { heat: number; temperatureC: number }): number {
  if (WAYS[way].unheated && !WAYS[way].outdoors && family.stillAir !== undefined) return family.stillAir
  return (hoursFactor(WAYS[way]) * pacePerHour(heat, FACTORS_AT_C)) / pacePerHour(temperatureC, WAYS[way].celsius?.value ?? temperatureC)
}

/** A freeze dryer's cycle with trays as full as the card has them: from frozen solid and all well, to frozen in the machine. */
function cycleOf(food: FoodSource, family: FamilySource, form: FormSource, card: CardSource, thicknessMm: number): Range {
  const raw = card.raw ?? form.uncooked ?? false
  const load = {
    loadG: 1000 * (card.load ? spread(food, card.load) : loadOf(form, thicknessMm)).mean,
    moisture: spread(food, card.water ?? (raw ? food.uncooked : undefined) ?? food.water).mean / 100,
    areaM2: 1,
    thicknessMm,
    liquid: form.pourable ?? false,
    sugary: (food.isotherm ?? family.isotherm) === 'sugaryFruit',
  }
  const { low, high } = cycleRange({ ...load, frozen: load.liquid || raw || undefined })
  return { low: Math.round(low), high: Math.round(high) }
}

const NOTHING_TO_TRIM: readonly string[] = ['egg', 'dairy', 'meat', 'fish', 'meal']

const tidyHours = (hours: number) => (hours < 10 ? Math.round(hours * 2) / 2 : Math.round(hours))

function loadOf(form: FormSource, mm: number): Spread {
  const mean = Math.round(10 * (form.load.base + form.load.perMm * mm)) / 10
  return { mean, sd: Math.round(16 * mean) / 100 }
}

function stepsOf(food: FoodSource, family: FamilySource, form: FormSource, card: CardSource, number: string | undefined): CardStep[] {
  if (card.steps) return card.steps
  const washed = form.washed ?? true
  const steps: CardStep[] = washed ? [{ step: 'wash', words: family.wash }] : []
  // What is poured, or was peeled before it came, has nothing to trim.
  if (
    washed &&
    !NOTHING_TO_TRIM.includes(food.family) &&
    form.feel !== 'sheet' &&
    !form.steps.some(({ step }) => step === 'trim' || step === 'peel')
  ) {
    steps.push({
      step: 'trim',
      words: 'Stems, cores and whatever is soft come off. Weigh what leaves: it says how much of the basket is dried.',
    })
  }
  steps.push(...form.steps.map(step => ({ ...step, words: step.words.replaceAll('{n}', number ?? '') })))
  // What is boiled or cooked before it is cut was blanched by that.
  const cooked = form.steps.some(({ step }) => step === 'boil' || step === 'cook')
  if (food.blanch && !cooked && (form.feel === 'pieces' || form.feel === 'shreds' || form.feel === 'leaves')) {
    const { steam, water, words } = food.blanch
    const ways = [steam === undefined ? undefined : `steam ${steam} min`, water === undefined ? undefined : `boiling water ${water} min`]
      .filter(Boolean)
      .join(' or ')
    steps.push({
      step: 'blanch',
      words: `${capital(ways)}${words ? `, ${words}` : ''}; above 1500 m of altitude a minute more (extension guidance, from memory). Cool in iced water, drain.`,
      minutes: steam ?? water,
      school: 'blanch',
    })
  }
  if (food.dip && form.feel !== 'sheet')
    steps.push({
      step: 'dip',
      words: 'Ten minutes in water with 5 g of citric acid a litre, or four with 6 g of ascorbic acid; drain.',
      minutes: 10,
      school: 'dip',
    })
  const freezes = (card.ways ?? form.ways ?? food.ways ?? family.ways).some(way => WAYS[way].underVacuum)
  if (form.pourable && freezes && !steps.some(({ step }) => step === 'freeze'))
    steps.push({ step: 'freeze', words: 'For a freeze dryer: freeze level until solid, overnight.', minutes: 720 })
  return steps
}

/** A name as the end of a key: "Thin, for tea" is "thin-for-tea". */
export function slugOf(name: string): string {
  return name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 32)
}

function spread(food: FoodSource, text: string): Spread {
  const value = parseSpread(text)
  if (!value) throw slip(food, `“${text}” is not a mean with its spread`)
  return value
}

function range(food: FoodSource, text: string): Range {
  const value = parseRange(text)
  if (!value) throw slip(food, `“${text}” is not a range`)
  return value
}
