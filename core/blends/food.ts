import { sdOf } from '../stats'
import type { Food, Purpose, Range, Trait } from '../foods'
import { contentOf } from '../jars'
import { moistureOf, type FindLot, type Jar } from '../log'

/**
 * A blend as a food of the shelf: it fades with the first of its parts, holds water as the largest does, and its
 * colour is theirs by weight.
 * @returns undefined where nothing is known of what is in the jar
 */
export function foodOfBlend(jar: Jar, find: FindLot): Food | undefined {
  const parts = jar.parts.flatMap(part => {
    const lot = find(part.lotId)
    return lot ? [{ grams: Math.max(part.grams, 1e-6), food: lot.food, purpose: lot.purpose }] : []
  })
  if (parts.length === 0) return undefined
  const largest = parts.reduce((a, b) => (b.grams > a.grams ? b : a))
  const content = contentOf(jar, find)
  const water = moistureOf(jar)
  const each = <T>(value: T): Record<Purpose, T> => ({ pieces: value, flakes: value, powder: value })
  const keeps = parts
    .map(({ food, purpose }) => food.keepsMonths[purpose])
    .reduce((a, b): Range => ({ low: Math.min(a.low, b.low), high: Math.min(a.high, b.high) }))
  return {
    key: jar.foodKey,
    name: jar.name ?? 'Blend',
    otherNames: [],
    foundBy: [],
    group: 'blend',
    groupName: 'Blends',
    isotherm: largest.food.isotherm,
    fat: largest.food.fat,
    rawMoisture: { value: { mean: water, sd: 0.01 }, source: 'by balance over its parts' },
    trimShare: { value: { mean: 0, sd: 0 }, source: 'a blend is whole' },
    freshDays: { value: 365, source: 'a blend is dry' },
    handsMinutesKg: { value: 0, source: 'a blend is ready' },
    cards: [],
    target: each(water),
    targetSource: 'by balance over its parts',
    drynessTest: { value: 'It runs freely.', source: 'common practice' },
    pliable: false,
    powderColour: mixedColour(parts.map(({ grams, food }) => ({ grams, colour: food.powderColour }))),
    powderDensity: {
      value: { mean: content.densityGMl.p50, sd: sdOf(content.densityGMl) },
      source: 'its parts by volume',
    },
    keepsMonths: each(keeps),
    keepsReason: 'It fades with the first of its parts.',
    keepsSource: 'common practice',
    ...(content.heat && { heatUnits: { value: content.heat, source: 'its parts by weight' } }),
    saltShare: content.saltShare,
    allergens: content.allergens,
    traits: [...new Set(parts.flatMap(({ food }) => food.traits))] as Trait[],
    cautions: parts
      .flatMap(({ food }) => food.cautions)
      .filter((caution, i, all) => all.findIndex(other => other.text === caution.text) === i),
    schools: [],
    prefer: {},
    forbids: {},
    schoolEffects: {},
    own: true,
  }
}

/** Powders stirred together look as their colours by weight do. */
export function mixedColour(parts: readonly { grams: number; colour: string }[]): string {
  const total = parts.reduce((sum, { grams }) => sum + grams, 0)
  const channel = (at: number) =>
    Math.round(parts.reduce((sum, { grams, colour }) => sum + grams * parseInt(colour.slice(at, at + 2), 16), 0) / total)
  return `#${[1, 3, 5]
    .map(at => channel(at).toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase()}`
}
