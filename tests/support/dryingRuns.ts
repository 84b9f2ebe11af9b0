import { randomSource } from '#core/stats'
import { simulateRun, type SlabSettings } from '#core/simulation'
import type { DryingRun, Tray, WeighIn } from '#core/kinetics'

/** A kind of food in a kind of machine, in the terms of the diffusion model. */
interface Kind {
  name: string
  solids: { mean: number; sd: number }
  target: number
  /** Evaporation limit against diffusion limit: low = the air decides, high = the food does. */
  slab: Omit<SlabSettings, 'startX'>
  traySpread: number
}

/**
 * The air is dry enough that every target can be reached: how near the room lets a run come is another question.
 * Half the kinds have a face that follows a sorption curve, half are textbook slabs with surface resistance.
 * Physics from air-limited leaves to thick slices whose core lags, with tight and loose solids.
 */
export const KINDS: readonly Kind[] = [
  {
    name: 'root slices',
    solids: { mean: 0.124, sd: 0.012 },
    target: 0.06,
    slab: { diffusionRate: 0.5, slowing: 0.15, evaporationRate: 3, airHumidity: 0.1 },
    traySpread: 0.12,
  },
  {
    name: 'thick halves',
    solids: { mean: 0.08, sd: 0.008 },
    target: 0.08,
    slab: { diffusionRate: 0.22, slowing: 0.2, evaporationRate: 6, airHumidity: 0.08 },
    traySpread: 0.1,
  },
  {
    name: 'watery fruit',
    solids: { mean: 0.055, sd: 0.01 },
    target: 0.06,
    slab: { diffusionRate: 0.6, slowing: 0.15, evaporationRate: 4, airHumidity: 0.08 },
    traySpread: 0.15,
  },
  {
    name: 'leaves',
    solids: { mean: 0.14, sd: 0.02 },
    target: 0.06,
    slab: { diffusionRate: 4, slowing: 0.1, evaporationRate: 1.2, airHumidity: 0.08 },
    traySpread: 0.15,
  },
  {
    name: 'garlic slices',
    solids: { mean: 0.414, sd: 0.02 },
    target: 0.06,
    slab: { diffusionRate: 0.4, slowing: 0.1, evaporationRate: 1.5, airHumidity: 0.1 },
    traySpread: 0.1,
  },
  {
    name: 'purée sheets',
    solids: { mean: 0.1, sd: 0.012 },
    target: 0.07,
    slab: { diffusionRate: 0.3, slowing: 0.15, evaporationRate: 2, airHumidity: 0.1 },
    traySpread: 0.18,
  },
  {
    name: 'onion rings',
    solids: { mean: 0.109, sd: 0.012 },
    target: 0.05,
    slab: { diffusionRate: 1, slowing: 0.2, evaporationRate: 2.5, airHumidity: 0.06 },
    traySpread: 0.12,
  },
  {
    name: 'chili halves',
    solids: { mean: 0.12, sd: 0.015 },
    target: 0.08,
    slab: { diffusionRate: 0.35, slowing: 0.18, evaporationRate: 1, airHumidity: 0.1 },
    traySpread: 0.15,
  },
  {
    name: 'linear slab, Bi 1',
    solids: { mean: 0.09, sd: 0.009 },
    target: 0.08,
    slab: { face: 'linear', diffusionRate: 0.4, slowing: 0, evaporationRate: 0.4, airHumidity: 0.025 },
    traySpread: 0.15,
  },
  {
    name: 'linear slab, Bi 10',
    solids: { mean: 0.124, sd: 0.01 },
    target: 0.06,
    slab: { face: 'linear', diffusionRate: 0.3, slowing: 0, evaporationRate: 3, airHumidity: 0.02 },
    traySpread: 0.12,
  },
  {
    name: 'linear slab, Bi 50, loose solids',
    solids: { mean: 0.055, sd: 0.01 },
    target: 0.1,
    slab: { face: 'linear', diffusionRate: 0.25, slowing: 0.05, evaporationRate: 12, airHumidity: 0.03 },
    traySpread: 0.2,
  },
  {
    name: 'linear slab, Bi 0.3',
    solids: { mean: 0.12, sd: 0.012 },
    target: 0.06,
    slab: { face: 'linear', diffusionRate: 1, slowing: 0, evaporationRate: 0.3, airHumidity: 0.015 },
    traySpread: 0.1,
  },
  {
    name: 'linear slab, Bi 3, slowing',
    solids: { mean: 0.16, sd: 0.015 },
    target: 0.08,
    slab: { face: 'linear', diffusionRate: 0.4, slowing: 0.08, evaporationRate: 1.2, airHumidity: 0.03 },
    traySpread: 0.18,
  },
  {
    name: 'linear slab, Bi 100, tight solids',
    solids: { mean: 0.4, sd: 0.012 },
    target: 0.07,
    slab: { face: 'linear', diffusionRate: 0.3, slowing: 0, evaporationRate: 30, airHumidity: 0.02 },
    traySpread: 0.12,
  },
  {
    name: 'linear slab, Bi 5',
    solids: { mean: 0.1, sd: 0.01 },
    target: 0.07,
    slab: { face: 'linear', diffusionRate: 0.35, slowing: 0.04, evaporationRate: 1.75, airHumidity: 0.025 },
    traySpread: 0.15,
  },
  {
    name: 'linear slab, Bi 20',
    solids: { mean: 0.14, sd: 0.014 },
    target: 0.06,
    slab: { face: 'linear', diffusionRate: 0.3, slowing: 0, evaporationRate: 6, airHumidity: 0.02 },
    traySpread: 0.15,
  },
]

