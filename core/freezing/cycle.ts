import { InputError } from '../errors'
import { intervalFromLogNormal, type Interval } from '../stats'
import { HOUR } from '../time'

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
/**
 * What brings the heat into a tray: rays from the shelves above and below, and the thin gas between shelf and tray, W/m²K (textbook forms, from memory: 2 to 3
 * of rays between steel and food, as much again of gas at some 60 Pa), from shelves at their usual heat to ice at the pressure of a home
 * machine. Recorded cycles prove it; they did not set it.
 */
const TRANSFER_W_M2K = 5
const SHELF_C = 50
const ICE_C = -20
const FLUX_W_M2 = TRANSFER_W_M2K * (SHELF_C - ICE_C)
/** Depth of food that this is said of, mm. */
const FLUX_AT_MM = 10
/** Freezing in the machine, and waiting for its vacuum where it was frozen before, h (common practice). */
const FREEZE_H = { unfrozen: 9, frozen: 1.5 }
/** Final dry, h (common practice: about seven for liquids). */
const FINAL_H = { liquid: 7, other: 5 }
/** Under vacuum sugary fruit takes longer by this (common practice: 30 to 45 h for banana, mango, grape). */
const SUGARY = 1.25
/** Depth of what says none, mm. */
export const USUAL_DEPTH_MM = 5
/** Machines and foods differ: standard deviation of the logarithm. */
const SD_LOG = 0.14

/** Heat that shelves bring into a layer so thick, W/m². */
export const shelfFluxWM2 = (thicknessMm: number) => FLUX_W_M2 * Math.min(1.4, Math.max(0.6, Math.sqrt(FLUX_AT_MM / thicknessMm)))

/** Hours before and after the ice leaves. */
export const idlePhases = ({ frozen, liquid }: Pick<FreezeLoad, 'frozen' | 'liquid'>) => ({
  freezeH: frozen ? FREEZE_H.frozen : FREEZE_H.unfrozen,
  finalH: liquid ? FINAL_H.liquid : FINAL_H.other,
})

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
  const { freezeH, finalH } = idlePhases(load)
  return {
    waterG,
    sublimationKWh: joules / 3.6e6,
    freezeH,
    vacuumH,
    finalH,
    hours: intervalFromLogNormal(freezeH + vacuumH + finalH, SD_LOG),
  }
}

/** Hours of such a cycle, 10th and 90th percentile: where nobody said whether it goes in frozen, from frozen and all well to frozen in the machine. */
export function cycleRange({ frozen, ...load }: Omit<FreezeLoad, 'frozen'> & { frozen?: boolean }): { low: number; high: number } {
  const { p10 } = freezeCycle({ ...load, frozen: frozen ?? true }).hours
  const { p90 } = freezeCycle({ ...load, frozen: frozen ?? false }).hours
  return { low: p10, high: p90 }
}

/** What a load brings into the one cycle of its chamber. */
export interface InChamber {
  /** When it would be through were it alone, instants. */
  finish: { from: number; middle: number; to: number }
  /** Of its own cycle, h; 0 where its trays have been on the scale since, and so tell by themselves. */
  freezeH: number
  finalH: number
}

/**
 * One chamber, one cycle: the vacuum waits for what freezes last, the final dry is that of what asks for the longest, and it is through when
 * the slowest of its trays is.
 */
export function chamberFinish(loads: readonly InChamber[]): InChamber['finish'] {
  const freezeH = Math.max(...loads.map(load => load.freezeH))
  const finalH = Math.max(...loads.map(load => load.finalH))
  const end = (of: keyof InChamber['finish']) =>
    Math.max(
      ...loads.map(load => {
        const waits = load.freezeH > 0 ? freezeH - load.freezeH + finalH - load.finalH : 0
        return load.finish[of] + waits * HOUR
      }),
    )
  return { from: end('from'), middle: end('middle'), to: end('to') }
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
