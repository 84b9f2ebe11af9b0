import { dryBasis } from '../mass'
import { MODEL } from './model'
import { intervalOf } from '../stats'
import { checkRun } from './check'
import { flagWeighIns } from './flags'
import { hoursTo, lnTargetOf, posteriorOf, slopeAt, weightAt, type Posterior } from './posterior'
import { withLateStart } from './lateStart'
import type { CurvePoint, DryingEstimate, DryingRun } from './types'
import { worthAhead } from './worth'

const CURVE_POINTS = 40
/** Every so many draws make the band of the curve: enough for one that is looked at. */
const CURVE_EVERY = 4

/**
 * When a load will be dry, how wet it is now, and how sure that is.
 *
 * Every body that is reckoned with (`bodies.ts`) is followed through the weighings at every pace from a seventh to seven times
 * the usual hours, with the solids, the weight at loading and the deviation from its curve as unknowns (`posterior.ts`). What
 * fits the scale counts, whatever the card says; bodies that fit alike but part ways later make the window wide. Docs:
 * `docs/method.md`.
 * @throws InputError where a figure has no meaning.
 */
export function estimateDrying(run: DryingRun): DryingEstimate {
  return estimateOf(run, believedOf(run))
}

/** What was believed of the runs that were asked for last: every write and every page asks for the same ones again. */
const known = new Map<string, Posterior>()
const KNOWN_AT_MOST = 32

/** @throws InputError where a figure has no meaning. */
export function believedOf(run: DryingRun): Posterior {
  checkRun(run)
  const few = thinned(run)
  // What is believed follows from the run alone, whenever it is asked for.
  const key = JSON.stringify({ ...few, at: undefined })
  const posterior = known.get(key) ?? withLateStart(few, posteriorOf(few))
  known.delete(key)
  known.set(key, posterior)
  if (known.size > KNOWN_AT_MOST) known.delete(known.keys().next().value!)
  return few === run ? posterior : { ...posterior, ...toldOfAll(run, posterior) }
}

/** The figures that a posterior comes to. */
export function estimateOf(run: DryingRun, posterior: Posterior): DryingEstimate {
  const { curves, spare } = posterior
  const lastH = run.weighIns.at(-1)?.hours ?? 0
  const nowH = run.at ?? lastH
  const middleH = Math.sqrt(run.usualHours.low * run.usualHours.high)
  const targetX = dryBasis(run.targetMoisture)
  const draws = curves.length
  const finishes = new Float64Array(draws)
  const rates = new Float64Array(draws)
  const moistures = new Float64Array(draws)
  const waters = new Float64Array(draws)
  let dry = 0
  curves.forEach((curve, i) => {
    const weight = weightAt(curve, nowH, spare[i]!)
    const lnTarget = lnTargetOf(curve, targetX)
    finishes[i] = hoursTo(curve, lnTarget, spare[i]!)
    rates[i] = rateAtTarget(curve, lnTarget)
    waters[i] = Math.max(0, weight - curve.solidsG)
    moistures[i] = waters[i]! / weight
    if (moistures[i]! <= run.targetMoisture) dry++
  })
  const solids = Float64Array.from(curves, curve => curve.solidsG)
  const hours = intervalOf(finishes)
  // A log's every batch is estimated for its finish alone; band and worth are worked out for whoever looks at them.
  let curve: CurvePoint[] | undefined
  let nextWeighings: DryingEstimate['nextWeighings'] | undefined
  return {
    moistureNow: intervalOf(moistures),
    hoursToTarget: hours,
    targetWeightG: intervalOf(solids.map(grams => grams * (1 + targetX))),
    solidsG: intervalOf(solids),
    waterLeftG: intervalOf(waters),
    probabilityDry: dry / draws,
    get curve() {
      return (curve ??= curveOf(posterior, nowH, hours, middleH))
    },
    rateAtTarget: intervalOf(rates),
    get nextWeighings() {
      return (nextWeighings ??= worthAhead(run, posterior, finishes, nowH, hours))
    },
    flags: flagWeighIns(run, posterior),
    startOff: posterior.startOff,
    ...(posterior.lateStart && { lateStart: posterior.lateStart }),
    pace: { p10: hours.p10 / middleH, p50: hours.p50 / middleH, p90: hours.p90 / middleH },
  }
}

