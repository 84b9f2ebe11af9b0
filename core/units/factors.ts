import { convert } from 'convert'

/** The package goes by way of kelvin, which leaves dust in the twelfth place. */
const celsiusTo = (celsius: number) => Number(convert(celsius, 'C').to('F').toFixed(9))

/**
 * The few factors that a kitchen needs, out of the package for units. The build asks it once and hands the browser
 * the figures (`nuxt.config.ts`): the package's own tables would be a tenth of every page's scripts.
 */
export const FACTORS = {
  /** Grams in one of each. */
  grams: { g: 1, kg: convert(1, 'kg').to('g'), oz: convert(1, 'oz').to('g'), lb: convert(1, 'lb').to('g') },
  /** Millimetres in one of each. */
  mm: { mm: 1, cm: convert(1, 'cm').to('mm'), in: convert(1, 'in').to('mm') },
  /** Fahrenheit of Celsius: so much a degree, beginning at. */
  fahrenheit: { perDegree: (celsiusTo(100) - celsiusTo(0)) / 100, at: celsiusTo(0) },
}
