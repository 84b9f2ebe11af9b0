import { dryBasis } from '../mass'
import { normalDraws } from '../stats'
import { BODIES, dryness, lnTimeTo, type Body } from './bodies'
import { DEFAULT_EQUILIBRIUM, MODEL } from './model'
import { lnFelt } from './felt'
import type { DryingRun, Felt, Spell } from './types'

// Taken out once: the inner loop runs millions of times, and a look-up through a module is slow in sandboxes.
const { abs, exp, hypot, log, max, min, sqrt, PI } = Math
const { handling, offCard, startOff: START_OFF, wander, wildShare } = MODEL
const yOf = dryness
const lnTimeOf = lnTimeTo

/** Share that steps through a span without ever meeting itself. */
const GOLDEN = 0.6180339887498949
/** Normal numbers a curve. */
const NUMBERS = 5

/** Curves drawn from what is believed. */
const DRAWS = 400
/** Hours to target that are reckoned with, as factors of the usual ones, and how far apart. */
const HOURS = { least: log(0.15), most: log(7), step: 0.1 }
/** Nodes so far below the likeliest count for nothing. */
const NEGLIGIBLE = 12
/** So far below, a node may yet be the likeliest once the weight at loading is doubted. */
const DOUBTFUL = 24

/** A load as it may be: a body at a pace, with its solids, its true weight at loading, and how far it is off its curve now. */
export interface Curve {
  body: Body
  /** ln of the hours in which the body's own time passes once. */
  lnScale: number
  /** Weight that it comes to at last, S·(1 + Xe), and at loading, g. */
  plateauG: number
  startG: number
  solidsG: number
  equilibriumX: number
  /** Deviation of ln φ from the body's curve at the last weighing, and where on the curve that is. */
  off: number
  lastY: number
  lastH: number
  /** Hours that spells without heat cost (or, wet as it was, spared), from an hour of the clock on. */
  shifts: readonly Shift[]
  /** Hours that it had dried before the clock began. */
  late: number
}
interface Shift {
  hours: number
  lost: number
}
const NO_SHIFTS: readonly Shift[] = []

/** What is believed of a run after its weighings. */
export interface Posterior {
  curves: Curve[]
  /** Standard normal numbers, one a curve: what is not told by any weight yet. */
  spare: Float64Array
  /** What was expected of each weighing before it was known, its doubt, and the chance that it is a mistake. */
  predictedG: Float64Array
  sdG: Float64Array
  wild: Float64Array
  /** Chance that the weight at loading is off. */
  startOff: number
  /** ln of how well all of it goes together, up to what is the same for every run of these weights. */
  evidence: number
  /** Where its weights say that it was logged hours after it went in. */
  lateStart?: { hours: number; belief: number }
}

/** Where a curve is at an hour of the clock: y of its body, spells without heat taken off. */
function placeAt(curve: Curve, hours: number): number {
  let lost = 0
  for (const shift of curve.shifts) if (hours >= shift.hours) lost = shift.lost
  return yOf(curve.body, log(max(1e-6, hours + curve.late - lost)) - curve.lnScale)
}

/**
 * ln φ of a curve at an hour of the clock: along the body, and off it as far as is known.
 * @param z standard normal: how far it bends beyond the last weighing
 */
function lnFree(curve: Curve, hours: number, z = 0): number {
  if (hours + curve.late <= 0) return 0
  const y = placeAt(curve, hours)
  if (hours >= curve.lastH) return min(0, curve.off + sqrt(wander * max(0, y - curve.lastY)) * z - y)
  // Between loading and the last weight it went off its curve little by little.
  return min(0, (curve.lastY > 1e-9 ? curve.off * min(1, y / curve.lastY) : 0) - y)
}

export const weightAt = (curve: Curve, hours: number, z = 0): number =>
  curve.plateauG + (curve.startG - curve.plateauG) * exp(lnFree(curve, hours, z))

/** How fast the weight changes at an hour, g/h. */
export function slopeAt(curve: Curve, hours: number): number {
  const step = max(0.01, 0.02 * hours)
  return (weightAt(curve, hours + step) - weightAt(curve, max(0, hours - step))) / (hours + step - max(0, hours - step))
}

/**
 * Hours at which a curve has come to a free moisture; what no weight tells yet is drawn by `z`.
 * @param lnTarget ln φ at the target; NaN where the curve never comes so low
 */
