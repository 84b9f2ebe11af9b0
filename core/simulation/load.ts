import { USUAL_ROOM } from '../air'
import { cardOf, purposeFactor, targetIn, wayOf, type FeelForm, type Food, type Purpose } from '../foods'
import { isothermOf } from '../sorption'
import type { WayKey } from '../ways'
import type { PieceShape } from './piece'
import { Rack, type RackSettings } from './rack'

/** How diffusion sees what lies on a tray, before its clock is set by the card: the air's part against the food's. */
export const BODIES: Record<FeelForm, { diffusionRate: number; slowing: number; evaporationRate: number }> = {
  pieces: { diffusionRate: 0.5, slowing: 0.12, evaporationRate: 3 },
  leaves: { diffusionRate: 4, slowing: 0.08, evaporationRate: 1.3 },
  sheet: { diffusionRate: 0.35, slowing: 0.15, evaporationRate: 2.2 },
  foam: { diffusionRate: 0.5, slowing: 0.12, evaporationRate: 3 },
  shreds: { diffusionRate: 1, slowing: 0.12, evaporationRate: 2.5 },
}
/** Forms whose pieces are round one way, or all ways; the others dry as slabs. */
const ROUND: Readonly<Record<string, PieceShape>> = {
  sticks: 'cylinder',
  stems: 'cylinder',
  whole: 'sphere',
  cubes: 'sphere',
  strung: 'sphere',
}

/** A load as its card has it, for the paper. */
export interface PaperLoad {
  food: Food
  cardKey?: string
  way: WayKey
  purpose: Purpose
  trayWeightsG: readonly number[]
  placePaces?: readonly number[]
  /** Dry-matter share; that of the raw food where missing. */
  solids?: number
  /** Hours of heat until the middle of the load is dry, at the card's heat; the middle of the card's where missing. */
  hours?: number
  /** Thickness over the card's. */
  thickness?: number
  hardening?: number
  thicknessSpread?: number
  traySpread?: number
  seed: number
}

/** How pieces of a careful cut differ, and trays of one machine beyond their places (common practice). */
const USUAL = { thicknessSpread: 0.14, traySpread: 0.05 }
/** Dry enough for a card in air that cannot reach the target: so near the lowest. Below this loss an hour it stands still. */
const NEAR_LOWEST = 1.1
const STANDS = 1e-4
const CLOCK_STEP_H = 0.05
const MOST_H = 400

const known = new Map<string, number>()

/**
 * A rack for the load of a card: the two rates of its form, with their clock set so that an even piece of the card's thickness is dry in
 * the wanted hours of the card's heat in a usual room. Thicker pieces then take longer by diffusion (its square) and by their face (in proportion).
 */
export function rackSettings(load: PaperLoad): RackSettings {
  const { food, purpose, seed } = load
  const card = cardOf(food, load.cardKey)
  const body = BODIES[card.feelForm]
  const { temperatureC, usualHours } = wayOf(card, load.way)
  const solids = load.solids ?? 1 - (card.moisture ?? food.rawMoisture).value.mean
  const target = targetIn(food, purpose, load.way)
  const usual = usualHours.value
  const hours = load.hours ?? Math.sqrt(usual.low * usual.high) * purposeFactor(food, purpose, load.way)
  const isotherm = isothermOf(food)
  const shape = ROUND[card.key.split('-')[0]!] ?? 'slab'
  const piece = { shape, diffusionRate: body.diffusionRate, slowing: body.slowing, cells: 12 }
  const base = { isotherm, referenceC: temperatureC, thicknessSpread: 0, traySpread: 0, seed: 1 }
  // The clock of a form, a food and its water is set once.
  const key = [food.key, card.key, load.way, purpose, solids.toFixed(4)].join(' ')
  let unit = known.get(key)
  if (unit === undefined) {
    unit = hoursOf({ ...base, trayWeightsG: [100], solids, piece, evaporationRate: body.evaporationRate }, target, temperatureC)
    if (known.size > 500) known.clear()
    known.set(key, unit)
  }
  const clock = unit / hours
  const thickness = load.thickness ?? 1
  return {
    ...base,
    trayWeightsG: load.trayWeightsG,
    placePaces: load.placePaces,
    solids,
    piece: { ...piece, diffusionRate: (clock * body.diffusionRate) / thickness ** 2, hardening: load.hardening },
    evaporationRate: (clock * body.evaporationRate) / thickness,
    thicknessSpread: load.thicknessSpread ?? USUAL.thicknessSpread,
    traySpread: load.traySpread ?? USUAL.traySpread,
    seed,
  }
}

/** Hours of heat until an even load is at the target; where a usual room never lets it, until it is as near the lowest as it will be. */
function hoursOf(settings: RackSettings, target: number, setC: number): number {
  const rack = new Rack(settings)
  const passed: { hours: number; moisture: number }[] = []
  while (rack.hours < MOST_H) {
    const before = rack.moisture
    passed.push({ hours: rack.hours, moisture: before })
    rack.advance(CLOCK_STEP_H, { setC, room: USUAL_ROOM })
    const now = rack.moisture
    if (now <= target) return rack.hours - (CLOCK_STEP_H * (target - now)) / Math.max(1e-9, before - now)
    if (rack.hours > 1 && before - now < STANDS * CLOCK_STEP_H) break
  }
  return passed.find(({ moisture }) => moisture <= NEAR_LOWEST * rack.moisture)!.hours
}
