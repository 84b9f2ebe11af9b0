import { freezeCycle, iceCapacity, type FreezeCycle, type IceCapacity } from '../freezing'
import { layerUnderVacuum } from '../hours'
import type { BatchState } from '../log'
import { WAYS, type WayKey } from '../ways'

/**
 * The phases that a load asks of a freeze dryer, and how much of its ice with what stands beside it; undefined for another kind of machine.
 * How long all of it takes is `hoursOf`'s to say. `besideG`: water of the other batches in the chamber, g.
 */
export function freezeCycleOf(
  state: Pick<BatchState, 'food' | 'card' | 'thicknessMm' | 'balance'>,
  machine: { kind: WayKey; trayAreaM2: number; iceG?: number },
  load: { loadG: number; trays: number; frozen: boolean; besideG?: number },
): (Omit<FreezeCycle, 'hours'> & { ice?: IceCapacity }) | undefined {
  if (!WAYS[machine.kind].underVacuum || !(load.loadG > 0) || load.trays === 0) return undefined
  const { food, card, thicknessMm, balance } = state
  const areaM2 = machine.trayAreaM2 * load.trays
  const layer = layerUnderVacuum({ food, card, thicknessMm, moisture: balance.moisture.p50 }, load.loadG / 1000 / areaM2)
  const { hours: _, ...cycle } = freezeCycle({ ...layer, loadG: load.loadG, areaM2, frozen: load.frozen })
  return { ...cycle, ice: machine.iceG === undefined ? undefined : iceCapacity(cycle.waterG + (load.besideG ?? 0), machine.iceG) }
}
