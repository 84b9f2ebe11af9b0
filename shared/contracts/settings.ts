import * as z from 'zod'
import { freshHousehold, LOCALES } from '../choices'
import { TODO_KINDS } from '#core/planning'
import { WAY_KEYS } from '#core/ways'
import { id, instant, text } from './parts'

const FRESH = freshHousehold()
const minuteOfDay = z.number({ error: 'Give a time of day.' }).int().min(0).max(1439, 'A day has 1439 minutes after its first.')

export const timeZone = z
  .string()
  .max(60)
  .refine(name => {
    try {
      return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }))
    } catch {
      return false
    }
  }, 'This is not a time zone. Write a name such as Europe/Lisbon.')

export const householdSettings = z
  .strictObject({
    name: text(80),
    timeZone,
    weightUnit: z.enum(['g', 'oz'], { error: 'Choose grams or ounces.' }),
    temperatureUnit: z.enum(['C', 'F'], { error: 'Choose °C or °F.' }),
    clockHours: z.union([z.literal(12), z.literal(24)], { error: 'Choose 12 or 24 hours.' }),
    sleepFrom: minuteOfDay,
    sleepTo: minuteOfDay,
    pantryC: z.number({ error: 'Give a temperature.' }).min(-30, 'At least −30 °C.').max(45, 'At most 45 °C.'),
    /** Where the jars stand, 0–1: what a lid lets in goes by it. */
    pantryHumidity: z
      .number({ error: 'Give the humidity of the pantry.' })
      .min(0.05, 'At least 5 %.')
      .max(0.95, 'At most 95 %.')
      .default(FRESH.pantryHumidity),
    jarMl: z.number({ error: 'Give a volume in mL.' }).int('Whole mL.').min(10, 'At least 10 mL.').max(10_000, 'At most 10 L.'),
    /** Sign of the household's money, its price of a kWh, and what an hour of its hands is worth. */
    money: z
      .string({ error: 'Give the sign of your money.' })
      .trim()
      .min(1, 'Give the sign of your money.')
      .max(6, 'At most 6 characters.')
      .default(FRESH.money),
    kwhPrice: z
      .number({ error: 'Give the price of a kWh.' })
      .min(0, 'A price is not negative.')
      .max(100_000, 'Check this figure.')
      .default(FRESH.kwhPrice),
    hourWorth: z
      .number({ error: 'Give the worth of an hour, or 0.' })
      .min(0, 'Not below zero.')
      .max(100_000, 'Check this figure.')
      .default(FRESH.hourWorth),
    /** Spoons and cups of the kitchen, and how dates are written. */
    measures: z.enum(['us', 'metric'], { error: 'Choose US or metric spoons and cups.' }).default(FRESH.measures),
    locale: z.enum(LOCALES, { error: `Choose how dates are written: ${LOCALES.join(', ')}.` }).default(FRESH.locale),
    /** Where it lives, degrees north and east: by it the sun's hours; by its clock where it is not given. */
    latitude: z.number({ error: 'Give degrees north.' }).min(-90, 'At least −90°.').max(90, 'At most 90°.').nullish(),
    longitude: z.number({ error: 'Give degrees east.' }).min(-180, 'At least −180°.').max(180, 'At most 180°.').nullish(),
    /** The version that the change was made on. */
    version: z.number().int().min(1),
  })
  .refine(({ latitude, longitude }) => (typeof latitude === 'number') === (typeof longitude === 'number'), {
    path: ['longitude'],
    message: 'Degrees north and east go together: give both, or neither.',
  })
  .refine(settings => settings.sleepFrom !== settings.sleepTo, {
    path: ['sleepTo'],
    message: 'A night needs some length: choose another time.',
  })
export type HouseholdSettings = z.infer<typeof householdSettings>

const { version: householdVersion, ...choices } = householdSettings.shape
/** A change of some of it: what is left out stays as it is. */
export const householdChange = z.strictObject({
  ...z
    .object({
      ...choices,
      money: choices.money.unwrap(),
      kwhPrice: choices.kwhPrice.unwrap(),
      hourWorth: choices.hourWorth.unwrap(),
      pantryHumidity: choices.pantryHumidity.unwrap(),
      measures: choices.measures.unwrap(),
      locale: choices.locale.unwrap(),
    })
    .partial().shape,
  version: householdVersion,
})
export type HouseholdChange = z.infer<typeof householdChange>

