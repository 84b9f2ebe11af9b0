import { migrations } from '#migrations'
import type { Database } from 'better-sqlite3'

/**
 * Applies the migrations that the file has not had, each in a transaction of its own together with its
 * mark in `user_version`: one that fails leaves the file as it was. A table that others refer to can be
 * made anew in one: references are checked at its end rather than at each step.
 * @throws Error when the file was written by a newer Dulse.
 */
export function migrate(db: Database, all: readonly { name: string; sql: string }[] = migrations): void {
  const done = db.pragma('user_version', { simple: true }) as number
  if (done > all.length) {
    throw new Error(
      `This logbook was written by a newer Dulse (form ${done}, this one knows ${all.length}). Update Dulse; nothing was changed.`,
    )
  }
  const enforced = db.pragma('foreign_keys', { simple: true })
  all.slice(done).forEach(({ name, sql }, i) => {
    try {
      db.pragma('foreign_keys = OFF')
      db.transaction(() => {
        db.exec(sql)
        if ((db.pragma('foreign_key_check') as unknown[]).length > 0) throw new Error('It leaves references to rows that are gone.')
        db.pragma(`user_version = ${done + i + 1}`)
      })()
    } catch (error) {
      throw new Error(`The migration ${name} failed; the logbook is as it was before it.`, { cause: error })
    } finally {
      db.pragma(`foreign_keys = ${enforced ? 'ON' : 'OFF'}`)
    }
  })
}