/** One finished run whose truth is known, stretched in time by its own factor. */
export interface TestRun {
  kind: string
  trueFinishH: number
  trueSolidsG: number
  trueWeightAt(hours: number): number
  trayStartsG: readonly number[]
  trayFinishesH: readonly number[]
  trueTraysAt(hours: number): number[]
  /** The run as an estimator gets it, without weighings. */
  known: Omit<DryingRun, 'weighIns'>
  seed: number
}

/** Spread of a batch's own pace (thickness, load, weather), standard deviation of the logarithm. */
const PACE_SD = 0.17

/**
 * Runs of every kind. The usual hours of a kind are the 10th and 90th percentile of finish times over
 * its own population, so that guessing their middle misses by about 16 % in the median.
 * @param solidsSpread factor on the spread of the solids: 1 as in the reference, less where own lots are known
 */
export function makeTestRuns(perKind: number, seed: number, solidsSpread = 1): TestRun[] {
  return KINDS.map(kind => ({ ...kind, solids: { mean: kind.solids.mean, sd: kind.solids.sd * solidsSpread } })).flatMap((kind, k) => {
    const source = randomSource(seed * 100 + k)
    const population = Array.from({ length: Math.max(perKind, 50) }, (_, i) => {
      const solids = Math.max(kind.solids.mean * 0.4, kind.solids.mean + kind.solids.sd * source.normal())
      const startWeightG = 600 + 2800 * source.uniform()
      const vary = (spread: number) => Math.exp(spread * source.normal())
      const slab = {
        ...kind.slab,
        diffusionRate: kind.slab.diffusionRate * vary(0.1),
        evaporationRate: kind.slab.evaporationRate * vary(0.15),
        airHumidity: kind.slab.airHumidity * vary(0.2),
      }
      const run = simulateRun(
        { trays: source.integer(2, 8), startWeightG, solids, slab, traySpread: kind.traySpread, seed: seed * 1000 + k * 100 + i },
        horizonOf(slab, solids),
        horizonOf(slab, solids) / 400,
      )
      return { run, solids, startWeightG, pace: vary(PACE_SD), finish: run.hoursTo(kind.target) }
    }).filter(member => Number.isFinite(member.finish))
    const finishes = population.map(member => member.finish * member.pace).sort((a, b) => a - b)
    const at = (p: number) => finishes[Math.floor(p * finishes.length)]!
    const usualHours = { low: at(0.1), high: at(0.9) }
    return population.slice(0, perKind).map((member, i) => ({
      kind: kind.name,
      trueFinishH: member.finish * member.pace,
      trueSolidsG: member.startWeightG * member.solids,
      trueWeightAt: (hours: number) => member.run.weightAt(hours / member.pace),
      trayStartsG: member.run.trayWeightsG,
      trayFinishesH: member.run.trayWeightsG.map((_, tray) => member.run.trayHoursTo(tray, kind.target) * member.pace),
      trueTraysAt: (hours: number) => member.run.traysAt(hours / member.pace),
      known: { startWeightG: member.startWeightG, solids: kind.solids, targetMoisture: kind.target, usualHours, ...equilibriumOf(kind) },
      seed: seed * 7919 + k * 131 + i,
    }))
  })
}

