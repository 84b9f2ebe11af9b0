import { HOUR, MINUTE } from '../time'
import { asleepShare, candidateOf, coldOrSmokeHours, type Candidate } from './candidates'
import { PlanClock } from './clock'
import { haveOneHeat } from './fit'
import { optionOf, standsOf } from './run'
import type { PlannedRun, PlanProblem, PlanWorth, Stretch } from './types'
import { shortOf, worthOf } from './worth'

/** What is wrong with a run where it stands; those without `bad` may be, and are told. */
export type Breach = { basketId: string } & (
  | { kind: 'no-way' }
  | { kind: 'too-early'; readyAt: number }
  | { kind: 'too-late'; keepsUntil: number }
  | { kind: 'past'; from: number }
  | { kind: 'nobody-prepares'; at: number; away: boolean }
  | { kind: 'nobody-watches'; until: number }
  | { kind: 'no-place'; machineId: string; needed: number; places: number; beside: string[] }
  | { kind: 'closed'; machineId: string; from: number; to: number }
  | { kind: 'two-heats'; machineId: string; beside: string[] }
  | { kind: 'smell'; machineId: string; beside: string[] }
  | { kind: 'no-hands'; minutes: number; of: number }
  | { kind: 'no-sun' }
  | { kind: 'wakes'; share: number }
  | { kind: 'wish-late'; wishId: string; shortG: number }
)

/** Kinds that are matters of comfort: somebody may choose them. */
const MILD: readonly Breach['kind'][] = ['wakes', 'wish-late', 'no-hands']
export const isMild = ({ kind }: Breach) => MILD.includes(kind)

/**
 * What breaks in a plan, run by run, and why: rules that no run may break, then what somebody may choose to bear. It looks at what stands
 * there, however it came about: by the planner, by hand, or from another program.
 */
export function breachesOf(problem: PlanProblem, runs: readonly PlannedRun[]): Breach[] {
  const clock = new PlanClock(problem.from, problem.until, problem.household, problem.away)
  const found: Breach[] = []
  const taken: { run: PlannedRun; candidate: Candidate }[] = []
  for (const run of runs) {
    const { basketId } = run
    const index = problem.baskets.findIndex(item => item.id === basketId)
    const machine = problem.machines.find(item => item.id === run.machineId)
    const basket = problem.baskets[index]
    const option = basket && optionOf(basket, run.machineId, run.cardKey)
    if (!machine || !option || option.cardKey !== run.cardKey || option.places > machine.places) {
      found.push({ basketId, kind: 'no-way' })
      continue
    }
    const candidate = candidateOf(index, { option, machine, startAt: run.startAt }, run.ends, clock)
    taken.push({ run, candidate })
    const { prepareAt, startAt } = candidate
    if (prepareAt < basket.readyAt) found.push({ basketId, kind: 'too-early', readyAt: basket.readyAt })
    if (prepareAt < problem.from) found.push({ basketId, kind: 'past', from: problem.from })
    if (startAt - coldOrSmokeHours(option) * HOUR > basket.keepsUntil)
      found.push({ basketId, kind: 'too-late', keepsUntil: basket.keepsUntil })
    const prepared = prepareAt + option.handsMinutes * MINUTE
    const smokeAt = startAt - (option.first?.hours ?? 0) * HOUR
    if (!clock.isUpAllThrough(prepareAt, prepared) || !clock.isUp(startAt) || (option.first && !clock.isUpAllThrough(smokeAt, startAt))) {
      const away = problem.away.some(gap => gap.from <= startAt && gap.to > prepareAt)
      found.push({ basketId, kind: 'nobody-prepares', at: prepareAt, away })
    }
    if (machine.outdoors && !problem.sun.some(({ from, to }) => from <= startAt && startAt < to)) found.push({ basketId, kind: 'no-sun' })
    if (machine.attended && !clock.isUpAllThrough(startAt, run.ends.p90))
      found.push({ basketId, kind: 'nobody-watches', until: run.ends.p90 })
    if (candidate.wakes) found.push({ basketId, kind: 'wakes', share: asleepShare(option.hours, startAt, clock) })
  }
  for (const { candidate } of taken) found.push(...besideBreaches(problem, candidate, taken))
  for (const [day, list] of groupBy(taken, item => item.candidate.day)) {
    const minutes = list.reduce((sum, { candidate }) => sum + candidate.option.handsMinutes, 0)
    const last = list.at(-1)!
    if (day > 0 && minutes > problem.handsMinutesADay)
      found.push({ basketId: last.run.basketId, kind: 'no-hands', minutes, of: problem.handsMinutesADay })
  }
  for (const wish of problem.wishes) {
    const shortG = shortOf(
      { ...problem, wishes: [wish] },
      taken.map(item => item.candidate),
    )
    const late = taken.find(({ candidate }) => problem.baskets[candidate.basket]!.foodKey === wish.foodKey)
    if (late && shortG > 0) found.push({ basketId: late.run.basketId, kind: 'wish-late', wishId: wish.id, shortG })
  }
  return found
}

