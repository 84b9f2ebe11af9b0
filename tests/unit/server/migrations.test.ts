import Database from 'better-sqlite3'
import { uuidv7 } from 'uuidv7'
import { migrate } from '#server/db/migrate'
import { migrations } from '#server/db/migrationsFromDisk'
import { MORNING } from '../../support/logbook'

const schemaOf = (db: Database.Database) => db.prepare('SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE \'sqlite_%\' ORDER BY type, name').all()
const fresh = () => {
  const db = new Database(':memory:')
  db.pragma('foreign_keys = ON')
  return db
}

describe('migrations', () => {
  it('are numbered in order, without gaps', () => {
    expect(migrations.map(({ name }) => Number(name.slice(0, 3)))).toEqual(migrations.map((_, i) => i + 1))
  })

  it.each(migrations.map((_, i) => i + 1))('lead from form %i to the newest with the log untouched', (form) => {
    const newest = fresh()
    migrate(newest, migrations)
    const db = fresh()
    migrate(db, migrations.slice(0, form))
    const batch = uuidv7()
    db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, 1, ?)').run(batch, MORNING)
    db.prepare('INSERT INTO entry (id, batch_id, kind, at, recorded_at, body) VALUES (?, ?, \'note\', ?, ?, ?)').run(uuidv7(), batch, MORNING, MORNING, '{"kind":"note","text":"Muddy"}')
    const log = db.prepare('SELECT * FROM entry').all()
    migrate(db, migrations)
    expect(db.pragma('user_version', { simple: true })).toBe(migrations.length)
    expect(db.prepare('SELECT * FROM entry').all()).toEqual(log)
    expect(schemaOf(db)).toEqual(schemaOf(newest))
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok')
    expect(db.pragma('foreign_key_check')).toEqual([])
  })

  it('are applied once: again they change nothing', () => {
    const db = fresh()
    migrate(db, migrations)
    const before = schemaOf(db)
    migrate(db, migrations)
    expect(schemaOf(db)).toEqual(before)
  })

  it('make STRICT tables only', () => {
    const db = fresh()
    migrate(db, migrations)
    const tables = db.prepare('SELECT name, strict FROM pragma_table_list WHERE type = \'table\' AND name NOT LIKE \'sqlite_%\'').all() as { name: string, strict: number }[]
    expect(tables.length).toBeGreaterThan(5)
    expect(tables.filter(table => table.strict !== 1)).toEqual([])
  })
})
