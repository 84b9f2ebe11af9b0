import type { WayKey } from '../ways'
import type { SorptionGroup } from '../sorption'
import type { Caution, CardStep, FeelForm, Purpose, SchoolQuestion, Trait } from './types'

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
  trim: string
  /** Days in the cold. */
  waits: number
  colour: string
  /** g/mL. */
  density?: string
  /** Percent of its dry matter that is fat, where that is much: fat holds no water. */
  fat?: number
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
  dry: string
  wash: string
  schools: string[]
  traits: Trait[]
  pliable?: boolean
}

export interface FormSource {
  name: string
  feel: FeelForm
  thick?: number
  load: { base: number; perMm: number }
  freeze: string
  ways?: WayKey[]
  spread: string
  portions?: boolean
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
}

/** All files of the reference. */
export interface ReferenceSource {
  families: Record<string, FamilySource>
  forms: Record<string, FormSource>
  schools: Record<string, Omit<SchoolQuestion, 'key'>>
  foods: FoodSource[]
  /** What is bought in dry, for blends. */
  goods: GoodsSource[]
  /** What else foods are called, by region, kind and spelling; by key. */
  names: Record<string, string[]>
}
