import { estimateOfRun, readJarAir } from './assess'
import type { BatchState, RunState } from '../log'

/** Water of what a batch gives, wet basis, and how it is known. */
export interface ProductMoisture {
  moisture: number
  known: 'jar air' | 'weight' | 'target' | 'estimate'
}

/** Above the target by more than this factor, what nobody weighed is told by its hours, not by what was wished. */
const SURELY_WET = 1.5

/**
 * How dry the product is: by the air in a closed jar where that was read after the drying, else by all that was weighed. Where
 * weight and air part ways the wetter counts. What nobody weighed is taken to have come to its target, unless its hours say
 * that it cannot have.
 */
export function productMoisture(state: BatchState): ProductMoisture {
  const target = state.food.target[state.purpose]
  const { jarAir, run } = state
  const estimate = run && estimateOfRun(state)
  const weighed = run !== undefined && run.weighings.length > 0
  const byWeight = estimate?.moistureNow
  if (jarAir && (run?.unloadedAt === undefined || jarAir.at >= run.unloadedAt)) {
    const air = readJarAir(state, jarAir.body).moisture
    if (weighed && byWeight!.p10 > air.p90) return { moisture: byWeight!.p50, known: 'weight' }
    return { moisture: air.p50, known: 'jar air' }
  }
  if (weighed) return { moisture: driedOn(byWeight!.p50, run), known: 'weight' }
  if (byWeight && byWeight.p10 > SURELY_WET * target) return { moisture: byWeight.p50, known: 'estimate' }
  return { moisture: target, known: 'target' }
}

/** What drying the powder in the oven took out, by its weights. */
function driedOn(moisture: number, { powderDries }: RunState): number {
  return powderDries.reduce((before, { body: { beforeG, afterG } }) => {
    if (beforeG === undefined || afterG === undefined || !(afterG > 0)) return before
    return Math.max(0, 1 - ((1 - before) * beforeG) / afterG)
  }, moisture)
}

/** Share of salt that seasoning gave the dry product, 0–1; trimming after it takes salt along. */
export function saltShareOf(state: Pick<BatchState, 'prep' | 'dryG' | 'splits' | 'run'>): number {
  const saltG = state.prep.reduce((sum, { body }) => sum + (body.effect === 'added' ? (body.added?.saltG ?? 0) : 0), 0)
  const dryG = state.dryG ?? state.run?.loadedG
  return dryG === undefined || dryG <= 0 ? 0 : Math.min(1, saltG / dryG)
}

/** Nine tenths through count as through. */
const THROUGH = 0.9

/** The finest sieve that what was ground has been through, µm; undefined where none was used. */
export function sieveReached(state: Pick<BatchState, 'grinds'>): number | undefined {
  const passes = state.grinds.flatMap(({ body }) => body.passes ?? [])
  const openings = [...new Set(passes.map(pass => pass.openingUm))].sort((a, b) => a - b)
  return openings.find(openingUm => {
    const same = passes.filter(pass => pass.openingUm === openingUm)
    const throughG = same.reduce((sum, pass) => sum + pass.throughG, 0)
    return throughG >= THROUGH * (throughG + same.at(-1)!.overG)
  })
}
