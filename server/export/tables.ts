import Papa from 'papaparse'
import { Temporal } from 'temporal-polyfill'
import type { EntryOf, EntryKind } from '#core/log'
import { gramsIn, temperatureIn } from '#core/units'
import type { EXPORT_TABLES, HouseholdSettings } from '#shared/contracts'
import { listBatchViews } from '#server/db/batches'
import { entriesInForce, type PlacedEntry } from '#server/db/entries'
import { allJarViews } from '#server/db/jars'
import { listMachines } from '#server/db/settings'
import { householdOf, type Context } from '#server/services/context'

export type TableName = (typeof EXPORT_TABLES)[number]
type Cell = string | number | undefined
type Row = Record<string, Cell>

/** Every batch there may be. */
const ALL = 1_000_000

/** Figures and headings in the household's units, times on its clocks. */
class Units {
  constructor(private readonly household: HouseholdSettings) {}

  weight(name: string, grams: number | null | undefined): Row {
    const { weightUnit } = this.household
    return {
      [`${name}_${weightUnit}`]:
        grams === null || grams === undefined
          ? undefined
          : round(weightUnit === 'g' ? grams : gramsIn(grams, 'oz'), weightUnit === 'g' ? 2 : 3),
    }
  }

  heat(name: string, celsius: number | null | undefined): Row {
    const { temperatureUnit } = this.household
    return {
      [`${name}_${temperatureUnit.toLowerCase()}`]:
        celsius === null || celsius === undefined ? undefined : round(temperatureIn(celsius, temperatureUnit), 1),
    }
  }

  /** ISO 8601 with the zone's offset. */
  time(at: number | null | undefined): string | undefined {
    return at === null || at === undefined
      ? undefined
      : Temporal.Instant.fromEpochMilliseconds(at)
          .toZonedDateTimeISO(this.household.timeZone)
          .toString({ smallestUnit: 'second', timeZoneName: 'never' })
  }
}

const round = (value: number, digits: number) => Number(value.toFixed(digits))
const percent = (share: number | null | undefined) => (share === null || share === undefined ? undefined : round(share * 100, 2))

/** A table, tidy: a line a fact, a column a quantity, its unit in the heading. An empty one has its headings all the same. */
export function tableOf(context: Context, name: TableName): { fields: string[]; rows: Row[] } {
  return { fields: headings(name, new Units(householdOf(context))), rows: [...rowsOf(context, name)] }
}

/** Columns in their order; a quantity stands as a function of its units. */
const COLUMNS: Record<TableName, readonly (string | ((units: Units) => Row))[]> = {
  batches: ['batch', 'food', 'cut', 'form', 'stage', 'came_in', 'machine', ...weights('raw', 'loaded', 'dry', 'powder'), 'wet_to_dry'],
  jars: [
    'jar',
    'what',
    'form',
    'place',
    'package',
    'size_ml',
    ...weights('net', 'left'),
    'packed',
    'best_from',
    'best_to',
    'water_percent',
    'lots',
    'smell',
  ],
  weighIns: ['batch', 'time', 'tray', ...weights('weight')],
  checks: ['batch', 'jar', 'time', 'check', 'found', 'humidity_percent', 'note'],
  uses: ['jar', 'food', 'time', 'what', ...weights('weight'), 'for'],
  temperatures: ['batches', 'time', heat('set'), 'off', heat('chamber'), heat('room'), 'room_humidity_percent'],
}
function weights(...names: string[]) {
  return names.map(name => (units: Units) => units.weight(name, undefined))
}
function heat(name: string) {
  return (units: Units) => units.heat(name, undefined)
}
const headings = (name: TableName, units: Units) =>
  COLUMNS[name].flatMap(column => (typeof column === 'string' ? column : Object.keys(column(units))))

