/** What a batch is dried for: eaten as pieces, crumbled to flakes, or ground fine. */
export type Purpose = 'pieces' | 'flakes' | 'powder'
export const PURPOSES = ['pieces', 'flakes', 'powder'] as const satisfies readonly Purpose[]

/** How a piece is judged by hand: the questions differ by what lies on the tray. */
export type FeelForm = 'pieces' | 'leaves' | 'sheet' | 'shreds'

export type FoodGroup = 'root' | 'leaf' | 'wateryFruit' | 'gourd' | 'allium' | 'chili' | 'berry' | 'orchard' | 'herb' | 'mushroom' | 'stalk'

/** Where a figure comes from; "common practice" for a rule of thumb without a published source. */
export type Source = string

export interface Sourced<T> { value: T, source: Source }

/** A quantity that differs from basket to basket: mean and standard deviation, fractions 0–1 unless said. */
export interface Spread { mean: number, sd: number }

/** One way to cut and dry a food. */
export interface MethodCard {
  key: string
  /** In words, as on a page's title: "3 mm slices". */
  name: string
  feelForm: FeelForm
  thicknessMm?: number
  /** 10th and 90th percentile of hours of heat to crisp, at `temperatureC`, in one layer. */
  usualHours: Sourced<{ low: number, high: number }>
  /** Air temperature to set, °C, and the reason for it. */
  temperatureC: number
  temperatureReason: string
  /** What a tray carries in one layer, kg wet food a square metre. */
  trayLoadKgM2: Spread
}

export interface Food {
  key: string
  name: string
  group: FoodGroup
  /** Water, wet basis, as it comes in (trimmed). */
  rawMoisture: Sourced<Spread>
  /** Share of the basket's weight that trimming takes off. */
  trimShare: Sourced<Spread>
  /** Days that the raw food waits, cold, before it suffers. */
  freshDays: Sourced<number>
  cards: readonly MethodCard[]
  /** Water wet basis to stop at, by purpose. */
  target: Record<Purpose, number>
  targetSource: Source
  /** What dry food of this kind looks and feels like. */
  drynessTest: Sourced<string>
  /** Colour of the powder, for the jar's drawing. */
  powderColour: string
  /** Spooned density of the powder, g/mL. */
  powderDensity: Sourced<Spread>
  /** Months of best quality at 20 °C in a lined screw jar. */
  keepsMonths: Record<Purpose, { low: number, high: number }>
  keepsReason: string
  keepsSource: Source
  /** Allergens to carry on the label, by their usual names. */
  allergens: readonly string[]
  cautions: readonly Caution[]
}

/** A danger, told at the step where it is. */
export interface Caution { step: 'intake' | 'prep' | 'load' | 'dry' | 'grind' | 'pack', text: string }
