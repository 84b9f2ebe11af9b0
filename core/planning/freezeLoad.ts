import { freezeCycle, iceCapacity, type FreezeCycle, type IceCapacity } from '../freezing'
import type { BatchState } from '../log'
import { WAYS, type WayKey } from '../ways'

/** Depth of food on a tray that nobody measured, mm. */
const USUAL_MM = 10

/**
 * The cycle that a load asks of a freeze dryer, and how much of its ice with what stands beside it; undefined for another kind of machine.
 * `besideG`: water of the other batches in the chamber, g.
 */
export function freezeCycleOf(
  state: BatchState,
  machine: { kind: WayKey; trayAreaM2: number; iceG?: number },
  load: { loadG: number; trays: number; frozen: boolean; besideG?: number },
): (FreezeCycle & { ice?: IceCapacity }) | undefined {
  if (!WAYS[machine.kind].underVacuum || !(load.loadG > 0) || load.trays === 0) return undefined
  const cycle = freezeCycle({
    loadG: load.loadG,
    moisture: state.balance.moisture.p50,
    areaM2: machine.trayAreaM2 * load.trays,
    thicknessMm: state.thicknessMm ?? USUAL_MM,
    frozen: load.frozen,
    liquid: state.card.liquid,
    sugary: state.food.isotherm === 'sugaryFruit',
  })
  return { ...cycle, ice: machine.iceG === undefined ? undefined : iceCapacity(cycle.waterG + (load.besideG ?? 0), machine.iceG) }
}
