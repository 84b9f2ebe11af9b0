import * as z from 'zod'
import type { Plan, PlanProblem } from '#core/plan'
import { id, instant, purpose, text } from './parts'
import { timeZone } from './settings'

const DAY_PATTERN = /^\d{4}-\d{2}-\d{2}$/
const day = z
  .string({ error: 'Give a date.' })
  .regex(DAY_PATTERN, 'Write the date as 2026-09-30.')
  .refine(value => !Number.isNaN(Date.parse(value)), 'There is no such date.')
const minuteOfDay = z.number({ error: 'Give a time of day.' }).int('Whole minutes.').min(0).max(1440, 'A day has 1440 minutes.')
const grams = (what: string) =>
  z
    .number({ error: `Give ${what} in grams.` })
    .positive(`Give ${what} above zero.`)
    .max(1_000_000, 'That is over a tonne: check it.')

/** What is picked, when and how much: the garden's calendar, or the market's. */
const harvest = z
  .strictObject({
    id,
    foodKey: text(60),
    purpose,
    /** A picking, from a poor one to a good one. */
    lowG: grams('a poor picking'),
    highG: grams('a good picking'),
    from: day,
    to: day,
    everyDays: z
      .number({ error: 'Give the days between two pickings.' })
      .int('Whole days.')
      .min(1, 'At least 1 day.')
      .max(365, 'At most a year.'),
  })
  .refine(({ lowG, highG }) => lowG <= highG, { path: ['highG'], message: 'A good picking is not less than a poor one.' })
  .refine(({ from, to }) => from <= to, { path: ['to'], message: 'The last picking is not before the first.' })

/** What the shelf is to hold by a day. */
const planWish = z.strictObject({ id, foodKey: text(60), purpose, grams: grams('what is wished for'), by: day })

/** What the sky is to be, as somebody foretold it. */
export const weather = z.strictObject({
  /** Who says so: "radio", "simulated forecast". */
  source: text(80),
  at: instant,
  days: z
    .array(
      z.strictObject({
        day,
        /** Of the hours from the dew to dusk, the share with sun: 0 to 1. */
        sun: z.number({ error: 'Give the share of sun, 0 to 1.' }).min(0, 'At least 0.').max(1, 'At most 1.'),
        rain: z.number({ error: 'Give how likely rain is, 0 to 1.' }).min(0, 'At least 0.').max(1, 'At most 1.'),
      }),
    )
    .max(21, 'At most three weeks of weather.'),
})
export type Weather = z.infer<typeof weather>

/** What the household says of its days, its power and its garden, for planning. */
export const planBook = z.strictObject({
  /** Minutes for preparing on a day, and how long it takes them against the usual: 2 is twice as long. */
  handsMinutes: z.number({ error: 'Give minutes a day.' }).min(0, 'At least 0 minutes a day.').max(1440, 'A day has 1440 minutes.'),
  pace: z.number({ error: 'Give their pace.' }).min(0.2, 'At least 0.2.').max(5, 'At most 5.'),
  /** Nobody is at home. */
  away: z
    .array(
      z
        .strictObject({ id, from: instant, to: instant, words: z.string().max(80, 'At most 80 characters.') })
        .refine(({ from, to }) => to > from, { path: ['to'], message: 'They come back after they leave.' }),
    )
    .max(100, 'At most 100 absences.'),
  /** Each day nothing dries in it: the oven at supper. */
  meals: z
    .array(
      z
        .strictObject({ id, machineId: id, fromMinute: minuteOfDay, toMinute: minuteOfDay })
        .refine(({ fromMinute, toMinute }) => toMinute > fromMinute, { path: ['toMinute'], message: 'It ends after it begins.' }),
    )
    .max(30, 'At most 30 of them.'),
  /** Price of a kilowatt-hour by the hour of day; the household's one price where none are given. Own sun is 0. */
  prices: z
    .array(z.number({ error: 'Give a price.' }).min(0, 'A price is not negative.').max(100_000, 'Check this figure.'))
    .refine(list => list.length === 0 || list.length === 24, 'Give a price for each of 24 hours, or none.'),
  harvests: z.array(harvest).max(200, 'At most 200 lines of harvest.'),
  wishes: z.array(planWish).max(100, 'At most 100 wishes.'),
  weather: weather.optional(),
})
export type PlanBook = z.infer<typeof planBook>
/** A change names the version that it was made on. */
export const planBookChange = planBook.extend({ version: z.number().int().min(0) })