/** What would be known of the equilibrium: for the sorption kinds a figure that is off by a quarter, else nothing. */
function equilibriumOf({ slab }: Kind): Pick<DryingRun, 'equilibriumX'> {
  if (slab.face === 'linear') return {}
  const x = 0.12 * Math.pow(slab.airHumidity / (1 - slab.airHumidity), 0.55)
  return { equilibriumX: { mean: 0.85 * x, sd: 0.25 * x } }
}

function horizonOf(slab: Kind['slab'], solids: number): number {
  const startX = 1 / solids - 1
  return 2.5 * ((slab.face === 'linear' ? 5 : startX) / slab.evaporationRate + (5 / slab.diffusionRate) * Math.exp(slab.slowing / 0.6))
}

/**
 * Weighings of a run up to a share of its true finish, at uneven times, through a kitchen scale:
 * 1 g steps and half a percent of handling.
 */
export function weighUpTo(run: TestRun, share: number, count: number): { hours: number; weightG: number }[] {
  const source = randomSource(run.seed + Math.round(share * 1000))
  return Array.from({ length: count }, (_, i) => {
    const hours = (run.trueFinishH * share * (i + 0.6 + 0.4 * source.uniform())) / count
    return { hours, weightG: Math.max(1, Math.round(run.trueWeightAt(hours) * (1 + 0.005 * source.normal()))) }
  })
}

/**
 * The same tray by tray: all of them, or every `nth` only; each through the scale by itself.
 * @returns the load's weighings as they would be raised to the whole load, and each tray's own
 */
export function weighTrays(run: TestRun, share: number, count: number, nth = 1): { load: WeighIn[]; trays: Tray[] } {
  const source = randomSource(run.seed + 17 * count)
  const load: WeighIn[] = []
  const own: WeighIn[][] = run.trayStartsG.map(() => [])
  for (let i = 0; i < count; i++) {
    const hours = (run.trueFinishH * share * (i + 0.6 + 0.4 * source.uniform())) / count
    const shown = run.trueTraysAt(hours).map(weight => Math.max(1, Math.round(weight * (1 + 0.005 * source.normal()))))
    const weighed = shown.map((_, tray) => tray).filter(tray => (tray + i) % nth === 0)
    if (weighed.length === 0) continue
    for (const tray of weighed) own[tray]!.push({ hours, weightG: shown[tray]! })
    const nowG = weighed.reduce((sum, tray) => sum + shown[tray]!, 0)
    const startG = weighed.reduce((sum, tray) => sum + run.trayStartsG[tray]!, 0)
    const unseenG = run.known.startWeightG - startG
    const others = Math.max(1, shown.length - weighed.length)
    load.push({
      hours,
      weightG: (nowG / startG) * run.known.startWeightG,
      extraSdG:
        weighed.length < shown.length ? unseenG * 0.12 * (1 - nowG / startG) * Math.sqrt(1 / weighed.length + 1 / others) : undefined,
    })
  }
  return {
    load,
    trays: own.map((weighIns, tray) => ({ position: tray + 1, share: run.trayStartsG[tray]! / run.known.startWeightG, weighIns })),
  }
}
