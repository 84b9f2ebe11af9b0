import { REST_DAYS } from '#core/dryness'
import { wayOf, type Food, type MethodCard, type Purpose } from '#core/foods'
import { MINUTES } from '#core/insight'
import { forecastWays, nearestHeat } from '#core/planning'
import type { Heat, PlanOption } from '#core/plan'
import { WAYS, type WayKey } from '#core/ways'
import type { listMachines } from '#server/db/settings'
import { householdOf, type Context } from '../context'
import { ownOf } from '../forecast'
import { hoursOfCard } from '../learning'

/** Heats so far from a card's still suit it, °C: what dries beside it may ask a little more or less. */
const NEAR_C = 4
/** Setting trays and door, minutes (common practice). */
const LOADING_MINUTES = 10
/** Liquids are frozen solid before they go into a freeze dryer, hours (common practice). */
const FREEZING_H = 12

export type Machines = ReturnType<typeof listMachines>

export const smells = ({ traits }: Food) => traits.includes('smell') || traits.includes('hot')
export const heatOf = (card: MethodCard, machine: { kind: WayKey; lowC: number; highC: number }): Heat => {
  const celsius = nearestHeat(wayOf(card, machine.kind).temperatureC, machine)
  return { lowC: celsius - NEAR_C, highC: celsius + NEAR_C }
}

/** A basket, in hand or expected, as its ways are sought. */
export interface Sought {
  food: Food
  purpose: Purpose
  weightG: number
  weightSdG?: number
  weighed?: 'uncooked' | 'cooked'
  /** Ready for the trays: its solids as a share. */
  prepared?: { mean: number; sd: number }
  /** Cut already: it is not cut otherwise, and the work is done. */
  cutAs?: string
  cardKey?: string
  /** A smoker that it goes through first. */
  smokerId?: string
  /** What is on the table now, g: what hands go by. */
  handG: number
  restDays?: number
}

/** The ways in which a basket goes into one load: each of its cuts in each machine. */
export function optionsOf(context: Context, sought: Sought, machines: Machines, startAt: number, pace: number): PlanOption[] {
  const { food, purpose, weightG, cutAs } = sought
  if (!(weightG > 0)) return []
  const household = householdOf(context)
  const minutes = pace * ((cutAs ? 0 : (sought.handG / 1000) * food.handsMinutesKg.value) + LOADING_MINUTES)
  // Sheets are no pieces, unless that was asked for.
  const asked = cutAs ?? sought.cardKey
  const goes = (card: MethodCard) =>
    cutAs ? card.key === cutAs : purpose !== 'pieces' || card.key === asked || !(card.liquid || card.feelForm === 'sheet')
  return forecastWays({
    food: { ...food, cards: food.cards.filter(goes) },
    cardKey: asked ?? '',
    purpose,
    weightG,
    weightSdG: sought.weightSdG,
    weighed: sought.weighed,
    prepared: sought.prepared,
    machines,
    ownOf: ownOf(context, food, purpose),
    hoursOf: (machineId, card) => hoursOfCard(context, machineId, food, card, purpose),
    jarMl: household.jarMl,
    startAt,
    household,
  }).flatMap(({ machine, card, forecast: { trays, hoursPerLoad, energyKWh, productG, jars } }): PlanOption[] => {
    // In one load, most likely.
    if (trays.p50 > machine.trays) return []
    const { underVacuum, asks, clearH } = WAYS[machine.kind]
    const places = Math.min(machine.trays, trays.p90)
    const after = MINUTES.tray * places + (purpose === 'pieces' ? 0 : MINUTES.grind) + MINUTES.jar * jars.p50
    return [
      {
        machineId: machine.id,
        cardKey: card.key,
        cut: card.name,
        places,
        hours: hoursPerLoad,
        heat: heatOf(card, machine),
        handsMinutes: Math.round(minutes),
        kWh: energyKWh.p50,
        first: underVacuum ? undefined : smokeFirst(sought, card, machines),
        leadHours: underVacuum && card.liquid ? FREEZING_H : undefined,
        clearHours: clearH > 0 ? clearH : undefined,
        rotates: (places > 1 && asks.includes('swapping')) || undefined,
        productG: Math.round(productG.p50),
        restDays: underVacuum ? 0 : (sought.restDays ?? REST_DAYS),
        afterMinutes: Math.round(pace * after),
      },
    ]
  })
}

/** Through the smoke first, where that is meant. */
function smokeFirst({ smokerId }: Sought, card: MethodCard, machines: Machines): PlanOption['first'] {
  const smoker = machines.find(machine => machine.id === smokerId)
  const way = smoker && card.ways.find(item => item.way === smoker.kind && item.partOnly)
  if (!smoker || !way) return undefined
  const { low, high } = way.usualHours.value
  return { machineId: smoker.id, places: 1, hours: Math.round(Math.sqrt(low * high) * 2) / 2, heat: heatOf(card, smoker) }
}
