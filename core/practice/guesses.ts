import { Z_90 } from '../stats'
const { abs, max, min, sqrt } = Math

/** What somebody said before the judgement was shown: with "8 in 10" as windows are told everywhere here. */
export interface Guess {
  /** Water now, wet basis: in 8 of 10 cases within. */
  water?: { low: number; high: number }
  /** Hours from then until it is dry. */
  dryIn?: { low: number; high: number }
  /** How sure that it is dry now, 0–1. */
  sure?: number
}

/** What it was, as far as it came to be known. */
export interface Truths {
  water: number
  /** Undefined where it never got dry, or was taken out before. */
  dryIn?: number
  dry: boolean
}

/** A guess with what it was: kept over lessons. */
export interface Said {
  at: number
  /** Which lesson, replay or drill. */
  of: string
  guess: Guess
  truths: Truths
}

/** The windows of a guess are to hold 8 in 10. */
const MISSES = 0.2

/**
 * Interval score for a central window of 8 in 10 (Gneiting and Raftery 2007, equation 43): its width, and ten times whatever it missed
 * by. Least in the mean for who says what he believes, neither wide nor narrow. In the unit of the quantity.
 */
export function intervalScore({ low, high }: { low: number; high: number }, truth: number): number {
  return high - low + (2 / MISSES) * (max(0, low - truth) + max(0, truth - high))
}

/** Brier's score of a probability (1950): 0 for who knew, 0.25 for who says fifty-fifty, 1 for who was sure of the wrong. */
export function brierScore(sure: number, dry: boolean): number {
  return (sure - (dry ? 1 : 0)) ** 2
}

/** One bar of the picture: of all that was said to be about so sure, how much was so. */
export interface SureBin {
  from: number
  to: number
  count: number
  /** Mean of what was said. */
  said: number
  /** Share that was dry. */
  was: number
  /** What so few cases leave open, 8 in 10 (Wilson 1927). */
  low: number
  high: number
}

export interface Calibration {
  count: number
  bins: SureBin[]
  brier?: number
  /** Windows that held, of how many. */
  held: number
  windows: number
  /** Mean interval score of water, in points of water, of the earlier and of the later half: less is better. */
  earlier?: number
  later?: number
  /** What a person does: narrow windows, wide ones, or neither; undefined from too few. */
  verdict?: 'too-sure' | 'too-unsure' | 'fair'
}

const EDGES = [0, 0.2, 0.4, 0.6, 0.8, 1] as const
/** 90th percentile of the normal: 8 in 10 lie within. */
const ENOUGH = 8

/** Share of successes with what the count leaves open: Wilson's interval. */
export function wilson(successes: number, count: number): { low: number; high: number } {
  if (count === 0) return { low: 0, high: 1 }
  const share = successes / count
  const z2 = Z_90 ** 2 / count
  const middle = (share + z2 / 2) / (1 + z2)
  const half = (Z_90 / (1 + z2)) * sqrt((share * (1 - share)) / count + z2 / (4 * count))
  return { low: max(0, middle - half), high: min(1, middle + half) }
}

/** Whether one's "sure" is sure, over all that was said. */
export function calibrationOf(said: readonly Said[]): Calibration {
  const sures = said.flatMap(({ guess, truths }) => (guess.sure === undefined ? [] : [{ sure: guess.sure, dry: truths.dry }]))
  const bins = EDGES.slice(1).flatMap((to, i) => {
    const from = EDGES[i]!
    const here = sures.filter(({ sure }) => sure >= from && (sure < to || to === 1))
    if (here.length === 0) return []
    const dry = here.filter(item => item.dry).length
    return [
      {
        from,
        to,
        count: here.length,
        said: here.reduce((sum, item) => sum + item.sure, 0) / here.length,
        was: dry / here.length,
        ...wilson(dry, here.length),
      },
    ]
  })
  const windows = said.flatMap(({ guess, truths, at }) => [
    ...(guess.water
      ? [{ at, score: 100 * intervalScore(guess.water, truths.water), held: within(guess.water, truths.water), water: true }]
      : []),
    ...(guess.dryIn && truths.dryIn !== undefined
      ? [{ at, score: intervalScore(guess.dryIn, truths.dryIn), held: within(guess.dryIn, truths.dryIn), water: false }]
      : []),
  ])
  const held = windows.filter(window => window.held).length
  const waters = windows.filter(window => window.water).sort((a, b) => a.at - b.at)
  const half = Math.floor(waters.length / 2)
  const mean = (list: readonly { score: number }[]) => list.reduce((sum, item) => sum + item.score, 0) / list.length
  const { low, high } = wilson(held, windows.length)
  return {
    count: said.length,
    bins,
    ...(sures.length > 0 && { brier: sures.reduce((sum, item) => sum + brierScore(item.sure, item.dry), 0) / sures.length }),
    held,
    windows: windows.length,
    ...(half >= 2 && { earlier: mean(waters.slice(0, half)), later: mean(waters.slice(half)) }),
    ...(windows.length >= ENOUGH && { verdict: high < 1 - MISSES ? 'too-sure' : low > 1 - MISSES ? 'too-unsure' : 'fair' }),
  }
}

const within = ({ low, high }: { low: number; high: number }, value: number) => value >= low && value <= high

/** A point guess and how far it was off, as a share of what it was: for drills. */
export function offBy(said: number, was: number): number {
  return abs(said - was) / max(1e-9, abs(was))
}
