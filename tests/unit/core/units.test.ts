import * as fc from 'fast-check'
import {
  formatArea,
  formatHours,
  formatLength,
  formatShare,
  formatDegrees,
  formatTemperature,
  formatVolume,
  formatWeight,
  parseArea,
  parseLength,
  parseNumber,
  parseWeight,
  temperatureFrom,
  temperatureIn,
  temperaturesIn,
} from '#core/units'

const plain = (text: string) => text.replaceAll('\u00A0', ' ')

describe('weights as typed', () => {
  // The international pound is 453.59237 g exactly (NIST Handbook 44).
  it.each([
    ['850', 850],
    ['850 g', 850],
    ['1.2 kg', 1200],
    ['1,2 kg', 1200],
    ['3 lb 4 oz', 3.25 * 453.59237],
    ['3lb4oz', 3.25 * 453.59237],
    ['3 lb 4', 3.25 * 453.59237],
    ['1/2 lb', 226.796185],
    ['1 1/2 lb', 680.388555],
    ['12 oz', 340.1942775],
    ['.5 kg', 500],
    ['2 kg 300 g', 2300],
    ['  40  G ', 40],
    // A comma before three digits of grams parts the thousands: no kitchen scale shows thousandths of a gram.
    ['1,200 g', 1200],
    ['1,200', 1200],
    ['12,500 g', 12_500],
    ['1 200 g', 1200],
    ['1’200 g', 1200],
    ['1,200.5 g', 1200.5],
    ['1.200,5 g', 1200.5],
    ['1.200 kg', 1200],
    ['1,250 kg', 1250],
    ['2.125 lb', 2.125 * 453.59237],
    ['1½ lb', 1.5 * 453.59237],
    ['½ lb', 226.796185],
    ['1-1/2 lb', 1.5 * 453.59237],
    ['2 1/2 lb', 2.5 * 453.59237],
    ['9 lb 3½ oz', 9 * 453.59237 + 3.5 * 28.349523125],
    ['9 lbs., 3 oz.', 9 * 453.59237 + 3 * 28.349523125],
    ['2 pounds and 4 ounces', 2.25 * 453.59237],
    ['3⁄4 lb', 0.75 * 453.59237],
  ])('%s', (text, grams) => expect(parseWeight(text).value).toBeCloseTo(grams, 6))

  it('takes a bare number in the household’s unit, and asks where that can hardly be meant', () => {
    expect(parseWeight('10', 'oz').value).toBeCloseTo(283.495, 3)
    expect(parseWeight('64', 'oz').value).toBeCloseTo(4 * 453.59237, 3)
    expect(parseWeight('500', 'oz').problem).toBe('500 ounces, or 500 g? Write the unit, or pounds and ounces.')
    expect(parseWeight('500 oz', 'oz').value).toBeCloseTo(14_174.76, 1)
  })
  it.each(['1.200 g', '1.250', '2,500 oz'])('asks what “%s” means, rather than guessing', text => {
    expect(parseWeight(text).problem).toMatch(/may be \S+ or \S+ (g|oz|lb): write it the plain way\./)
  })
  it('reads every common writing of a number alike (property)', () => {
    const group = (value: number, mark: string) => String(value).replace(/\B(?=(\d{3})+$)/g, mark)
    fc.assert(
      fc.property(fc.integer({ min: 1000, max: 999_999 }), fc.integer({ min: 1, max: 99 }), (whole, cents) => {
        for (const mark of [',', ' ', '’', '\u00A0', '\u202F']) expect(parseWeight(`${group(whole, mark)} g`).value).toBe(whole)
        const part = String(cents).padStart(2, '0')
        expect(parseWeight(`${group(whole, ',')}.${part} g`).value).toBeCloseTo(whole + cents / 100, 6)
        expect(parseWeight(`${group(whole, '.')},${part} g`).value).toBeCloseTo(whole + cents / 100, 6)
        expect(parseNumber(`${whole}.${part}`).value).toBeCloseTo(whole + cents / 100, 6)
        expect(parseNumber(`${whole},${part}`).value).toBeCloseTo(whole + cents / 100, 6)
      }),
    )
  })

  it.each(['', 'heavy', '3 stone', '0', '-5', '1.2.3 kg', '5 g 3 lb', '1 kg 2', '2000 kg', '4 oz 2 oz', '1/0 lb'])(
    'refuses “%s” with a sentence',
    text => {
      const { value, problem } = parseWeight(text)
      expect(value).toBeUndefined()
      expect(problem).toMatch(/[.!]$/)
    },
  )

  it('reads back what it writes, to the precision of a kitchen scale', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 50_000, noNaN: true }), fc.constantFrom('g' as const, 'oz' as const), (grams, unit) => {
        const back = parseWeight(plain(formatWeight(grams, unit)), unit).value!
        expect(Math.abs(back - grams)).toBeLessThanOrEqual(Math.max(0.6, unit === 'oz' ? 15 : grams < 1000 ? 0.6 : 5.1))
      }),
    )
  })

  it('writes as a person would', () => {
    expect([2.5, 8, 812, 999.7, 2940].map(value => plain(formatWeight(value, 'g')))).toEqual([
      '2.5 g',
      '8 g',
      '812 g',
      '1.00 kg',
      '2.94 kg',
    ])
    expect([10, 340.2, 453.6, 1474.2].map(value => plain(formatWeight(value, 'oz')))).toEqual(['0.35 oz', '12 oz', '1 lb', '3 lb 4 oz'])
    expect(plain(formatWeight(-12, 'g'))).toBe('−12 g')
  })
})