function* rowsOf(context: Context, name: TableName): Generator<Row> {
  const { db } = context
  const units = new Units(householdOf(context))
  const foodName = (key: string) => context.foods.product(key)?.name ?? key
  switch (name) {
    case 'batches': {
      const machines = new Map(listMachines(db).map(machine => [machine.id, machine.name]))
      for (const view of listBatchViews(db, { limit: ALL }).reverse()) {
        yield {
          batch: view.number,
          food: foodName(view.food_key),
          cut: view.title.split(', ').slice(1).join(', '),
          form: view.purpose,
          stage: view.stage,
          came_in: units.time(view.started_at),
          machine: view.machine_id ? machines.get(view.machine_id) : undefined,
          ...units.weight('raw', view.raw_g),
          ...units.weight('loaded', view.loaded_g),
          ...units.weight('dry', view.dry_g),
          ...units.weight('powder', view.powder_g),
          wet_to_dry: view.drying_ratio === null ? undefined : round(view.drying_ratio, 3),
        }
      }
      return
    }
    case 'jars':
      for (const row of allJarViews(db)) {
        yield {
          jar: row.number,
          what: row.name ?? foodName(row.food_key),
          form: row.purpose,
          place: row.place,
          package: row.package_key,
          size_ml: row.size_ml ?? undefined,
          ...units.weight('net', row.net_g),
          ...units.weight('left', row.left_g),
          packed: units.time(row.packed_at),
          best_from: units.time(row.best_from),
          best_to: units.time(row.best_to),
          water_percent: percent(row.moisture),
          lots: row.baskets,
          smell: row.smell ?? undefined,
        }
      }
      return
    default:
      for (const entry of entriesInForce(db, KINDS[name])) yield* ROWS[name](entry, units, foodName)
  }
}

type LogTable = Exclude<TableName, 'batches' | 'jars'>
const KINDS: Record<LogTable, readonly EntryKind[]> = {
  weighIns: ['weigh'],
  checks: ['feel', 'look', 'jarAir', 'lookJar', 'smell'],
  uses: ['take', 'discard'],
  temperatures: ['heat', 'air'],
}

const of = <K extends EntryKind>(placed: PlacedEntry, kind: K): EntryOf<K>['body'] | undefined =>
  placed.entry.body.kind === kind ? (placed.entry.body as EntryOf<K>['body']) : undefined

const ROWS: Record<LogTable, (placed: PlacedEntry, units: Units, foodName: (key: string) => string) => Generator<Row>> = {
  *weighIns(placed, units) {
    const body = of(placed, 'weigh')!
    const head = { batch: placed.batchNumber, time: units.time(placed.entry.at) }
    if (body.totalG !== undefined) yield { ...head, tray: undefined, ...units.weight('weight', body.totalG) }
    for (const tray of body.trays ?? []) yield { ...head, tray: tray.position, ...units.weight('weight', tray.weightG) }
  },
  *checks(placed, units) {
    const { body, at } = placed.entry
    const found =
      body.kind === 'feel'
        ? Object.values(body.check.answers).join(', ')
        : body.kind === 'look' || body.kind === 'lookJar'
          ? body.saw
          : body.kind === 'smell'
            ? body.smell
            : undefined
    yield {
      batch: placed.batchNumber,
      jar: placed.jarNumber,
      time: units.time(at),
      check: body.kind,
      found,
      humidity_percent: body.kind === 'jarAir' ? percent(body.shown) : undefined,
      note: 'note' in body ? body.note : undefined,
    }
  },
  *uses(placed, units, foodName) {
    const { body, at } = placed.entry
    const take = of(placed, 'take')
    yield {
      jar: placed.jarNumber,
      food: placed.foodKey && foodName(placed.foodKey),
      time: units.time(at),
      what: body.kind === 'take' ? 'taken' : 'discarded',
      ...units.weight('weight', take?.weightG),
      for: take?.use ?? of(placed, 'discard')?.cause,
    }
  },
  *temperatures(placed, units) {
    const {
      entry: { at },
      batches,
    } = placed
    const [heat, air] = [of(placed, 'heat'), of(placed, 'air')]
    yield {
      batches,
      time: units.time(at),
      ...units.heat('set', heat?.setC),
      off: heat?.setC === null ? 'off' : undefined,
      ...units.heat('chamber', air?.chamberC),
      ...units.heat('room', air?.roomC),
      room_humidity_percent: percent(air?.roomHumidity),
    }
  },
}

/** One table as CSV (RFC 4180). Signs that a spreadsheet would run as a formula are defused. */
export function tableCsv(context: Context, name: TableName): string {
  const { fields, rows } = tableOf(context, name)
  return Papa.unparse({ fields, data: rows }, { escapeFormulae: true, newline: '\r\n' })
}