/** What a run holds at an hour of its clock on each of the curves that are believed, dry basis: the doubt of weight and solids together. */
export function drawnMoisture({ curves, spare }: Posterior, hours: number): { x: number; balanceX: number }[] {
  return curves.map((curve, i) => ({
    x: Math.max(0, weightAt(curve, hours, spare[i]!) / curve.solidsG - 1),
    balanceX: curve.equilibriumX,
  }))
}

/** How fast ln φ falls at the target, 1/h. */
function rateAtTarget(curve: Posterior['curves'][number], lnTarget: number): number {
  if (!Number.isFinite(lnTarget) || lnTarget >= 0) return 0
  const hours = hoursTo(curve, lnTarget, 0)
  const left = weightAt(curve, hours) - curve.plateauG
  return left > 0 ? -slopeAt(curve, hours) / left : 0
}

/** A run that a scale wrote down every minute, with as many of its weighings as tell something, the last among them. */
const FOLLOWED_AT_MOST = 60
function thinned(run: DryingRun): DryingRun {
  const { weighIns } = run
  if (weighIns.length <= FOLLOWED_AT_MOST) return run
  return {
    ...run,
    weighIns: Array.from(
      { length: FOLLOWED_AT_MOST },
      (_, i) => weighIns[Math.round((i * (weighIns.length - 1)) / (FOLLOWED_AT_MOST - 1))]!,
    ),
  }
}

/** What a run that was thinned would have been expected to weigh at every weighing. */
function toldOfAll(run: DryingRun, { curves }: Posterior): Pick<Posterior, 'predictedG' | 'wild'> {
  const some = curves.filter((_, i) => i % 20 === 0)
  const predictedG = Float64Array.from(
    run.weighIns,
    ({ hours }) => some.reduce((sum, curve) => sum + weightAt(curve, hours), 0) / some.length,
  )
  const wild = Float64Array.from(run.weighIns, ({ weightG, extraSdG = 0 }, i) => {
    const free = Math.max(0, predictedG[i]! - some.reduce((sum, curve) => sum + curve.plateauG, 0) / some.length)
    const sd = Math.hypot(run.scale?.resolutionG ?? 1, MODEL.handling * weightG, 0.06 * free, extraSdG)
    return Math.abs(weightG - predictedG[i]!) > 4 * sd ? 1 : 0
  })
  return { predictedG, wild }
}

/** The band of the weight from loading to a little past the finish; where the air lets it come to none, past the usual hours. */
function curveOf({ curves, spare }: Posterior, nowH: number, finish: { p50: number; p90: number }, usualH: number): CurvePoint[] {
  const open = Math.max(nowH * 1.5 + 6, 1.5 * usualH)
  const end = Number.isFinite(finish.p90) ? finish.p90 : Number.isFinite(finish.p50) ? finish.p50 * 1.5 : open
  const lastH = Math.max(end * 1.1, nowH * 1.05, 1)
  const drawn = curves.map((curve, i) => ({ curve, z: spare[i]! })).filter((_, i) => i % CURVE_EVERY === 0)
  const even = Array.from({ length: CURVE_POINTS + 1 }, (_, point) => (lastH * point) / CURVE_POINTS)
  // Where the heat was off the weight steps.
  const steps = (curves[0]?.shifts ?? []).flatMap(({ hours }) => [hours - 1e-6, hours])
  return [...even, ...steps.filter(hours => hours > 0 && hours < lastH)]
    .sort((a, b) => a - b)
    .map(hours => ({ hours, weightG: intervalOf(drawn.map(({ curve, z }) => weightAt(curve, hours, z))) }))
}
