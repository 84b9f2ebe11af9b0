import { dryBasis, wetBasis } from '../mass'
import { intervalOf, normalDraws, type Interval } from '../stats'
import { believedOf, estimateOf } from './estimate'
import { MODEL } from './model'
import { hoursTo, lnTargetOf, slopeAt, weightAt } from './posterior'
import type { DryingEstimate, DryingRun, WeighIn } from './types'

/** A tray of a load: the share of the loaded weight that it took, and its own weighings. */
export interface Tray {
  position: number
  /** Share of the load's weight at loading, 0–1; `shareSd` relative, where it was not weighed but guessed. */
  share: number
  shareSd?: number
  weighIns: readonly WeighIn[]
}

export interface TrayEstimate {
  position: number
  /** How fast it dries against the whole load: 0.8 is a fifth slower. */
  pace: Interval
  /** Wet basis, at the run's last weighing of whatever tray. */
  moistureNow: Interval
  waterLeftG: Interval
  hoursToTarget: Interval
  probabilityDry: number
}

export interface TraysEstimate {
  load: DryingEstimate
  trays: TrayEstimate[]
}

/** What trays of one load are believed to differ by. Set on simulated runs, as `MODEL` is. */
const TRAYS = {
  /** Standard deviation of the logarithm of a tray's own pace (thickness, place in the machine). */
  paceSd: 0.13,
  /** Error of the load's curve for one tray, as a share of the water left in it. */
  shape: 0.08,
  /** Neighbouring weighings share the shape's error: about so many count as independent. */
  independent: 2,
  /** Doubt of a tray's remaining time beyond the load's, standard deviation of its logarithm. */
  remaining: 0.07,
}
/** Curves that the trays are worked out on: enough for their windows, and quick for a full rack. */
const TRAY_DRAWS = 120
const SHARE_WEIGHED = 0.004
const ROUNDS = 2

/**
 * The load and each of its trays. The load's curve is fitted to all weighings together; a tray follows
 * the same curve at a pace of its own, which is believed near 1 until its weights say otherwise. So
 * every weighing of one tray sharpens all, and a tray never weighed has the load's window, widened.
 * @param run the load as `estimateDrying` takes it: weighings of single trays raised to the whole load
 * @param posterior what is believed of the load, where that is known already
 * @throws InputError as `estimateDrying` does.
 */
export function estimateTrays(run: DryingRun, trays: readonly Tray[], posterior = believedOf(run)): TraysEstimate {
  const { curves, spare } = posterior
  const targetX = dryBasis(run.targetMoisture)
  const step = Math.max(1, Math.floor(curves.length / TRAY_DRAWS))
  const used = curves.map((_, i) => i).filter(i => i % step === 0)
  const nowH = Math.max(0, run.weighIns.at(-1)?.hours ?? 0, ...trays.map(tray => tray.weighIns.at(-1)?.hours ?? 0))
  const finishes = used.map(i => hoursTo(curves[i]!, lnTargetOf(curves[i]!, targetX), spare[i]!))
  const estimates = trays.map((tray, t): TrayEstimate => {
    const noise = normalDraws((run.seed ?? 1) + 7919 * (t + 1), used.length, 3)
    const paces = new Float64Array(used.length)
    const moistures = new Float64Array(used.length)
    const waters = new Float64Array(used.length)
    const ends = new Float64Array(used.length)
    let dry = 0
    used.forEach((i, n) => {
      const curve = curves[i]!
      const fitted = fitTray(run, tray, hours => ({ weightG: weightAt(curve, hours), ratePerHour: slopeAt(curve, hours) }), curve.solidsG)
      const pace = Math.exp(fitted.pace + fitted.paceSd * noise[3 * n]!)
      const { solidsG } = curve
      const x = Math.max(0, weightAt(curve, pace * nowH) / solidsG - 1)
      paces[n] = pace
      waters[n] = tray.share * solidsG * x
      moistures[n] = wetBasis(x)
      if (moistures[n]! <= run.targetMoisture) dry++
      const finish = finishes[n]! / pace
      ends[n] = Number.isFinite(finish) && finish > nowH ? nowH + (finish - nowH) * Math.exp(TRAYS.remaining * noise[3 * n + 1]!) : finish
    })
    return {
      position: tray.position,
      pace: intervalOf(paces),
      moistureNow: intervalOf(moistures),
      waterLeftG: intervalOf(waters),
      hoursToTarget: intervalOf(ends),
      probabilityDry: dry / used.length,
    }
  })
  return {
    get load() {
      return estimateOf(run, posterior)
    },
    trays: estimates,
  }
}

/**
 * A tray's pace on one curve, as ln with its standard deviation: Gauss–Newton on pace and share together,
 * both held by what is believed before.
 */
function fitTray(
  run: DryingRun,
  tray: Tray,
  curve: (hours: number) => { weightG: number; ratePerHour: number },
  solidsG: number,
): { pace: number; paceSd: number } {
  const shareSd = tray.shareSd ?? SHARE_WEIGHED
  if (tray.weighIns.length === 0) return { pace: 0, paceSd: TRAYS.paceSd }
  const resolution = (run.scale?.resolutionG ?? 1) / Math.sqrt(12)
  // Neighbouring weighings of a tray share the error of its shape.
  const crowding = Math.sqrt(Math.max(1, tray.weighIns.length / TRAYS.independent))
  let pace = 0
  let share = 0
  let a = 0
  let b = 0
  let c = 0
  for (let round = 0; round < ROUNDS; round++) {
    a = 1 / TRAYS.paceSd ** 2
    b = 0
    c = 1 / shareSd ** 2
    let gradientPace = pace * a
    let gradientShare = share * c
    const part = tray.share * Math.exp(share)
    for (const { hours, weightG } of tray.weighIns) {
      const { weightG: loadG, ratePerHour } = curve(Math.exp(pace) * hours)
      const expected = part * loadG
      const byPace = part * ratePerHour * Math.exp(pace) * hours
      const free = Math.max(0, expected - part * solidsG)
      const sd = Math.hypot(resolution, MODEL.handling * weightG, TRAYS.shape * free * crowding)
      const off = (expected - weightG) / (sd * sd)
      // Student's weight: one mistyped tray must not make it a slow one.
      const weight = 5 / (4 + off * off * sd * sd)
      gradientPace += weight * off * byPace
      gradientShare += weight * off * expected
      a += (weight * byPace * byPace) / (sd * sd)
      b += (weight * byPace * expected) / (sd * sd)
      c += (weight * expected * expected) / (sd * sd)
    }
    const determinant = a * c - b * b
    pace = Math.min(1, Math.max(-1, pace - (c * gradientPace - b * gradientShare) / determinant))
    share = Math.min(0.5, Math.max(-0.5, share - (a * gradientShare - b * gradientPace) / determinant))
  }
  return { pace, paceSd: Math.sqrt(c / (a * c - b * b)) }
}
