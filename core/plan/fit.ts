import type { Candidate } from './candidates'
import type { Busy, Heat, PlanProblem } from './types'

/** What stands in the machines and on people's days as a plan grows: whether one more finds a place. */
export class Fit {
  private readonly standing: Map<string, (Busy & { basket?: number })[]>
  private readonly hands = new Map<number, number>()

  constructor(
    private readonly problem: PlanProblem,
    private readonly smells: readonly boolean[],
  ) {
    this.standing = new Map(problem.machines.map(machine => [machine.id, [...machine.busy]]))
  }

  /** Why it finds none; undefined where it does. */
  hinders({ basket, option, machine, startAt, keptUntil, day }: Candidate): 'no-place' | 'no-hands' | undefined {
    if ((this.hands.get(day) ?? 0) + option.handsMinutes > this.problem.handsMinutesADay) return 'no-hands'
    const beside = this.standing.get(machine.id)!.filter(other => other.from < keptUntil && other.to > startAt)
    if (beside.length === 0) return undefined
    if (!beside.every(other => machine.tasteless || other.smell === undefined || other.smell === this.smells[basket])) return 'no-place'
    // Whoever comes later finds one heat for all that is there then.
    for (const at of [startAt, ...beside.map(other => Math.max(other.from, startAt))]) {
      const then = beside.filter(other => other.from <= at && other.to > at)
      if (then.reduce((sum, other) => sum + other.places, option.places) > machine.places) return 'no-place'
      if (!haveOneHeat([option.heat, ...then.flatMap(other => other.heat ?? [])])) return 'no-place'
    }
    return undefined
  }

  put({ basket, option, machine, startAt, keptUntil, day }: Candidate): void {
    this.standing
      .get(machine.id)!
      .push({ from: startAt, to: keptUntil, places: option.places, heat: option.heat, smell: this.smells[basket], basket })
    this.hands.set(day, (this.hands.get(day) ?? 0) + option.handsMinutes)
  }

  take({ basket, option, machine, day }: Candidate): void {
    const list = this.standing.get(machine.id)!
    list.splice(
      list.findIndex(other => other.basket === basket),
      1,
    )
    this.hands.set(day, this.hands.get(day)! - option.handsMinutes)
  }
}

/** Whether one heat suits all. */
const haveOneHeat = (heats: readonly Heat[]) => Math.max(...heats.map(heat => heat.lowC)) <= Math.min(...heats.map(heat => heat.highC))
