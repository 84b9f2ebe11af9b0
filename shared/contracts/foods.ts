import type { Interval } from '#core/stats'
import * as z from 'zod'
import type { ReviewAnswer } from './answers'
import {
  CAUTION_STEPS,
  parseRange,
  parseSpread,
  PREP_STEPS,
  TRAITS,
  type Food,
  type FoodSource,
  type MethodCard,
  type OwnCardSource,
  type SchoolQuestion,
  type UsualFood,
} from '#core/foods'
import { SORPTION_GROUPS } from '#core/sorption'
import { WAY_KEYS } from '#core/ways'
import type { SafetyRule } from '#core/safety'
import { text } from './parts'

/** A mean with its spread, "94.5 ± 1", within limits. */
const spread = (what: string, least: number, most: number, example: string) =>
  z
    .string({ error: `Give ${what} as a mean with its spread, such as “${example}”.` })
    .max(40)
    .superRefine((value, context) => {
      const parsed = parseSpread(value)
      if (!parsed)
        context.addIssue({ code: 'custom', message: `“${value}” is not ${what} with its spread: write it such as “${example}”.` })
      else if (parsed.mean < least || parsed.mean > most)
        context.addIssue({ code: 'custom', message: `${what} of ${parsed.mean} is not possible: ${least} to ${most}.` })
      else if (!(parsed.sd > 0))
        context.addIssue({ code: 'custom', message: `The spread of ${what} is above zero: no basket is like the next.` })
    })

/** A range, "8 to 13", within limits. */
const range = (what: string, most: number, least = 0) =>
  z
    .string({ error: `Give ${what} as a range, such as “8 to 13”.` })
    .max(40)
    .superRefine((value, context) => {
      const parsed = parseRange(value)
      if (!parsed)
        context.addIssue({
          code: 'custom',
          message:
            /-\s*\d/.test(value) && value.trim().startsWith('-')
              ? `${what} are not negative.`
              : `“${value}” is not a range of ${what}: write it such as “8 to 13”, the second the larger.`,
        })
      else if (parsed.low < least || (parsed.low <= 0 && least > 0))
        context.addIssue({ code: 'custom', message: `${what} begin above ${least}.` })
      else if (parsed.high > most) context.addIssue({ code: 'custom', message: `${what} of ${parsed.high} are too many: at most ${most}.` })
    })

const percent = z.number({ error: 'Give percent, as a number.' }).min(0.5, 'At least 0.5 %.').max(40, 'At most 40 %: wetter is not dry.')
const key = z
  .string({ error: 'Give a key, such as “purple-carrot”.' })
  .regex(/^[a-z0-9][a-z0-9-]{0,58}$/, 'A key is of small letters, figures and hyphens, such as “purple-carrot”.')
const hoursRange = range('hours', 1500, 0.05)
const hoursByWay = Object.fromEntries(WAY_KEYS.map(kind => [kind, hoursRange.optional()])) as Record<
  (typeof WAY_KEYS)[number],
  z.ZodOptional<typeof hoursRange>
>
const heat = z
  .number({ error: 'Give a temperature in °C, as a number.' })
  .min(10, 'At least 10 °C.')
  .max(120, 'At most 120 °C: above that it is cooking.')
const ways = z
  .array(z.enum(WAY_KEYS, { error: `A way of drying is one of: ${WAY_KEYS.join(', ')}.` }))
  .min(1, 'Give at least one way of drying.')
  .max(6)

const cardFields = {
  name: text(60).optional(),
  hours: hoursRange.optional(),
  hoursSource: text(120).optional(),
  heat: heat.optional(),
  heatWhy: text(300).optional(),
  thick: z
    .number({ error: 'Give a thickness in mm, as a number.' })
    .positive('The thickness is above zero.')
    .max(200, 'At most 200 mm.')
    .optional(),
  load: spread('a tray load', 0.1, 40, '4 ± 0.6').optional(),
  trim: spread('the share trimmed off, in percent,', 0, 98, '15 ± 5').optional(),
  water: spread('water, in percent,', 2, 99, '82 ± 2').optional(),
  after: spread('the share taken off dry, in percent,', 0, 95, '40 ± 10').optional(),
  ways: ways.optional(),
  raw: z.boolean().optional(),
  steps: z
    .array(
      z.strictObject({
        step: z.enum(PREP_STEPS, { error: `A step is one of: ${PREP_STEPS.join(', ')}.` }),
        words: text(400),
        minutes: z.number({ error: 'Give minutes, as a number.' }).positive('Minutes are above zero.').max(10_000).optional(),
        school: text(40).optional(),
      }),
    )
    .max(20, 'At most 20 steps.')
    .optional(),
  ...hoursByWay,
}
const card = z.strictObject(cardFields)
const FORM = /^[a-z]+( \d+(\.\d+)?)?$/
const form = z
  .string({ error: 'Give a form, such as “slices 6”.' })
  .regex(FORM, 'A form is its name and a number, such as “slices 6” or “shreds”.')

