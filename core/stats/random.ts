import { mersenne } from 'pure-rand/generator/mersenne'
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'

/** A seeded source of numbers: the same seed gives the same numbers on every machine. */
export interface RandomSource {
  /** Uniform on [0, 1). */
  uniform(): number
  /** Standard normal. */
  normal(): number
  /** Whole number from `low` to `high`, both included. */
  integer(low: number, high: number): number
  /** One of the items. */
  pick<T>(items: readonly T[]): T
}

/**
 * Makes a source from a whole-number seed: the Mersenne Twister, whose start spreads neighbouring seeds
 * far apart. Normal numbers by Box and Muller (1958).
 */
export function randomSource(seed: number): RandomSource {
  const generator = mersenne(seed)
  let spare: number | undefined
  const uniform = () => uniformFloat64(generator)
  const integer = (low: number, high: number) => low + Math.floor(uniform() * (high - low + 1))
  return {
    uniform,
    integer,
    pick: items => items[integer(0, items.length - 1)]!,
    normal() {
      if (spare !== undefined) {
        const value = spare
        spare = undefined
        return value
      }
      const radius = Math.sqrt(-2 * Math.log(1 - uniform()))
      const angle = 2 * Math.PI * uniform()
      spare = radius * Math.sin(angle)
      return radius * Math.cos(angle)
    },
  }
}

/**
 * `count` rows of `width` standard normal numbers, row after row. Each row is followed by its
 * mirror image (antithetic draws), so that means come out exact and quantiles are steadier.
 */
export function normalDraws(seed: number, count: number, width: number): Float64Array {
  const source = randomSource(seed)
  const draws = new Float64Array(count * width)
  for (let row = 0; row < count; row += 2) {
    for (let column = 0; column < width; column++) {
      const value = source.normal()
      draws[row * width + column] = value
      if (row + 1 < count) draws[(row + 1) * width + column] = -value
    }
  }
  return draws
}
