import { wayOf, type FeelForm, type Food, type MethodCard } from '#core/foods'
import type { WayKey } from '#core/ways'
import { BODIES, simulateRun } from '#core/simulation'
import type { RandomSource } from '#core/stats'

/** How dry the air about it is, by what lies on the tray. */
const AIR: Record<FeelForm, number> = { pieces: 0.09, leaves: 0.1, sheet: 0.09, foam: 0.02, shreds: 0.09 }

/** A load as nature dries it: what a scale would show, tray by tray. It knows nothing of the estimator. */
export interface TrueDrying {
  solids: number
  finishH: number
  trayShares: number[]
  trays: (hours: number) => number[]
  total: (hours: number) => number
}

/**
 * Dries a load on paper by diffusion. Its pace is drawn around the usual hours of the method card and
 * the machine's own pace.
 */
export function dryForReal(settings: {
  food: Food
  card: MethodCard
  way: WayKey
  dryness?: number
  target: number
  loadedG: number
  placePaces: readonly number[]
  machinePace: number
  source: RandomSource
}): TrueDrying {
  const { food, card } = settings
  const { source } = settings
  const { mean, sd } = food.rawMoisture.value
  // Water that left before the tray makes what is loaded the drier.
  const solids = Math.min(0.92, Math.max(0.03, (1 - mean + 0.8 * sd * source.normal()) * (settings.dryness ?? 1)))
  const slab = { ...BODIES[card.feelForm], airHumidity: AIR[card.feelForm] }
  const horizon = 3 * (1 / solids / slab.evaporationRate + 5 / slab.diffusionRate)
  const run = simulateRun(
    {
      trays: settings.placePaces.length,
      placePaces: settings.placePaces,
      startWeightG: settings.loadedG,
      solids,
      slab,
      traySpread: 0.08,
      seed: source.integer(1, 1e9),
    },
    horizon,
    horizon / 600,
  )
  const usual = wayOf(card, settings.way).usualHours.value
  const wanted = Math.sqrt(usual.low * usual.high) * settings.machinePace * Math.exp(0.12 * source.normal())
  const stretch = wanted / run.hoursTo(settings.target)
  return {
    solids,
    finishH: wanted,
    trayShares: run.trayWeightsG.map(weight => weight / settings.loadedG),
    trays: hours => run.traysAt(hours / stretch),
    total: hours => run.weightAt(hours / stretch),
  }
}
