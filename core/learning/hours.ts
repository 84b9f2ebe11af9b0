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
  runs: number
}

/** Where a household is like others (common practice); scaled by what the runs show. */
const SPREAD: Record<HoursKind, number> = { machine: 0.09, family: 0.05, food: 0.09, card: 0.04, person: 0.11, season: 0.03 }

export const HOURS: EffectsModel<HoursKind> = {
  nested: ['card', 'food', 'family'],
  crossed: ['person', 'season', 'machine'],
  spread: kind => SPREAD[kind],
  scales: [
    [0.6, 0.3],
    [1, 0.42],
    [1.8, 0.18],
    [3.2, 0.1],
  ],
  lead: {
    kind: 'machine',
    may: [
      { mean: 0, scale: 0.6, belief: 0.3 },
      { mean: 0, scale: 1, belief: 0.42 },
      { mean: 0, scale: 1.8, belief: 0.18 },
      { mean: 0, scale: 3.2, belief: 0.1 },
    ],
  },
  scatters: [
    [0.08, 0.08],
    [0.12, 0.3],
    [0.17, 0.3],
    [0.25, 0.2],
    [0.4, 0.12],
  ],
  ages: { kind: 'machine', halfAfter: 8, read: 60 },
  doubted: 2.2,
}

/**
 * What the household's finished runs teach of hours: a food's effect is shared by all machines and a machine's by all foods.
 * Machines are reckoned with apart: they are rarely much quicker than the cards, and now and then much slower.
 * @param finished newest first
 */
export function learnHours(finished: readonly FinishedRun[], meanOfMachine?: (machine: string) => number): HoursLearned {
  const { next, effectOf, behind, count } = learnEffects(
    finished.map(run => ({ id: run.id, log: Math.log(run.pace), doubt: run.doubt, of: thingsOf(run) })),
    { ...HOURS, meanOf: meanOfMachine && ((kind, key) => (kind === 'machine' ? meanOfMachine(key) : 0)) },
  )
  return { next: ask => next(thingsOf(ask)), effectOf, behind, runs: count }
}

const thingsOf = ({ machine, food, family, card, cutBy, season }: LoadAsked) => ({ machine, food, family, card, person: cutBy, season })