export function hoursTo(curve: Curve, lnTarget: number, z: number): number {
  if (Number.isNaN(lnTarget)) return Infinity
  if (lnTarget >= 0) return 0
  const { lastY, off } = curve
  const lost = (curve.shifts.at(-1)?.lost ?? 0) - curve.late
  // Reached before the last weight: on the way from loading to it.
  if (off - lastY <= lnTarget) {
    const y = -lnTarget / max(0.2, 1 - off / max(1e-9, lastY))
    return min(curve.lastH, exp(curve.lnScale + lnTimeOf(curve.body, y)) + lost)
  }
  // What is left of the way bends as it likes: a deviation that grows with the way.
  const way = max(0, off - lnTarget - lastY)
  const y = lastY + max(0, way + sqrt(wander * way) * z)
  return max(curve.lastH, exp(curve.lnScale + lnTimeOf(curve.body, y)) + lost)
}

/** ln φ at the target moisture; NaN where the air of the run does not let it come so low. */
export function lnTargetOf(curve: Curve, targetX: number): number {
  const startX = curve.startG / curve.solidsG - 1
  if (startX <= targetX) return 0
  return curve.equilibriumX >= targetX ? NaN : log((targetX - curve.equilibriumX) / (startX - curve.equilibriumX))
}

/** Student's t with three degrees of freedom, as a density up to a factor: hours are now and then far off the card's. */
const heavyTail = (z: number) => 1 / (1 + (z * z) / 3) ** 2
/** 90th percentile of it. */
const T3_90 = 1.638

/** One body at one pace, after the weighings. */
interface Node {
  body: Body
  lnScale: number
  prior: number
  logWeight: number
  /** Means of plateau, start and deviation, and their covariances. */
  a: number
  b: number
  e: number
  aa: number
  ab: number
  ae: number
  bb: number
  be: number
  ee: number
  lastY: number
  shifts: readonly Shift[]
}

interface Frame {
  spells: readonly Spell[]
  /** y at the target: no spell is reckoned with a rate beyond it. */
  targetY: number
  hours: readonly number[]
  lnHours: readonly number[]
  weights: readonly number[]
  noise: readonly number[]
  /** Logarithm of the evidence at best, from each weighing to the last. */
  atBest: readonly number[]
  /** What is believed before: weight at last and at loading, share of solids in it, and the moisture that it ends in. */
  plateau: number
  start: number
  solidsShare: number
  equilibrium: { mean: number; sd: number }
  solidsSd: number
}

/** Free moisture, dry basis, that no scale tells from none. */
const LEAST_FREE_X = 0.002

/** What a node expected of each weighing. */
interface Told {
  predicted: Float64Array
  sd: Float64Array
  wild: Float64Array
}

/** What a wild weight may be instead: anything up to a third more than was loaded. */
const WILD_SPAN = 1.3

/** Where a body is by a spell without heat: its place on the curve, the doubt of it, and the hours that are lost. */
interface Off {
  y: number
  ee: number
  lost: number
  /** The spell that comes next. */
  spell: number
  shifts: readonly Shift[]
}

/**
 * What the heat being off did until a weighing: the place on the curve moves, and is known less. Apart from `follow`, whose figures
 * must stay in registers.
 */
function drift(off: Off, until: number, node: Node, frame: Frame, a: number, b: number, e: number): void {
  const solidsG = a / (1 + frame.equilibrium.mean)
  for (; off.spell < frame.spells.length && frame.spells[off.spell]!.before <= until; off.spell++) {
    const { hours, lastsH, balanceX, share: pace, covered } = frame.spells[off.spell]!
    const run = max(1e-3, hours - off.lost)
    const reached = yOf(node.body, log(run) - node.lnScale)
    off.ee += wander * max(0, reached - off.y)
    const y = max(off.y, reached)
    const plateauX = a / solidsG - 1
    const perPhi = max(LEAST_FREE_X, (b - a) / solidsG)
    const u = perPhi * min(1, exp(e - y))
    const lnAt = min(log(run) - node.lnScale, lnTimeOf(node.body, frame.targetY))
    const rate = (yOf(node.body, lnAt + 0.1) - yOf(node.body, lnAt - 0.1)) / 0.2 / exp(lnAt + node.lnScale)
    const decay = exp(-rate * pace * lastsH)
    const to = balanceX.mean - plateauX
    let after = to + (u - to) * decay
    if (covered) after = max(after, u)
    after = max(LEAST_FREE_X, min(after, perPhi))
    // How fast the cold exchanges is known to a factor of two.
    const doubt = hypot(0.7 * abs(u - to) * decay * rate * pace * lastsH, balanceX.sd * (1 - decay))
    off.ee += min(4, (doubt / max(after, LEAST_FREE_X)) ** 2)
    off.y = max(1e-6, e - log(after / perPhi))
    off.lost = hours - exp(node.lnScale + lnTimeOf(node.body, off.y))
    off.shifts = [...off.shifts, { hours, lost: off.lost }]
  }
}

