import { choleskyFactor, intervalOf, normalDraws, Z_90, type Interval } from '../stats'
import { checkRun } from './check'
import { flagWeighIns } from './flags'
import { fitLeastSquares } from './leastSquares'
import {
  hoursToTarget,
  prepare,
  PARAMETERS,
  rateAtTarget,
  weightAt,
  weightSlopes,
  weightsAt,
  type PreparedCurve,
  type RateCurve,
  type RunFrame,
} from './rateCurve'
import type { CurvePoint, DryingEstimate, DryingRun } from './types'
import { DEFAULT_EQUILIBRIUM, MODEL } from './model'
import { worthOfWeighing, type WeighingWorth } from './worth'

const DRAWS = 400
const CURVE_POINTS = 40
/** Every so many draws make the band of the curve: enough for one that is looked at. */
const CURVE_EVERY = 5
const CURVE_PRECISION = 1e-4

/** What is believed before any weighing, as normal distributions of the fitted parameters. */
interface Prior {
  mean: number[]
  sd: number[]
}

const toCurve = (p: readonly number[]): RateCurve => ({
  scaleH: Math.exp(p[0]!),
  falling: Math.exp(p[1]!),
  tail: p[2]!,
  solidsG: Math.exp(p[3]!),
  equilibriumX: Math.max(0, p[4]!),
})

/**
 * When a load will be dry, how wet it is now, and how sure that is.
 *
 * The rate curve (`rateCurve.ts`) is fitted by maximum a posteriori: the unknowns are ln T (hours to
 * target), its shape c and q, ln solids and Xe, with priors from the usual hours, the food's moisture and the room. Weighings
 * carry the scale's error and the model's own (see `model.ts`), under a robust loss. The posterior
 * is a Laplace approximation, sampled with a seed; what no curve can foretell of the remaining time
 * is added to the draws. Docs: `docs/method.md`.
 * @throws InputError where a figure has no meaning.
 */
export function estimateDrying(run: DryingRun): DryingEstimate {
  return estimateOf(run, posteriorOf(run))
}

/** What is believed of a run after its weighings, as curves drawn from the posterior. */
export interface Posterior {
  frame: RunFrame
  curves: PreparedCurve[]
  /** One standard normal number a curve, for the doubt that no curve foretells. */
  spare: Float64Array
  predictedG: number[]
  sdG: number[]
}

/** @throws InputError where a figure has no meaning. */
export function posteriorOf(run: DryingRun): Posterior {
  checkRun(run)
  const frame: RunFrame = { startWeightG: run.startWeightG, targetX: run.targetMoisture / (1 - run.targetMoisture) }
  const prior = priorOf(run)
  const thin = thinned(run)
  const fitted = fit(thin, frame, prior)
  const { predictedG, sdG } = thin === run ? fitted : expectedOf(run, frame, fitted.parameters)
  const draws = drawCurves(fitted.parameters, fitted.covariance, prior, run)
  return { frame, curves: draws.curves.map(curve => prepare(curve, frame)), spare: draws.spare, predictedG, sdG }
}

/** The figures that a posterior comes to. */
export function estimateOf(run: DryingRun, { frame, curves, spare, predictedG, sdG }: Posterior): DryingEstimate {
  const last = run.weighIns.at(-1)
  const nowH = last?.hours ?? 0

  const finishes = new Float64Array(DRAWS)
  const byCurve = new Float64Array(DRAWS)
  const rates = new Float64Array(DRAWS)
  const moistures = new Float64Array(DRAWS)
  const solids = new Float64Array(DRAWS)
  const targets = new Float64Array(DRAWS)
  const waters = new Float64Array(DRAWS)
  let dry = 0
  curves.forEach((prepared, i) => {
    const { curve } = prepared
    const weight = weightAt(prepared, nowH)
    const finish = hoursToTarget(prepared, frame)
    byCurve[i] = finish
    rates[i] = rateAtTarget(prepared, frame)
    solids[i] = curve.solidsG
    targets[i] = curve.solidsG * (1 + frame.targetX)
    waters[i] = Math.max(0, weight - curve.solidsG)
    moistures[i] = waters[i]! / weight
    if (moistures[i]! <= run.targetMoisture) dry++
    // What bends after the last weighing is not in the fit: the remaining time has a doubt of its own.
    finishes[i] = last && finish > nowH ? nowH + (finish - nowH) * Math.exp(remainingSd(nowH, finish) * spare[i]!) : finish
  })

  const hours = intervalOf(finishes)
  // A log's every batch is estimated for its finish alone; band and worth are worked out for whoever looks at them.
  let curve: CurvePoint[] | undefined
  let nextWeighings: WeighingWorth[] | undefined
  return {
    moistureNow: intervalOf(moistures),
    hoursToTarget: hours,
    targetWeightG: intervalOf(targets),
    solidsG: intervalOf(solids),
    waterLeftG: intervalOf(waters),
    probabilityDry: dry / DRAWS,
    get curve() {
      return (curve ??= curveOf(curves, nowH, hours))
    },
    rateAtTarget: intervalOf(rates),
    get nextWeighings() {
      return (nextWeighings ??= worthAhead(run, curves, byCurve, nowH, hours))
    },
    flags: flagWeighIns(run, predictedG, sdG),
  }
}

