import { InputError } from '../errors'
import { intervalFromLogNormal, type Interval } from '../stats'

/** A load for a freeze dryer. */
export interface FreezeLoad {
  /** Net weight on the trays, g, and its water, wet basis. */
  loadG: number
  moisture: number
  /** Area of the trays it lies on, m², and how thick. */
  areaM2: number
  thicknessMm: number
  /** All of it went in frozen solid. */
  frozen: boolean
  liquid: boolean
  /** Full of sugar: it freezes late and softens early, so the shelves must stay cool. */
  sugary?: boolean
}

/** What a load asks of a freeze dryer; phases in hours. */
export interface FreezeCycle {
  /** To remove: what has been frozen turns to ice on the coil, g. */
  waterG: number
  /** Heat that the ice takes to become vapour, kWh. */
  sublimationKWh: number
  freezeH: number
  vacuumH: number
  finalH: number
  hours: Interval
}

/** Heat of sublimation of ice, MJ/kg (handbook value). */
export const SUBLIMATION_MJ_KG = 2.838
/** Heat that a home machine's shelves bring into 10 mm of food, W/m²; with common practice's 40 h for four trays of 1.4 L of milk. */
const FLUX_W_M2 = 300
const FLUX_AT_MM = 10
/** Freezing in the machine, and waiting for its vacuum where it was frozen before, h (common practice). */
const FREEZE_H = { unfrozen: 9, frozen: 1.5 }
/** Final dry, h (common practice: about seven for liquids). */
const FINAL_H = { liquid: 7, other: 5 }
/** Under vacuum sugary fruit takes longer by this (common practice: 30 to 45 h for banana, mango, grape). */
const SUGARY = 1.25
/** Machines and foods differ: standard deviation of the logarithm. */
const SD_LOG = 0.14

/** Heat that shelves bring into a layer so thick, W/m². */
export const shelfFluxWM2 = (thicknessMm: number) => FLUX_W_M2 * Math.min(1.4, Math.max(0.6, Math.sqrt(FLUX_AT_MM / thicknessMm)))

/**
 * How long a freeze dryer's cycle takes: freezing, drying under vacuum as fast as its shelves bring the heat
 * of sublimation through the dried layer, final dry.
 * @throws InputError for weights and areas that are not above zero, and a moisture outside 0–1
 */
export function freezeCycle(load: FreezeLoad): FreezeCycle {
  const problems = (['loadG', 'areaM2', 'thicknessMm'] as const)
    .filter(field => !(load[field] > 0))
    .map(field => ({ field, code: 'not-above-zero', message: 'must be above zero' }))
  if (!(load.moisture > 0 && load.moisture < 1))
    problems.push({ field: 'moisture' as 'loadG', code: 'not-a-fraction', message: 'must be a fraction between 0 and 1' })
  if (problems.length > 0) throw new InputError(problems)
  const waterG = load.loadG * load.moisture
  const joules = (waterG / 1000) * SUBLIMATION_MJ_KG * 1e6
  const vacuumH = ((load.sugary ? SUGARY : 1) * joules) / (shelfFluxWM2(load.thicknessMm) * load.areaM2) / 3600
  const freezeH = load.frozen ? FREEZE_H.frozen : FREEZE_H.unfrozen
  const finalH = load.liquid ? FINAL_H.liquid : FINAL_H.other
  return {
    waterG,
    sublimationKWh: joules / 3.6e6,
    freezeH,
    vacuumH,
    finalH,
    hours: intervalFromLogNormal(freezeH + vacuumH + finalH, SD_LOG),
  }
}

/** Against what the coil can hold. */
export interface IceCapacity {
  share: number
  over: boolean
  loads: number
}

/** How much of a machine's ice capacity a load takes, and in how many loads it fits. */
export function iceCapacity(waterG: number, iceG: number): IceCapacity {
  if (!(iceG > 0)) throw new InputError([{ field: 'iceG', code: 'not-above-zero', message: 'must be above zero' }])
  const share = waterG / iceG
  return { share, over: share > 1, loads: Math.max(1, Math.ceil(share - 1e-9)) }
}

/** Water that gives a freeze-dried food back what it lost, g: exactly the weight that went. */
export function waterBackG(loadedG: number, driedG: number): number {
  if (!(driedG > 0 && loadedG >= driedG))
    throw new InputError([
      { field: 'driedG', code: 'not-within-weight-before', message: 'must be above zero and not above what was loaded' },
    ])
  return loadedG - driedG
}
