// Taken out once: the inner loops call these millions of times, and a look-up by name is slow in sandboxes.
const { abs, exp, log, log1p, max } = Math

/**
 * The working curve: a drying rate that is nearly constant while the food is wet and falls as it dries.
 * With φ = (X − Xe)/(X0 − Xe) the free moisture, the clock reads
 *
 *   t(φ) = T · u(φ)/u(φ*),   u(φ) = (1 − φ) + c·(φ^(−q) − 1)/q
 *
 * where φ* is φ at the target. The first term is the constant-rate period; the second the falling one,
 * exponential for q → 0 and slower than that for q > 0 (trays and thicknesses that lag). c large and
 * q = 0 give Newton's curve. It is the characteristic drying curve of van Meel (1958) in integrated
 * form. Page's curve with n above 1, as wet food shows at first, foretells a tail that collapses; this
 * one cannot. T, the hours to target, is itself a parameter: what people know ("8 to 12 hours") is then
 * a prior on one parameter, not on a combination of three.
 */
export interface RateCurve {
  /** Hours to target, T. */
  scaleH: number
  /** Share c of the falling-rate term, above 0. */
  falling: number
  /** Slowness q of the tail. */
  tail: number
  solidsG: number
  /** Xe, dry basis. */
  equilibriumX: number
}

/** The fixed facts of a run that every curve of it shares. */
export interface RunFrame {
  startWeightG: number
  targetX: number
}

/** Share of the target's dry-basis moisture that must stay between it and Xe for T to be taken there. */
const LEAST_GAP = 0.1

/** u as a function of y = −ln φ ≥ 0, and its slope. */
function reducedTime(y: number, falling: number, tail: number): number {
  const term = abs(tail * y) < 1e-6 ? y : (exp(tail * y) - 1) / tail
  return 1 - exp(-y) + falling * term
}

/** How the falling-rate term (φ^(−q) − 1)/q changes with q. */
function termSlope(y: number, tail: number, term: number): number {
  return abs(tail * y) < 1e-4 ? 0.5 * y * y : (y * exp(tail * y) - term) / tail
}

/** A curve made ready to be asked for many hours: what does not depend on the hour is worked out once. */
export interface PreparedCurve {
  curve: RateCurve
  startX: number
  /** u at the place where T is taken, per hour of T. */
  reducedPerHour: number
}

export function prepare(curve: RateCurve, frame: RunFrame): PreparedCurve {
  const startX = frame.startWeightG / curve.solidsG - 1
  const gap = max(frame.targetX - curve.equilibriumX, LEAST_GAP * frame.targetX)
  const y = max(1e-3, log((startX - curve.equilibriumX) / gap) || 0)
  return { curve, startX, reducedPerHour: reducedTime(y, curve.falling, curve.tail) / curve.scaleH }
}

/**
 * Weights of the load in grams at hours of drying clock, written into `out`.
 * u is turned round by Newton's method inside a bracket, each hour starting from the one before; an hour
 * that lies before it (the food took water back) starts anew.
 * @param precision of u, relative; a band that is looked at needs less than a fit
 */
export function weightsAt(prepared: PreparedCurve, hours: ArrayLike<number>, out: Float64Array, precision = 1e-9): void {
  const {
    curve: { falling, tail, solidsG, equilibriumX },
    startX,
    reducedPerHour,
  } = prepared
  let y = 0
  let before = 0
  let grow = 1
  let shrink = 1
  for (let i = 0; i < hours.length; i++) {
    const wanted = max(0, hours[i]!) * reducedPerHour
    if (wanted < before) {
      y = before = 0
      grow = shrink = 1
    }
    let low = y
    let high = tail > 1e-6 ? log1p((wanted * tail) / falling) / tail : wanted / falling + 60 * (tail < 0 ? 1 : 0)
    let guess = y + (wanted - before) / (shrink + falling * grow)
    for (let round = 0; round < 40; round++) {
      y = guess > low && guess < high ? guess : 0.5 * (low + high)
      grow = exp(tail * y)
      shrink = exp(-y)
      const error = 1 - shrink + falling * (abs(tail * y) < 1e-6 ? y : (grow - 1) / tail) - wanted
      if (abs(error) < precision * (1 + wanted)) break
      if (error > 0) high = y
      else low = y
      guess = y - error / (shrink + falling * grow)
    }
    before = wanted
    out[i] = solidsG * (1 + equilibriumX + (startX - equilibriumX) * shrink)
  }
}

