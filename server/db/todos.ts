import type { Todo, TodoKind } from '#core/planning'
import type { Db } from './open'
import { statement } from './statement'

export interface TodoRow { batch_id: string, number: number, batch_title: string, kind: TodoKind, from_at: number, to_at: number | null, title: string, why: string }

export function replaceTodos(db: Db, batchId: string, todos: readonly Todo[]): void {
  statement(db, 'DELETE FROM todo WHERE batch_id = ?').run(batchId)
  const insert = statement(db, 'INSERT INTO todo (batch_id, kind, due, from_at, to_at, title, why) VALUES (?, ?, ?, ?, ?, ?, ?)')
  for (const todo of todos) insert.run(batchId, todo.kind, Math.round(todo.to ?? todo.from), Math.round(todo.from), todo.to === undefined ? null : Math.round(todo.to), todo.title, todo.why)
}

/** Soonest first. */
export function listTodos(db: Db, limit: number): TodoRow[] {
  return statement<TodoRow>(db, `
    SELECT t.batch_id, b.number, b.title AS batch_title, t.kind, t.from_at, t.to_at, t.title, t.why
    FROM todo t JOIN batch_view b ON b.batch_id = t.batch_id ORDER BY t.due LIMIT ?`).all(limit)
}

export function countTodos(db: Db): number {
  return statement<{ count: number }>(db, 'SELECT count(*) AS count FROM todo').get()!.count
}