/** A food as a file has it; `core/foods/source.ts` says what each field means. */
export const foodSource = z.strictObject({
  key,
  name: text(60),
  others: z.array(text(60)).max(20, 'At most 20 other names.').optional(),
  family: text(40),
  water: spread('water, in percent,', 2, 99, '90 ± 1.5'),
  waterSource: text(200).optional(),
  uncooked: spread('water before cooking, in percent,', 2, 99, '74 ± 2').optional(),
  trim: spread('the share trimmed off, in percent,', 0, 95, '15 ± 5'),
  waits: z
    .number({ error: 'Give the days that it waits in the cold, as a number.' })
    .positive('Days are above zero.')
    .max(1000, 'At most 1000 days.'),
  hands: z
    .number({ error: 'Give the minutes of hands a kilogram, as a number.' })
    .min(0, 'Minutes are 0 or more.')
    .max(300, 'At most 300 minutes a kilogram.')
    .optional(),
  colour: z
    .string({ error: 'Give the powder’s colour, such as “#B9362A”.' })
    .regex(/^#[0-9a-f]{6}$/i, 'A colour is written such as “#B9362A”.'),
  density: spread('density, in g/mL,', 0.05, 1.6, '0.5 ± 0.1').optional(),
  fat: z.number().min(0, 'A share is 0 or more.').max(95, 'At most 95 percent.').optional(),
  salt: z.number().min(0, 'A share is 0 or more.').max(40, 'At most 40 percent.').optional(),
  isotherm: z.enum(SORPTION_GROUPS, { error: `Water is held as by: ${SORPTION_GROUPS.join(', ')}.` }).optional(),
  target: z.strictObject({ pieces: percent.optional(), flakes: percent.optional(), powder: percent.optional() }).optional(),
  keeps: z
    .strictObject({
      pieces: range('months', 400).optional(),
      flakes: range('months', 400).optional(),
      powder: range('months', 400).optional(),
    })
    .optional(),
  keepsWhy: text(300).optional(),
  dry: text(300).optional(),
  heat: heat.optional(),
  heatWhy: text(300).optional(),
  ways: ways.optional(),
  traits: z.array(z.enum(TRAITS, { error: `A trait is one of: ${TRAITS.join(', ')}.` })).optional(),
  allergens: z.array(text(40)).max(10).optional(),
  heatUnits: range('heat units', 5_000_000).optional(),
  blanch: z
    .strictObject({
      steam: z.number().positive('Minutes are above zero.').max(120).optional(),
      water: z.number().positive('Minutes are above zero.').max(120).optional(),
      words: text(200).optional(),
    })
    .optional(),
  dip: z.boolean().optional(),
  pliable: z.boolean().optional(),
  schools: z.array(text(40)).max(30).optional(),
  prefer: z.record(text(40), text(40)).optional(),
  forbids: z.record(text(40), z.array(text(40)).max(10)).optional(),
  cautions: z
    .array(
      z.strictObject({
        step: z.enum(CAUTION_STEPS, { error: `A step is one of: ${CAUTION_STEPS.join(', ')}.` }),
        text: text(400),
        label: text(60).optional(),
      }),
    )
    .max(10)
    .optional(),
  forms: z
    .record(form, z.union([hoursRange, card], { error: 'Give hours such as “8 to 13”, or the fields of a card.' }))
    .refine(forms => Object.keys(forms).length > 0, 'Give at least one form.')
    .refine(forms => Object.keys(forms).length <= 20, 'At most 20 forms.'),
})

export const ownCardSource = z.strictObject({ food: key, form, ...cardFields })

/** A file of foods and cards. */
/** Foods, and cards, in one file. */
export const MOST_FOODS = 500

export const foodFile = z.strictObject({
  dulse: z.literal('foods 1', { error: 'A file of foods begins with “dulse: foods 1”.' }),
  foods: z.array(foodSource, { error: 'Foods are a list.' }).max(MOST_FOODS, `At most ${MOST_FOODS} foods a file.`).optional(),
  cards: z.array(ownCardSource, { error: 'Cards are a list.' }).max(MOST_FOODS, `At most ${MOST_FOODS} cards a file.`).optional(),
})
export type FoodFile = z.infer<typeof foodFile>

// The contract and the core must mean the same.
type Same<T extends { foods?: FoodSource[]; cards?: OwnCardSource[] }> = T
export type ContractFoodFile = Same<FoodFile>

/** A food in a list. */
export interface FoodSummary {
  key: string
  name: string
  otherNames: string[]
  /** Names of regions, kinds and spellings by which it is found. */
  foundBy: string[]
  group: string
  groupName: string
  /** Of the raw edible part, fraction. */
  water: { mean: number; sd: number }
  colour: string
  heatUnits?: { low: number; high: number }
  allergens: string[]
  cards: { key: string; name: string; own: boolean }[]
  own: boolean
}

export interface FoodPageAnswer {
  food: Food
  schools: SchoolQuestion[]
  cautions: SafetyRule[]
  /** As its file has it, for copying. */
  source: FoodSource
  /** Words for next time on its batches, newest first. */
  reviews: ReviewAnswer[]
  pickings: { plant?: string; cultivar?: string; year: string; baskets: number; weightG: number; lastAt: number }[]
  batches: number
  /** Version of an own food. */
  version?: number
  /** What own lots say beside the reference: water of the raw food, and dry weight over the reference's by cut. */
  ownLots?: {
    water?: { mean: number; sd: number; lots: number }
    cards: { cardKey: string; name: string; dry: Interval; lots: number }[]
    /** Density of the powder by weighed spoons, over the reference's. */
    density?: { factor: Interval; lots: number }
  }
}

export interface FormAnswer {
  key: string
  name: string
}
export interface FoodPartsAnswer {
  /** `usual`: what a food of the family usually is, to begin an own one with. */
  families: { key: string; name: string; usual: UsualFood }[]
  forms: FormAnswer[]
}

export interface ImportAnswer {
  foods: number
  cards: number
  replaced: number
}
export type { MethodCard }
