import { HOUR, MINUTE } from '../time'
import { isAsleep, type Household } from './day'
import { TODO_KINDS, type Todo, type TodoKind } from './todo'

/** How something that is due is told: on this page or device, to an address of the web, by mail. */
export type AlarmWay = 'page' | 'webhook' | 'mail'

/** What wakes somebody: food that spoils while they sleep. */
export const WAKING: ReadonlySet<TodoKind> = new Set(['danger'])
/** What is told where nobody chose: all but what can wait for the next look at the list. */
export const TOLD_UNASKED: readonly TodoKind[] = TODO_KINDS.filter(kind => !['lookJar', 'settle', 'pack'].includes(kind))
/** So late a thing is not told any more: it stands in the list of what is late. */
const TOO_LATE_MS = 12 * HOUR
/** The same thing asked for anew is told again where its time is so much later than the last telling: an oven is looked at every half hour. */
const ANEW_MS = 10 * MINUTE

/** What is due, of whose batch. */
export interface AlarmTodo extends Pick<Todo, 'kind' | 'from' | 'to' | 'title' | 'why'> {
  batchId: string
}

/** One thing is the same thing while it is of the same batch and kind. */
export const alarmKey = ({ batchId, kind }: Pick<AlarmTodo, 'batchId' | 'kind'>) => `${batchId} ${kind}`

/**
 * What is to be told now: it has begun, it is of a chosen kind, it was not told before, and nobody sleeps (except where food spoils).
 * What came up at night is told when the household wakes, if it still stands.
 * @param told when each thing was told last, by its key, ms
 */
export function alarmsDue(
  todos: readonly AlarmTodo[],
  scene: { now: number; household: Household; kinds: readonly TodoKind[]; quiet: boolean; told: ReadonlyMap<string, number> },
): AlarmTodo[] {
  const { now, household, kinds, quiet, told } = scene
  const asleep = quiet && isAsleep(now, household)
  const seen = new Set<string>()
  return todos.filter(todo => {
    const key = alarmKey(todo)
    const before = told.get(key)
    if (todo.from > now || now - Math.max(todo.from, todo.to ?? 0) > TOO_LATE_MS || !kinds.includes(todo.kind) || seen.has(key))
      return false
    if (before !== undefined && todo.from <= before + ANEW_MS) return false
    if (asleep && !WAKING.has(todo.kind)) return false
    seen.add(key)
    return true
  })
}
