import type { Db } from './open'
import { statement } from './statement'

/** A column of a table and its name in the file; JSON columns are taken as they stand. */
type Columns = Record<string, { name: string; json?: boolean; spread?: boolean }>

const plain = (...names: string[]) =>
  Object.fromEntries(names.map(name => [name, { name: name.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase()) }]))

/**
 * Every table that was written by hand, in an order in which each refers to those before it. A column `body` is
 * JSON; where it is spread its fields stand beside the others.
 */
export const WRITTEN_TABLES: readonly { key: string; table: string; order: string; columns: Columns }[] = [
  {
    key: 'machines',
    table: 'machine',
    order: 'id',
    columns: {
      ...plain('id', 'name', 'kind', 'trays'),
      tray_area_m2: { name: 'trayAreaM2' },
      tray_tare_g: { name: 'trayTareG' },
      tray_tares: { name: 'trayTares', json: true },
      watts: { name: 'watts' },
      low_c: { name: 'lowC' },
      high_c: { name: 'highC' },
      ice_g: { name: 'iceG' },
      ...plain('retired_at', 'version'),
    },
  },
  {
    key: 'tools',
    table: 'tool',
    order: 'id',
    columns: { ...plain('id', 'kind', 'name'), body: { name: 'body', json: true, spread: true }, ...plain('retired_at', 'version') },
  },
  {
    key: 'hygrometers',
    table: 'hygrometer',
    order: 'id',
    columns: { ...plain('id', 'name'), readings: { name: 'readings', json: true }, ...plain('tested_at', 'version') },
  },
  { key: 'devices', table: 'device', order: 'id', columns: plain('id', 'name', 'kind', 'machine_id', 'version') },
  { key: 'foods', table: 'own_food', order: 'key', columns: { version: { name: 'version' }, body: { name: 'food', json: true } } },
  {
    key: 'cards',
    table: 'own_card',
    order: 'food_key, card_key',
    columns: { version: { name: 'version' }, card_key: { name: 'cardKey' }, body: { name: 'card', json: true } },
  },
  {
    key: 'wishes',
    table: 'food_wish',
    order: 'food_key',
    columns: { food_key: { name: 'foodKey' }, least_g: { name: 'leastG' }, shop_per_kg: { name: 'shopPerKg' } },
  },
  {
    key: 'recipes',
    table: 'recipe',
    order: 'id',
    columns: { ...plain('id', 'kind', 'name'), body: { name: 'body', json: true, spread: true }, version: { name: 'version' } },
  },
  {
    key: 'recipesPast',
    table: 'recipe_past',
    order: 'id, version',
    columns: { ...plain('id', 'kind', 'name'), body: { name: 'body', json: true, spread: true }, ...plain('version', 'until') },
  },
  { key: 'runs', table: 'run', order: 'created_at, id', columns: plain('id', 'machine_id', 'created_at') },
  { key: 'batches', table: 'batch', order: 'number', columns: plain('id', 'number', 'created_at') },
  { key: 'planBook', table: 'plan_book', order: 'id', columns: { version: { name: 'version' }, body: { name: 'book', json: true } } },
  {
    key: 'planRuns',
    table: 'plan_run',
    order: 'basket_id',
    columns: { ...plain('basket_id', 'batch_id', 'taken_at'), body: { name: 'run', json: true } },
  },
  { key: 'jars', table: 'jar', order: 'number', columns: plain('id', 'number') },
  { key: 'upkeep', table: 'upkeep', order: 'at, id', columns: plain('id', 'machine_id', 'task', 'at', 'hours_run') },
  {
    key: 'cleared',
    table: 'todo_cleared',
    order: 'cleared_at, batch_id',
    columns: plain('batch_id', 'kind', 'from_at', 'reason', 'cleared_at'),
  },
  {
    key: 'entries',
    table: 'entry',
    order: 'seq',
    columns: {
      ...plain('seq', 'id', 'batch_id', 'run_id', 'jar_id', 'at', 'recorded_at', 'replaces', 'writer_id', 'writer_name'),
      body: { name: 'body', json: true },
    },
  },
]

/** Nullable columns whose absence means something else than null in a file. */
const NULLS = new Set(['machineId'])

/** The rows of a table as lines of JSON, one at a time; what is null is left out. */
export function* rowsAsJson(db: Db, { table, order, columns }: (typeof WRITTEN_TABLES)[number]): Generator<string> {
  const names = Object.keys(columns)
  for (const row of db
    .prepare<[], Record<string, string | number | null>>(`SELECT ${names.join(', ')} FROM ${table} ORDER BY ${order}`)
    .iterate()) {
    const fields = names.flatMap(column => {
      const { name, json, spread } = columns[column]!
      const value = row[column]!
      if (value === null) return table === 'device' && NULLS.has(name) ? [`"${name}":null`] : []
      if (spread) return String(value).slice(1, -1) || []
      return [`"${name}":${json ? String(value) : JSON.stringify(value)}`]
    })
    yield `{${fields.join(',')}}`
  }
}

/** Writes a row of a file into its table. */
export function insertRow(
  db: Db,
  { table, columns }: (typeof WRITTEN_TABLES)[number],
  row: Record<string, unknown>,
  more: Record<string, string | number> = {},
): void {
  const own = new Set(Object.values(columns).map(column => column.name))
  const rest = Object.fromEntries(Object.entries(row).filter(([key]) => !own.has(key)))
  const names = [...Object.keys(columns), ...Object.keys(more)]
  const values = Object.entries(columns).map(([, { name, json, spread }]) => {
    if (spread) return JSON.stringify(rest)
    const value = row[name]
    return value === undefined || value === null
      ? null
      : json
        ? JSON.stringify(value)
        : typeof value === 'number' && Number.isInteger(value)
          ? BigInt(value)
          : (value as string | number)
  })
  statement(db, `INSERT INTO ${table} (${names.join(', ')}) VALUES (${names.map(() => '?').join(', ')})`).run(
    ...values,
    ...Object.values(more),
  )
}

/** Channels that have readings, in a fixed order. */
export function readChannels(db: Db): { device_id: string; channel: string }[] {
  return statement<{ device_id: string; channel: string }>(
    db,
    'SELECT DISTINCT device_id, channel FROM reading ORDER BY device_id, channel',
  ).all()
}

/** Readings of a channel, oldest first, one at a time. */
export function readingsOf(db: Db, deviceId: string, channel: string): IterableIterator<{ at: number; value: number }> {
  return db
    .prepare<[string, string], { at: number; value: number }>(
      'SELECT at, value FROM reading WHERE device_id = ? AND channel = ? ORDER BY at',
    )
    .iterate(deviceId, channel)
}

/** Whether anything was ever written beside what a new logbook begins with. */
export function isUntouched(db: Db): boolean {
  const tables = [
    'entry',
    'batch',
    'jar',
    'run',
    'own_food',
    'own_card',
    'recipe',
    'recipe_past',
    'tool',
    'hygrometer',
    'device',
    'food_wish',
    'upkeep',
  ]
  return tables.every(table => db.prepare<[], { found: number }>(`SELECT EXISTS (SELECT 1 FROM ${table}) AS found`).get()!.found === 0)
}
