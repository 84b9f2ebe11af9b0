import { InputError } from '../errors'
import { tableOf } from '../tables/table'
import { temperatureFrom, type TemperatureUnit } from '../units'
import { dayOrderOf, instantOf, parseLocalTime, type DayOrder } from './loggerTime'

/** What is made of a logger's file; guessed first, and to be set right by whoever knows better. Columns count from 0. */
export interface LoggerSettings {
  /** Column of the time, or of the date where the clock stands in one of its own. */
  timeColumn: number
  clockColumn?: number
  celsiusColumn?: number
  humidityColumn?: number
  temperatureUnit: TemperatureUnit
  humidityUnit: 'percent' | 'share'
  decimal: 'point' | 'comma'
  dayOrder: DayOrder
  timeZone: string
}

export interface LoggerGuess {
  settings: LoggerSettings
  /** Names of the columns, made up where the file has none. */
  columns: string[]
  /** Line of the first reading, counting from 1. */
  firstLine: number
  /** What could not be told from the file and was taken for granted. */
  doubts: string[]
}

export interface LoggerRow {
  line: number
  at: number
  celsius?: number
  humidity?: number
}
export interface LoggerError {
  line: number
  field: string
  message: string
}
export interface LoggerReadings {
  rows: LoggerRow[]
  errors: LoggerError[]
}

/** Lines looked at for the guess. */
const LOOKED_AT = 60
/** What a thermometer or hygrometer can show at all. */
const CELSIUS = { low: -80, high: 300 }

const isFigure = (cell: string) => /^[+-]?\d+(?:[.,]\d+)?\s*(?:°?\s*[CF]|%)?$/i.test(cell)
const isTime = (cell: string) => parseLocalTime(cell, 'dayFirst') !== undefined || parseLocalTime(cell, 'monthFirst') !== undefined
const isClock = (cell: string) => /^\d{1,2}:\d{2}(?::\d{2})?(?:\s*[ap]\.?m\.?)?$/i.test(cell)
const isReading = (row: string[]) => row.some(cell => isTime(cell)) && row.some(cell => isFigure(cell) && !/^\d{10}$|^\d{13}$/.test(cell))

/**
 * Looks at a logger's file and guesses what its columns are: any order, any delimiter, a preamble or not.
 * @param timeZone of the household, for times without an offset
 * @throws InputError where no line holds a time and a figure
 */