/**
 * Follows a body through the weighings: plateau, start and deviation are taken along as one normal distribution (an extended
 * Kalman filter), a weight that is a mistake is believed as little as it fits.
 */
function follow(node: Node, frame: Frame, startSd: number, least = -Infinity, told?: Told): void {
  const share = frame.solidsShare * (1 + frame.equilibrium.mean)
  const solidsG = frame.start * frame.solidsShare
  const startVar = startSd * startSd
  let a = frame.plateau
  let b = frame.start
  let e = 0
  // Covariances of plateau, start, deviation.
  let aa =
    (frame.solidsSd * frame.start * (1 + frame.equilibrium.mean)) ** 2 + (solidsG * frame.equilibrium.sd) ** 2 + share * share * startVar
  let ab = share * startVar
  let bb = startVar
  let ae = 0
  let be = 0
  let ee = 0
  let y = 0
  let evidence = 0
  let lost = 0
  const off = frame.spells.length > 0 ? { y: 0, ee: 0, lost: 0, spell: 0, shifts: NO_SHIFTS } : undefined
  const density = wildShare / (WILD_SPAN * frame.start)
  for (let i = 0; i < frame.hours.length; i++) {
    if (off && off.spell < frame.spells.length) {
      off.y = y
      off.ee = ee
      drift(off, i, node, frame, a, b, e)
      ;({ y, ee, lost } = off)
    }
    const lnAt = lost === 0 ? frame.lnHours[i]! : log(max(1e-6, frame.hours[i]! - lost))
    const nextY = yOf(node.body, lnAt - node.lnScale)
    ee += wander * max(0, nextY - y)
    y = nextY
    const phi = min(1, exp(e - y))
    const free = (b - a) * phi
    const expected = a + free
    const ha = 1 - phi
    const hb = phi
    const he = free
    const pa = aa * ha + ab * hb + ae * he
    const pb = ab * ha + bb * hb + be * he
    const pe = ae * ha + be * hb + ee * he
    const variance = ha * pa + hb * pb + he * pe + frame.noise[i]!
    const miss = frame.weights[i]! - expected
    const fits = ((1 - wildShare) * exp((-0.5 * miss * miss) / variance)) / sqrt(2 * PI * variance)
    const whole = fits + density
    evidence += log(whole)
    // The rest cannot make up for it, however well it fits.
    if (node.prior + evidence + frame.atBest[i + 1]! < least) {
      node.logWeight = -Infinity
      return
    }
    const trust = fits / whole
    if (told) {
      told.predicted[i] = expected
      told.sd[i] = sqrt(variance)
      told.wild[i] = 1 - trust
    }
    // Believed as far as it is no mistake: the mean moves by so much, and the doubt of whether it is one stays.
    const ka = pa / variance
    const kb = pb / variance
    const ke = pe / variance
    const spread = trust * (1 - trust) * miss * miss
    a += trust * ka * miss
    b += trust * kb * miss
    e += trust * ke * miss
    const shrink = trust * variance - spread
    aa -= shrink * ka * ka
    ab -= shrink * ka * kb
    ae -= shrink * ka * ke
    bb -= shrink * kb * kb
    be -= shrink * kb * ke
    ee -= shrink * ke * ke
  }
  if (off && off.spell < frame.spells.length) {
    off.y = y
    off.ee = ee
    drift(off, frame.hours.length, node, frame, a, b, e)
    ;({ y, ee } = off)
  }
  node.shifts = off?.shifts ?? NO_SHIFTS
  node.a = a
  node.b = b
  node.e = e
  node.aa = aa
  node.ab = ab
  node.ae = ae
  node.bb = bb
  node.be = be
  node.ee = ee
  node.lastY = y
  node.logWeight = Number.isFinite(evidence) ? node.logWeight + evidence : -Infinity
}

