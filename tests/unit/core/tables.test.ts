import fc from 'fast-check'
import { InputError } from '#core/errors'
import { guessTable, readInventory, readWeighIns, tableOf, type TableSettings } from '#core/tables'

const HOUSEHOLD = { timeZone: 'Europe/Lisbon', unit: 'g' } as const
const NOW = Date.UTC(2026, 10, 25, 12)
const weighIns = (text: string, more: Partial<TableSettings> = {}) =>
  readWeighIns(text, { ...guessTable('weighIns', text, HOUSEHOLD).settings, ...more }, NOW)
const inventory = (text: string) => readInventory(text, guessTable('inventory', text, HOUSEHOLD).settings, NOW)

describe('what a table’s columns are', () => {
  it('is told by their headings, in any order, with any delimiter', () => {
    const { settings, headings, rows } = guessTable('weighIns', 'weight (oz);when;batch no.;tray\n12;2026-11-01 18:00;7;2\n', HOUSEHOLD)
    expect(settings.columns).toMatchObject({ weight: 0, time: 1, batch: 2, tray: 3, clock: undefined })
    expect([settings.unit, headings[2], rows]).toEqual(['oz', 'batch no.', 1])
  })
  it('an exact name goes before one that only holds the word', () => {
    expect(guessTable('inventory', 'product name,food,weight\nx,Cumin,5\n', HOUSEHOLD).settings.columns).toMatchObject({ food: 1, name: 0 })
  })
  it('says what it took for granted', () => {
    expect(guessTable('weighIns', 'batch,date,weight\n7,3/4/2026,12\n', HOUSEHOLD).doubts).toEqual([
      expect.stringMatching(/no unit of weight; g/),
      expect.stringMatching(/day or the month/),
    ])
    expect(guessTable('weighIns', 'batch,date,weight\n7,2026-04-03,12 g\n', HOUSEHOLD).doubts).toEqual([])
  })
  it.each([
    ['', 'no table'],
    ['batch,time,weight\n', 'no rows'],
    ['7,2026-04-03,12\n8,2026-04-03,13\n', 'should be headings'],
  ])('refuses %j', (text, words) => {
    expect(() => guessTable('weighIns', text, HOUSEHOLD)).toThrow(InputError)
    expect(() => guessTable('weighIns', text, HOUSEHOLD)).toThrow(words)
  })
})

