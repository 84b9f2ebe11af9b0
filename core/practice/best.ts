import type { Food } from '../foods'
import { judge, type Outcome } from './judge'
import type { Lesson, PlayRule } from './lesson'
import { play } from './player'

/** What each figure of a rule is tried at; only what a lesson's deeds let matter is tried. */
const TRIED: readonly { deeds: readonly string[]; changes: readonly PlayRule[] }[] = [
  // What is trusted is tried with some hours more as well: one figure at a time would not find it.
  {
    deeds: ['weigh'],
    changes: [
      ...[0, 2, 4].map(extraH => ({ trusts: 'weight', firstLook: 1, extraH }) as const),
      ...[0, 2].map(extraH => ({ trusts: 'constant', firstLook: 1, every: 2, extraH }) as const),
    ],
  },
  { deeds: ['feel'], changes: [{ trusts: 'feel', thick: true, cooled: true, places: 3 }] },
  { deeds: ['jarAir', 'weigh'], changes: [{ trusts: 'jarAir' }] },
  { deeds: ['takeOut'], changes: [0.9, 1, 1.15, 1.3, 1.6, 2].map(firstLook => ({ trusts: 'clock', firstLook })) },
  { deeds: ['weigh'], changes: [0.6, 0.75, 0.9, 1, 1.15, 1.3].map(margin => ({ margin })) },
  { deeds: ['weigh'], changes: [0.5, 0.66, 0.8, 1].map(firstLook => ({ firstLook })) },
  { deeds: ['feel'], changes: [0.66, 0.8, 1, 1.2].map(firstLook => ({ firstLook })) },
  { deeds: [], changes: [0, 1, 2, 4].map(extraH => ({ extraH })) },
  { deeds: ['weigh'], changes: [1, 1.5, 2.5].map(every => ({ every })) },
  { deeds: ['heat'], changes: (['leave', 'warm', 'off'] as const).map(bedtime => ({ bedtime })) },
  { deeds: ['heat'], changes: [0, 6, 12, 20].map(hotterC => ({ hotterC })) },
  { deeds: ['heat'], changes: [0, 1.5, 3].map(hotH => ({ hotH })) },
  { deeds: ['swap'], changes: [0, 0.4, 0.6].map(swapAt => ({ swapAt })) },
  { deeds: ['turn'], changes: [0, 0.35, 0.5, 0.65].map(turnAt => ({ turnAt })) },
  { deeds: ['move'], changes: [2, 3, 4, 5, 6].map(moveH => ({ moveH })) },
  { deeds: ['rest'], changes: [0, 3, 7].map(restDays => ({ restDays })) },
  { deeds: ['back'], changes: (['back', 'shake'] as const).map(onBeads => ({ onBeads })) },
  { deeds: ['grind'], changes: [0, 15, 45, 90].map(coolMin => ({ coolMin })) },
  { deeds: ['grind'], changes: [4, 8, 15, 30].map(burstS => ({ burstS })) },
  { deeds: ['pack'], changes: ['screw-jar', 'vacuum-jar', 'plastic-lid', 'bag', 'foil-bag'].map(lid => ({ lid })) },
  { deeds: ['pack'], changes: [{ gel: false }, { gel: true }] },
]

/** Kitchens on which rules are tried; those that are played are others. */
const TRYING_SEEDS = 900_001
const ROUNDS = 2
/** The last few that were taken are held against what is taught on kitchens on which nothing was tried: forty may miss what is rare. */
const HELD_SEEDS = 950_001
const HELD = { kitchens: 100, last: 3 }
/** A rule that is clearly worse on so many kitchens is not tried on the others. */
const AT_LEAST = 6
const CLEARLY_SDS = 1
/** So much less, in points, is worth taking a rule for. */
const WORTH = 0.05

export interface Best {
  rule: PlayRule
  /** Mean cost on the kitchens that it was tried on, in points. */
  cost: number
  tried: number
}

