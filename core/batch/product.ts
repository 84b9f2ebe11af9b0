import { readJarAir } from './assess'
import type { BatchState } from './state'

/** Water of what a batch gives, wet basis, and how it is known. */
export interface ProductMoisture { moisture: number, known: 'jar air' | 'target' }

/**
 * How dry the product is: by the air in a closed jar where that was read after the drying, else the target it
 * was dried to.
 */
export function productMoisture(state: BatchState): ProductMoisture {
  const target = state.food.target[state.purpose]
  const { jarAir, run } = state
  if (!jarAir || (run?.unloadedAt !== undefined && jarAir.at < run.unloadedAt)) return { moisture: target, known: 'target' }
  return { moisture: readJarAir(state, jarAir.body).moisture.p50, known: 'jar air' }
}
