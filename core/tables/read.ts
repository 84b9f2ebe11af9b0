import { InputError, type Problem } from '../errors'
import { PURPOSES, type Purpose } from '../foods'
import { PACKAGES, type PackageKey } from '../keeping'
import { instantOf, parseLocalTime, type LocalTime } from '../readings'
import { parseWeight } from '../units'
import { TABLE_COLUMNS, type TableKind } from './columns'
import type { TableSettings } from './guess'
import { tableOf } from './table'
import { HOUR, MINUTE } from '../time'

/** What is wrong with a line of a table. */
export interface LineError extends Problem {
  line: number
}
/** A weight of a load, or of one of its trays, at an instant. */
export interface WeighInRow {
  line: number
  batch: number
  at: number
  weightG: number
  tray?: number
}
/** Something that stands on the shelf; `food` as the file has it. */
export interface InventoryRow {
  line: number
  food: string
  at: number
  undated?: true
  netG: number
  purpose: Purpose
  place?: string
  name?: string
  packageKey: PackageKey
  sizeMl?: number
  bestTo?: number
  price?: number
  source?: string
}

const EARLIEST = Date.UTC(2000, 0, 1)

/** One line as its columns name it. */
interface Line {
  line: number
  cell: (key: string) => string
  refuse: (field: string, message: string) => undefined
}

/** Goes through the rows of a file; whoever reads a row tells what is wrong with it and gives nothing. */
function* linesOf(kind: TableKind, text: string, settings: TableSettings, errors: LineError[]): Generator<Line> {
  const missing = TABLE_COLUMNS[kind].filter(column => column.needed && settings.columns[column.key] === undefined)
  if (missing.length > 0)
    throw new InputError(
      missing.map(column => ({
        field: `columns.${column.key}`,
        code: 'column-missing',
        message: `Choose the column of: ${column.name.toLowerCase()}.`,
      })),
    )
  const { cells, lines } = tableOf(text)
  for (const [i, row] of cells.entries()) {
    const line = lines[i]!
    if (line < settings.firstLine) continue
    yield {
      line,
      cell: key => row[settings.columns[key] ?? -1] ?? '',
      refuse: (field, message) => void errors.push({ line, field, code: 'unreadable', message }),
    }
  }
}

/**
 * Reads weigh-ins as the settings say. A line that is wrong is told with its number and the mend, and left out.
 * @param now instant after which a time is in the future
 * @throws InputError where a column that is needed is not chosen
 */