/** Order of the fitted parameters: ln T, ln c, q, ln solids, Xe. */
export const PARAMETERS = 5

/**
 * Slopes of the weights by the fitted parameters, by the implicit function theorem: from
 * u(y) = t·u(y*)/T every change of a parameter moves y, and the weight is
 * A + (W0 − A)·exp(−y) with A = solids·(1 + Xe).
 * @param weights as `weightsAt` gives them for the same hours
 * @param columns one array a parameter, written
 */
export function weightSlopes(
  prepared: PreparedCurve,
  frame: RunFrame,
  hours: readonly number[],
  weights: Float64Array,
  columns: readonly Float64Array[],
): void {
  const {
    curve: { falling, tail, solidsG, equilibriumX, scaleH },
    startX,
    reducedPerHour,
  } = prepared
  const plateau = solidsG * (1 + equilibriumX)
  const span = frame.startWeightG - plateau
  const free = startX - equilibriumX
  const open = frame.targetX - equilibriumX > LEAST_GAP * frame.targetX
  const gap = open ? frame.targetX - equilibriumX : LEAST_GAP * frame.targetX
  const yEnd = max(1e-3, log(free / gap) || 0)
  const termEnd = abs(tail * yEnd) < 1e-6 ? yEnd : (exp(tail * yEnd) - 1) / tail
  const slopeEnd = exp(-yEnd) + falling * exp(tail * yEnd)
  for (let i = 0; i < hours.length; i++) {
    const hour = max(0, hours[i]!)
    const shrink = max(1e-300, (weights[i]! - plateau) / span)
    const y = -log(shrink)
    const grow = exp(tail * y)
    const term = abs(tail * y) < 1e-6 ? y : (grow - 1) / tail
    const slope = shrink + falling * grow
    const perTime = hour / scaleH
    const fall = (-span * shrink) / slope
    columns[0]![i] = fall * -hour * reducedPerHour
    columns[1]![i] = fall * falling * (perTime * termEnd - term)
    columns[2]![i] = fall * falling * (perTime * termSlope(yEnd, tail, termEnd) - termSlope(y, tail, term))
    columns[3]![i] = (fall * perTime * slopeEnd * -(1 + startX)) / free + plateau * (1 - shrink)
    columns[4]![i] = fall * perTime * slopeEnd * ((open ? 1 / gap : 0) - 1 / free) + solidsG * (1 - shrink)
  }
}

/** Weight of the load at one hour, and how fast it changes there: g and g/h. */
export function weightAndRate(prepared: PreparedCurve, hours: number): { weightG: number; ratePerHour: number } {
  const {
    curve: { falling, tail, solidsG, equilibriumX },
    startX,
    reducedPerHour,
  } = prepared
  const weightG = weightAt(prepared, hours)
  const span = solidsG * (startX - equilibriumX)
  const shrink = max(1e-300, (weightG - solidsG * (1 + equilibriumX)) / span)
  return { weightG, ratePerHour: (-span * shrink * reducedPerHour) / (shrink + falling * exp(-tail * log(shrink))) }
}

/** Weight of the load in grams at one hour. */
export function weightAt(prepared: PreparedCurve, hours: number): number {
  const out = new Float64Array(1)
  weightsAt(prepared, [hours], out)
  return out[0]!
}

/** How fast ln φ falls at the target, 1/h: what is left of the free moisture shrinks at this rate there. */
export function rateAtTarget({ curve, startX, reducedPerHour }: PreparedCurve, frame: RunFrame): number {
  const gap = max(frame.targetX - curve.equilibriumX, LEAST_GAP * frame.targetX)
  const y = max(0, log((startX - curve.equilibriumX) / gap) || 0)
  return reducedPerHour / (exp(-y) + curve.falling * exp(curve.tail * y))
}

/** Hours at which the curve meets the target; Infinity where it never does, 0 where it starts below. */
export function hoursToTarget({ curve, startX, reducedPerHour }: PreparedCurve, frame: RunFrame): number {
  if (startX <= frame.targetX) return 0
  if (curve.equilibriumX >= frame.targetX) return Infinity
  const y = log((startX - curve.equilibriumX) / (frame.targetX - curve.equilibriumX))
  return reducedTime(y, curve.falling, curve.tail) / reducedPerHour
}
