import { Z_90, interpolate } from '../stats'

// Taken out once: tables are made of millions of these, and a look-up by name is slow in sandboxes.
const { exp, log, max, min, sqrt, tan, PI } = Math

/**
 * Bodies that lose water, each by its own curve: how the logarithm of the free moisture φ = (X − Xe)/(X0 − Xe) falls with
 * time. Which of them a load is, nobody knows before it was weighed: `posterior.ts` weighs them by their evidence.
 *
 * A body's time has no unit: θ = 1 where y = −ln φ is 2. Between, y is looked up in a table over ln θ.
 */
export interface Body {
  name: string
  /** What is believed of it before any weight, relative to the others. */
  weight: number
  /** y over ln θ, in steps of `STEP` from `LEAST`. */
  table: Float64Array
}

const LEAST = -10
const MOST = 5
const STEP = 0.05
const POINTS = Math.round((MOST - LEAST) / STEP) + 1
/** Drier than this no scale tells anything. */
const MOST_Y = 16
const LEAST_Y = 1e-6

/** y of a body at ln θ. */
export function dryness(body: Body, lnTheta: number): number {
  const place = (lnTheta - LEAST) / STEP
  // Earlier than the table nothing has left yet.
  if (!(place > 0)) return body.table[0]! * exp(STEP * place)
  if (place >= POINTS - 1) return body.table[POINTS - 1]!
  const left = place | 0
  const at = body.table[left]!
  return at + (body.table[left + 1]! - at) * (place - left)
}

/** ln θ at which a body has come to y: the other way round, by halving the table. */
export function lnTimeTo(body: Body, y: number): number {
  const { table } = body
  if (y <= table[0]!) return LEAST + log(max(1e-12, y / table[0]!))
  if (y >= table[POINTS - 1]!) return MOST
  let low = 0
  let high = POINTS - 1
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (table[middle]! <= y) low = middle
    else high = middle
  }
  const gap = table[high]! - table[low]!
  return LEAST + STEP * (low + (gap > 0 ? (y - table[low]!) / gap : 0))
}

/** A body from its free moisture at each time of its own. */
function fromCurve(name: string, weight: number, phiAt: (time: number) => number): Body {
  const yAt = (lnTime: number) => min(MOST_Y, max(LEAST_Y, -log(max(1e-12, phiAt(exp(lnTime))))))
  // Where its own time has y = 2.
  let low = -20
  let high = 20
  for (let i = 0; i < 60; i++) {
    const middle = 0.5 * (low + high)
    if (yAt(middle) < 2) low = middle
    else high = middle
  }
  const table = new Float64Array(POINTS)
  for (let i = 0; i < POINTS; i++) table[i] = max(i > 0 ? table[i - 1]! : LEAST_Y, yAt(low + LEAST + i * STEP))
  return { name, weight, table }
}

/** Free moisture from the time at which each y is reached, which some curves give in closed form. */
const phiFrom = (timeTo: (y: number) => number) => (time: number) => {
  let low = 0
  let high = MOST_Y
  if (timeTo(high) <= time) return exp(-MOST_Y)
  for (let i = 0; i < 50; i++) {
    const middle = 0.5 * (low + high)
    if (timeTo(middle) < time) low = middle
    else high = middle
  }
  return exp(-low)
}
const fromTime = (name: string, weight: number, timeTo: (y: number) => number): Body => fromCurve(name, weight, phiFrom(timeTo))

/** Mean free moisture of a body that only diffusion dries, at a Fourier number (Crank, The Mathematics of Diffusion, 1975). */
export function diffusing(shape: 'slab' | 'cylinder' | 'sphere', fourier: number): number {
  // Short times: what has left grows with the root (Crank 4.20, 5.25, 6.23); the series would need too many terms.
  const root = sqrt(fourier / PI)
  if (fourier < 0.02) {
    if (shape === 'slab') return 1 - 2 * root
    if (shape === 'cylinder') return 1 - (4 * root - fourier)
    return 1 - (6 * root - 3 * fourier)
  }
  let sum = 0
  for (let n = 0; n < 40; n++) {
    const [scale, rate] = TERMS[shape](n)
    const term = scale * exp(-rate * fourier)
    sum += term
    if (term < 1e-14) break
  }
  return sum
}

