import { USUAL_ROOM, type Air } from '../air'
import type { Food } from '../foods'
import { DEFAULT_EQUILIBRIUM, driftedMoisture, setBackClock, type DryingClock, type Setback } from '../kinetics'
import { dryBasis } from '../mass'
import { equilibriumIn, isothermOf, roomBalance } from '../sorption'

/** What an off spell is worked out from: the load, its usual hours, and what was weighed. */
export interface OffSpellInput {
  food: Food
  clock: DryingClock
  loadedAt: number
  /** Net wet food and its solids at loading, g. */
  loadedG: number
  solidsG: number
  targetMoisture: number
  /** Middle of the usual hours, equivalent. */
  middleHours: number
  room?: Air
  /** Kept indoors and covered meanwhile, as what dries in the sun is at night: it does not dry on. */
  covered?: boolean
  /** Whole-load weights, oldest first. */
  weights: readonly { at: number; weightG: number }[]
}

const HOUR = 3_600_000
/** Shorter breaks are the door. */
const LEAST_HOURS = 0.25
/** Food in balance with the hot air has nothing left for the clock to count: this much above it is kept, dry basis. */
const LEAST_FREE_X = 0.004

/**
 * What the spells without heat did to a load, as hours on the drying clock. The food drifts toward the
 * room's balance (`driftedMoisture`); the clock is set to where the curve has that moisture. The curve
 * is taken as exponential between the weighings: enough for a clock, which later weights set right.
 */
export function setbacksOf(input: OffSpellInput): Setback[] {
  const { clock, food } = input
  // What was measured was the air of the day outdoors.
  const room = input.covered ? USUAL_ROOM : (input.room ?? USUAL_ROOM)
  const isotherm = isothermOf(food)
  const targetX = dryBasis(input.targetMoisture)
  const startX = input.loadedG / input.solidsG - 1
  const setbacks: Setback[] = []
  clock.spells.forEach((spell, i) => {
    const next = clock.spells[i + 1]
    if (!next || spell.to === undefined) return
    const hours = (next.from - spell.to) / HOUR
    if (hours < LEAST_HOURS) return
    const endX = input.room ? equilibriumIn(isotherm, room, spell.setC).mean : DEFAULT_EQUILIBRIUM.mean
    if (targetX - endX < LEAST_FREE_X) return
    const soFar = setBackClock(clock, setbacks)
    const points = [
      { at: input.loadedAt, freeX: startX - endX },
      ...input.weights.map(({ at, weightG }) => ({ at, freeX: Math.max(LEAST_FREE_X, weightG / input.solidsG - 1 - endX) })),
    ]
      .filter(point => point.at <= spell.to!)
      .map(point => ({ ...point, hours: soFar.equivalentHoursAt(point.at) }))
    const last = points.at(-1)!
    const lastX = endX + last.freeX
    const since = soFar.equivalentHoursAt(spell.to) - last.hours
    const usual = usualRate(startX - endX, targetX - endX, input.middleHours)
    const perHour = Math.sqrt(usual * (seenRate(points) ?? usual))
    const fromX = endX + Math.max(LEAST_FREE_X, (lastX - endX) * Math.exp(-perHour * since))
    const toX = driftedMoisture({
      fromX,
      balanceX: roomBalance(isotherm, room),
      ratePerHour: perHour,
      setC: spell.setC,
      nowC: room.celsius,
      fan: false,
      hours,
    })
    const lost = Math.log(Math.max(LEAST_FREE_X, toX - endX) / (fromX - endX)) / perHour
    // More than was dried cannot be lost: food in a room never gets as wet as it was fresh.
    setbacks.push({ at: next.from, hours: Math.min(input.covered ? Math.max(0, lost) : lost, soFar.equivalentHoursAt(spell.to)) })
  })
  return setbacks
}

/** Share of the free moisture that goes in an hour, if the load keeps its usual hours. */
const usualRate = (startX: number, targetX: number, middleHours: number) => Math.log(Math.max(1.5, startX / targetX)) / middleHours

/** The same between the last two weighings, an hour or more apart. */
function seenRate(points: readonly { hours: number; freeX: number }[]): number | undefined {
  const last = points.at(-1)!
  const before = points.findLast(point => last.hours - point.hours >= 1)
  const rate = before && Math.log(before.freeX / last.freeX) / (last.hours - before.hours)
  return rate !== undefined && rate > 0 ? rate : undefined
}
