import type { Candidate } from './candidates'
import type { Busy, Heat, PlanProblem } from './types'

/** What stands in the machines and on people's days as a plan grows: whether one more finds a place. */
export class Fit {
  private readonly standing: Map<string, (Busy & { basket?: number })[]>
  private readonly tasteless: ReadonlySet<string>
  private readonly places: ReadonlyMap<string, number>
  private readonly hands = new Map<number, number>()

  constructor(private readonly problem: PlanProblem) {
    this.standing = new Map(problem.machines.map(machine => [machine.id, [...machine.busy]]))
    this.tasteless = new Set(problem.machines.filter(machine => machine.tasteless).map(machine => machine.id))
    this.places = new Map(problem.machines.map(machine => [machine.id, machine.places]))
  }

  /** Why it finds none; undefined where it does. */
  hinders({ basket, option, stands, day }: Candidate): 'no-place' | 'no-hands' | undefined {
    if ((this.hands.get(day) ?? 0) + option.handsMinutes > this.problem.handsMinutesADay) return 'no-hands'
    const { smell } = this.problem.baskets[basket]!
    for (const { machineId, places, heat, from, to } of stands) {
      const all = this.standing.get(machineId)
      if (!all) return 'no-place'
      const beside = all.filter(other => other.from < to && other.to > from)
      if (beside.length === 0) continue
      if (beside.some(other => other.closed)) return 'no-place'
      if (!this.tasteless.has(machineId) && beside.some(other => other.smell !== undefined && other.smell !== smell)) return 'no-place'
      // Whoever comes later finds one heat for all that is there then.
      for (const at of [from, ...beside.map(other => Math.max(other.from, from))]) {
        const then = beside.filter(other => other.from <= at && other.to > at)
        if (then.reduce((sum, other) => sum + other.places, places) > this.places.get(machineId)!) return 'no-place'
        if (!haveOneHeat([heat, ...then.flatMap(other => other.heat ?? [])])) return 'no-place'
      }
    }
    return undefined
  }

  put({ basket, option, stands, day }: Candidate): void {
    const { smell } = this.problem.baskets[basket]!
    for (const { machineId, ...stand } of stands) this.standing.get(machineId)?.push({ ...stand, smell, basket })
    this.hands.set(day, (this.hands.get(day) ?? 0) + option.handsMinutes)
  }

  take({ basket, option, stands, day }: Candidate): void {
    for (const { machineId } of stands) {
      const list = this.standing.get(machineId)
      list?.splice(
        list.findIndex(other => other.basket === basket),
        1,
      )
    }
    this.hands.set(day, this.hands.get(day)! - option.handsMinutes)
  }
}

/** Whether one heat suits all. */
export const haveOneHeat = (heats: readonly Heat[]) =>
  Math.max(...heats.map(heat => heat.lowC)) <= Math.min(...heats.map(heat => heat.highC))
