import { effectsOfChoices, purposeFactor, wayOf, type Choices, type Food, type MethodCard, type Purpose } from '../foods'
import type { Air } from '../air'
import { WAYS, type WayKey } from '../ways'
import { heatLaw, loadLaw, thicknessLaw } from './laws'
import { hoursUnderVacuum } from './vacuum'

/** Hours from loading to dry, 10th and 90th percentile. */
export interface HoursRange {
  low: number
  high: number
}

/** What is cut, and what it is meant for. */
export interface CutFor {
  food: Food
  card: MethodCard
  purpose: Purpose
  /** As it was cut, mm; as the card has it where nobody said. */
  thicknessMm?: number
  /** Schools that were chosen, by question. */
  choices?: Choices
}

/** A load of which somebody asks how long it takes. */
export interface HoursAsked extends CutFor {
  /** How it is dried; the card's first way where it is not given. */
  way?: WayKey
  /** Hours of such a cut and purpose in this machine at the card's heat, where own runs or its dial teach them: see `learnedHours`. */
  learned?: HoursRange
  /** Hours of the whole where the way takes a part only. */
  whole?: HoursRange
  /** The heat that it is set to, °C: the card's where it is not given, or where the clock of a run counts it. */
  setC?: number
  /** Air of the room; a usual room's where nobody measured it. */
  room?: Air
  /** Wet food on a square metre of tray, kg; one layer where it is not given. */
  loadKgM2?: number
  /** Under vacuum: it goes in frozen solid, and its water, wet basis; as usual where nobody said. */
  frozen?: boolean
  moisture?: number
}

/** Hours as it is cut, for what it is meant and by the schools that were chosen, over those of its card in a way. */
export function cutFactor({ food, card, purpose, thicknessMm, choices = {} }: CutFor, way?: WayKey): number {
  // Neither schools of warm air nor its law of thickness: a deeper layer is more ice, behind more of what is dry already.
  if (WAYS[wayOf(card, way).way].underVacuum)
    return middleOf(hoursUnderVacuum({ food, card, thicknessMm })) / middleOf(hoursUnderVacuum({ food, card }))
  return effectsOfChoices(food, choices).hours * purposeFactor(food, purpose, way) * thicknessLaw(food, card, thicknessMm)
}

/**
 * How long a load takes from loading to dry: the one answer, of which every page's hours are a call. The card's hours or what was learned,
 * as it is cut and for what, by what lies on the trays, at the heat that is set, in the air of the room.
 */
export function hoursOf({ way: key, learned, whole, setC, room, loadKgM2, frozen, moisture, ...cut }: HoursAsked): HoursRange {
  const { way, temperatureC, usualHours } = wayOf(cut.card, key)
  const believed = learned ?? whole ?? usualHours.value
  if (WAYS[way].underVacuum) {
    const isLoadKnown = loadKgM2 !== undefined || frozen !== undefined
    if (!isLoadKnown && (learned || cut.thicknessMm === undefined || cut.thicknessMm === cut.card.thicknessMm)) return believed
    const pace = learned ? middleOf(learned) / (middleOf(usualHours.value) * cutFactor(cut, way)) : 1
    const cycle = hoursUnderVacuum({ ...cut, loadKgM2, frozen, moisture })
    return { low: cycle.low * pace, high: cycle.high * pace }
  }
  const { low, high } = believed
  const factor =
    (learned ? 1 : cutFactor(cut, way)) *
    loadLaw(cut.card, loadKgM2, cut.thicknessMm) *
    (setC === undefined ? 1 : heatLaw(way, setC, temperatureC, { thicknessMm: cut.thicknessMm ?? cut.card.thicknessMm, room }))
  return { low: low * factor, high: high * factor }
}

/** The middle of such hours. */
export const middleOf = ({ low, high }: HoursRange): number => Math.sqrt(low * high)