export const machineSettings = z
  .strictObject({
    id,
    name: text(80),
    kind: z.enum(WAY_KEYS, { error: 'Choose a kind of machine.' }),
    trays: z.number({ error: 'Give the number of trays.' }).int('Whole trays.').min(1, 'At least one tray.').max(40, 'At most 40 trays.'),
    trayAreaM2: z
      .number({ error: 'Give the area of a tray.' })
      .positive('The area must be above zero.')
      .min(0.001, 'Under 10 cm² no food lies: check the unit.')
      .max(2, 'At most 2 m² a tray.'),
    trayTareG: z.number({ error: 'Give the weight of an empty tray.' }).min(0, 'Not below zero.').max(5000, 'At most 5 kg.'),
    /** Grams of single trays that differ from the usual, by the place they belong to. */
    trayTares: z
      .record(z.string(), z.number({ error: 'Give the weight of the tray.' }).min(0, 'Not below zero.').max(5000, 'At most 5 kg.'))
      .refine(tares => Object.keys(tares).every(tray => /^([1-9]|[1-3]\d|40)$/.test(tray)), 'Trays count from 1 to 40.')
      .default({}),
    watts: z.number({ error: 'Give the rated power in watts.' }).int('Whole watts.').min(1, 'At least 1 W.').max(20_000, 'At most 20 kW.'),
    lowC: z.number({ error: 'Give the lowest setting.' }).min(0, 'At least 0 °C.').max(200, 'At most 200 °C.'),
    highC: z.number({ error: 'Give the highest setting.' }).max(250, 'At most 250 °C.'),
    /** Ice that a freeze dryer holds in a load, g. */
    iceG: z.number({ error: 'Give the ice that it holds.' }).positive('Above zero.').max(100_000, 'At most 100 kg.').optional(),
    /** Absent for a new machine. */
    version: z.number().int().min(1).optional(),
  })
  .refine(machine => machine.highC > machine.lowC, { path: ['highC'], message: 'The highest setting must be above the lowest.' })
export type MachineSettings = z.infer<typeof machineSettings>

/** A grinder with its cup, or a sieve with its opening. */
export const toolSettings = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      id,
      kind: z.literal('grinder'),
      name: text(80),
      cupMl: z.number({ error: 'Give the cup’s volume in mL.' }).min(20, 'At least 20 mL.').max(5000, 'At most 5 L.'),
      watts: z.number({ error: 'Give the power in watts.' }).min(20, 'At least 20 W.').max(3000, 'At most 3 kW.'),
      cupCm: z.number({ error: 'Give the cup’s height in cm.' }).min(2, 'At least 2 cm.').max(40, 'At most 40 cm.'),
      fineness: z.enum(['coarse', 'fine', 'flour'], { error: 'Say how fine it grinds.' }),
      /** Only for this: nothing of it gets into the coffee. */
      dedicated: z.boolean().optional(),
      version: z.number().int().min(1).optional(),
    }),
    z.strictObject({
      id,
      kind: z.literal('sieve'),
      name: text(80),
      openingUm: z.number({ error: 'Give the opening in µm.' }).min(20, 'At least 20 µm.').max(10_000, 'At most 10 mm.'),
      version: z.number().int().min(1).optional(),
    }),
  ],
  { error: 'Choose a grinder or a sieve.' },
)
export type ToolSettings = z.infer<typeof toolSettings>

/** What the shelf should hold of a food at least, and what the shop asks; null takes it back. */
export const foodWish = z.strictObject({
  foodKey: text(60),
  leastG: z
    .number({ error: 'Give a weight in grams.' })
    .positive('Above zero, or nothing.')
    .max(1_000_000, 'That is over a tonne.')
    .nullable()
    .optional(),
  shopPerKg: z
    .number({ error: 'Give the shop’s price a kilogram.' })
    .positive('Above zero, or nothing.')
    .max(1_000_000, 'Check this figure.')
    .nullable()
    .optional(),
})
export type FoodWish = z.infer<typeof foodWish>

/** A hygrometer for jars and what it showed over salt, 0–1. */
export const hygrometerSettings = z.strictObject({
  id,
  name: text(80),
  readings: z
    .array(
      z.strictObject({
        salt: z.enum(['lithium-chloride', 'magnesium-chloride', 'magnesium-nitrate', 'sodium-chloride', 'potassium-chloride'], {
          error: 'Choose a salt of the list.',
        }),
        shown: z.number({ error: 'Give what it showed as a share from 0 to 1.' }).min(0.01, 'At least 1 %.').max(0.99, 'At most 99 %.'),
      }),
    )
    .max(5, 'At most five salts.'),
  /** Absent for a new one. */
  version: z.number().int().min(1).optional(),
})
export type HygrometerSettings = z.infer<typeof hygrometerSettings>

export const forecastQuestion = z.strictObject({
  foodKey: text(40),
  cardKey: text(80),
  weighed: z.enum(['uncooked', 'cooked'], { error: 'Say whether it was weighed uncooked or cooked.' }).optional(),
  /** Other foods among it, as “serrano:500,poblano:300”, in grams. */
  mix: z
    .string()
    .max(800)
    .regex(/^[a-z0-9-]+:\d+(\.\d+)?(,[a-z0-9-]+:\d+(\.\d+)?)*$/, 'Write the other foods such as “serrano:500,poblano:300”, in grams.')
    .transform(text =>
      text.split(',').map(part => {
        const [foodKey, grams] = part.split(':') as [string, string]
        return { foodKey, weightG: Number(grams) }
      }),
    )
    .optional(),
  purpose: z.enum(['pieces', 'flakes', 'powder'], { error: 'Choose pieces, flakes or powder.' }),
  weightG: z.coerce
    .number({ error: 'Give a weight in grams, as a number.' })
    .positive('The weight must be above zero.')
    .max(1_000_000, 'That is over a tonne: check the unit.'),
  /** Doubt of the weight, where it was counted or filled into pots, g. */
  weightSdG: z.coerce
    .number({ error: 'Give the doubt in grams, as a number.' })
    .positive('The doubt is above zero.')
    .max(1_000_000)
    .optional(),
  machineId: id,
})