/** What runs come to, however they came about; what has no way is left out. */
export function worthOfRuns(problem: PlanProblem, runs: readonly PlannedRun[]): PlanWorth {
  const clock = new PlanClock(problem.from, problem.until, problem.household, problem.away)
  const chosen = new Map<number, Candidate>()
  for (const run of runs) {
    const index = problem.baskets.findIndex(item => item.id === run.basketId)
    const machine = problem.machines.find(item => item.id === run.machineId)
    const option = machine && problem.baskets[index] && optionOf(problem.baskets[index], run.machineId, run.cardKey)
    if (option) chosen.set(index, candidateOf(index, { option, machine, startAt: run.startAt }, run.ends, clock))
  }
  return worthOf(problem, chosen)
}

interface There extends Stretch {
  places: number
  heat?: { lowC: number; highC: number }
  smell?: boolean
  closed?: true
  basketId?: string
}

/** What a run meets in its machines. */
function besideBreaches(problem: PlanProblem, own: Candidate, taken: readonly { candidate: Candidate }[]): Breach[] {
  const basketId = problem.baskets[own.basket]!.id
  const found: Breach[] = []
  for (const stand of standsOf(own.option, own.startAt, own.ends)) {
    const { machineId } = stand
    const machine = problem.machines.find(item => item.id === machineId)
    if (!machine) continue
    const there: There[] = [
      ...machine.busy,
      ...taken
        .filter(({ candidate }) => candidate.basket !== own.basket)
        .flatMap(({ candidate }) =>
          candidate.stands
            .filter(other => other.machineId === machineId)
            .map(other => ({ ...other, smell: problem.baskets[candidate.basket]!.smell, basketId: problem.baskets[candidate.basket]!.id })),
        ),
    ].filter(other => other.from < stand.to && other.to > stand.from)
    const shut = there.find(other => other.closed)
    if (shut) found.push({ basketId, kind: 'closed', machineId, from: shut.from, to: shut.to })
    const namesOf = (list: readonly There[]) => list.flatMap(other => other.basketId ?? [])
    const smells = there.filter(
      other => !machine.tasteless && other.smell !== undefined && other.smell !== problem.baskets[own.basket]!.smell,
    )
    if (smells.length > 0) found.push({ basketId, kind: 'smell', machineId, beside: namesOf(smells) })
    const otherHeats = there.filter(other => other.heat && !haveOneHeat([stand.heat, other.heat]))
    if (otherHeats.length > 0) found.push({ basketId, kind: 'two-heats', machineId, beside: namesOf(otherHeats) })
    let most: { needed: number; then: There[] } | undefined
    for (const at of [stand.from, ...there.map(other => Math.max(other.from, stand.from))]) {
      const then = there.filter(other => !other.closed && other.from <= at && other.to > at)
      const needed = then.reduce((sum, other) => sum + other.places, stand.places)
      if (needed > machine.places && needed > (most?.needed ?? 0)) most = { needed, then }
    }
    if (most) found.push({ basketId, kind: 'no-place', machineId, needed: most.needed, places: machine.places, beside: namesOf(most.then) })
  }
  return found
}

function groupBy<T, K>(list: readonly T[], keyOf: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>()
  for (const item of list) {
    const key = keyOf(item)
    const group = groups.get(key)
    if (group) group.push(item)
    else groups.set(key, [item])
  }
  return groups
}
