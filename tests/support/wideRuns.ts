import { interpolate, randomSource, type RandomSource } from '#core/stats'
import type { DryingRun, WeighIn } from '#core/kinetics'

/**
 * Loads as they come, on and far off the card: bodies of several kinds, from half to three times the usual hours, weighed once
 * to twelve times, now and then wrongly, some with a start weight that is off. Nothing here is shared with what is fitted.
 */
export interface WideRun {
  body: string
  pace: number
  trueFinishH: number
  trueMoisture: number
  run: DryingRun
}

/** Free moisture left at a time of the body's own, falling from 1. */
type Curve = (time: number) => number
type Maker = (source: RandomSource) => Curve

/** Solves dφ/dt = −rate(φ) in small steps, once, and looks up between. */
function byRate(rate: (phi: number) => number, least = 1e-5): Curve {
  const times = [0]
  const values = [1]
  let time = 0
  let phi = 1
  while (phi > least && times.length < 6000) {
    const step = 0.004 * phi
    // Midpoint of the step: its error is far below a scale's.
    time += step / rate(phi - step / 2)
    phi -= step
    times.push(time)
    values.push(phi)
  }
  return at => interpolate(times, values, at)
}

/** Diffusion in a slab, a cylinder or a sphere of shells, explicit in time, with a face that resists and a body that shrinks. */
function shells(source: RandomSource, dimension: 1 | 2 | 3, shrink: number): Curve {
  const count = 14
  const biot = Math.exp(source.uniform() * Math.log(60)) * 0.7
  const c = new Float64Array(count).fill(1)
  const edge = (i: number) => (i / count) ** (dimension - 1)
  const volume = (i: number) => ((i + 1) / count) ** dimension - (i / count) ** dimension
  const meanOf = () => c.reduce((sum, value, i) => sum + value * volume(i), 0)
  const times = [0]
  const values = [1]
  let time = 0
  let mean = 1
  for (let n = 0; n < 60_000 && mean > 2e-4; n++) {
    // What has shrunk is thinner: diffusion is quicker by the square of it.
    const size = 1 - shrink * (1 - mean)
    const d = 1 / (size * size)
    const dt = 0.35 / (count * count * d)
    const flux = new Float64Array(count + 1)
    for (let i = 1; i < count; i++) flux[i] = d * edge(i) * (c[i - 1]! - c[i]!) * count
    flux[count] = (d * c[count - 1]!) / (0.5 / count + 1 / biot)
    for (let i = 0; i < count; i++) c[i]! += (dt * dimension * (flux[i]! - flux[i + 1]!)) / volume(i)
    time += dt
    mean = meanOf()
    if (n % 8 === 0) {
      times.push(time)
      values.push(mean)
    }
  }
  return at => interpolate(times, values, at)
}

const between = (source: RandomSource, low: number, high: number) => low + (high - low) * source.uniform()
/** Several pieces of one body, some thicker: the load is their sum. */
function mixed(source: RandomSource, curve: Curve, spread: number, pieces = 5): Curve {
  const paces = Array.from({ length: pieces }, () => Math.exp(spread * source.normal()))
  return time => paces.reduce((sum, pace) => sum + curve(time / pace), 0) / pieces
}

/** The bodies that the constants of the estimator were set on. */
export const SET_ON: Record<string, Maker> = {
  slab: source => shells(source, 1, 0),
  cylinder: source => shells(source, 2, 0),
  sphere: source => shells(source, 3, 0),
  'constant, then falling': source => {
    const critical = between(source, 0.05, 0.8)
    return byRate(phi => Math.min(1, phi / critical))
  },
  'first order': () => byRate(phi => phi),
  Page: source => {
    const n = between(source, 0.7, 1.35)
    return time => Math.exp(-(time ** n))
  },
}

/** Others that the weights of the bodies were chosen by, with those above. */
export const CHOSEN_BY: Record<string, Maker> = {
  'shrinking slab': source => shells(source, 1, between(source, 0.3, 0.7)),
  'shrinking sphere': source => shells(source, 3, between(source, 0.3, 0.6)),
  'uneven trays': source => mixed(source, shells(source, 1, 0), between(source, 0.1, 0.3)),
  'thick and thin, first order': source =>
    mixed(
      source,
      byRate(phi => phi),
      between(source, 0.15, 0.4),
    ),
  'a closing skin': source => {
    const power = between(source, 1.1, 1.4)
    return byRate(phi => phi ** power)
  },
  'constant to the end': source => {
    const soft = between(source, 0.02, 0.1)
    return byRate(phi => phi / (phi + soft))
  },
}