const money = (what: string) =>
  z.coerce
    .number({ error: `Give ${what}, as a number.` })
    .min(0, `${what.charAt(0).toUpperCase()}${what.slice(1)} is not negative.`)
    .max(100_000, 'Check this figure.')

/** Own peeling against bought-in stock, a kilogram each. */
export const boughtInQuestion = z.strictObject({
  foodKey: text(60),
  purpose: z.enum(['pieces', 'flakes', 'powder'], { error: 'Choose pieces, flakes or powder.' }),
  ownPriceKg: money('the price of your own'),
  ownMinutesKg: money('the minutes for your own'),
  boughtPriceKg: money('the price of the bought-in'),
  boughtMinutesKg: money('the minutes for the bought-in'),
  hourWorth: money('the worth of an hour'),
})

export const listQuery = z.strictObject({
  stage: z.enum(['intake', 'prep', 'drying', 'resting', 'grinding', 'shelf'], { error: 'Choose a stage of the band.' }).optional(),
  before: z.coerce.number({ error: 'Give a batch number.' }).int('Give a whole number.').min(1, 'Numbers count from 1.').optional(),
})

export const compareQuery = z.strictObject({ food: text(40), card: text(80).optional() })

export const findQuery = z.strictObject({ q: z.string({ error: 'Give the words to look for as q.' }).max(80, 'At most 80 characters.') })

/** A late thing that need not be done, and why. */
export const todoCleared = z.strictObject({
  batchId: id,
  kind: z.enum(TODO_KINDS, { error: 'Name what is late by its kind.' }),
  from: instant,
  reason: text(200),
})
export type TodoCleared = z.infer<typeof todoCleared>

/** Something done for a machine's upkeep. */
export const upkeepDone = z.strictObject({ id, task: text(40), at: instant })
export type UpkeepDone = z.infer<typeof upkeepDone>

export const insightQuery = z.strictObject({
  by: z.enum(['food', 'card', 'purpose', 'machine'], { error: 'Choose food, card, purpose or machine.' }).default('food'),
  food: text(60).optional(),
  days: z.coerce
    .number({ error: 'Give the days to look back.' })
    .int('Whole days.')
    .min(1, 'At least a day.')
    .max(36_500, 'At most a hundred years.')
    .optional(),
})

/** An effect that is learned, and what of: a machine by its id, a person by name, a food by its key. */
export const learnedQuery = z.strictObject({
  kind: z.enum(['machine', 'food', 'person'], { error: 'Choose machine, food or person.' }),
  key: text(120),
})

export const labelQuery = z.strictObject({ template: z.string().max(20, 'At most 20 characters.').optional() })

/** Labels on sheets: jars by id with commas between. */
export const sheetQuery = z.strictObject({
  jars: z
    .string({ error: 'Name the jars, with commas between.' })
    .transform(text => text.split(',').filter(Boolean))
    .pipe(z.array(id).min(1, 'Choose a jar.').max(400, 'At most 400 jars at once.')),
  template: z.string().max(20, 'At most 20 characters.').optional(),
  skip: z.coerce
    .number({ error: 'Give the places that are used already.' })
    .int('Whole places.')
    .min(0, 'Not below zero.')
    .max(64, 'A sheet has at most 65 places.')
    .default(0),
  copies: z.coerce
    .number({ error: 'Give the copies.' })
    .int('Whole copies.')
    .min(1, 'At least one.')
    .max(20, 'At most 20 of each.')
    .default(1),
  cut: z.stringbool({ error: 'Say cut=true or cut=false.' }).default(false),
})

/** The number that people read on a label or a card. */
export const numberQuery = z.strictObject({
  kind: z.enum(['jar', 'batch'], { error: 'Ask for a jar or a batch.' }),
  number: z.coerce.number({ error: 'Give its number.' }).int('Whole numbers.').min(1, 'Numbers count from 1.'),
})

/** Two batches by id, with a comma between. */
export const trialQuery = z
  .strictObject({
    batches: z
      .string({ error: 'Name two batches, with a comma between.' })
      .transform(text => text.split(',').filter(Boolean))
      .pipe(z.tuple([id, id], { error: 'Name two batches, with a comma between.' })),
  })
  .refine(query => query.batches[0] !== query.batches[1], { path: ['batches'], message: 'A batch is not tried against itself.' })
