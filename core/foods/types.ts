import type { WayKey } from '../ways'
import type { SorptionGroup } from '../sorption'

/** What a batch is dried for: eaten as pieces, crumbled to flakes, or ground fine. */
export type Purpose = 'pieces' | 'flakes' | 'powder'
export const PURPOSES = ['pieces', 'flakes', 'powder'] as const satisfies readonly Purpose[]

/** How a piece is judged by hand: the questions differ by what lies on the tray. */
export const FEEL_FORMS = ['pieces', 'leaves', 'sheet', 'shreds', 'foam'] as const
export type FeelForm = (typeof FEEL_FORMS)[number]

/** Steps between basket and tray, by the words of the trade. */
export const PREP_STEPS = [
  'wash',
  'soak',
  'dip',
  'trim',
  'peel',
  'seed',
  'cut',
  'blanch',
  'roast',
  'boil',
  'cook',
  'char',
  'puree',
  'thicken',
  'drain',
  'season',
  'marinate',
  'toast',
  'spread',
  'freeze',
  'hold',
] as const
export type PrepStepName = (typeof PREP_STEPS)[number]

/** What the cautions go by: a food has a trait, and a rule of `core/safety` names it. */
export const TRAITS = [
  'oil',
  'gourd',
  'nitrate',
  'smell',
  'wild',
  'iodine',
  'hot',
  'extreme',
  'fumes',
  'stickyPowder',
  'mouldToxin',
  'red-meat',
  'poultry',
  'meat',
  'fish',
  'shellfish',
  'egg',
  'dairy',
  'perishable',
  /** Sold ready to eat: cooked or cured by its maker. */
  'ready',
  /** Not sour, though its family is. */
  'lowAcid',
] as const
export type Trait = (typeof TRAITS)[number]

/** Where a figure comes from; "common practice" for a rule of thumb without a published source. */
export type Source = string

export interface Sourced<T> {
  value: T
  source: Source
}

/** A quantity that differs from basket to basket: mean and standard deviation, fractions 0–1 unless said. */
export interface Spread {
  mean: number
  sd: number
}

/** 10th and 90th percentile. */
export interface Range {
  low: number
  high: number
}

/** One way of drying a cut: its heat and hours. The hours are of heat (or vacuum, or sun), to crisp, in one layer. */
export interface CardWay {
  way: WayKey
  usualHours: Sourced<Range>
  /** Air to set, °C; the shelf's warmth in a freeze dryer, the usual air in sun and room. */
  temperatureC: number
  temperatureReason: string
  /** A pass that takes part of the water only; another machine follows. */
  partOnly?: boolean
}

/** A step between the basket and the tray, as a card tells it. */
export interface CardStep {
  step: PrepStepName
  words: string
  /** For a timer, minutes. */
  minutes?: number
  /** Only in one school of this question. */
  school?: string
}

/** One way to cut a food, with the ways it is then dried. */
export interface MethodCard {
  key: string
  /** In words, as on a page's title: "3 mm slices". */
  name: string
  feelForm: FeelForm
  thicknessMm?: number
  /** The card's first way, the usual one; figures of the others are in `ways`. */
  usualHours: Sourced<Range>
  temperatureC: number
  temperatureReason: string
  ways: readonly CardWay[]
  /** What a tray carries in one layer, kg wet food a square metre. */
  trayLoadKgM2: Spread
  /** Share that trimming takes off for this cut, where it differs from the food's. */
  trimShare?: Sourced<Spread>
  /** Water of what goes on the tray, wet basis, where it is another part than the food's: peel, juice. */
  moisture?: Sourced<Spread>
  /** Share of the dry weight that is taken off once it is dry: stalks. */
  afterShare?: Sourced<Spread>
  steps: readonly CardStep[]
  /** How it is laid on the tray. */
  spread: string
  /** Spread as measured portions, each sheet a known amount. */
  portions: boolean
  /** Flows: boils over under vacuum unless frozen solid. */
  liquid: boolean
  /** Dried raw, and raw on the way back. */
  raw: boolean
  /** Water to stop at where it is another than the food's: jerky bends. */
  target?: Partial<Record<Purpose, number>>
  /** In one school it is dried raw and heated through once it is dry. */
  heatAfter?: boolean
  /** Made by the household. */
  own: boolean
}