/** Zeros of the Bessel function J0; beyond them π(n + ¾) is near enough. */
const J0 = [2.404825557695773, 5.520078110286311, 8.653727912911013, 11.79153443901428, 14.93091770848779]
const TERMS = {
  slab: (n: number): [number, number] => {
    const root = (n + 0.5) * PI
    return [2 / root ** 2, root ** 2]
  },
  cylinder: (n: number): [number, number] => {
    const root = J0[n] ?? (n + 0.75) * PI
    return [4 / root ** 2, root ** 2]
  },
  sphere: (n: number): [number, number] => {
    const root = (n + 1) * PI
    return [6 / root ** 2, root ** 2]
  },
} as const

/** A slab whose face resists too (Crank 4.50): β·tan β = Bi. */
function resisting(biot: number): (fourier: number) => number {
  const roots = Array.from({ length: 40 }, (_, n) => {
    let low = n * PI
    let high = (n + 0.5) * PI
    for (let i = 0; i < 60; i++) {
      const middle = 0.5 * (low + high)
      if (middle * tan(middle) < biot) low = middle
      else high = middle
    }
    return low
  })
  return fourier =>
    roots.reduce((sum, root) => sum + ((2 * biot ** 2) / (root ** 2 * (root ** 2 + biot ** 2 + biot))) * exp(-(root ** 2) * fourier), 0)
}

/** A rate that is constant down to a share of the free moisture, and falls with it from there. */
const constantThenFalling = (critical: number) => (y: number) => {
  const phi = exp(-y)
  return phi >= critical ? 1 - phi : 1 - critical + critical * log(critical / phi)
}

/**
 * The rate falls smoothly, at last slower than with the moisture itself (q above 0): trays and pieces that lag, a skin that
 * closes. The integrated form of van Meel's characteristic curve (1958): u = (1 − φ) + c·(φ^(−q) − 1)/q.
 */
const lagging = (c: number, q: number) => (y: number) => 1 - exp(-y) + c * (q === 0 ? y : (exp(q * y) - 1) / q)

/**
 * Diffusion in a body that shrinks as it dries, to `left` of its size at last: thinner is quicker by the square. Its own time
 * is what diffusion would have taken in the full size, counted over the way.
 */
function shrinking(name: string, weight: number, shape: 'slab' | 'cylinder' | 'sphere', left: number): Body {
  const times = [0]
  const values = [1]
  let time = 0
  // Steps that grow with the time: diffusion is quick at first.
  for (let fourier = 1e-6, before = 0; fourier < 3; before = fourier, fourier *= 1.03) {
    const phi = diffusing(shape, fourier)
    const size = left + (1 - left) * phi
    time += (fourier - before) * size * size
    times.push(time)
    values.push(phi)
  }
  return fromCurve(name, weight, at => (at >= time ? 1e-12 : interpolate(times, values, at)))
}

/**
 * A wet core that draws back: what lies dry before it resists more and more (`skin`: how much the air resists beside it), and the
 * core's own face shrinks with the power q of what is left. It ends at once, without a tail: crisp skins, and ice that sublimes.
 */
const drawingBack = (skin: number, q: number) => (y: number) => {
  const phi = exp(-y)
  return ((skin + 1) * (1 - phi ** (1 - q))) / (1 - q) - (1 - phi ** (2 - q)) / (2 - q)
}