export function guessLogger(text: string, timeZone: string): LoggerGuess {
  const { cells, lines } = tableOf(text)
  const first = cells.findIndex(isReading)
  if (first < 0)
    throw new InputError([
      {
        field: 'file',
        code: 'no-readings',
        message: 'No line of this file holds a time and a figure. Export the readings as CSV, with a column of times.',
      },
    ])
  const width = cells[first]!.length
  const above = first > 0 ? cells[first - 1]! : []
  const named = above.length > 1 && above.filter(cell => cell !== '' && !isFigure(cell)).length > 1
  const columns = Array.from({ length: width }, (_, i) => (named && above[i]) || `Column ${i + 1}`)
  const sample = cells.slice(first, first + LOOKED_AT).filter(isReading)
  const column = (i: number) => sample.map(row => row[i] ?? '')
  const share = (i: number, good: (cell: string) => boolean) => column(i).filter(good).length / sample.length

  const indexes = columns.map((_, i) => i)
  const timeColumn = indexes.find(i => share(i, isTime) > 0.8) ?? cells[first]!.findIndex(isTime)
  const dateOnly = column(timeColumn).every(cell => !cell.includes(':') && !/^\d{10}$|^\d{13}$/.test(cell))
  const clockColumn = dateOnly ? indexes.find(i => i !== timeColumn && share(i, isClock) > 0.8) : undefined
  const figures = indexes.filter(
    i =>
      i !== timeColumn &&
      i !== clockColumn &&
      share(i, isFigure) > 0.5 &&
      !/^(#|no\.?|nr\.?|index|id|record|sample|count|line)$/i.test(columns[i]!),
  )
  const called = (i: number, words: RegExp) => words.test(columns[i]!) || column(i).some(cell => words.test(cell.replace(/[\d.,+-]/g, '')))
  const celsiusColumn =
    figures.find(i => called(i, /temp|°\s*[cf]|\bdeg|celsius|fahrenheit|\([cf]\)/i) && !called(i, /dew/i)) ??
    figures.find(i => !called(i, /hum|%|\brh\b|dew|press|batt|volt/i))
  const humidityColumn = figures.find(i => i !== celsiusColumn && called(i, /hum|\brh\b|%/i))

  const decimal = figures.some(i => column(i).some(cell => /\d,\d/.test(cell))) ? 'comma' : 'point'
  const order = dayOrderOf(column(timeColumn))
  const temperatureUnit = celsiusColumn !== undefined && called(celsiusColumn, /°\s*f|fahrenheit|deg\s*f|\(f\)|^f$/i) ? 'F' : 'C'
  const humidities =
    humidityColumn === undefined
      ? []
      : column(humidityColumn)
          .map(cell => figureOf(cell, decimal))
          .filter(value => value !== undefined)
  const doubts: string[] = []
  if (!order.sure)
    doubts.push(
      `The dates do not say whether the day or the month comes first; the ${order.order === 'dayFirst' ? 'day' : 'month'} is taken.`,
    )
  if (celsiusColumn !== undefined && !called(celsiusColumn, /°\s*[cf]|celsius|fahrenheit|deg\s*[cf]|\([cf]\)/i))
    doubts.push('The file does not name its unit of temperature; °C is taken.')
  if (column(timeColumn).every(cell => parseLocalTime(cell, order.order)?.offsetMinutes === undefined))
    doubts.push(`Its times have no zone; they are taken as ${timeZone}.`)
  return {
    settings: {
      timeColumn,
      clockColumn,
      celsiusColumn,
      humidityColumn,
      temperatureUnit,
      decimal,
      timeZone,
      dayOrder: order.order,
      humidityUnit: humidities.filter(value => value <= 1).length > 0.6 * humidities.length && humidities.length > 0 ? 'share' : 'percent',
    },
    columns,
    firstLine: lines[first]!,
    doubts,
  }
}

/**
 * Reads a logger's file as the settings say. A line that is wrong is told with its number and the mend,
 * and left out; the others are kept.
 * @param now instant after which a time is in the future
 * @throws InputError where no column of figures is chosen
 */
export function readLogger(text: string, settings: LoggerSettings, firstLine: number, now: number): LoggerReadings {
  if (settings.celsiusColumn === undefined && settings.humidityColumn === undefined) {
    throw new InputError([{ field: 'celsiusColumn', code: 'column-missing', message: 'Choose the column of temperature or of humidity.' }])
  }
  const { cells, lines } = tableOf(text)
  const result: LoggerReadings = { rows: [], errors: [] }
  const seen = new Set<number>()
  let before: number | undefined
  cells.forEach((row, i) => {
    const line = lines[i]!
    if (line < firstLine) return
    const refuse = (field: string, message: string) => {
      result.errors.push({ line, field, message })
    }
    const written = [row[settings.timeColumn], settings.clockColumn === undefined ? undefined : row[settings.clockColumn]]
      .filter(Boolean)
      .join(' ')
    const time = parseLocalTime(written, settings.dayOrder)
    const at = time && instantOf(time, settings.timeZone, before)
    if (written === '') return refuse('time', 'The time is missing: the line is left out.')
    if (at === undefined)
      return refuse(
        'time',
        `“${written}” is not a time${settings.dayOrder === 'monthFirst' ? ', with the month first' : ''}. Is the order of day and month right?`,
      )
    if (at > now) return refuse('time', `${written} is in the future. Is the time zone right, or the order of day and month?`)
    if (seen.has(at)) return refuse('time', `${written} stands twice: the first is kept.`)
    const celsius = celsiusOf(row, settings, refuse)
    const humidity = humidityOf(row, settings, refuse)
    if (celsius === undefined && humidity === undefined) return
    seen.add(at)
    before = at
    result.rows.push({ line, at, celsius, humidity })
  })
  return result
}

type Refuse = (field: string, message: string) => void

function celsiusOf(row: string[], { celsiusColumn, decimal, temperatureUnit }: LoggerSettings, refuse: Refuse): number | undefined {
  const cell = celsiusColumn === undefined ? undefined : row[celsiusColumn]
  if (cell === undefined) return undefined
  const value = figureOf(cell, decimal)
  if (value === undefined) {
    refuse('temperature', cell === '' ? 'No temperature: the probe may have been unplugged.' : `“${cell}” is not a temperature.`)
    return undefined
  }
  const celsius = Math.round(100 * temperatureFrom(value, temperatureUnit)) / 100
  if (celsius >= CELSIUS.low && celsius <= CELSIUS.high) return celsius
  refuse('temperature', `${cell} °${temperatureUnit} is beyond what a probe reads. Is the unit right, or the decimal sign?`)
  return undefined
}

function humidityOf(row: string[], { humidityColumn, decimal, humidityUnit }: LoggerSettings, refuse: Refuse): number | undefined {
  const cell = humidityColumn === undefined ? undefined : row[humidityColumn]
  if (cell === undefined || cell === '') return undefined
  const value = figureOf(cell, decimal)
  const share = value === undefined ? undefined : humidityUnit === 'percent' ? value / 100 : value
  if (share !== undefined && share >= 0 && share <= 1) return Math.round(share * 10_000) / 10_000
  refuse('humidity', `“${cell}” is not a humidity${humidityUnit === 'percent' ? ' in percent' : ' as a share from 0 to 1'}.`)
  return undefined
}

/** A figure with its decimal sign; a unit behind it is passed over. */
function figureOf(cell: string, decimal: 'point' | 'comma'): number | undefined {
  const bare = cell.replace(/\s*(?:°?\s*[CF]|%)$/i, '')
  const written = decimal === 'comma' ? bare.replace(',', '.') : bare
  return /^[+-]?\d+(?:\.\d+)?$/.test(written) ? Number(written) : undefined
}
