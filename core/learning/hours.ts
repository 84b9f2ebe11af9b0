import type { Interval } from '../stats'
import { learnEffects, type Behind, type Effect, type EffectsModel } from './effects'

/** A finished run as it teaches hours: what it took over what its card says at its heat and thickness. */
export interface FinishedRun {
  /** Its batch. */
  id?: string
  /** Hours to target over the middle of the card's usual hours. */
  pace: number
  /** Doubt of that, standard deviation of its logarithm. */
  doubt?: number
  machine: string
  food: string
  family: string
  card: string
  cutBy?: string
  /** Quarter of the year. */
  season?: string
}

/** What a load is, before it is dried. */
export type LoadAsked = Omit<FinishedRun, 'id' | 'pace' | 'doubt'>

/** Anything that makes hours differ from the card's, alike for all loads that share it. */
export type HoursKind = 'machine' | 'family' | 'food' | 'card' | 'person' | 'season'

export interface HoursLearned {
  /** Factor on the card's middle hours for the next such load, p10 to p90. */
  next: (ask: LoadAsked) => Interval
  /** One effect by itself: "this machine needs a third longer than the cards". */
  effectOf: (kind: HoursKind, key: string) => Effect | undefined
  /** The runs that an effect rests on, newest first. */
  behind: (kind: HoursKind, key: string) => Behind[]
  /** Runs of the same machine, food or family. */
  sharing: (ask: LoadAsked) => number
  runs: number
}

/**
 * How far loads differ from their cards by each thing, standard deviation of the logarithm (common practice); these and the beliefs
 * below were set on simulated households (`tests/support/households.ts`), by windows held, error and width after three and twelve runs.
 */
const SPREAD: Record<HoursKind, number> = { machine: 0.115, family: 0.11, food: 0.097, card: 0.078, person: 0.112, season: 0.02 }

const HOURS: EffectsModel<HoursKind> = {
  nested: ['card', 'food', 'family'],
  crossed: ['person', 'season', 'machine'],
  spread: kind => SPREAD[kind],
  scales: [
    [0.5, 0.24],
    [1.1, 0.68],
    [1.8, 0.08],
  ],
  lead: {
    kind: 'machine',
    may: [
      { mean: 0, scale: 0.7, belief: 0.33 },
      { mean: 0, scale: 1, belief: 0.47 },
      // Weak, crowded or in a cold room: machines are now and then much slower than the cards, and rarely much quicker.
      { mean: 0.26, scale: 1.7, belief: 0.2 },
    ],
  },
  odd: { scale: 4, belief: 0.16 },
  scatters: [
    [0.08, 0.07],
    [0.12, 0.33],
    [0.17, 0.37],
    [0.25, 0.07],
    [0.4, 0.16],
  ],
  ages: { kind: 'machine', halfAfter: 8, read: 60 },
  doubted: 3.2,
}

/**
 * What the household's finished runs teach of hours: a food's effect is shared by all machines and a machine's by all foods.
 * Machines are reckoned with apart: they are rarely much quicker than the cards, and now and then much slower.
 * @param finished newest first
 */
export function learnHours(finished: readonly FinishedRun[], meanOfMachine?: (machine: string) => number): HoursLearned {
  const { next, effectOf, behind, sharing, count } = learnEffects(
    finished.map(run => ({ id: run.id, log: Math.log(run.pace), doubt: run.doubt, of: thingsOf(run) })),
    { ...HOURS, meanOf: meanOfMachine && ((kind, key) => (kind === 'machine' ? meanOfMachine(key) : 0)) },
  )
  return {
    next: ask => next(thingsOf(ask)),
    effectOf,
    behind,
    sharing: ({ machine, food, family }) => sharing({ machine, food, family }),
    runs: count,
  }
}

const thingsOf = ({ machine, food, family, card, cutBy, season }: LoadAsked) => ({ machine, food, family, card, person: cutBy, season })