/** Diffusion in a slab whose pieces slow it as they dry, from 1 to `left` of it (quasi-steady over the mean moisture). */
function slowing(name: string, weight: number, left: number): Body {
  const times = [0]
  const values = [1]
  let time = 0
  for (let fourier = 1e-6, before = 0; fourier < 3; before = fourier, fourier *= 1.03) {
    const phi = diffusing('slab', fourier)
    time += (fourier - before) / (left + (1 - left) * phi)
    times.push(time)
    values.push(phi)
  }
  return fromCurve(name, weight, at => (at >= time ? 1e-12 : interpolate(times, values, at)))
}

/** Middles of five equal parts of a normal spread. */
const FIFTHS = [-Z_90, -0.5244, 0, 0.5244, Z_90]
/** Pieces or trays that are not alike, weighed as one: their paces spread by so much (of the logarithm). */
const uneven = (spread: number, phiAt: (time: number) => number) => (time: number) =>
  FIFTHS.reduce((sum, z) => sum + phiAt(time * exp(spread * z)), 0) / FIFTHS.length

/** Half of it dries at a constant rate down to `critical`, half by first order: two cuts in one load. */
function twoCuts(name: string, weight: number, critical: number): Body {
  const constant = phiFrom(constantThenFalling(critical))
  return fromCurve(name, weight, time => 0.5 * constant(time) + 0.5 * exp(-time))
}

/**
 * Every body that is reckoned with. The weights were set on simulated runs of many bodies, on the card and far off it, by the
 * interval score of the window (`docs/method.md`).
 */
export const BODIES: readonly Body[] = [
  fromCurve('slab', 1, time => diffusing('slab', time)),
  fromCurve('cylinder', 1, time => diffusing('cylinder', time)),
  fromCurve('sphere', 1, time => diffusing('sphere', time)),
  shrinking('shrinking slab', 1.3, 'slab', 0.5),
  shrinking('shrinking cylinder', 1.3, 'cylinder', 0.55),
  shrinking('shrinking sphere', 1.3, 'sphere', 0.6),
  ...[0.25, 0.5].map(left => slowing(`slab slowing to ${left}`, 0.3, left)),
  ...[0.15, 0.3].map(spread =>
    fromCurve(
      `uneven slabs, ${spread}`,
      1.1,
      uneven(spread, time => diffusing('slab', time)),
    ),
  ),
  ...[0.15, 0.3].map(spread =>
    fromCurve(
      `uneven, first order, ${spread}`,
      0.3,
      uneven(spread, time => exp(-time)),
    ),
  ),
  ...[0.05, 0.15].map(critical => twoCuts(`two cuts, ${critical}`, 0.3, critical)),
  ...[1, 4, 15].map(biot => fromCurve(`slab, Bi ${biot}`, 0.7, resisting(biot))),
  ...[0.7, 0.85, 1, 1.15, 1.3].map(n => fromTime(`Page, n ${n}`, 0.8, y => y ** (1 / n))),
  ...[0.02, 0.05, 0.15, 0.3, 0.5, 0.75].map(critical => fromTime(`constant to ${critical}`, 0.8, constantThenFalling(critical))),
  ...[0.05, 1].flatMap(skin => [0, 0.33, 0.66].map(q => fromTime(`drawing back ${skin}, ${q}`, 0.15, drawingBack(skin, q)))),
  ...[0.1, 0.4].map(c => fromTime(`lagging ${c}, 0.1`, 2, lagging(c, 0.1))),
  fromTime('lagging 1.2, 0.1', 0.5, lagging(1.2, 0.1)),
  fromTime('lagging 4, 0.1', 0.8, lagging(4, 0.1)),
  ...[0.1, 0.4].map(c => fromTime(`lagging ${c}, 0.25`, 0.8, lagging(c, 0.25))),
  fromTime('lagging 1.2, 0.25', 0.2, lagging(1.2, 0.25)),
  ...[0.1, 0.2, 0.35].map(q => fromTime(`lagging 10, ${q}`, 0.6, lagging(10, q))),
]
