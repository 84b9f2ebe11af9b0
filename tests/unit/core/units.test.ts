import * as fc from 'fast-check'
import {
  formatHours,
  formatLength,
  formatShare,
  formatTemperature,
  formatWeight,
  parseLength,
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
  ])('%s', (text, grams) => expect(parseWeight(text).value).toBeCloseTo(grams, 6))

  it('takes a bare number in the household’s unit', () => {
    expect(parseWeight('10', 'oz').value).toBeCloseTo(283.495, 3)
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
    expect(parseLength('thin').problem).toContain('not a thickness')
    expect(parseLength('0').problem).toContain('above zero')
    expect(parseLength('30 cm').problem).toContain('unit')
    expect(plain(formatLength(6.35, 'oz'))).toBe('1/4 in')
    expect(plain(formatLength(3, 'g'))).toBe('3 mm')
    expect(plain(formatLength(1, 'oz'))).toBe('0.04 in')
  })
  it('temperature: 57 °C is 135 °F (135 °F is 57.2 °C exactly to a tenth)', () => {
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
    ['Roast at 175 °C for 45 to 60 min', 'Roast at 347\u00A0°F for 45 to 60 min'],
    ['Not between 4 and 60 °C', 'Not between 39 and 140\u00A0°F'],
    ['35 to 43 °C', '95 to 109\u00A0°F'],
    ['−18 °C for 48 hours, or 71 °C for 30 minutes', '0\u00A0°F for 48 hours, or 160\u00A0°F for 30 minutes'],
  ])('%s', (text, fahrenheit) => {
    expect(temperaturesIn(text, 'F')).toBe(fahrenheit)
    expect(temperaturesIn(text, 'C')).toBe(text)
  })
})
