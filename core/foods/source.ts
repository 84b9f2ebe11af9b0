import type { WayKey } from '../ways'
import type { SorptionGroup } from '../sorption'
import type { Caution, CardStep, FeelForm, Purpose, School, SchoolEffects, SchoolQuestion, Trait } from './types'

/**
 * Foods as a file has them, for people to read and write. Amounts are text: "94.5 ± 1" is a mean with its
 * standard deviation, "8 to 13" the 10th to 90th percentile; water, trim and targets in percent.
 */
export interface FoodSource {
  key: string
  name: string
  others?: string[]
  family: string
  water: string
  waterSource?: string
  /** Percent of the food as it is bought, where `water` is of the cooked: raw meat, dry beans. */
  uncooked?: string
  trim: string
  /** Days in the cold. */
  waits: number
  /** Minutes of hands a kilogram of the basket, where they are not its family's. */
  hands?: number
  colour: string
  /** g/mL. */
  density?: string
  /** Percent of its dry matter that is fat, where that is much: fat holds no water. */
  fat?: number
  /** Salt in it as it comes, percent, where it is brined, cured or salted. */
  salt?: number
  /** Where it holds water otherwise than its family. */
  isotherm?: SorptionGroup
  target?: Partial<Record<Purpose, number>>
  /** Months. */
  keeps?: Partial<Record<Purpose, string>>
  keepsWhy?: string
  dry?: string
  /** °C. */
  heat?: number
  heatWhy?: string
  ways?: WayKey[]
  traits?: Trait[]
  allergens?: string[]
  heatUnits?: string
  blanch?: { steam?: number; water?: number; words?: string }
  dip?: boolean
  pliable?: boolean
  schools?: string[]
  /** The school that is the default for this food, by question, where it is not the first: beans are blanched. */
  prefer?: Record<string, string>
  /** Schools that would harm, by question: cassava is never dried unblanched. */
  forbids?: Record<string, string[]>
  cautions?: Caution[]
  /** By form and number, "slices 6": its hours in a dehydrator, or more about it. */
  forms: Record<string, string | CardSource>
}

/** A cut of a food. Hours by way where they differ from what the family's rule gives. */
export interface CardSource extends Partial<Record<WayKey, string>> {
  name?: string
  /** In a dehydrator (or the family's first way). */
  hours?: string
  hoursSource?: string
  /** °C, and why, where they differ from the food's. */
  heat?: number
  heatWhy?: string
  /** mm. */
  thick?: number
  /** kg a square metre. */
  load?: string
  /** Percent. */
  trim?: string
  /** Percent of what goes on the tray, where it is another part than the food's: peel, juice. */
  water?: string
  /** Percent of the dry weight that is taken off then: stalks. */
  after?: string
  ways?: WayKey[]
  raw?: boolean
  steps?: CardStep[]
}

/** A card of the household's own, for a food that is there already. */
export interface OwnCardSource extends CardSource {
  food: string
  form: string
}

export interface FamilySource {
  name: string
  isotherm: SorptionGroup
  target: Record<Purpose, number>
  keeps: Record<Purpose, string>
  keepsWhy: string
  heat: number
  heatWhy: string
  ways: WayKey[]
  density: string
  /** Minutes of hands a kilogram of the basket; 10 where it is not said. */
  hands?: number
  dry: string
  wash: string
  schools: string[]
  traits: Trait[]
  /** Kept as pieces it stops at pliable, and its hours are until then. */
  pliable?: boolean
  /** Hours in still room air over those at its own heat, where they are not the way's. */
  stillAir?: number
}

export interface FormSource {
  name: string
  feel: FeelForm
  thick?: number
  load: { base: number; perMm: number }
  /** Percent of the basket, where the form decides: of leaves on their stalks hardly anything goes. */
  trim?: string
  /** Percent of the dry weight that is taken off then. */
  after?: string
  /** Flows: frozen solid before a vacuum, or it boils over. */
  pourable?: boolean
  /** False where there is nothing left to wash. */
  washed?: boolean
  /** Dried raw, and raw on the way back. */
  uncooked?: boolean
  ways?: WayKey[]
  spread: string
  portions?: boolean
  /** Percent, where it is another than the food's. */
  target?: Partial<Record<Purpose, number>>
  /** In one school it is dried raw and heated through once it is dry. */
  heatAfter?: boolean
  steps: CardStep[]
}

/** A dry good that is bought in, as the file of goods has it: percent, months, g/mL. */
export interface GoodsSource {
  key: string
  name: string
  others?: string[]
  water: number
  density: string
  colour: string
  keeps: string
  /** Salt in it, percent. */
  salt?: number
  heatUnits?: string
  allergens?: string[]
  traits?: Trait[]
  cautions?: Caution[]
}

/** A question as its file has it: trim in points of percent, months as text. */
export type QuestionSource = Omit<SchoolQuestion, 'key' | 'schools'> & {
  schools: (Omit<School, 'effects'> & { effects?: Omit<SchoolEffects, 'months'> & { months?: string } })[]
}

/** All files of the reference. */
export interface ReferenceSource {
  families: Record<string, FamilySource>
  forms: Record<string, FormSource>
  schools: Record<string, QuestionSource>
  foods: FoodSource[]
  /** What is bought in dry, for blends. */
  goods: GoodsSource[]
  /** Grams of one, and in a litre: by food, litres by family too. */
  measures: { each: Record<string, string>; litre: Record<string, string> }
  /** What else foods are called, by region, kind and spelling; by key. */
  names: Record<string, string[]>
}