/** Bodies kept apart to the end: no constant was chosen by them. */
export const APART: Record<string, Maker> = {
  'three sizes': source => {
    const curve = shells(source, 1, between(source, 0, 0.4))
    const large = between(source, 1.3, 2)
    return time => (curve(time * large) + curve(time) + curve(time / large)) / 3
  },
  'trays swapped halfway': source => {
    const curve = shells(source, 1, 0)
    const before = between(source, 0.7, 1.3)
    const at = between(source, 0.15, 0.5)
    return time => curve(time < at ? before * time : before * at + (2 - before) * (time - at))
  },
  'a crust that builds': source => {
    const crust = between(source, 0.5, 4)
    return byRate(phi => phi / (0.3 + crust * (1 - phi)))
  },
  'air that wanders': source => {
    const curve = shells(source, 2, between(source, 0, 0.3))
    const [high, slow, turn] = [between(source, 0.1, 0.35), between(source, 0.1, 0.4), between(source, 0, 6)]
    // The pace goes up and down by so much: a room by day and night, a door that is opened.
    return time => curve(time + high * slow * (Math.cos(turn) - Math.cos(turn + time / slow)))
  },
}

export interface WideOptions {
  paces: readonly number[]
  /** Whether hours are what the card says, up to its spread; else the pace is what it is. */
  perCell: number
  seed: number
  stages: readonly number[]
  counts: readonly number[]
  troubles?: boolean
}

/** Runs of every body at every pace, each with its own food, card, scale and hand. */
export function makeWideRuns(
  makers: Record<string, Maker>,
  { paces, perCell, seed, stages, counts, troubles = true }: WideOptions,
): WideRun[] {
  return Object.entries(makers).flatMap(([body, make], b) =>
    paces.flatMap((pace, p) =>
      Array.from({ length: perCell }, (_, i) => {
        const source = randomSource(seed * 100_003 + b * 1009 + p * 101 + i)
        return oneRun(body, make(source), pace, source.pick(stages), source.pick(counts), source, troubles, seed + i)
      }),
    ),
  )
}

function oneRun(
  body: string,
  curve: Curve,
  pace: number,
  stage: number,
  count: number,
  source: RandomSource,
  troubles: boolean,
  seed: number,
): WideRun {
  const mean = between(source, 0.05, 0.3)
  const solids = { mean, sd: mean * between(source, 0.03, 0.15) }
  const trueSolids = Math.max(0.4 * mean, mean + solids.sd * source.normal())
  const targetMoisture = between(source, 0.05, 0.12)
  const targetX = targetMoisture / (1 - targetMoisture)
  const equilibriumX = Math.min(0.7 * targetX, Math.max(0.005, 0.025 + 0.01 * source.normal()))
  const startX = 1 / trueSolids - 1
  const wanted = (targetX - equilibriumX) / (startX - equilibriumX)
  let low = 0
  let high = 1
  while (curve(high) > wanted && high < 1e4) high *= 2
  for (let i = 0; i < 60; i++) {
    const middle = 0.5 * (low + high)
    if (curve(middle) > wanted) low = middle
    else high = middle
  }
  const own = high
  const middleH = between(source, 5, 16)
  const ratio = between(source, 1.25, 2)
  // Within its own spread a load may be anywhere, on the card as far off it.
  const trueFinishH = middleH * pace * Math.exp((Math.log(ratio) / 2 / 1.2816) * 0.8 * source.normal())
  const trueStartG = between(source, 400, 3500)
  const weightAt = (hours: number) =>
    trueStartG * trueSolids * (1 + equilibriumX + (startX - equilibriumX) * curve((hours / trueFinishH) * own))
  const resolutionG = source.pick([1, 1, 1, 5, 10])
  const shown = (grams: number) => Math.max(resolutionG, Math.round((grams * (1 + 0.005 * source.normal())) / resolutionG) * resolutionG)
  const weighIns: WeighIn[] = Array.from({ length: count }, (_, i) => {
    const hours = (trueFinishH * stage * (i + 0.6 + 0.4 * source.uniform())) / count
    return { hours, weightG: shown(weightAt(hours)) }
  })
  const trueMoisture = 1 - (trueStartG * trueSolids) / weightAt(weighIns.at(-1)?.hours ?? 0)
  if (troubles && count >= 3 && source.uniform() < 0.12) {
    const at = source.integer(0, count - 2)
    weighIns[at] = { ...weighIns[at]!, weightG: Math.round(weighIns[at]!.weightG * source.pick([0.75, 1.35, 0.9, 1.15])) }
  }
  const startOff = troubles && source.uniform() < 0.15 ? source.pick([0.96, 1.04]) : 1
  return {
    body,
    pace,
    trueFinishH,
    trueMoisture,
    run: {
      startWeightG: shown(trueStartG * startOff),
      solids,
      targetMoisture,
      usualHours: { low: middleH / Math.sqrt(ratio), high: middleH * Math.sqrt(ratio) },
      weighIns,
      scale: { resolutionG },
      seed,
    },
  }
}
