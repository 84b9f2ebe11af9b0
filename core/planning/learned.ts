import type { MethodCard } from '../foods'
import { shrunkRatio } from '../mass'
import { intervalFromLogNormal, Z_90, type Interval } from '../stats'

/** A finished run: its hours to target over the middle of its card's usual hours, both at the card's heat and thickness. */
export interface PastRun {
  pace: number
  sameCard: boolean
  cutBy?: string
}

export interface LearnedHours {
  /** 10th and 90th percentile of the hours to target, as a card has them. */
  low: number
  high: number
  /** Hours of this machine over the cards': 1.2 is a fifth slower. */
  machinePace: Interval
  /** Runs of the machine, and those of the same food and cut. */
  runs: number
  sameCardRuns: number
  /** Hours of food that this person cut over what the machine and card say, once they cut some. */
  person?: { name: string; pace: Interval; runs: number }
}

/** What the batch in hand differs by from its card. */
export interface AtHand {
  /** Hours for its thickness over the card's, see `usualHoursFactor`. Default 1. */
  factor?: number
  cutBy?: string
}

/** What machines of a kind differ by from the cards, standard deviation of the logarithm (common practice). */
const MACHINE_SD = 0.18
/** What hands with a knife differ by once the thickness is said (common practice). */
const PERSON_SD = 0.08
/** Runs never agree better than this: the next basket is another one. */
const LEAST_SD = 0.1

/**
 * How a machine runs against the cards, shrunk toward 1: median, and a range for that median itself, not
 * for its next run.
 */
export function machinePace(paces: readonly number[]): Interval {
  return middleOf(paces, MACHINE_SD)
}

function middleOf(paces: readonly number[], sdLog: number): Interval {
  const shrunk = shrunkRatio(paces, { median: 1, sdLog })
  return intervalFromLogNormal(shrunk.median, shrunk.sdLog / Math.sqrt(paces.length + 3))
}

/**
 * Usual hours of a card in one's own machine: first how the machine runs against all cards, shrunk toward
 * 1; then how this food and cut runs in it, shrunk toward that; then how the person who cut it differs
 * from both. With no run yet the card stands.
 */
export function learnedHours(
  card: Pick<MethodCard, 'usualHours'>,
  past: readonly PastRun[],
  { factor = 1, cutBy }: AtHand = {},
): LearnedHours {
  const usual = card.usualHours.value
  const middle = Math.sqrt(usual.low * usual.high) * factor
  const cardSd = Math.log(usual.high / usual.low) / (2 * Z_90)
  const pace = machinePace(past.map(run => run.pace))
  const same = past.filter(run => run.sameCard).map(run => run.pace)
  const own = shrunkRatio(same, { median: pace.p50, sdLog: cardSd })
  const sd = Math.max(LEAST_SD, own.batches > 0 ? own.sdLog : cardSd)
  const theirs =
    cutBy === undefined ? [] : past.filter(run => run.cutBy === cutBy).map(run => run.pace / (run.sameCard ? own.median : pace.p50))
  const person = theirs.length > 0 ? { name: cutBy!, pace: middleOf(theirs, PERSON_SD), runs: theirs.length } : undefined
  const { p10: low, p90: high } = intervalFromLogNormal(middle * own.median * (person?.pace.p50 ?? 1), sd)
  return { low, high, machinePace: pace, runs: past.length, sameCardRuns: same.length, person }
}
