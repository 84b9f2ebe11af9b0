import type { Quantities } from '../errors'
import type { Interval } from '../stats'

/** One weighing of the whole load, food only. */
export interface WeighIn {
  /** Hours on the drying clock since loading. */
  hours: number
  weightG: number
  /** Extra doubt of this weighing in grams, such as when only some trays were weighed. Default 0. */
  extraSdG?: number
  /** The heat was off since the weighing above: the food may have taken water back. */
  afterOff?: boolean
}

/**
 * A spell without the run's heat: off, or cold in a damp room. The food drifts toward what is in balance with the air about it,
 * wet food drier, dry food wetter.
 */
export interface Spell {
  /** Drying clock when the heat went off. */
  hours: number
  lastsH: number
  /** Moisture in balance with the air about the food, dry basis. */
  balanceX: { mean: number; sd: number }
  /** Rate of exchange against the run's own near its end: cold and still air are slow. */
  share: number
  /** Covered and indoors: it takes up water, but dries no further. */
  covered?: boolean
  /** Index of the first weighing after it; the number of weighings where there is none yet. */
  before: number
}

/**
 * What a hand said of the load: how likely that is by its water, in logarithms, over the error that this hand may share with its other feels
 * (`HAND_AT`) and over ln X (`FELT_LN_X`), as `core/hands` has it.
 */
export interface Felt {
  /** Hours on the drying clock. */
  hours: number
  ln: readonly (readonly number[])[]
}

/** What is known of a drying run. Fractions 0–1, wet basis unless said; X is dry basis (g water / g solids). */
export interface DryingRun {
  /** Net wet food at loading, g. */
  startWeightG: number
  /** Dry-matter fraction at loading. */
  solids: { mean: number; sd: number }
  /** The weight at loading was not on a scale: its doubt, standard deviation, g. Default 0. */
  startSdG?: number
  /** Target moisture, wet basis. */
  targetMoisture: number
  /** 10th and 90th percentile of the hours to target, on the drying clock. */
  usualHours: { low: number; high: number }
  /** How likely a load is that those hours say nothing of, against one that goes by a card alone: own runs earn trust. Default 1. */
  strange?: number
  /** Moisture that the run ends in, dry basis. Default 0.025 ± 0.01. */
  equilibriumX?: { mean: number; sd: number }
  weighIns: readonly WeighIn[]
  /** What hands said, where nothing was weighed. */
  felt?: readonly Felt[]
  /** Spells without heat, in the order of time. */
  spells?: readonly Spell[]
  /** Hour of the drying clock that the figures of now are of; default the last weigh-in. */
  at?: number
  /** Default 1 g. */
  scale?: { resolutionG: number }
  /** Whole number that fixes the draws. Default 1. */
  seed?: number
}

export type FlagKind = 'off-curve' | 'rising' | 'above-start' | 'below-solids'

/** A weighing that does not fit, told and kept. */
export interface WeighInFlag {
  index: number
  kind: FlagKind
  /** In words, its figures by name: see `core/errors`. */
  template: string
  quantities: Quantities
}

export interface CurvePoint {
  hours: number
  weightG: Interval
}

export interface DryingEstimate {
  /** Wet basis, at the last weigh-in (at loading when there is none), or at the hour asked. */
  moistureNow: Interval
  /** Drying clock from loading; Infinity where the equilibrium is above the target. */
  hoursToTarget: Interval
  targetWeightG: Interval
  solidsG: Interval
  /** Water still in the food at the last weigh-in. */
  waterLeftG: Interval
  /** P(moisture at the last weigh-in ≤ target). */
  probabilityDry: number
  curve: CurvePoint[]
  /** How fast the free moisture falls at the target, 1/h of drying clock. */
  rateAtTarget: Interval
  /** What a weighing at some hours ahead would buy; empty where there is no finish to narrow. */
  nextWeighings: WeighingWorth[]
  flags: WeighInFlag[]
  /** Chance that the weight at loading is off by more than a scale's doubt, 0–1. */
  startOff: number
  /** Its weights say that it had dried for so many hours before its loading was logged, with the belief in that. */
  lateStart?: { hours: number; belief: number }
  /** Hours to target against the middle of the usual ones: 2 is half the usual speed. */
  pace: Interval
}

/** What one more weighing would buy. */
export interface WeighingWorth {
  /** On the drying clock. */
  hours: number
  /** Width of the finish window after it over its width now, 0–1: small is much bought. */
  shrinksTo: number
}