export interface Food {
  key: string
  name: string
  /** What else it is called. */
  otherNames: readonly string[]
  /** Names of regions, kinds and spellings by which it is found. */
  foundBy: readonly string[]
  /** Key of its family. */
  group: string
  groupName: string
  isotherm: SorptionGroup
  /** Share of the dry matter that is fat, which holds no water; 0 where it is little. */
  fat: number
  /** Water, wet basis, of the raw edible part; of the cooked, where `uncooked` says what it is before. */
  rawMoisture: Sourced<Spread>
  /** Water, wet basis, as it is bought, where it is cooked before it is dried: raw meat, dry beans. */
  uncooked?: Sourced<Spread>
  /** What one weighs as it comes, g. */
  each?: Sourced<Spread>
  /** What a litre of it weighs, loosely filled as it comes, g. */
  litre?: Sourced<Spread>
  /** Share of the basket's weight that trimming takes off. */
  trimShare: Sourced<Spread>
  /** Days that the raw food waits, cold, before it suffers. */
  freshDays: Sourced<number>
  /** Minutes of hands that a kilogram of the basket takes; one's own pace counts most. */
  handsMinutesKg: Sourced<number>
  cards: readonly MethodCard[]
  /** Water wet basis to stop at, by purpose. */
  target: Record<Purpose, number>
  targetSource: Source
  /** What dry food of this kind looks and feels like. */
  drynessTest: Sourced<string>
  /** Kept as pieces it stops at pliable, and its cards' hours are until then. */
  pliable: boolean
  /** Colour of the powder, for the jar's drawing. */
  powderColour: string
  /** Spooned density of the powder, g/mL. */
  powderDensity: Sourced<Spread>
  /** Months of best quality at 20 °C in a lined screw jar. */
  keepsMonths: Record<Purpose, Range>
  keepsReason: string
  keepsSource: Source
  /** Scoville heat units of the dried pod. */
  heatUnits?: Sourced<Range>
  /** Share of salt in it as it comes, 0–1. */
  saltShare?: number
  /** Minutes of blanching. */
  blanch?: Sourced<{ steam?: number; water?: number; words?: string }>
  /** Allergens to carry on the label, by their usual names. */
  allergens: readonly string[]
  traits: readonly Trait[]
  /** Cautions of this food alone; those by trait are rules of `core/safety`. */
  cautions: readonly Caution[]
  /** Keys of the questions on which practitioners disagree about it. */
  schools: readonly string[]
  /** What follows from each school of each question, as “question/school”. */
  schoolEffects: Readonly<Record<string, SchoolEffects>>
  /** The school that is the default for it, by question, where it is not the first. */
  prefer: Readonly<Record<string, string>>
  /** Schools that would harm, by question: never offered for it, and not taken. */
  forbids: Readonly<Record<string, readonly string[]>>
  /** Made by the household. */
  own: boolean
  /** Kinds of which it is a mix, with their shares by weight. */
  mixOf?: readonly { key: string; name: string; share: number }[]
}

/** Steps at which a caution is told. */
export const CAUTION_STEPS = ['intake', 'prep', 'load', 'dry', 'rest', 'grind', 'pack', 'use'] as const
export type CautionStep = (typeof CAUTION_STEPS)[number]

/** A danger, told at the step where it is. */
export interface Caution {
  step: CautionStep
  text: string
  /** The same for a label, in a few words; missing where it need not stand on one. */
  label?: string
}

/** What follows where a school is chosen. */
export interface SchoolEffects {
  /** Times the card's hours. */
  hours?: number
  /** Added to the share of the basket that is trimmed off; what is below nothing is nothing. */
  trim?: number
  /** Times the powder that the mill gives. */
  recovery?: number
  /** Steps that come before it is cut. */
  steps?: readonly CardStep[]
  /** It is ground a first time when it is dry enough for this, then dried on as powder and ground again. */
  grindAt?: Purpose
  /** Days of rest that are enough. */
  restDays?: number
  /** Months that it is said to keep, in these packages only where they are named. */
  months?: Range
  packages?: readonly string[]
  /** That long only with no more water than this, wet basis. */
  mostWater?: number
}

/** One way of going about it, who it suits and why. */
export interface School {
  key: string
  name: string
  reason: string
  celsius?: number
  effects?: SchoolEffects
  /** Offered only to foods of these families. */
  groups?: readonly string[]
}

/** A question on which practitioners disagree, with its schools; the first is the default. */
export interface SchoolQuestion {
  key: string
  ask: string
  /** Asked of every food of which all of this holds; else of those that name it. */
  of?: {
    purposes?: readonly Purpose[]
    feel?: readonly FeelForm[]
    /** Only of these cuts, by the form of the card. */
    forms?: readonly string[]
    traits?: readonly Trait[]
    not?: readonly Trait[]
    ways?: readonly WayKey[]
  }
  schools: readonly School[]
}
