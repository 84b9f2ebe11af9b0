import type { HygrometerSettings } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface HygrometerRow {
  id: string
  name: string
  readings: string
  tested_at: number | null
  version: number
}

export type HygrometerRecord = HygrometerSettings & { testedAt?: number; version: number }

const toRecord = (row: HygrometerRow): HygrometerRecord => ({
  id: row.id,
  name: row.name,
  readings: JSON.parse(row.readings) as HygrometerSettings['readings'],
  testedAt: row.tested_at ?? undefined,
  version: row.version,
})

export function listHygrometers(db: Db): HygrometerRecord[] {
  return statement<HygrometerRow>(db, 'SELECT * FROM hygrometer ORDER BY name').all().map(toRecord)
}

export function findHygrometer(db: Db, id: string): HygrometerRecord | undefined {
  const row = statement<HygrometerRow>(db, 'SELECT * FROM hygrometer WHERE id = ?').get(id)
  return row && toRecord(row)
}

/** Adds the row, or changes it and raises its version. */
export function putHygrometer(db: Db, settings: HygrometerSettings, testedAt: number | undefined): void {
  statement(
    db,
    `
    INSERT INTO hygrometer (id, name, readings, tested_at) VALUES (?, ?, ?, ?)
    ON CONFLICT (id) DO UPDATE SET name = excluded.name, readings = excluded.readings, tested_at = excluded.tested_at, version = hygrometer.version + 1`,
  ).run(settings.id, settings.name, JSON.stringify(settings.readings), testedAt ?? null)
}