/** Doubt of the remaining time: the more of the run lies ahead, the more it can bend otherwise. */
export function remainingSd(nowH: number, finishH: number): number {
  const { last, ahead } = MODEL.remaining
  return Number.isFinite(finishH) ? last + ahead * (1 - nowH / finishH) : last
}

/** Shares of the way from the last weighing to the finish at which a next one is weighed up. */
const AHEAD = [0.25, 0.5, 0.75, 1]

function worthAhead(
  run: DryingRun,
  curves: readonly PreparedCurve[],
  byCurve: Float64Array,
  nowH: number,
  finish: Interval,
): WeighingWorth[] {
  if (!Number.isFinite(finish.p50) || finish.p50 <= nowH) return []
  const spareAt = (hours: number) => Math.max(0, finish.p50 - hours) * remainingSd(hours, finish.p50)
  const weights = new Float64Array(DRAWS)
  return AHEAD.flatMap(share => {
    const hours = nowH + share * (finish.p50 - nowH)
    curves.forEach((prepared, i) => {
      weights[i] = weightAt(prepared, hours)
    })
    const mean = weights.reduce((sum, weight) => sum + weight, 0) / DRAWS
    const solidsG = run.startWeightG * run.solids.mean
    const sdG = weighingSd(run, { weightG: mean, expectedG: mean, solidsG, age: 0 })
    return (
      worthOfWeighing({
        hours,
        finishes: byCurve,
        weights,
        sdG,
        spareBefore: run.weighIns.length > 0 ? spareAt(nowH) : 0,
        spareAfter: spareAt(hours),
      }) ?? []
    )
  })
}

/** Standard deviation of a weighing about the curve: scale, hand, and the curve's own error. */
function weighingSd(
  run: DryingRun,
  {
    weightG,
    expectedG,
    solidsG,
    age,
    extraSdG = 0,
  }: { weightG: number; expectedG: number; solidsG: number; age: number; extraSdG?: number },
): number {
  const free = Math.max(0, expectedG - solidsG)
  const wet = free / (run.startWeightG - solidsG)
  // The curve's error is shared by neighbours: many weighings do not average it away.
  const crowding = Math.sqrt(Math.max(1, run.weighIns.length / MODEL.error.independent))
  const model = (MODEL.error.base + MODEL.error.wet * wet + MODEL.error.perAge * age) * free * crowding
  return Math.hypot((run.scale?.resolutionG ?? 1) / Math.sqrt(12), MODEL.handling * weightG, model, extraSdG)
}

function priorOf(run: DryingRun): Prior {
  const { low, high } = run.usualHours
  const equilibrium = run.equilibriumX ?? DEFAULT_EQUILIBRIUM
  const relative = Math.max(0.002, run.solids.sd / run.solids.mean)
  return {
    mean: [
      0.5 * (Math.log(low) + Math.log(high)),
      MODEL.falling.mean,
      MODEL.tail.mean,
      Math.log(run.startWeightG * run.solids.mean),
      equilibrium.mean,
    ],
    sd: [
      Math.max(0.02, (Math.log(high) - Math.log(low)) / (2 * Z_90)),
      MODEL.falling.sd,
      MODEL.tail.sd,
      relative,
      Math.max(1e-4, equilibrium.sd),
    ],
  }
}

/** Neighbours share the curve's error, so that more weighings than this tell nothing new. */
const FITTED_AT_MOST = 120

/** A run that a scale wrote down every minute, with as many of its weighings as tell something, the last among them. */
function thinned(run: DryingRun): DryingRun {
  const { weighIns } = run
  if (weighIns.length <= FITTED_AT_MOST) return run
  return {
    ...run,
    weighIns: Array.from({ length: FITTED_AT_MOST }, (_, i) => weighIns[Math.round((i * (weighIns.length - 1)) / (FITTED_AT_MOST - 1))]!),
  }
}

/** What a fitted curve expects of every weighing, and how far each may be off. */
function expectedOf(run: DryingRun, frame: RunFrame, parameters: readonly number[]): { predictedG: number[]; sdG: number[] } {
  const curve = toCurve(parameters)
  const hours = run.weighIns.map(weighIn => weighIn.hours)
  const predicted = new Float64Array(hours.length)
  weightsAt(prepare(curve, frame), hours, predicted)
  const nowH = hours.at(-1)!
  const scaleH = Math.max(curve.scaleH, nowH)
  return {
    predictedG: [...predicted],
    sdG: run.weighIns.map(({ weightG, extraSdG }, i) =>
      weighingSd(run, { weightG, expectedG: predicted[i]!, solidsG: curve.solidsG, age: Math.max(0, nowH - hours[i]!) / scaleH, extraSdG }),
    ),
  }
}

interface Fit {
  parameters: number[]
  covariance: number[][]
  predictedG: number[]
  sdG: number[]
}

