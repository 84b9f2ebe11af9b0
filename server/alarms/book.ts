import { mkdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import Database from 'better-sqlite3'
import type { AlarmChoice, AlarmsAnswer, AlarmTold } from '#shared/contracts'
import type { Db } from '#server/db/open'
import { statement } from '#server/db/statement'
import { soundOrNew } from '#server/db/soundOrNew'
import { keyFolder } from '#server/home/certificates'

/**
 * Who is told of what, and what was told: in a file beside the keys, since it holds a mailbox's password. No copy, backup or
 * export carries it away, and putting an old logbook back tells nobody anew.
 */
const TABLES = `
CREATE TABLE IF NOT EXISTS choice (id INTEGER PRIMARY KEY CHECK (id = 1), body TEXT NOT NULL) STRICT;
CREATE TABLE IF NOT EXISTS told (
  id INTEGER PRIMARY KEY,
  key TEXT NOT NULL,
  way TEXT NOT NULL,
  at INTEGER NOT NULL,
  body TEXT NOT NULL,
  failed TEXT
) STRICT;
CREATE INDEX IF NOT EXISTS told_key ON told (way, key, at);`

const NOTHING: AlarmChoice = { quiet: true }
/** So many tellings are kept, and so many shown. */
const MOST_KEPT = 500
const MOST_SHOWN = 20

function begin(db: Db): void {
  db.pragma('journal_mode = DELETE')
  db.exec(TABLES)
}

export class AlarmBook {
  private readonly db: Db

  /** @param logbook the logbook's file; ":memory:" keeps nothing */
  constructor(logbook: string) {
    if (logbook === ':memory:') this.db = new Database(logbook)
    else {
      const folder = keyFolder(dirname(logbook))
      mkdirSync(folder, { recursive: true, mode: 0o700 })
      this.db = soundOrNew(join(folder, 'alarms.sqlite'), logbook => begin(logbook))
      return
    }
    begin(this.db)
  }

  close(): void {
    this.db.close()
  }

  get choice(): AlarmChoice {
    const row = statement<{ body: string }>(this.db, 'SELECT body FROM choice').get()
    return row ? (JSON.parse(row.body) as AlarmChoice) : NOTHING
  }

  /** Keeps what was chosen; a password that is left out stays what it was, while the mailbox is the same. */
  choose(wanted: AlarmChoice): void {
    const before = this.choice.mail
    const mail = wanted.mail && {
      ...wanted.mail,
      password:
        wanted.mail.password ?? (before?.host === wanted.mail.host && before.user === wanted.mail.user ? before.password : undefined),
    }
    statement(this.db, 'INSERT OR REPLACE INTO choice (id, body) VALUES (1, ?)').run(JSON.stringify({ ...wanted, mail }))
  }

  /** When each thing was told last by a way, by its key. What did not arrive was not told. */
  toldBy(way: AlarmTold['way']): Map<string, number> {
    const rows = statement<{ key: string; at: number }>(
      this.db,
      'SELECT key, max(at) AS at FROM told WHERE way = ? AND failed IS NULL GROUP BY key',
    ).all(way)
    return new Map(rows.map(row => [row.key, row.at]))
  }

  /** How often a thing did not arrive since an instant. */
  failures(way: AlarmTold['way'], key: string, since: number): number {
    return statement<{ count: number }>(
      this.db,
      'SELECT count(*) AS count FROM told WHERE way = ? AND key = ? AND at >= ? AND failed IS NOT NULL',
    ).get(way, key, since)!.count
  }

  note(key: string, told: AlarmTold): void {
    const { failed, ...body } = told
    statement(this.db, 'INSERT INTO told (key, way, at, body, failed) VALUES (?, ?, ?, ?, ?)').run(
      key,
      told.way,
      told.at,
      JSON.stringify(body),
      failed ?? null,
    )
    statement(this.db, 'DELETE FROM told WHERE id <= (SELECT max(id) FROM told) - ?').run(MOST_KEPT)
  }

  get answer(): AlarmsAnswer {
    const { mail, ...choice } = this.choice
    const { password, ...shown } = mail ?? {}
    const rows = statement<{ body: string; failed: string | null }>(
      this.db,
      `SELECT body, failed FROM told ORDER BY id DESC LIMIT ${MOST_SHOWN}`,
    ).all()
    return {
      choice: { ...choice, ...(mail && { mail: shown as AlarmChoice['mail'] }) },
      hasPassword: password !== undefined,
      told: rows.map(row => ({ ...(JSON.parse(row.body) as AlarmTold), failed: row.failed ?? undefined })),
    }
  }
}
