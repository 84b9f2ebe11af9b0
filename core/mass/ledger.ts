import { refuse, type Quantities } from '../errors'
import { intervalOf, randomSource, type Interval } from '../stats'

interface Spread {
  mean: number
  sd: number
}

/**
 * One step between basket and tray that changes weight.
 * - `waste`: what leaves is of the same make-up as the food (stems, skins).
 * - `water`: only water leaves (roast, simmer, drip).
 * - `added`: solids, water, salt, sugar and oil come in, each known. A missing one is none.
 *
 * `weightG` is what left; undefined where it was not weighed, then `usualShare` of the weight before
 * the step is taken with its spread, or, where a step goes on until something is as thick as it should be, as much water as
 * leaves solids of the share `reach`; nothing, where it is that thick already, unless it `swells`: rice takes water up.
 */
export type PrepStep = (
  | { kind: 'waste' | 'water'; name: string; weightG?: number; usualShare?: Spread; reach?: Spread; swells?: boolean }
  | { kind: 'added'; name: string; solidsG?: number; waterG?: number; saltG?: number; sugarG?: number; oilG?: number }
) & {
  /** The entry that says so; missing where nobody wrote it down. */
  entryId?: string
}

export interface PrepLedger {
  rawWeightG: number
  /** Doubt of it, where it was counted or filled into pots rather than weighed, g. */
  rawWeightSdG?: number
  /** Wet-basis moisture of the raw food. */
  rawMoisture: { mean: number; sd: number }
  steps: readonly PrepStep[]
  /** Net weight on the trays, where it was weighed: it settles what the steps left open. */
  loadedWeightG?: number
  seed?: number
}

/** What stands on the trays. */
export interface PrepBalance {
  weightG: Interval
  solidsG: Interval
  /** Dry-matter fraction at loading: mean and standard deviation, as `estimateDrying` takes it. */
  solids: { mean: number; sd: number }
  moisture: Interval
  /** Prepared over raw weight. */
  prepYield: Interval
}

const DRAWS = 300
/** What dry pulses and grain come to at most, over what they weighed (common practice: two and a half to three times). */
export const SWELLS_AT_MOST = 4
/** Scale and spoon: a ledger whose weights disagree by less than this share is taken as agreeing. */
const TOLERANCE = 0.02

/**
 * Follows solids and water from the basket to the trays, with the doubt of the raw moisture and of
 * every weight that was not taken.
 * @throws InputError naming the step, where more leaves than is there or the solids would be negative.
 */
export function balancePrep(ledger: PrepLedger): PrepBalance {
  check(ledger)
  const source = randomSource(ledger.seed ?? 1)
  const weights = new Float64Array(DRAWS)
  const solids = new Float64Array(DRAWS)
  for (let draw = 0; draw < DRAWS; draw++) {
    const moisture = Math.min(0.999, Math.max(0.001, ledger.rawMoisture.mean + ledger.rawMoisture.sd * source.normal()))
    const rawG = ledger.rawWeightSdG
      ? Math.max(0.2 * ledger.rawWeightG, ledger.rawWeightG + ledger.rawWeightSdG * source.normal())
      : ledger.rawWeightG
    const drawn = rawG === ledger.rawWeightG ? ledger : { ...ledger, rawWeightG: rawG }
    const open = ledger.steps.map(step => (step.kind === 'added' || step.weightG !== undefined ? 0 : drawShare(step, source.normal())))
    const end = follow(drawn, moisture, open, stretchToLoaded(drawn, moisture, open))
    weights[draw] = ledger.loadedWeightG ?? end.weightG
    // What is missing at loading beyond the steps left as food (a slice eaten, a piece kept back): solids go with it.
    solids[draw] = Math.min(0.999 * weights[draw]!, (end.solidsG * weights[draw]!) / end.weightG)
  }
  const fractions = solids.map((value, i) => value / weights[i]!)
  const mean = fractions.reduce((sum, value) => sum + value, 0) / DRAWS
  const variance = fractions.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (DRAWS - 1)
  return {
    weightG: intervalOf(weights),
    solidsG: intervalOf(solids),
    solids: { mean, sd: Math.sqrt(variance) },
    moisture: intervalOf(fractions.map(fraction => 1 - fraction)),
    prepYield: intervalOf(weights.map(weight => weight / ledger.rawWeightG)),
  }
}

/** What is drawn of a step that was not weighed: the share that leaves, or the share of solids that it comes to. */
function drawShare(step: PrepStep, z: number): number {
  if (step.kind === 'added') return 0
  if (step.reach) return Math.min(0.95, Math.max(0.01, step.reach.mean + step.reach.sd * z))
  if (!step.usualShare) return 0
  return Math.min(0.95, Math.max(0, step.usualShare.mean + step.usualShare.sd * z))
}

interface State {
  weightG: number
  solidsG: number
}

/** What a step takes off, or brings in, by the middle of all that is believed. */
export interface TracedStep {
  step: PrepStep
  /** What left, g; below zero where something came in. */
  weightG: number
  /** Solids that came in with it, g; of what left they follow from what is there. */
  addedSolidsG: number
  /** What was there after it, g. */
  afterG: number
}

/** The ledger step by step, by its middle: without the doubt, every weight as one figure. */
export function tracePrep(ledger: PrepLedger): TracedStep[] {
  const { mean } = ledger.rawMoisture
  const open = ledger.steps.map(step => (step.kind === 'added' || step.weightG !== undefined ? 0 : drawShare(step, 0)))
  const traced: TracedStep[] = []
  follow(ledger, mean, open, stretchToLoaded(ledger, mean, open), (step, weightG, afterG) =>
    traced.push({ step, weightG, addedSolidsG: step.kind === 'added' ? dryAdded(step) : 0, afterG }),
  )
  return traced
}

