import fc from 'fast-check'
import { dayOrderOf, guessLogger, instantOf, parseLocalTime, readLogger } from '#core/readings'

const ZONE = 'Europe/Lisbon'
const NOW = Date.UTC(2026, 10, 25, 12)
const read = (text: string, change: Partial<ReturnType<typeof guessLogger>['settings']> = {}) => {
  const { settings, firstLine } = guessLogger(text, ZONE)
  return readLogger(text, { ...settings, ...change }, firstLine, NOW)
}

describe('times of a logger', () => {
  it.each([
    ['2026-11-20 18:05:30', 'dayFirst', Date.UTC(2026, 10, 20, 18, 5, 30)],
    ['2026-11-20T18:05:30+02:00', 'dayFirst', Date.UTC(2026, 10, 20, 16, 5, 30)],
    ['2026/11/20 18:05', 'monthFirst', Date.UTC(2026, 10, 20, 18, 5)],
    ['20.11.2026 18:05', 'dayFirst', Date.UTC(2026, 10, 20, 18, 5)],
    ['11/20/26 6:05:30 PM', 'monthFirst', Date.UTC(2026, 10, 20, 18, 5, 30)],
    ['11/20/2026, 12:05 AM', 'monthFirst', Date.UTC(2026, 10, 20, 0, 5)],
    ['1795198530', 'dayFirst', 1_795_198_530_000],
  ] as const)('%s (%s)', (text, order, at) => expect(instantOf(parseLocalTime(text, order)!, ZONE)).toBe(at))

  it.each(['', 'yesterday', '31/31/2026 10:00', '2026-11-20 25:00', '2026-11-20 10:61'])('“%s” is none', text =>
    expect(parseLocalTime(text, 'dayFirst')).toBeUndefined(),
  )
  it('is no day that the calendar lacks', () => expect(instantOf(parseLocalTime('2026-02-30 10:00', 'dayFirst')!, ZONE)).toBeUndefined())

  it('goes on through the hour that autumn has twice', () => {
    // Clocks in Lisbon went from 02:00 back to 01:00 on 25 October 2026, by the IANA time zone database.
    const twice = ['2026-10-25 00:50', '2026-10-25 01:20', '2026-10-25 01:50', '2026-10-25 01:20', '2026-10-25 01:50', '2026-10-25 02:20']
    const at: number[] = []
    for (const text of twice) at.push(instantOf(parseLocalTime(text, 'dayFirst')!, ZONE, at.at(-1))!)
    expect(at.map((instant, i) => (i === 0 ? 0 : (instant - at[i - 1]!) / 60_000))).toEqual([0, 30, 30, 30, 30, 30])
  })
  it('tells day from month where a part is above 12, and says when it cannot', () => {
    expect(dayOrderOf(['03/04/2026 10:00', '13/04/2026 10:00'])).toEqual({ order: 'dayFirst', sure: true })
    expect(dayOrderOf(['03/14/2026 10:00'])).toEqual({ order: 'monthFirst', sure: true })
    expect(dayOrderOf(['03/04/2026 10:00'])).toEqual({ order: 'dayFirst', sure: false })
    expect(dayOrderOf(['03/04/2026 10:00 PM'])).toEqual({ order: 'monthFirst', sure: false })
    expect(dayOrderOf(['03.04.2026 10:00'])).toEqual({ order: 'dayFirst', sure: true })
  })
})

