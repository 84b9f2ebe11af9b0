import { migrations } from '#migrations'
import type { Database } from 'better-sqlite3'

/**
 * Applies the migrations that the file has not had, each in a transaction of its own together with its
 * mark in `user_version`: one that fails leaves the file as it was.
 * @throws Error when the file was written by a newer Dulse.
 */
export function migrate(db: Database, all: readonly { name: string, sql: string }[] = migrations): void {
  const done = db.pragma('user_version', { simple: true }) as number
  if (done > all.length) {
    throw new Error(`This logbook was written by a newer Dulse (form ${done}, this one knows ${all.length}). Update Dulse; nothing was changed.`)
  }
  all.slice(done).forEach(({ name, sql }, i) => {
    try {
      db.transaction(() => {
        db.exec(sql)
        db.pragma(`user_version = ${done + i + 1}`)
      })()
    }
    catch (error) {
      throw new Error(`The migration ${name} failed; the logbook is as it was before it.`, { cause: error })
    }
  })
}
