import type { Food, Purpose } from '../foods'
import { isothermOf } from '../sorption'
import { ingressDays, moistureIngress, type IngressQuestion } from './ingress'

/** Humidity of a pantry that nobody measured. */
export const PANTRY_HUMIDITY = 0.55
/** Water activity at which a powder clumps and pieces go limp, and below which no mould grows (common practice). */
export const DAMP_LIMITS = { clumps: 0.4, mould: 0.6 } as const
/** How far a jar's months are drawn at most. */
const MOST_DAYS = 1100
const LEAST_DAYS = 180
/** Below this nothing passes worth telling, °C: and the isotherms were measured above it. */
const LEAST_C = 1

/** A jar's damp over its months. */
export interface Damp {
  daysToClump: number
  daysToMould: number
  curve: { day: number; activity: number }[]
}

/** A jar as its damp is reckoned: see `leakOf` for what its package lets in; at its target where the water is not known, in usual air where that is not. */
export interface DampQuestion {
  food: Food
  purpose: Purpose
  netG: number
  gPerDayKPa: number
  celsius: number
  humidity?: number
  moisture?: number
  /** Water activity at which it clumps: what is sold damper than one's own powder and stays loose has a limit of its own. */
  clumpsAt?: number
}

function questionOf(jar: DampQuestion, limit: number, days?: number): IngressQuestion {
  const moisture = jar.moisture ?? jar.food.target[jar.purpose]
  return {
    isotherm: isothermOf(jar.food),
    solidsG: jar.netG * (1 - moisture),
    moisture,
    gPerDayKPa: jar.gPerDayKPa,
    pantry: { celsius: jar.celsius, humidity: jar.humidity ?? PANTRY_HUMIDITY },
    limit,
    days,
  }
}

/** Days until a jar's water activity reaches a limit; undefined in the cold, where hardly anything passes. */
export function dampDays(jar: DampQuestion, limit: number): number | undefined {
  return jar.celsius >= LEAST_C && jar.netG > 0 ? ingressDays(questionOf(jar, limit)) : undefined
}

/**
 * How a jar takes up the pantry's damp, from the day it was packed.
 * @returns undefined in the cold, where it hardly does
 */
export function dampOf(jar: DampQuestion): Damp | undefined {
  const daysToClump = dampDays(jar, jar.clumpsAt ?? DAMP_LIMITS.clumps)
  if (daysToClump === undefined) return undefined
  const days = Math.min(MOST_DAYS, Math.max(LEAST_DAYS, Number.isFinite(daysToClump) ? 1.4 * daysToClump : MOST_DAYS))
  const { daysToLimit: daysToMould, curve } = moistureIngress(questionOf(jar, DAMP_LIMITS.mould, days))
  return { daysToClump, daysToMould, curve }
}
