import type { Food } from '../foods'
import { randomSource } from '../stats'
import type { Lesson, VaryKey } from './lesson'

/** What differs from one playing of a lesson to the next, drawn by its seed: nobody in the kitchen knows it. */
export interface Truth {
  hours: number
  water: number
  thickness: number
  spread: number
  hardening: number
  hygrometer: number
  nightHumidity: number
  /** Hours until it rains; Infinity where it does not. */
  rain: number
  dryness: number
  saysDone: number
  warm: number
  /** For what is drawn within: trays, pieces, the scale's last gram. */
  seed: number
}

const USUAL: Omit<Truth, 'seed' | 'nightHumidity'> = {
  hours: 1,
  water: 0,
  thickness: 1,
  spread: 0.14,
  hardening: 0,
  hygrometer: 0,
  rain: Infinity,
  dryness: 1,
  saysDone: 1,
  warm: 0,
}
/** Own water of a basket beside what the lesson says. */
const LEAST_WATER = 0.02

/** Draws a kitchen: the same seed gives the same one on every machine. */
export function drawTruth(lesson: Lesson, food: Food, seed: number): Truth {
  const source = randomSource(seed)
  const usual: Record<VaryKey, number> = { ...USUAL, nightHumidity: 100 * lesson.night.humidity }
  // Each figure takes its number whether it varies or not: a lesson that is changed in one keeps its others.
  const drawn = Object.fromEntries(
    (Object.keys(usual) as VaryKey[]).map(key => {
      const share = source.uniform()
      const span = lesson.varies[key]
      return [key, span ? span.low + share * (span.high - span.low) : usual[key]]
    }),
  ) as Record<VaryKey, number>
  const water = food.rawMoisture.value.mean + drawn.water
  return { ...drawn, water: Math.min(0.97, Math.max(LEAST_WATER, water)), seed: source.integer(1, 2 ** 30) }
}
