import { learnHours, type FinishedRun, type LoadAsked } from '#core/learning'
import { randomSource, type RandomSource } from '#core/stats'

/** A simulated household: what its loads really take over their cards, which loads it dries, and which one is asked about. */
export interface Household {
  /** ln of the hours over the card's, of the run with this number. */
  truth: (load: LoadAsked, run: number) => number
  dries: (run: number) => LoadAsked
  asks: LoadAsked
}

const FAMILY: Record<string, string> = {
  carrot: 'root',
  beetroot: 'root',
  leek: 'allium',
  onion: 'allium',
  apple: 'orchard',
  pear: 'orchard',
  tomato: 'fruit',
  zucchini: 'gourd',
}
const FOODS = Object.keys(FAMILY)
const load = (machine: string, food: string, cutBy?: string): LoadAsked => ({ machine, food, family: FAMILY[food]!, card: 'cut', cutBy })

/** Kinds of household. Every food is off its card by some 8 %, and like loads by a scatter that now and then is far larger. */
export const HOUSEHOLDS: Record<string, (source: RandomSource) => Household> = (() => {
  const household =
    (make: (source: RandomSource) => Omit<Household, 'truth'> & { off: (load: LoadAsked, run: number) => number }, scatter = 0.11) =>
    (source: RandomSource): Household => {
      const foods = new Map(FOODS.map(food => [food, 0.08 * source.normal()]))
      const { off, ...rest } = make(source)
      const noise = () => scatter * source.normal() * (source.uniform() < 0.05 ? 2.5 : 1)
      return { ...rest, truth: (asked, run) => off(asked, run) + foods.get(asked.food)! + noise() }
    }
  const some = (source: RandomSource, from: number, to: number) => source.pick(FOODS.slice(from, to))
  return {
    'cards right': household(source => ({ off: () => 0, dries: () => load('a', some(source, 0, 8)), asks: load('a', 'carrot') })),
    'machine 1.5 times slower': household(() => ({
      off: () => Math.log(1.5),
      dries: () => load('a', 'carrot'),
      asks: load('a', 'carrot'),
    })),
    'machine twice as slow': household(() => ({ off: () => Math.log(2), dries: () => load('a', 'carrot'), asks: load('a', 'carrot') })),
    'machine twice as slow, a new food': household(source => ({
      off: () => Math.log(2),
      dries: () => load('a', some(source, 1, 4)),
      asks: load('a', 'apple'),
    })),
    'one food at 0.6, alone: others': household(() => ({
      off: ({ food }) => (food === 'zucchini' ? Math.log(0.6) : 0),
      dries: () => load('a', 'zucchini'),
      asks: load('a', 'carrot'),
    })),
    'one food at 1.6, alone: others': household(() => ({
      off: ({ food }) => (food === 'zucchini' ? Math.log(1.6) : 0),
      dries: () => load('a', 'zucchini'),
      asks: load('a', 'carrot'),
    })),
    'an odd food among others: others': household(source => ({
      off: ({ food }) => (food === 'zucchini' ? Math.log(0.6) : 0),
      dries: run => load('a', run % 2 ? 'zucchini' : some(source, 0, 5)),
      asks: load('a', 'carrot'),
    })),
    'an odd food among others: that food': household(source => ({
      off: ({ food }) => (food === 'zucchini' ? Math.log(0.6) : 0),
      dries: run => load('a', run % 2 ? 'zucchini' : some(source, 0, 5)),
      asks: load('a', 'zucchini'),
    })),
    'a machine at 0.75': household(source => ({
      off: () => Math.log(0.75),
      dries: () => load('a', some(source, 0, 4)),
      asks: load('a', 'carrot'),
    })),
    'one cut slow': household(source => ({
      off: ({ card }) => (card === 'thick' ? Math.log(1.4) : 0),
      dries: run => ({ ...load('a', some(source, 0, 2)), card: run % 2 ? 'thick' : 'cut' }),
      asks: { ...load('a', 'carrot'), card: 'thick' },
    })),
    'that food in another machine': household(() => ({
      off: ({ food }) => (food === 'zucchini' ? Math.log(0.6) : 0),
      dries: () => load('a', 'zucchini'),
      asks: load('b', 'zucchini'),
    })),
    'leek after onions, family at 0.65': household(() => ({
      off: ({ family }) => (family === 'allium' ? Math.log(0.65) : 0),
      dries: () => load('a', 'onion'),
      asks: load('a', 'leek'),
    })),
    'two machines apart': household(source => ({
      off: ({ machine }) => (machine === 'b' ? Math.log(1.6) : -0.1),
      dries: run => load(run % 2 ? 'a' : 'b', some(source, 0, 4)),
      asks: load('b', 'carrot'),
    })),
    'a second cutter, thick': household(source => ({
      off: ({ cutBy }) => (cutBy === 'Tobin' ? Math.log(1.35) : 0),
      dries: run => load('a', some(source, 0, 3), run % 3 === 2 ? 'Tobin' : 'Wren'),
      asks: load('a', 'carrot', 'Tobin'),
    })),
    'the first cutter meanwhile': household(source => ({
      off: ({ cutBy }) => (cutBy === 'Tobin' ? Math.log(1.35) : 0),
      dries: run => load('a', some(source, 0, 3), run % 3 === 2 ? 'Tobin' : 'Wren'),
      asks: load('a', 'carrot', 'Wren'),
    })),
    'one run of 2.5': household(source => ({
      off: (_, run) => (run === 2 ? Math.log(2.5) : 0),
      dries: () => load('a', some(source, 0, 3)),
      asks: load('a', 'carrot'),
    })),
    erratic: household(source => ({ off: () => 0, dries: () => load('a', some(source, 0, 8)), asks: load('a', 'carrot') }), 0.3),
    'slower since eight runs': household(source => ({
      off: (_, run) => (run < 30 ? 0 : Math.log(1.5)),
      dries: () => load('a', some(source, 0, 3)),
      asks: load('a', 'carrot'),
    })),
  }
})()

/** How well the next load is told after so many own runs: share of windows that hold it, and the median error of the middle. */
export function toldAfter(kind: string, runs: number, households = 120): { held: number; error: number; width: number } {
  const errors: number[] = []
  const widths: number[] = []
  let held = 0
  for (let i = 0; i < households; i++) {
    const source = randomSource(7919 * i + 11)
    const { truth, dries, asks } = HOUSEHOLDS[kind]!(source)
    const finished: FinishedRun[] = []
    for (let run = 0; run < runs; run++) {
      const dried = dries(run)
      // Newest first; what a run took is read off its weights, a little off.
      finished.unshift({ ...dried, pace: Math.exp(truth(dried, run) + 0.04 * source.normal()), doubt: 0.06 })
    }
    const took = Math.exp(truth(asks, runs))
    const { p10, p50, p90 } = learnHours(finished).next(asks)
    if (p10 <= took && took <= p90) held++
    errors.push(Math.abs(p50 / took - 1))
    widths.push(p90 / p10)
  }
  const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!
  return { held: held / households, error: median(errors), width: median(widths) }
}