/** Nodes are made once and used again for every run: a write asks for several estimates, and each would leave megabytes behind. */
const pool: Node[] = []
const offPool: Node[] = []
const quickPool: Node[] = []
function fresh(from: Node[], index: number, body: Body, lnScale: number, prior: number, logWeight: number): Node {
  const node = (from[index] ??= {
    body,
    lnScale,
    prior,
    logWeight,
    a: 0,
    b: 0,
    e: 0,
    aa: 0,
    ab: 0,
    ae: 0,
    bb: 0,
    be: 0,
    ee: 0,
    lastY: 0,
    shifts: NO_SHIFTS,
  })
  node.body = body
  node.lnScale = lnScale
  node.prior = prior
  node.logWeight = logWeight
  return node
}

/** ln of how well a run goes together by a few bodies: a quick look, to be set against another of the same bodies. */
export function evidenceOf(run: DryingRun, bodies: readonly Body[]): number {
  const frame = frameOf(run)
  const startSd = hypot(0.5 * (run.scale?.resolutionG ?? 1), handling * frame.start, run.startSdG ?? 0)
  const middle = 0.5 * (log(run.usualHours.low) + log(run.usualHours.high))
  let best = -Infinity
  let sum = 0
  for (const body of bodies) {
    const lnOwn = lnTimeOf(body, frame.targetY)
    for (let pace = HOURS.least; pace <= HOURS.most; pace += 2 * HOURS.step) {
      const prior = log(body.weight) - 0.5 * (pace / offCard.sd) ** 2
      const node = fresh(quickPool, 0, body, middle + pace - lnOwn, prior, prior)
      follow(node, frame, startSd, best - NEGLIGIBLE)
      if (node.logWeight > best) {
        sum = sum * exp(best - node.logWeight) + 1
        best = node.logWeight
      } else sum += exp(node.logWeight - best)
    }
  }
  return best + log(sum)
}

/** What is believed of a run's curve, from its card, its solids and its weighings. */
export function posteriorOf(run: DryingRun): Posterior {
  const frame = frameOf(run)
  const count = frame.hours.length
  const { targetY } = frame
  const { low, high } = run.usualHours
  const middle = 0.5 * (log(low) + log(high))
  const tSd = max(0.02, (log(high) - log(low)) / (2 * T3_90))

  const nodes: Node[] = []
  const { least, most, step } = HOURS
  // Before any weight the card is what is known; weights may show a load that it knows nothing of.
  const told = count + (run.felt?.length ?? 0)
  const wide = told === 0 ? 0 : (told === 1 ? offCard.shareOnce : offCard.share) * (run.strange ?? 1)
  for (const body of BODIES) {
    const lnOwn = lnTimeOf(body, targetY)
    for (let pace = least; pace <= most; pace += step) {
      const byCard = heavyTail(pace / tSd) / tSd / 2.72
      const byPace = exp(-0.5 * (pace / offCard.sd) ** 2) / offCard.sd / 2.51
      const prior = log(body.weight * ((1 - wide) * byCard + wide * byPace))
      nodes.push(fresh(pool, nodes.length, body, middle + pace - lnOwn, prior, prior))
    }
  }
  const startSd = hypot(0.5 * (run.scale?.resolutionG ?? 1), handling * frame.start, run.startSdG ?? 0)
  let best = -Infinity
  const look = (node: Node) => {
    follow(node, frame, startSd, best - DOUBTFUL)
    best = max(best, node.logWeight)
  }
  // Every second pace first; those between only where a neighbour is likely.
  nodes.forEach((node, i) => i % 2 === 0 && look(node))
  nodes.forEach((node, i) => {
    if (i % 2 === 0) return
    const near = max(nodes[i - 1]!.logWeight, nodes[i + 1]?.logWeight ?? -Infinity)
    if (near > best - DOUBTFUL) look(node)
    else node.logWeight = -Infinity
  })
  const kept = nodes.filter(node => node.logWeight > best - NEGLIGIBLE)
  let all = kept
  // A start that is off explains what no pace does.
  if (count > 0) {
    const doubted = nodes.filter(node => node.logWeight > best - DOUBTFUL)
    const offNodes = doubted.map(({ body, lnScale, prior }, i) => fresh(offPool, i, body, lnScale, prior, prior + log(START_OFF.share)))
    for (const node of offNodes) follow(node, frame, START_OFF.sd * frame.start, best - NEGLIGIBLE)
    all = [...kept, ...offNodes]
  }
  // Nothing that dries is like this: what is left to believe is the card.
  if (all.length === 0) {
    const none = () => new Float64Array(count)
    return { ...posteriorOf({ ...run, weighIns: [], spells: [] }), predictedG: none(), sdG: none(), wild: none(), evidence: -Infinity }
  }
  if (run.felt?.length) for (const node of all) node.logWeight += lnFelt(run.felt, hours => nodeX(node, frame, hours))
  const top = all.reduce((most, node) => max(most, node.logWeight), -Infinity)
  const weights = all.map(node => exp(node.logWeight - top))
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  const { curves, spare } = run.felt?.length ? drawFelt(run, run.felt, frame, all, weights, total) : draw(run, frame, all, weights, total)
  const startOff = weights.slice(kept.length).reduce((sum, weight) => sum + weight, 0) / total
  return {
    curves,
    spare,
    ...toldBy(frame, all, weights, kept.length, startSd),
    startOff,
    evidence: top + log(total),
  }
}