describe('a logger’s file', () => {
  it('with a preamble, semicolons, decimal commas and its own order of columns', () => {
    const text =
      'Device;AB-1\nInterval;10 min\n\nNo;Humidity [%];Temperature [°C];Time\n1;54,2;56,3;20.11.2026 18:00\n2;53,9;57,1;20.11.2026 18:10\n'
    const guess = guessLogger(text, ZONE)
    expect(guess).toMatchObject({
      firstLine: 5,
      settings: { timeColumn: 3, celsiusColumn: 2, humidityColumn: 1, decimal: 'comma', temperatureUnit: 'C', humidityUnit: 'percent' },
    })
    expect(read(text)).toEqual({
      errors: [],
      rows: [
        { line: 5, at: Date.UTC(2026, 10, 20, 18), celsius: 56.3, humidity: 0.542 },
        { line: 6, at: Date.UTC(2026, 10, 20, 18, 10), celsius: 57.1, humidity: 0.539 },
      ],
    })
  })
  it('in °F with a clock of its own column', () => {
    const text = 'Date,Time,Temp (F),RH\n11/20/2026,6:00 PM,134.6,41\n11/20/2026,6:10 PM,135,40\n'
    expect(read(text).rows).toEqual([
      { line: 2, at: Date.UTC(2026, 10, 20, 18), celsius: 57, humidity: 0.41 },
      { line: 3, at: Date.UTC(2026, 10, 20, 18, 10), celsius: 57.22, humidity: 0.4 },
    ])
  })
  it('without names, and says what it took for granted', () => {
    const guess = guessLogger('2026-11-20 18:00,56.3\n2026-11-20 18:10,56.9\n', ZONE)
    expect(guess.columns).toEqual(['Column 1', 'Column 2'])
    expect(guess.firstLine).toBe(1)
    expect(guess.doubts.join(' ')).toMatch(/unit of temperature.*no zone/)
  })
  it('tells every wrong line by number and keeps the others', () => {
    const text = [
      'time,celsius,humidity',
      '2026-11-20 18:00,56.3,0.4',
      '2026-11-20 18:10,err,0.4',
      'later,56,0.4',
      ',56,0.4',
      '2026-11-20 18:00,56.4,0.4',
      '2027-11-20 18:00,56,0.4',
      '2026-11-20 18:20,5600,0.4',
      '2026-11-20 18:30,57,1.4',
      '2026-11-20 18:40,57,0.4',
    ].join('\r\n')
    const { rows, errors } = read(text)
    expect(rows.map(row => row.line)).toEqual([2, 3, 8, 9, 10])
    expect(errors.map(({ line, field }) => `${line} ${field}`)).toEqual([
      '3 temperature',
      '4 time',
      '5 time',
      '6 time',
      '7 time',
      '8 temperature',
      '9 humidity',
    ])
    expect(errors.map(error => error.message).join(' ')).toMatch(
      /“err” is not a temperature.*“later” is not a time.*missing.*twice.*future.*beyond.*“1.4” is not a humidity/,
    )
  })
  it('is read in the zone that is chosen', () => {
    const text = 'time,°C\n2026-11-20 18:00,56\n2026-11-20 18:10,56\n'
    expect(read(text, { timeZone: 'Asia/Tokyo' }).rows[0]!.at).toBe(Date.UTC(2026, 10, 20, 9))
  })
  it.each(['', 'no figures here', 'name;place\nAnna;Board'])('“%s” is none', text =>
    expect(() => guessLogger(text, ZONE)).toThrow('No line of this file'),
  )
  it('needs a column of figures', () => {
    const text = 'time,°C\n2026-11-20 18:00,56\n'
    expect(() => read(text, { celsiusColumn: undefined })).toThrow('Choose the column')
  })
  it('comes back as it was written, whatever the signs', () => {
    const reading = fc.record({
      celsius: fc.integer({ min: -400, max: 1200 }).map(tenths => tenths / 10),
      humidity: fc.integer({ min: 0, max: 100 }),
    })
    fc.assert(
      fc.property(
        fc.array(reading, { minLength: 2, maxLength: 30 }),
        fc.constantFrom(',', ';', '\t'),
        fc.boolean(),
        (readings, delimiter, comma) => {
          fc.pre(!(delimiter === ',' && comma))
          const sign = (value: number) => (comma ? value.toFixed(1).replace('.', ',') : value.toFixed(1))
          const from = Date.UTC(2026, 5, 1)
          const lines = readings.map(({ celsius, humidity }, i) =>
            [new Date(from + i * 600_000).toISOString(), sign(humidity), sign(celsius)].join(delimiter),
          )
          const { rows, errors } = read([['time', 'RH %', 'Temperature °C'].join(delimiter), ...lines].join('\n'))
          expect(errors).toEqual([])
          expect(rows).toEqual(
            readings.map(({ celsius, humidity }, i) => ({ line: i + 2, at: from + i * 600_000, celsius, humidity: humidity / 100 })),
          )
        },
      ),
    )
  })
})