describe('other quantities', () => {
  it('thickness', () => {
    expect(parseLength('3 mm').value).toBe(3)
    expect(parseLength('1/4 in').value).toBeCloseTo(6.35, 6)
    expect(parseLength('0.5 cm').value).toBe(5)
    expect(parseLength('1/4', 'oz').value).toBeCloseTo(6.35, 6)
    for (const text of ['¼ in', '1/4-inch', '¼″', '.25 in', '0,25 inches']) expect(parseLength(text).value).toBeCloseTo(6.35, 6)
    expect(parseLength('3 millimetres').value).toBe(3)
    expect(parseLength('thin').problem).toContain('not a thickness')
    expect(parseLength('0').problem).toContain('above zero')
    expect(parseLength('30 cm').problem).toContain('unit')
    expect(plain(formatLength(6.35, 'oz'))).toBe('1/4 in')
    expect(plain(formatLength(3, 'g'))).toBe('3 mm')
    expect(plain(formatLength(1, 'oz'))).toBe('0.04 in')
  })
  it('a tray’s size, as length × width or as an area', () => {
    for (const text of ['30x33', '30 × 33 cm', '300 mm x 330 mm', '0.099', '0.099 m²', '990 cm2', '30 by 33'])
      expect(parseArea(text).value).toBeCloseTo(0.099, 6)
    for (const text of ['12x15', '12 × 15 in', '12" x 15"', '180 sq in']) expect(parseArea(text, 'oz').value).toBeCloseTo(0.11613, 4)
    expect(parseArea('large').problem).toContain('30 × 33 cm')
    expect(parseArea('30').problem).toContain('larger than a door')
    expect(parseArea('0 x 3').problem).toContain('above zero')
    expect(plain(formatArea(0.099, 'g'))).toBe('0.099 m²')
    expect(plain(formatArea(0.11613, 'oz'))).toBe('180 sq in')
    expect(parseArea(plain(formatArea(0.11613, 'oz')), 'oz').value).toBeCloseTo(0.1161, 4)
  })
  it('a plain number, and asks for one that is none or two', () => {
    expect(parseNumber('−3,5').value).toBe(-3.5)
    expect(parseNumber('2½').value).toBe(2.5)
    expect(parseNumber('1,200').problem).toMatch(/may be 1200 or 1.2/)
    expect(parseNumber('1 200').value).toBe(1200)
    expect(parseNumber('12 apples').problem).toBe('“12 apples” is not a number.')
    expect(parseNumber('1/0').problem).toContain('not a number')
  })
  it('temperature: 57 °C is 135 °F (135 °F is 57.2 °C exactly to a tenth)', () => {
    expect(plain(formatDegrees(10, 'C'))).toBe('10 °C')
    expect(plain(formatDegrees(10, 'F'))).toBe('18 °F')
    expect(plain(formatDegrees(1.26, 'F', 1))).toBe('2.3 °F')
    expect(plain(formatTemperature(57.2, 'F'))).toBe('135 °F')
    expect(temperatureFrom(212, 'F')).toBeCloseTo(100, 9)
    expect(temperatureIn(-40, 'F')).toBeCloseTo(-40, 9)
  })
  it('spans and shares', () => {
    expect([0.001, 0.5, 0.99, 9.33, 26.01, 60].map(hours => plain(formatHours(hours)))).toEqual([
      'under a minute',
      '30 min',
      '1 h',
      '9 h 20 min',
      '26 h',
      '60 h',
    ])
    expect(formatHours(Infinity)).toBe('never')
    expect([0.055, 0.31, 0].map(share => plain(formatShare(share)))).toEqual(['5.5 %', '31 %', '0 %'])
  })
})

describe('temperatures in a sentence', () => {
  it.each([
    ['Roast at 175 °C for 45 to 60 min', 'Roast at 350\u00A0°F for 45 to 60 min'],
    ['70.6 °C were logged', '159\u00A0°F were logged'],
    ['Not between 4 and 60 °C', 'Not between 39 and 140\u00A0°F'],
    ['35 to 43 °C', '95 to 109\u00A0°F'],
    ['−18 °C for 48 hours, or 71 °C for 30 minutes', '0\u00A0°F for 48 hours, or 160\u00A0°F for 30 minutes'],
  ])('%s', (text, fahrenheit) => {
    expect(temperaturesIn(text, 'F')).toBe(fahrenheit)
    expect(temperaturesIn(text, 'C')).toBe(text)
  })
})

describe('volumes of vessels', () => {
  it.each([
    [750, '750 mL', '25 fl oz'],
    [1500, '1.5 L', '51 fl oz'],
    [473, '473 mL', '1 pint'],
    [480, '480 mL', '1 pint'],
    [946.35, '946 mL', '1 quart'],
    [236.6, '237 mL', '1 half pint'],
    [250, '250 mL', '8.5 fl oz'],
    [30, '30 mL', '1 fl oz'],
  ])('%d mL is %j, or %j (NIST Handbook 44)', (ml, metric, us) => {
    expect(formatVolume(ml, 'g').replaceAll('\u00A0', ' ')).toBe(metric)
    expect(formatVolume(ml, 'oz').replaceAll('\u00A0', ' ')).toBe(us)
  })
})