function frameOf(run: DryingRun): Frame {
  const equilibrium = run.equilibriumX ?? DEFAULT_EQUILIBRIUM
  const resolution = (run.scale?.resolutionG ?? 1) / sqrt(12)
  const targetX = dryBasis(run.targetMoisture)
  const gap = max(targetX - equilibrium.mean, 0.1 * targetX)
  const weighIns = run.weighIns.map(weighIn => ({ ...weighIn, hours: max(1e-4, weighIn.hours) }))
  const noise = weighIns.map(({ weightG, extraSdG }) => resolution ** 2 + (handling * weightG) ** 2 + (extraSdG ?? 0) ** 2)
  const atBest = new Array<number>(weighIns.length + 1).fill(0)
  for (let i = weighIns.length - 1; i >= 0; i--) atBest[i] = atBest[i + 1]! - 0.5 * log(2 * PI * noise[i]!)
  return {
    hours: weighIns.map(weighIn => weighIn.hours),
    lnHours: weighIns.map(weighIn => log(weighIn.hours)),
    weights: weighIns.map(weighIn => weighIn.weightG),
    noise,
    atBest,
    spells: run.spells ?? [],
    targetY: max(1e-3, log((1 / run.solids.mean - 1 - equilibrium.mean) / gap) || 0),
    plateau: run.startWeightG * run.solids.mean * (1 + equilibrium.mean),
    start: run.startWeightG,
    solidsShare: run.solids.mean,
    solidsSd: max(0.002 * run.solids.mean, run.solids.sd),
    equilibrium: { mean: equilibrium.mean, sd: max(1e-4, equilibrium.sd) },
  }
}

/** What was expected of each weighing, over the nodes that count. */
function toldBy(frame: Frame, nodes: readonly Node[], weights: readonly number[], good: number, startSd: number) {
  const count = frame.hours.length
  const predictedG = new Float64Array(count)
  const sdG = new Float64Array(count)
  const wild = new Float64Array(count)
  if (count === 0) return { predictedG, sdG, wild }
  const order = weights.map((_, i) => i).sort((i, j) => weights[j]! - weights[i]!)
  const few = order.slice(0, 24)
  const sum = few.reduce((all, i) => all + weights[i]!, 0)
  const told = { predicted: new Float64Array(count), sd: new Float64Array(count), wild: new Float64Array(count) }
  for (const i of few) {
    const share = weights[i]! / sum
    follow({ ...nodes[i]! }, frame, i < good ? startSd : START_OFF.sd * frame.start, -Infinity, told)
    for (let k = 0; k < count; k++) {
      predictedG[k]! += share * told.predicted[k]!
      sdG[k]! += share * told.sd[k]!
      wild[k]! += share * told.wild[k]!
    }
  }
  return { predictedG, sdG, wild }
}

/** Moisture of a node in its middle at an hour of the clock, dry basis. */
function nodeX({ body, lnScale, a, b, e, lastY, shifts }: Node, frame: Frame, hours: number): number {
  const lastH = frame.hours.at(-1) ?? 0
  const curve = { body, lnScale, plateauG: a, startG: b, solidsG: 0, equilibriumX: 0, off: e, lastY, lastH, shifts, late: 0 }
  return (weightAt(curve, hours) / a) * (1 + frame.equilibrium.mean) - 1
}

