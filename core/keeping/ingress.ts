import { dryBasis } from '../mass'
import { saturationKPa, type Air } from '../air'
import { InputError } from '../errors'
import { activityAt, moistureAt, type Isotherm } from '../sorption'
import type { PackageKey } from './bestBy'

/** A food in its package, in the air of its place. */
export interface IngressQuestion {
  isotherm: Isotherm
  /** Solids in the package, g, and the moisture it was sealed with, wet basis. */
  solidsG: number
  moisture: number
  /** Water vapour that gets in, g a day for each kPa of difference: see `permeanceOf`. */
  gPerDayKPa: number
  pantry: Air
  /** Water activity that must not be passed: 0.6 for moulds, lower for caking. */
  limit: number
  /** How far to look, days. */
  days?: number
}

export interface Ingress {
  /** Days until the limit; Infinity where this air never brings it there. */
  daysToLimit: number
  /** Water activity over the days. */
  curve: { day: number; activity: number }[]
}

/**
 * Vapour that gets into a package, g a day for each kPa: through its wall, or past its lid. From memory (50 µm of polyethylene 5–8 g/m²/day, foil under 0.05),
 * for a jar or bag of about 250 mL; a lid that leaks passes far more than any wall.
 */
export const PERMEANCE = {
  'screw-jar': 0.001,
  'vacuum-jar': 0.0006,
  'plastic-lid': 0.02,
  bag: 0.05,
  'foil-bag': 0.0004,
} as const satisfies Partial<Record<PackageKey, number>>

/** What a package lets in: as measured, or as such packages do; undefined where nobody knows. */
export function leakOf(packageKey: PackageKey, measured?: number): number | undefined {
  return measured ?? (PERMEANCE as Partial<Record<PackageKey, number>>)[packageKey]
}

/**
 * What a lid lets in, measured: silica gel closed in the jar gains weight, since it keeps the air in there dry.
 * @param gainedG what the gel gained over so many days in a room
 * @throws InputError for a gain or a time that is not above zero
 */
export function measuredLeak({ gainedG, days, room }: { gainedG: number; days: number; room: Air }): number {
  if (!(gainedG > 0 && days > 0))
    throw new InputError([
      { field: 'gainedG', code: 'not-above-zero', message: 'must be above zero, as the days: weigh the gel again after a week' },
    ])
  return gainedG / days / (saturationKPa(room.celsius) * room.humidity)
}

/** A transmission rate as makers give it, g/m²/day at 38 °C and 90 % (ASTM E96), as g a day for each kPa of an area. */
export function permeanceOf(wvtr: number, areaM2: number): number {
  if (!(wvtr > 0 && areaM2 > 0))
    throw new InputError([{ field: 'wvtr', code: 'not-above-zero', message: 'must be above zero, as the area' }])
  return (wvtr * areaM2) / (saturationKPa(38) * 0.9)
}

/** Points of the curve. */
const POINTS = 24
const STEPS = 480
const MOST_DAYS = 3650

/**
 * How a closed package takes up moisture: what passes its wall is in proportion to the difference in vapour
 * pressure, and the food's isotherm turns it into water activity (after Heiss and Labuza; here followed in
 * steps, so that the isotherm need not be straight).
 * @throws InputError for weights and permeances that are not above zero, a moisture or a limit outside 0–1
 */
export function moistureIngress(question: IngressQuestion): Ingress {
  const daysToLimit = ingressDays(question)
  const { isotherm, pantry } = question
  const rate = rateOf(question)
  let x = dryBasis(question.moisture)
  const days = Math.min(MOST_DAYS, question.days ?? (Number.isFinite(daysToLimit) ? Math.max(30, 1.3 * daysToLimit) : 730))
  const curve: Ingress['curve'] = []
  const step = days / STEPS
  for (let i = 0; i <= STEPS; i++) {
    if (i % (STEPS / POINTS) === 0) curve.push({ day: i * step, activity: activityAt(isotherm, x, pantry.celsius) })
    // Midpoint rule: straight isotherms come out to the fourth figure.
    x += step * rate(x + (step / 2) * rate(x))
  }
  return { daysToLimit, curve }
}

/**
 * Days until the limit, without the curve; Infinity where this air never brings it there.
 * @throws InputError as `moistureIngress`
 */
export function ingressDays(question: IngressQuestion): number {
  const problems = (['solidsG', 'gPerDayKPa'] as const)
    .filter(field => !(question[field] > 0))
    .map(field => ({ field: field as string, code: 'not-above-zero', message: 'must be above zero' }))
  for (const field of ['moisture', 'limit'] as const)
    if (!(question[field] > 0 && question[field] < 1))
      problems.push({ field, code: 'not-a-fraction', message: 'must be a fraction between 0 and 1' })
  if (problems.length > 0) throw new InputError(problems)
  // Twice the food takes twice as long: the sum is made once for a gram in a package that lets in a gram.
  return (unitDays(question) * question.solidsG) / question.gPerDayKPa
}

const known = new WeakMap<object, Map<string, number>>()
const MOST_KNOWN = 2000

function unitDays({ isotherm, moisture, limit, pantry }: IngressQuestion): number {
  const ofIsotherm = known.get(isotherm) ?? new Map<string, number>()
  known.set(isotherm, ofIsotherm)
  const key = `${moisture} ${limit} ${pantry.celsius} ${pantry.humidity}`
  const there = ofIsotherm.get(key)
  if (there !== undefined) return there
  if (ofIsotherm.size > MOST_KNOWN) ofIsotherm.clear()
  const days = daysBetween(
    dryBasis(moisture),
    moistureAt(isotherm, limit, pantry.celsius),
    rateOf({ isotherm, moisture, limit, pantry, solidsG: 1, gPerDayKPa: 1 }),
  )
  ofIsotherm.set(key, days)
  return days
}

/** Water that it takes up a day at a moisture, g a gram of solids. */
function rateOf({ isotherm, solidsG, gPerDayKPa, pantry }: IngressQuestion): (x: number) => number {
  const perDay = (gPerDayKPa * saturationKPa(pantry.celsius)) / solidsG
  return x => perDay * (pantry.humidity - activityAt(isotherm, x, pantry.celsius))
}

/** Days that the food takes from one moisture to another: the sum of dX over its rate. */
function daysBetween(fromX: number, toX: number, rate: (x: number) => number): number {
  if (fromX >= toX) return 0
  const step = (toX - fromX) / STEPS
  let days = 0
  for (let i = 0; i < STEPS; i++) {
    const perDay = rate(fromX + (i + 0.5) * step)
    if (perDay <= 0) return Infinity
    days += step / perDay
  }
  return days
}
