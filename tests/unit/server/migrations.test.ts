import Database from 'better-sqlite3'
import { uuidv7 } from 'uuidv7'
import { migrate } from '#server/db/migrate'
import { migrations } from '#server/db/migrationsFromDisk'
import { MORNING } from '../../support/logbook'

const schemaOf = (db: Database.Database) =>
  db.prepare("SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' ORDER BY type, name").all()
const fresh = () => {
  const db = new Database(':memory:')
  db.pragma('foreign_keys = ON')
  return db
}

describe('migrations', () => {
  it('are numbered in order, without gaps', () => {
    expect(migrations.map(({ name }) => Number(name.slice(0, 3)))).toEqual(migrations.map((_, i) => i + 1))
  })

  it.each(migrations.map((_, i) => i + 1))('lead from form %i to the newest with the log untouched', form => {
    const newest = fresh()
    migrate(newest, migrations)
    const db = fresh()
    migrate(db, migrations.slice(0, form))
    const batch = uuidv7()
    db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, 1, ?)').run(batch, MORNING)
    db.prepare("INSERT INTO entry (id, batch_id, kind, at, recorded_at, body) VALUES (?, ?, 'note', ?, ?, ?)").run(
      uuidv7(),
      batch,
      MORNING,
      MORNING,
      '{"kind":"note","text":"Muddy"}',
    )
    const log = db.prepare('SELECT * FROM entry').all() as object[]
    migrate(db, migrations)
    expect(db.pragma('user_version', { simple: true })).toBe(migrations.length)
    // A column more may have come; what was written stays.
    expect(db.prepare('SELECT * FROM entry').all()).toEqual(log.map(row => ({ jar_id: null, writer_id: null, writer_name: null, ...row })))
    expect(schemaOf(db)).toEqual(schemaOf(newest))
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok')
    expect(db.pragma('foreign_key_check')).toEqual([])
  })

  it('moves what concerns a jar from its batch’s log to its own, word for word', () => {
    const db = fresh()
    migrate(db, migrations.slice(0, 5))
    const [batch, jar, taken] = [uuidv7(), uuidv7(), uuidv7()]
    db.prepare('INSERT INTO batch (id, number, created_at) VALUES (?, 1, ?)').run(batch, MORNING)
    db.prepare('INSERT INTO jar (id, number, batch_id) VALUES (?, 7, ?)').run(jar, batch)
    const add = db.prepare('INSERT INTO entry (id, batch_id, kind, at, recorded_at, body) VALUES (?, ?, ?, ?, ?, ?)')
    add.run(uuidv7(), batch, 'pack', MORNING, MORNING, JSON.stringify({ kind: 'pack', jarId: jar, netG: 50 }))
    add.run(taken, batch, 'take', MORNING, MORNING, JSON.stringify({ kind: 'take', jarId: jar, weightG: 5 }))
    add.run(uuidv7(), batch, 'void', MORNING, MORNING, JSON.stringify({ kind: 'void', target: taken }))
    const bodies = db.prepare('SELECT seq, id, body FROM entry').all()
    migrate(db, migrations)
    expect(db.prepare('SELECT seq, id, body FROM entry').all()).toEqual(bodies)
    expect(db.prepare('SELECT kind, batch_id, jar_id FROM entry ORDER BY seq').all()).toEqual([
      { kind: 'pack', batch_id: batch, jar_id: null },
      { kind: 'take', batch_id: null, jar_id: jar },
      { kind: 'void', batch_id: null, jar_id: jar },
    ])
    expect(db.prepare('SELECT jar_id, seq FROM entry_jar ORDER BY seq').all()).toEqual([1, 2, 3].map(seq => ({ jar_id: jar, seq })))
    expect(db.prepare('SELECT * FROM jar').all()).toEqual([{ id: jar, number: 7 }])
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
    const tables = db.prepare("SELECT name, strict FROM pragma_table_list WHERE type = 'table' AND name NOT LIKE 'sqlite_%'").all() as {
      name: string
      strict: number
    }[]
    expect(tables.length).toBeGreaterThan(5)
    expect(tables.filter(table => table.strict !== 1)).toEqual([])
  })
})
