import { listTodos, type TodoRow } from '#server/db/todos'
import { wordsFor, type Context } from './context'

/** What needs hands, soonest first, in the household's units: one list for Now, the calendar and what is told. */
export function todosFor(context: Context, limit: number): TodoRow[] {
  const words = wordsFor(context)
  return listTodos(context.db, context.now(), limit).map(row => ({
    ...row,
    batch_title: words(row.batch_title),
    title: words(row.title),
    why: words(row.why),
  }))
}