describe('weigh-ins of a file', () => {
  it('take weights as people write them, and times on the clocks of the zone', () => {
    const { rows, errors } = weighIns(
      'batch,time,weight\n7,2026-07-01 18:00,412\n#7,2026-07-01 19:00,1.2 kg\nbatch 8,2026-01-01 19:00,3 lb 4 oz\n',
    )
    expect(errors).toEqual([])
    expect(rows.map(row => [row.batch, row.weightG])).toEqual([
      [7, 412],
      [7, 1200],
      [8, expect.closeTo(1474.2, 1)],
    ])
    // Summer time in Lisbon is an hour ahead of UTC, winter time is not.
    expect(rows.map(row => new Date(row.at).getUTCHours())).toEqual([17, 18, 19])
  })
  it('takes a time with its offset as it stands, and no day that there is not', () => {
    const { rows, errors } = weighIns(
      'batch,time,weight\n7,2026-07-01T18:00:00+02:00,400\n7,2026-02-30T18:00:00Z,400\n7,2026-02-30 18:00,400\n',
    )
    expect(rows.map(row => row.at)).toEqual([Date.UTC(2026, 6, 1, 16)])
    expect(errors.map(error => error.line)).toEqual([3, 4])
  })
  it.each<[string, Partial<TableSettings>, number]>([
    ['1,234', {}, 1234],
    ['1.234,5', { decimal: 'comma' }, 1234.5],
    ['0,31 kg', {}, 310],
    ['12', { unit: 'oz' }, 340.19],
  ])('reads %s as it is meant', (written, more, grams) => {
    expect(weighIns(`batch;time;weight\n7;2026-07-01 18:00;${written}\n`, more).rows[0]!.weightG).toBeCloseTo(grams, 1)
  })
  it('refuse a line by its number, field and mend, and keep the others', () => {
    const { rows, errors } = weighIns(
      'batch,time,weight\nseven,2026-07-01,400\n7,yesterday,400\n7,2026-07-01,heavy\n7,2027-07-01,400\n7,1999-07-01,400\n7,,400\n7,2026-07-01,\n7,2026-07-01,400\n',
    )
    expect(rows.map(row => row.line)).toEqual([9])
    expect(errors.map(error => [error.line, error.field])).toEqual([
      [2, 'batch'],
      [3, 'time'],
      [4, 'weight'],
      [5, 'time'],
      [6, 'time'],
      [7, 'time'],
      [8, 'weight'],
    ])
    for (const { message } of errors) expect(message).toMatch(/\.$|\?$/)
  })
  it('name the column that is missing', () => {
    expect(() =>
      readWeighIns('a,b\n1,2\n', { columns: {}, unit: 'g', decimal: 'point', dayOrder: 'dayFirst', timeZone: 'UTC', firstLine: 2 }, NOW),
    ).toThrow('columns.batch')
  })
  it('lose no row: each is kept or told (property)', () => {
    const cell = fc.oneof(
      fc.constantFrom('7', '2026-07-01 18:00', '400', '1.2 kg', '', '"', 'x,y', '−5'),
      fc.string({ maxLength: 8 }).map(text => text.replace(/[",\r\n;\t|]/g, '')),
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 20 }), lines => {
        const text = `batch,time,weight\n${lines.map(line => line.map(value => `"${value.replaceAll('"', '""')}"`).join(',')).join('\n')}\n`
        const { rows, errors } = weighIns(text, { columns: { batch: 0, time: 1, weight: 2 } })
        const told = new Set([...rows.map(row => row.line), ...errors.map(error => error.line)])
        const { lines: numbers } = tableOf(text)
        expect([...told].sort((a, b) => a - b)).toEqual(numbers.slice(1))
      }),
    )
  })
})

describe('an inventory of a file', () => {
  it('takes what a list says, and what it does not say as usual', () => {
    const { rows, errors } = inventory(
      'Food,Weight (g),Packed,Form,Place,In,Best before,Price,From\nCumin,45,2026-05-01,whole pieces,Spice drawer,jar with a plastic lid,2027-12-01,2.40,Market\nOnion,100,,,,,,,\n',
    )
    expect(errors).toEqual([])
    expect(rows[0]).toMatchObject({
      food: 'Cumin',
      netG: 45,
      purpose: 'pieces',
      place: 'Spice drawer',
      price: 2.4,
      source: 'Market',
      bestTo: Date.UTC(2027, 11, 1),
    })
    expect(rows[1]).toEqual({ line: 3, food: 'Onion', at: NOW, undated: true, netG: 100, purpose: 'powder', packageKey: 'screw-jar' })
  })
  it('refuses what cannot be, by field', () => {
    const { errors } = inventory(
      'Food,Weight (g),Packed,Form,Package,Size,Price\n,5,,,,,\nCumin,0,,,,,\nCumin,5,,mist,,,\nCumin,5,,,amphora,,\nCumin,5,,,,2 barrels,\nCumin,5,,,,,free\n',
    )
    expect(errors.map(error => [error.line, error.field])).toEqual([
      [2, 'food'],
      [3, 'weight'],
      [4, 'form'],
      [5, 'package'],
      [6, 'size'],
      [7, 'price'],
    ])
  })
})

describe('a spreadsheet', () => {
  it('is said to be one, with the way out', () => {
    expect(() => guessTable('weighIns', 'PK\u0003\u0004\u0014\u0000\u0006\u0000', { timeZone: 'UTC', unit: 'g' })).toThrow(/save it as CSV/)
  })
})