export function readWeighIns(text: string, settings: TableSettings, now: number): { rows: WeighInRow[]; errors: LineError[] } {
  const errors: LineError[] = []
  const rows: WeighInRow[] = []
  const instant = instants(settings, now)
  for (const row of linesOf('weighIns', text, settings, errors)) {
    const batch = wholeNumber(row, 'batch', row.cell('batch').replace(/^(?:batch|#)\s*/i, ''))
    const at = instant(row, 'time', [row.cell('time'), row.cell('clock')].filter(Boolean).join(' '))
    const weightG = weight(row, settings)
    const tray = row.cell('tray') === '' ? undefined : wholeNumber(row, 'tray', row.cell('tray').replace(/^tray\s*/i, ''))
    if (batch !== undefined && at !== undefined && weightG !== undefined && (tray !== undefined || row.cell('tray') === ''))
      rows.push({ line: row.line, batch, at, weightG, ...(tray !== undefined && { tray }) })
  }
  return { rows, errors }
}

/** Reads what stands on a shelf; rules as for weigh-ins. A line without a date is of now. */
export function readInventory(text: string, settings: TableSettings, now: number): { rows: InventoryRow[]; errors: LineError[] } {
  const errors: LineError[] = []
  const rows: InventoryRow[] = []
  const [instant, later] = [instants(settings, now), instants(settings, Infinity)]
  for (const row of linesOf('inventory', text, settings, errors)) {
    const before = errors.length
    const food = row.cell('food') || row.refuse('food', 'The food is missing.')
    const netG = weight(row, settings)
    const at = row.cell('time') === '' ? now : instant(row, 'time', row.cell('time'))
    const purpose =
      row.cell('form') === ''
        ? 'powder'
        : (PURPOSES.find(item => row.cell('form').toLowerCase().includes(item.slice(0, 5))) ??
          row.refuse('form', `“${row.cell('form')}” is no form: pieces, flakes or powder.`))
    const packageKey =
      row.cell('package') === ''
        ? 'screw-jar'
        : (packageNamed(row.cell('package')) ??
          row.refuse(
            'package',
            `“${row.cell('package')}” is no package: ${PACKAGES.filter(item => item.key !== 'other')
              .map(item => item.key)
              .join(', ')}.`,
          ))
    const sizeMl = optional(row, 'size', settings, 10, 10_000)
    const price = optional(row, 'price', settings, 0, 1_000_000)
    const bestTo = row.cell('bestBy') === '' ? undefined : later(row, 'bestBy', row.cell('bestBy'))
    for (const [key, most] of [
      ['name', 80],
      ['place', 60],
      ['source', 120],
    ] as const)
      if (row.cell(key).length > most) row.refuse(key, `At most ${most} characters.`)
    if (errors.length > before) continue
    rows.push({
      line: row.line,
      food: food!,
      at: at!,
      netG: netG!,
      purpose: purpose!,
      packageKey: packageKey!,
      ...(row.cell('time') === '' && { undated: true as const }),
      ...(row.cell('place') && { place: row.cell('place') }),
      ...(row.cell('name') && { name: row.cell('name') }),
      ...(row.cell('source') && { source: row.cell('source') }),
      ...(sizeMl !== undefined && { sizeMl: Math.round(sizeMl) }),
      ...(price !== undefined && { price }),
      ...(bestTo !== undefined && { bestTo }),
    })
  }
  return { rows, errors }
}

function packageNamed(text: string): PackageKey | undefined {
  const wanted = text.toLowerCase()
  return PACKAGES.find(({ key, name }) => key !== 'other' && (key === wanted.replace(/\s+/g, '-') || name.toLowerCase().startsWith(wanted)))
    ?.key
}

function wholeNumber({ refuse }: Line, field: string, text: string): number | undefined {
  if (text === '') return refuse(field, `The ${field} is missing.`)
  return /^\d{1,7}$/.test(text) && Number(text) > 0
    ? Number(text)
    : refuse(field, `“${text}” is not a number of a ${field}: write it such as 27.`)
}

function weight(row: Line, { unit, decimal }: TableSettings): number | undefined {
  const text = row.cell('weight')
  if (text === '') return row.refuse('weight', 'The weight is missing.')
  const plain = figure(text, decimal)
  const parsed = parseWeight(plain === undefined ? text : `${plain} ${unit}`)
  return parsed.value ?? row.refuse('weight', parsed.problem!)
}

function optional(row: Line, key: string, { decimal }: TableSettings, least: number, most: number): number | undefined {
  const text = row.cell(key)
  if (text === '') return undefined
  const value = figure(text.replace(/\s*(?:ml|€|\$|£)\s*/gi, ''), decimal)
  return value !== undefined && value >= least && value <= most
    ? value
    : row.refuse(key, `“${text}” is not a figure from ${least} to ${most.toLocaleString('en-GB')}.`)
}

/** A bare figure with its decimal sign; thousands may be set apart by the other sign. */
function figure(text: string, decimal: 'point' | 'comma'): number | undefined {
  const bare = decimal === 'comma' ? text.replace(/\.(?=\d{3}(?!\d))/g, '').replace(',', '.') : text.replace(/,(?=\d{3}(?!\d))/g, '')
  return /^[+-]?\d+(?:\.\d+)?$/.test(bare) ? Number(bare) : undefined
}

/** Reads times; those of one hour share its place on the clocks of the zone, which is what takes long. */
function instants({ dayOrder, timeZone }: TableSettings, now: number): (row: Line, field: string, text: string) => number | undefined {
  const hours = new Map<string, number | undefined>()
  const at = (time: LocalTime): number | undefined => {
    if (time.offsetMinutes !== undefined) {
      const utc = Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second)
      // A day that does not exist rolls over into the next month.
      return new Date(utc).getUTCDate() === time.day ? utc - time.offsetMinutes * MINUTE : undefined
    }
    const key = `${time.year}-${time.month}-${time.day} ${time.hour}`
    if (!hours.has(key)) hours.set(key, instantOf({ ...time, minute: 0, second: 0 }, timeZone))
    const hour = hours.get(key)
    return hour === undefined ? undefined : hour + (time.minute * 60 + time.second) * 1000
  }
  return (row, field, text) => {
    if (text === '') return row.refuse(field, 'The date is missing.')
    const time = parseLocalTime(text, dayOrder)
    const instant = time && at(time)
    if (instant === undefined)
      return row.refuse(
        field,
        `“${text}” is not a date${dayOrder === 'monthFirst' ? ', with the month first' : ''}. Is the order of day and month right?`,
      )
    if (instant > now + HOUR / 12)
      return row.refuse(field, `${text} is in the future. Is the order of day and month right, or the time zone?`)
    return instant < EARLIEST ? row.refuse(field, `${text} is before the year 2000: check the year.`) : Math.min(instant, now)
  }
}
