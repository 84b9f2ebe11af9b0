import { wayOf, type Food, type MethodCard, type Purpose } from '../foods'
import { WAYS, type WayKey } from '../ways'
import type { Interval } from '../stats'
import { isAsleep, sleepAround, type Household } from './day'
import { forecastBasket, type Forecast, type ForecastInput, type OwnBasket } from './forecast'
import { HOUR } from '../time'

/** A machine to choose from. */
export interface ChoosableMachine {
  id: string
  name: string
  kind: WayKey
  trays: number
  trayAreaM2: number
  watts: number
  /** What its dial goes to. */
  lowC: number
  highC: number
  free?: number
  freeAt?: number
}

/** One way of going about a basket: a cut in a machine. */
export interface Alternative {
  machineId: string
  machineName: string
  way: string
  /** Else its hours are hours of day. */
  nightsCount: boolean
  cardKey: string
  cardName: string
  thicknessMm?: number
  trays: Interval
  loads: Interval
  hoursPerLoad: Interval
  endsAt: Interval
  energyKWh: Interval
  /** Chance that its air lets it become as dry as it is wanted. */
  reaches: number
  /** When to start so that the first load ends while people are awake, and how likely it then does. */
  startAt: number
  awake: number
  /** Places free now, of how many. */
  free: number
  places: number
  /** Chosen in the question. */
  asked: boolean
}

export interface AlternativesInput {
  food: Food
  purpose: Purpose
  cardKey: string
  machineId: string
  weightG: number
  weighed?: 'uncooked' | 'cooked'
  prepared?: { mean: number; sd: number }
  weightSdG?: number
  machines: readonly ChoosableMachine[]
  /** What own batches say of a basket by this card. */
  ownOf: (card: MethodCard) => OwnBasket
  /** Hours of a load by this card in a machine, as own runs have taught them. */
  hoursOf: (machineId: string, card: MethodCard) => { low: number; high: number; runs: number }
  jarMl: number
  startAt: number
  household: Household
  skyOf?: ForecastInput['skyOf']
}

/** Starts looked at: half-hours of the next day. */
const STEP_H = 0.5
const AHEAD_H = 24
/** As likely as not. */
const EVEN = 0.5
/** Enough for "it ends while you are awake". */
const SURE = 0.8
/** Points of the finish that are tried against the night. */
const QUANTILES = [0.05, 0.15, 0.25, 0.35, 0.45, 0.55, 0.65, 0.75, 0.85, 0.95]

/** A basket in a machine by a cut, as it is forecast. */
export interface ForecastWay {
  machine: ChoosableMachine
  card: MethodCard
  forecast: Forecast
}

/**
 * A basket in each machine and each of its food's cuts. Left out are cuts whose way does not suit a machine or does part of the work only, and
 * those of a part alone, such as skins, where that is not what was asked: nobody throws the rest away.
 */
export function forecastWays(input: Omit<AlternativesInput, 'machineId'>): ForecastWay[] {
  return input.machines.flatMap(machine =>
    input.food.cards
      .filter(card => card.trimShare === undefined || card.key === input.cardKey)
      .filter(card => !card.raw && card.ways.some(way => way.way === machine.kind && !way.partOnly))
      .map(card => ({
        machine,
        card,
        forecast: forecastBasket({ ...input, card, machine, own: input.ownOf(card), usualHours: input.hoursOf(machine.id, card) }),
      })),
  )
}

/** A basket each way there is: thicker in one load or thinner in two, fast or cheap, each with a start that ends in waking hours. */
export function alternatives(input: AlternativesInput): Alternative[] {
  const rows = forecastWays(input).map(({ machine, card, forecast }): Alternative => {
    // What finds no place yet does not start yet.
    const from = forecast.free >= Math.min(forecast.trays.p50, machine.trays) ? input.startAt : (forecast.freeAt ?? input.startAt)
    // What stands outdoors or hangs keeps of itself: nobody need be up for its end.
    const { startAt, awake } = !WAYS[machine.kind].drawsPower
      ? { startAt: from, awake: 1 }
      : wakingStart(forecast.hoursPerLoad, from, input.household, WAYS[machine.kind].attended)
    return {
      machineId: machine.id,
      machineName: machine.name,
      way: WAYS[wayOf(card, machine.kind).way].name,
      nightsCount: WAYS[machine.kind].nightsCount,
      cardKey: card.key,
      cardName: card.name,
      thicknessMm: card.thicknessMm,
      trays: forecast.trays,
      loads: forecast.loads,
      hoursPerLoad: forecast.hoursPerLoad,
      endsAt: forecast.endsAt,
      energyKWh: forecast.energyKWh,
      reaches: forecast.reaches,
      startAt,
      awake,
      free: forecast.free,
      places: forecast.places,
      asked: machine.id === input.machineId && card.key === input.cardKey,
    }
  })
  // What most likely does not become dry enough is the last resort.
  const late = ({ reaches }: Alternative) => Number(reaches < EVEN)
  return rows.sort((a, b) => late(a) - late(b) || a.endsAt.p50 - b.endsAt.p50)
}

/**
 * The earliest start, by people awake, from which a load most likely ends while they are awake.
 * @param hours 10th, 50th and 90th percentile of the load's hours
 * @param attended somebody must be awake all the while, not at its end alone
 * @returns the instant, and the share of finishes that fall in waking hours; where that is 0 there is no such start
 */
export function wakingStart(hours: Interval, from: number, household: Household, attended = false): { startAt: number; awake: number } {
  let best = { startAt: from, awake: -1 }
  for (let step = 0; step * STEP_H < AHEAD_H; step++) {
    const startAt = from + step * STEP_H * HOUR
    if (isAsleep(startAt, household)) continue
    const bedtime = sleepAround(startAt, household).from
    const awake =
      QUANTILES.filter(share => {
        const endsAt = startAt + quantile(hours, share) * HOUR
        return attended ? endsAt <= bedtime : !isAsleep(endsAt, household)
      }).length / QUANTILES.length
    if (awake >= SURE) return { startAt, awake }
    if (awake > best.awake) best = { startAt, awake }
  }
  return best
}

/** A quantile of a range that is given by three, straight on the logarithm between and beyond them. */
function quantile({ p10, p50, p90 }: Interval, share: number): number {
  const side = share < 0.5 ? Math.log(p50 / p10) : Math.log(p90 / p50)
  return p50 * Math.exp((side * (share - 0.5)) / 0.4)
}
