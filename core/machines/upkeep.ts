import { WAYS, type UpkeepTask, type WayKey } from '../ways'

/** A task with the hours run since it was last done. */
export interface UpkeepState extends UpkeepTask {
  sinceHours: number
  doneAt?: number
  due: boolean
}

/**
 * What wear asks for. A task never done counts from the machine's first hour.
 * @param hoursRun all hours with the heat on
 * @param done tasks with when, and at what hours run, they were last done
 */
export function upkeepOf(way: WayKey, hoursRun: number, done: readonly { task: string; at: number; hoursRun: number }[]): UpkeepState[] {
  return WAYS[way].upkeep.map((task): UpkeepState => {
    const last = done
      .filter(entry => entry.task === task.key)
      .sort((a, b) => a.at - b.at)
      .at(-1)
    const sinceHours = Math.max(0, hoursRun - (last?.hoursRun ?? 0))
    return { ...task, sinceHours, doneAt: last?.at, due: sinceHours >= task.everyHours }
  })
}