const dryAdded = (step: PrepStep & { kind: 'added' }) => (step.solidsG ?? 0) + (step.saltG ?? 0) + (step.sugarG ?? 0) + (step.oilG ?? 0)

/** @param stretch one factor on all that is open */
function follow(
  ledger: PrepLedger,
  moisture: number,
  open: readonly number[],
  stretch: number,
  told?: (step: PrepStep, weightG: number, afterG: number) => void,
): State {
  let weightG = ledger.rawWeightG
  let solidsG = ledger.rawWeightG * (1 - moisture)
  ledger.steps.forEach((step, i) => {
    if (step.kind === 'added') {
      const dry = dryAdded(step)
      weightG += dry + (step.waterG ?? 0)
      solidsG += dry
      told?.(step, -dry - (step.waterG ?? 0), weightG)
      return
    }
    const reached = step.reach ? 1 - solidsG / weightG / open[i]! : 0
    const share = !step.reach ? open[i]! : step.swells ? reached : Math.max(0, reached)
    const leaves = Math.min(step.weightG ?? Math.min(0.98, share * (share > 0 ? stretch : 1)) * weightG, 0.999 * weightG)
    if (step.kind === 'waste') solidsG *= 1 - leaves / weightG
    weightG -= leaves
    told?.(step, leaves, weightG)
  })
  return { weightG, solidsG }
}

/** One factor on all unweighed shares so that the steps end at the loaded weight; 1 where nothing is open. */
function stretchToLoaded(ledger: PrepLedger, moisture: number, open: readonly number[]): number {
  const { loadedWeightG } = ledger
  if (loadedWeightG === undefined || !open.some(share => share > 0)) return 1
  const endAt = (factor: number) => follow(ledger, moisture, open, factor).weightG
  let low = 0
  let high = 1 / Math.min(...open.filter(share => share > 0))
  let above = endAt(low) - loadedWeightG
  let below = endAt(high) - loadedWeightG
  if (above <= 0) return 0
  if (below >= 0) return high
  // The weight falls smoothly with the factor: false position (Illinois) is there in a few steps.
  let middle = low
  for (let i = 0; i < 12; i++) {
    middle = (low * below - high * above) / (below - above)
    const off = endAt(middle) - loadedWeightG
    if (Math.abs(off) < 1e-6 * loadedWeightG) break
    if (off > 0) {
      low = middle
      above = off
      below /= 2
    } else {
      high = middle
      below = off
      above /= 2
    }
  }
  return middle
}

function check(ledger: PrepLedger): void {
  const fail = (field: string, message: string, quantities?: Quantities): never => refuse(field, 'out-of-range', message, quantities)
  if (!(ledger.rawWeightG > 0)) fail('rawWeightG', 'must be a weight above 0 g')
  if (!(ledger.rawMoisture.mean > 0 && ledger.rawMoisture.mean < 1)) fail('rawMoisture.mean', 'must be a fraction between 0 and 1')
  if (!(ledger.rawMoisture.sd >= 0)) fail('rawMoisture.sd', 'must not be negative')
  let most = ledger.rawWeightG
  // Water that there is at most: leaving more than this would make the solids negative.
  let water = ledger.rawWeightG * Math.min(0.999, ledger.rawMoisture.mean + 4 * ledger.rawMoisture.sd)
  ledger.steps.forEach((step, i) => {
    const field = `steps.${i}`
    if (step.kind === 'added') {
      for (const part of ['solidsG', 'waterG', 'saltG', 'sugarG', 'oilG'] as const) {
        if ((step[part] ?? 0) < 0) fail(`${field}.${part}`, `“${step.name}” adds less than nothing: give what came in`)
      }
      const dry = dryAdded(step)
      most += dry + (step.waterG ?? 0)
      water += step.waterG ?? 0
      return
    }
    if (step.weightG === undefined) {
      // Taken up in cooking: no weight is too much by the basket's alone.
      if (step.swells) most *= SWELLS_AT_MOST
      return
    }
    if (step.weightG < 0) fail(`${field}.weightG`, `“${step.name}” takes off less than nothing: give what left`)
    if (step.weightG >= most) {
      fail(`${field}.weightG`, '“{step}” takes off {offG}, but only {thereG} is there: check this weight or the one before', {
        step: step.name,
        offG: step.weightG,
        thereG: most,
      })
    }
    if (step.kind === 'water') {
      if (step.weightG >= water) {
        fail(`${field}.weightG`, '“{step}” takes off {offG} of water, but there is only about {thereG} in the food: some of it was food', {
          step: step.name,
          offG: step.weightG,
          thereG: water,
        })
      }
      water -= step.weightG
    } else {
      water *= 1 - step.weightG / most
    }
    most -= step.weightG
  })
  if (ledger.loadedWeightG !== undefined) {
    if (!(ledger.loadedWeightG > 0)) fail('loadedWeightG', 'must be a weight above 0 g')
    if (ledger.loadedWeightG > most * (1 + TOLERANCE)) {
      fail(
        'loadedWeightG',
        '{loadedG} on the trays is more than the {thereG} that the steps before leave: check the basket’s weight or what was taken off',
        { loadedG: ledger.loadedWeightG, thereG: most },
      )
    }
  }
}
