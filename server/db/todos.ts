import type { Todo, TodoKind } from '#core/planning'
import type { Db } from './open'
import { statement } from './statement'
import { DAY } from '#core/time'

export interface TodoRow {
  batch_id: string
  number: number
  batch_title: string
  kind: TodoKind
  from_at: number
  to_at: number | null
  title: string
  why: string
}

export function replaceTodos(db: Db, batchId: string, todos: readonly Todo[]): void {
  statement(db, "DELETE FROM todo WHERE batch_id = ? AND kind <> 'lookJar'").run(batchId)
  for (const todo of todos) insertTodo(db, batchId, todo)
}

/** The look at a batch's fresh jars, which follows from the jars' logs rather than from its own. */
export function replaceLookTodo(db: Db, batchId: string, todo: Todo | undefined): void {
  statement(db, "DELETE FROM todo WHERE batch_id = ? AND kind = 'lookJar'").run(batchId)
  if (todo) insertTodo(db, batchId, todo)
}

function insertTodo(db: Db, batchId: string, todo: Todo): void {
  statement(db, 'INSERT INTO todo (batch_id, kind, due, from_at, to_at, title, why) VALUES (?, ?, ?, ?, ?, ?, ?)').run(
    batchId,
    todo.kind,
    Math.round(todo.to ?? todo.from),
    Math.round(todo.from),
    todo.to === undefined ? null : Math.round(todo.to),
    todo.title,
    todo.why,
  )
}

/** So long after its time a look at a fresh jar tells nothing new. */
const LOOK_LATE_MS = 4 * DAY
const STANDS = `(kind <> 'lookJar' OR to_at > ?)
  AND NOT EXISTS (SELECT 1 FROM todo_cleared c WHERE c.batch_id = t.batch_id AND c.kind = t.kind AND c.from_at = t.from_at)`

/** Soonest first, in the words of the reference. */
export function listTodos(db: Db, now: number, limit: number): TodoRow[] {
  return statement<TodoRow>(
    db,
    `
    SELECT t.batch_id, b.number, b.title AS batch_title, t.kind, t.from_at, t.to_at, t.title, t.why
    FROM todo t JOIN batch_view b ON b.batch_id = t.batch_id WHERE ${STANDS} ORDER BY t.due LIMIT ?`,
  ).all(now - LOOK_LATE_MS, limit)
}

export function countTodos(db: Db, now: number): number {
  return statement<{ count: number }>(db, `SELECT count(*) AS count FROM todo t WHERE ${STANDS}`).get(now - LOOK_LATE_MS)!.count
}

/** It need not be done: somebody says why. */
export function clearTodo(db: Db, todo: { batchId: string; kind: TodoKind; from: number; reason: string }, at: number): boolean {
  const known = statement(db, 'SELECT 1 FROM todo WHERE batch_id = ? AND kind = ? AND from_at = ?').get(todo.batchId, todo.kind, todo.from)
  if (!known) return false
  statement(db, 'INSERT OR REPLACE INTO todo_cleared (batch_id, kind, from_at, reason, cleared_at) VALUES (?, ?, ?, ?, ?)').run(
    todo.batchId,
    todo.kind,
    todo.from,
    todo.reason,
    at,
  )
  return true
}
