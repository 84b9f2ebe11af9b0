import type { MethodCard } from '../foods'
import { shrunkRatio } from '../mass'
import { intervalFromLogNormal, Z_90, type Interval } from '../stats'

/** A finished run: its hours to target over the middle of its card's usual hours, both at the card's heat. */
export interface PastRun { pace: number, sameCard: boolean }

export interface LearnedHours {
  /** 10th and 90th percentile of the hours to target, as a card has them. */
  low: number
  high: number
  /** Hours of this machine over the cards': 1.2 is a fifth slower. */
  machinePace: Interval
  /** Runs of the machine, and those of the same food and cut. */
  runs: number
  sameCardRuns: number
}

/** What machines of a kind differ by from the cards, standard deviation of the logarithm (common practice). */
const MACHINE_SD = 0.18
/** Runs never agree better than this: the next basket is another one. */
const LEAST_SD = 0.1

/**
 * How a machine runs against the cards, shrunk toward 1: median, and a range for that median itself, not
 * for its next run.
 */
export function machinePace(paces: readonly number[]): Interval {
  const { median, sdLog } = shrunkRatio(paces, { median: 1, sdLog: MACHINE_SD })
  return intervalFromLogNormal(median, sdLog / Math.sqrt(paces.length + 3))
}

/**
 * Usual hours of a card in one's own machine: first how the machine runs against all cards, shrunk toward
 * 1; then how this food and cut runs in it, shrunk toward that. With no run yet the card stands.
 */
export function learnedHours(card: MethodCard, past: readonly PastRun[]): LearnedHours {
  const usual = card.usualHours.value
  const middle = Math.sqrt(usual.low * usual.high)
  const cardSd = Math.log(usual.high / usual.low) / (2 * Z_90)
  const pace = machinePace(past.map(run => run.pace))
  const same = past.filter(run => run.sameCard).map(run => run.pace)
  const own = shrunkRatio(same, { median: pace.p50, sdLog: cardSd })
  const sd = Math.max(LEAST_SD, own.batches > 0 ? own.sdLog : cardSd)
  const { p10: low, p90: high } = intervalFromLogNormal(middle * own.median, sd)
  return { low, high, machinePace: pace, runs: past.length, sameCardRuns: same.length }
}