const heat = z.strictObject({ lowC: z.number(), highC: z.number() })
const interval = z.strictObject({ p10: z.number(), p50: z.number(), p90: z.number() })
const stretch = z.strictObject({ from: instant, to: instant })
const key = z.string().min(1).max(120)
const places = z.number().int().min(0).max(1000)
const pin = z.strictObject({ basketId: key, machineId: key, cardKey: key, startAt: instant })

/** What there is to do and what limits it; whoever likes lets another solver at it. See `docs/plan.md`. */
export const planProblem = z.strictObject({
  format: z.literal('dulse-plan-problem', { error: 'This is not a problem to plan: its “format” is not “dulse-plan-problem”.' }),
  form: z.literal(2, { error: 'This problem is of another form than 2.' }),
  from: instant,
  until: instant,
  household: z.strictObject({
    timeZone,
    sleepFrom: minuteOfDay.max(1439),
    sleepTo: minuteOfDay.max(1439),
  }),
  away: z.array(stretch).max(500),
  handsMinutesADay: z.number(),
  machines: z
    .array(
      z.strictObject({
        id: key,
        name: z.string().max(80),
        places,
        attended: z.boolean(),
        endsAlone: z.boolean(),
        tasteless: z.boolean(),
        outdoors: z.boolean(),
        busy: z
          .array(
            z.strictObject({
              from: instant,
              to: instant,
              places,
              heat: heat.optional(),
              smell: z.boolean().optional(),
              closed: z.literal(true).optional(),
            }),
          )
          .max(500),
      }),
    )
    .max(100),
  baskets: z
    .array(
      z.strictObject({
        id: key,
        title: z.string().max(200),
        foodKey: key,
        purpose,
        weightG: z.number(),
        readyAt: instant,
        keepsUntil: instant,
        warmUntil: instant.optional(),
        expected: z.boolean().optional(),
        smell: z.boolean(),
        options: z
          .array(
            z.strictObject({
              machineId: key,
              cardKey: key,
              cut: z.string().max(120),
              places,
              hours: interval,
              heat,
              handsMinutes: z.number().min(0),
              kWh: z.number().min(0),
              first: z.strictObject({ machineId: key, places, hours: z.number().positive(), heat }).optional(),
              leadHours: z.number().min(0).optional(),
              clearHours: z.number().min(0).optional(),
              rotates: z.boolean().optional(),
              productG: z.number().min(0),
              restDays: z.number().min(0),
              afterMinutes: z.number().min(0),
            }),
          )
          .max(400),
      }),
    )
    .max(1000),
  wishes: z.array(z.strictObject({ id: key, title: z.string().max(200), foodKey: key, purpose, grams: z.number(), by: instant })).max(200),
  sun: z.array(z.strictObject({ from: instant, to: instant, share: interval })).max(500),
  prices: z.array(z.number()).max(24),
  pins: z.array(pin).max(300),
  before: z.array(pin).max(300).optional(),
}) satisfies z.ZodType<PlanProblem>

const plannedRun = z.strictObject({
  basketId: key,
  machineId: key,
  cardKey: key,
  places,
  prepareAt: instant,
  startAt: instant,
  ends: z.strictObject({ p10: instant, p50: instant, p90: instant }),
  pinned: z.literal(true).optional(),
})

/** Where each basket goes and when. */
export const plan = z.strictObject({
  format: z.literal('dulse-plan', { error: 'This is not a plan: its “format” is not “dulse-plan”.' }),
  form: z.literal(2, { error: 'This plan is of another form than 2.' }),
  runs: z.array(plannedRun).max(300, 'At most 300 runs.'),
  lost: z
    .array(z.strictObject({ basketId: key, weightG: z.number(), why: z.enum(['no-option', 'no-place', 'too-late', 'no-hands']) }))
    .max(300),
}) satisfies z.ZodType<Plan>

export const planCheck = z.strictObject({ problem: planProblem, plan })
/** A plan that is taken, for the problem as it is now. */
export const planTaken = z.strictObject({ plan })

/** A run of the plan that people work by, as it was when they took it. */
export const keptRun = plannedRun.extend({
  title: z.string().max(200),
  machineName: z.string().max(80),
  cut: z.string().max(120),
  foodKey: key,
  weightG: z.number(),
  minutes: z.number(),
  rotates: z.boolean().optional(),
})
export type KeptRun = z.infer<typeof keptRun>