/** Of so many times the curves those are kept that go with what was felt: by what each holds beyond its node. */
const FELT_TIMES = 4
function drawFelt(run: DryingRun, felt: readonly Felt[], frame: Frame, nodes: readonly Node[], weights: readonly number[], total: number) {
  const many = draw(run, frame, nodes, weights, total, FELT_TIMES * DRAWS)
  const shares = many.curves.map((curve, i) => {
    const own = lnFelt(felt, hours => weightAt(curve, hours, many.spare[i]!) / curve.solidsG - 1)
    return exp(own - lnFelt(felt, hours => nodeX(nodes[many.from[i]!]!, frame, hours)))
  })
  const whole = shares.reduce((sum, share) => sum + share, 0)
  const curves: Curve[] = []
  const spare = new Float64Array(DRAWS)
  let [at, sum] = [0, shares[0]!]
  for (let i = 0; i < DRAWS; i++) {
    const wanted = ((i + 0.5) / DRAWS) * whole
    while (sum < wanted && at < shares.length - 1) sum += shares[++at]!
    curves.push(many.curves[at]!)
    spare[i] = many.spare[at]!
  }
  return { curves, spare }
}

/** Curves from the nodes by their weight, each with plateau, start and deviation drawn as they belong together. */
function draw(run: DryingRun, frame: Frame, nodes: readonly Node[], weights: readonly number[], total: number, draws = DRAWS) {
  const noise = noiseOf(run.seed ?? 1, draws)
  const curves: Curve[] = []
  const spare = new Float64Array(draws)
  const from = new Int32Array(draws)
  const lastH = max(0, frame.hours.at(-1) ?? 0, frame.spells.at(-1)?.hours ?? 0)
  // Even steps through belief and through each cell, from a place that the seed gives.
  const shift = ((run.seed ?? 1) * GOLDEN) % 1
  let node = 0
  let sum = weights[0]!
  const prior = frame.equilibrium
  const solidsG = frame.start * frame.solidsShare
  const priorVar = (frame.solidsSd * frame.start * (1 + prior.mean)) ** 2 + (solidsG * prior.sd) ** 2
  const gain = (solidsG * prior.sd ** 2) / priorVar
  const rest = sqrt(max(0, prior.sd ** 2 - gain * solidsG * prior.sd ** 2))
  for (let i = 0; i < draws; i++) {
    const wanted = ((i + shift) / draws) * total
    while (sum < wanted && node < nodes.length - 1) {
      node++
      sum += weights[node]!
    }
    const { body, lnScale, a, b, e, aa, ab, ae, bb, be, ee, lastY, shifts } = nodes[node]!
    const at = i * NUMBERS
    const z0 = noise[at]!
    const z1 = noise[at + 1]!
    // Cholesky's factor of the three, written out: this runs for every curve.
    const fa = sqrt(max(1e-12, aa))
    const fab = ab / fa
    const fb = sqrt(max(1e-12, bb - fab * fab))
    const fae = ae / fa
    const fbe = (be - fab * fae) / fb
    const fe = sqrt(max(0, ee - fae * fae - fbe * fbe))
    const startG = max(1e-6, b + fab * z0 + fb * z1)
    const plateauG = min(0.9995 * startG, max(1e-6 * startG, a + fa * z0))
    const off = e + fae * z0 + fbe * z1 + fe * noise[at + 2]!
    const equilibriumX = max(0, prior.mean + gain * (plateauG - frame.plateau) + rest * noise[at + 3]!)
    from[i] = node
    curves.push({
      body,
      // Within its cell.
      lnScale: lnScale + HOURS.step * (((i * GOLDEN + shift) % 1) - 0.5),
      plateauG,
      startG,
      solidsG: plateauG / (1 + equilibriumX),
      equilibriumX,
      off: min(lastY, off),
      lastY,
      lastH,
      shifts,
      late: 0,
    })
    // Before any weight the card's hours are all that is known, their doubt included.
    spare[i] = frame.hours.length > 0 ? noise[at + 4]! : 0
  }
  return { curves, spare, from }
}

/** The numbers of the seed that was asked for last: it is nearly always the same. */
const lastNoise = new Map<number, { seed: number; numbers: Float64Array }>()
function noiseOf(seed: number, draws: number): Float64Array {
  let last = lastNoise.get(draws)
  if (last?.seed !== seed) lastNoise.set(draws, (last = { seed, numbers: normalDraws(seed, draws, NUMBERS) }))
  return last.numbers
}