function fit(run: DryingRun, frame: RunFrame, prior: Prior): Fit {
  const { weighIns } = run
  const nowH = weighIns.at(-1)?.hours ?? 0
  const priorCovariance = prior.sd.map((sd, i) => prior.sd.map((_, j) => (i === j ? sd * sd : 0)))
  if (weighIns.length === 0) return { parameters: prior.mean, covariance: priorCovariance, predictedG: [], sdG: [] }

  const hours = weighIns.map(weighIn => weighIn.hours)
  const predicted = new Float64Array(hours.length)
  const bounds = boundsOf(run, frame, prior)
  let parameters = prior.mean
  let sdG: number[] = []
  let covariance: number[][] = priorCovariance
  // The model's error depends on the water left, which the fit itself finds: two passes settle it.
  for (let pass = 0; pass < 2; pass++) {
    const curve = toCurve(parameters)
    const prepared = prepare(curve, frame)
    const scaleH = Math.max(curve.scaleH, nowH)
    weightsAt(prepared, hours, predicted)
    sdG = weighIns.map(({ weightG, extraSdG, hours: at }, i) =>
      weighingSd(run, { weightG, expectedG: predicted[i]!, solidsG: curve.solidsG, age: Math.max(0, nowH - at) / scaleH, extraSdG }),
    )
    const result = fitLeastSquares({
      start: parameters,
      count: weighIns.length + PARAMETERS,
      robust: weighIns.length,
      lower: bounds.lower,
      upper: bounds.upper,
      tolerance: 1e-5,
      residuals(p, out) {
        const trial = prepare(toCurve(p), frame)
        weightsAt(trial, hours, predicted)
        for (let i = 0; i < hours.length; i++) out[i] = (predicted[i]! - weighIns[i]!.weightG) / sdG[i]!
        prior.mean.forEach((mean, j) => {
          out[weighIns.length + j] = (p[j]! - mean) / prior.sd[j]!
        })
      },
      jacobian(p, columns) {
        const trial = prepare(toCurve(p), frame)
        weightsAt(trial, hours, predicted)
        weightSlopes(trial, frame, hours, predicted, columns)
        for (let j = 0; j < PARAMETERS; j++) {
          for (let i = 0; i < hours.length; i++) columns[j]![i]! /= sdG[i]!
          for (let k = 0; k < PARAMETERS; k++) columns[j]![hours.length + k] = j === k ? 1 / prior.sd[j]! : 0
        }
      },
    })
    parameters = result.parameters
    covariance = result.covariance ?? priorCovariance
  }
  weightsAt(prepare(toCurve(parameters), frame), hours, predicted)
  return { parameters, covariance, sdG, predictedG: [...predicted] }
}

/** Ranges wide enough to hold every real run and narrow enough to keep exp() and pow() finite. */
function boundsOf(run: DryingRun, frame: RunFrame, prior: Prior) {
  return {
    lower: [prior.mean[0]! - 3, Math.log(0.02), -0.1, Math.log(run.startWeightG * 1e-3), 0],
    upper: [prior.mean[0]! + 3, Math.log(50), 0.8, Math.log(run.startWeightG * 0.999), 2 + frame.targetX],
  }
}

function drawCurves(mean: readonly number[], covariance: number[][], prior: Prior, run: DryingRun) {
  const width = mean.length + 1
  const noise = normalDraws(run.seed ?? 1, DRAWS, width)
  const factor = choleskyFactor(covariance) ?? prior.sd.map((sd, i) => prior.sd.map((_, j) => (i === j ? sd : 0)))
  const most = Math.log(run.startWeightG * 0.999)
  const curves: RateCurve[] = []
  const spare = new Float64Array(DRAWS)
  for (let draw = 0; draw < DRAWS; draw++) {
    const p = mean.map((value, i) => {
      let sum = value
      for (let j = 0; j <= i; j++) sum += factor[i]![j]! * noise[draw * width + j]!
      return sum
    })
    p[2] = Math.min(0.8, Math.max(-0.1, p[2]!))
    p[3] = Math.min(most, p[3]!)
    curves.push(toCurve(p))
    spare[draw] = noise[draw * width + width - 1]!
  }
  return { curves, spare }
}

/** The band of the weight from loading to a little past the finish. */
function curveOf(curves: readonly PreparedCurve[], nowH: number, finish: Interval): CurvePoint[] {
  const end = Number.isFinite(finish.p90) ? finish.p90 : Number.isFinite(finish.p50) ? finish.p50 * 1.5 : nowH * 1.5 + 6
  const lastH = Math.max(end * 1.1, nowH * 1.05, 1)
  const hours = Array.from({ length: CURVE_POINTS + 1 }, (_, point) => (lastH * point) / CURVE_POINTS)
  const drawn = curves
    .filter((_, i) => i % CURVE_EVERY === 0)
    .map(prepared => {
      const weights = new Float64Array(hours.length)
      weightsAt(prepared, hours, weights, CURVE_PRECISION)
      return weights
    })
  return hours.map((hour, point) => ({ hours: hour, weightG: intervalOf(drawn.map(weights => weights[point]!)) }))
}