/** Mean cost of a rule over kitchens. */
export function meanCost(lesson: Lesson, food: Food, rule: PlayRule, seeds: readonly number[]): number {
  return seeds.reduce((sum, seed) => sum + judge(play(lesson, food, seed, rule)).cost, 0) / seeds.length
}

/** A rule's cost on each kitchen; undefined as soon as it is clearly worse than the best so far on the same ones. */
function race(lesson: Lesson, food: Food, rule: PlayRule, seeds: readonly number[], best?: readonly number[]): number[] | undefined {
  const costs: number[] = []
  let [sum, squares] = [0, 0]
  for (const [i, seed] of seeds.entries()) {
    const cost = judge(play(lesson, food, seed, rule)).cost
    costs.push(cost)
    if (!best) continue
    const more = cost - best[i]!
    sum += more
    squares += more ** 2
    const count = i + 1
    if (count < AT_LEAST) continue
    const mean = sum / count
    const sd = Math.sqrt(Math.max(0, squares / count - mean ** 2) / count)
    if (mean > 0.1 && mean > CLEARLY_SDS * sd) return undefined
  }
  return costs
}

const meanOf = (costs: readonly number[]) => costs.reduce((sum, cost) => sum + cost, 0) / costs.length

/**
 * The best that could be done with what one could know: rules that look at nothing but what a player sees, searched one figure after the
 * other over kitchens drawn like those that are played. A search in a family of rules is no proof that nothing is better; who beats it
 * has found something, or had luck.
 * @param kitchens how many are drawn to try on
 */
export function* searchBest(lesson: Lesson, food: Food, kitchens = 40): Generator<Best, Best> {
  const seeds = Array.from({ length: kitchens }, (_, i) => TRYING_SEEDS + i)
  const changes = TRIED.filter(({ deeds }) => deeds.every(deed => (lesson.deeds as readonly string[]).includes(deed)))
  const cuts = (lesson.cuts ?? []).map(({ key }) => ({ cut: key }))
  let costs = race(lesson, food, lesson.taught, seeds)!
  let best: Best = { rule: lesson.taught, cost: meanOf(costs), tried: 1 }
  const taken: PlayRule[] = []
  const attempt = (rule: PlayRule) => {
    const its = race(lesson, food, rule, seeds, costs)
    const better = its !== undefined && meanOf(its) < best.cost - WORTH
    if (better) costs = its
    best = { ...(better ? { rule, cost: meanOf(its) } : best), tried: best.tried + 1 }
    if (better) taken.push(rule)
  }
  for (const rule of [{}, lesson.habit]) attempt(rule)
  yield best
  for (let round = 0; round < ROUNDS; round++) {
    const before = best.cost
    for (const { changes: list } of [{ changes: cuts }, ...changes]) {
      for (const change of list) {
        if (Object.entries(change).every(([key, value]) => best.rule[key as keyof PlayRule] === value)) continue
        attempt({ ...best.rule, ...change })
        yield best
      }
    }
    if (best.cost >= before - WORTH) break
  }
  const others = Array.from({ length: HELD.kitchens }, (_, i) => HELD_SEEDS + i)
  const held = [lesson.taught, ...taken.slice(-HELD.last)].map(rule => ({ rule, cost: meanCost(lesson, food, rule, others) }))
  best = { ...held.reduce((least, one) => (one.cost < least.cost ? one : least)), tried: best.tried }
  yield best
  return best
}

export function bestOf(lesson: Lesson, food: Food, kitchens?: number): Best {
  const search = searchBest(lesson, food, kitchens)
  for (;;) {
    const step = search.next()
    if (step.done) return step.value
  }
}

/** What the best rule makes of the very kitchen that was played. */
export function bestHere(lesson: Lesson, food: Food, seed: number, { rule }: Best): Outcome {
  return judge(play(lesson, food, seed, rule))
}
