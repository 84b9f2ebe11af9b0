import type { Range, Spread } from './types'

const NUMBER = '(\\d+(?:[.,]\\d+)?)'
const SPREAD = new RegExp(`^${NUMBER}\\s*(?:±|\\+/?-)\\s*${NUMBER}$`)
const RANGE = new RegExp(`^${NUMBER}\\s*(?:to|–|-)\\s*${NUMBER}$`)
const numberOf = (text: string) => Number(text.replace(',', '.'))

/** "94.5 ± 1" (or "94.5 +- 1"); undefined for anything else. */
export function parseSpread(text: string): Spread | undefined {
  const found = SPREAD.exec(text.trim())
  return found ? { mean: numberOf(found[1]!), sd: numberOf(found[2]!) } : undefined
}

/** "8 to 13" (or "8-13"); undefined for anything else, and where the second is not the larger. */
export function parseRange(text: string): Range | undefined {
  const found = RANGE.exec(text.trim())
  if (!found) return undefined
  const range = { low: numberOf(found[1]!), high: numberOf(found[2]!) }
  return range.high > range.low ? range : undefined
}

export const spreadText = ({ mean, sd }: Spread): string => `${tidy(mean)} ± ${tidy(sd)}`
export const rangeText = ({ low, high }: Range): string => `${tidy(low)} to ${tidy(high)}`
const tidy = (value: number) => String(Math.round(value * 1000) / 1000)
