import { dangerZoneOf, type Assessment } from '../batch'
import { SAFE_ACTIVITY } from '../safety'
import { dutyAt } from '../machines'
import type { BatchState } from '../log'
import { dryBasis, wetBasis } from '../mass'
import { drawnMoisture, driftedMoisture } from '../kinetics'
import { activityAt, equilibriumIn, isothermOf, roomBalance } from '../sorption'
import { WAYS } from '../ways'
import type { Air } from '../air'
import { intervalOf, randomSource, type Interval } from '../stats'
import { beliefOf, targetOfRun } from '../water'
import { nextWaking, type Household } from './day'
import { HOUR } from '../time'

/** What of the night's choices is not to be taken, and why: nobody sleeps beside an oven; perishable food is kept neither warm nor without heat. */
export type NightBar = 'attended' | 'perishable'

/** What may be done with a running machine at bedtime. */
export interface NightChoice {
  key: 'leave' | 'hold' | 'off'
  /** Water, wet basis, when people are up again. */
  moisture: Interval
  /** Chance that it is dry then. */
  dry: number
  /** Energy of the night. */
  kWh: number
  /** Hours of heat still needed in the morning; 0 when dry. Infinity where the heat cannot do it. */
  hoursLeft: Interval
  /** Not to be taken. */
  barred?: NightBar
}

/** Temperature at which a machine only keeps food from taking water back (common practice). */
export const HOLD_C = 40

/** How far the balance of a room is from what is reckoned, standard deviation of the logarithm: measured, and as rooms usually are. */
const BALANCE_DOUBT = { measured: 0.2, usual: 0.4 }

/**
 * What a night does to a load: the heat left on, held warm, or switched off, from bedtime to waking. Each is followed on every curve that
 * is believed of the load, so that what is not known of its weight and solids stands in what is said of the morning.
 * @param room air of the room; what a rack takes back hangs on it
 * @returns undefined unless the heat is on
 */
export function nightChoices(
  state: BatchState,
  assessed: Assessment,
  room: Air,
  night: { from: number; to: number },
  watts: number,
): NightChoice[] | undefined {
  const { run } = state
  if (!run || run.setC === null || run.unloadedAt !== undefined) return undefined
  const { setC } = run
  const isotherm = isothermOf(state.food)
  const targetX = dryBasis(targetOfRun(state, run))
  const hours = (night.to - night.from) / HOUR
  const { posterior } = beliefOf(state, run, night.from)
  const bedtime = run.clock.equivalentHoursAt(night.from)
  const [atBed, byMorning] = [drawnMoisture(posterior, bedtime), drawnMoisture(posterior, bedtime + hours * run.clock.pace)]
  const ratePerHour = assessed.estimate.rateAtTarget.p50
  const source = randomSource(1)
  const doubt = run.room ? BALANCE_DOUBT.measured : BALANCE_DOUBT.usual
  const [warmX, roomX] = [equilibriumIn(isotherm, room, HOLD_C).mean, roomBalance(isotherm, room)]
  const draws = atBed.map(({ x, balanceX }, i) => {
    const damper = Math.exp(doubt * source.normal())
    const drift = { ratePerHour, setC, hours, fromX: x }
    const leave = byMorning[i]!.x
    return {
      balanceX,
      leave,
      // Cooler air is never drier.
      hold: Math.max(leave, driftedMoisture({ ...drift, balanceX: warmX * damper, nowC: HOLD_C, fan: true })),
      off: driftedMoisture({ ...drift, balanceX: roomX * damper, nowC: room.celsius, fan: false }),
    }
  })
  const left = (x: number, balanceX: number) =>
    x <= targetX ? 0 : balanceX >= targetX ? Infinity : Math.log((x - balanceX) / (targetX - balanceX)) / (ratePerHour * run.clock.pace)
  const kWh = (celsius: number) => (watts / 1000) * hours * dutyAt(WAYS[run.way.way], celsius, room.celsius)
  const energy = { leave: kWh(setC), hold: kWh(HOLD_C), off: 0 }
  const danger = dangerZoneOf(state, night.from)
  const wettest = Math.max(...(['leave', 'off'] as const).map(key => intervalOf(draws.map(item => item[key])).p90))
  const wet = danger !== undefined && activityAt(isotherm, wettest, room.celsius) > SAFE_ACTIVITY
  const barOf = (key: NightChoice['key']): NightBar | undefined =>
    WAYS[run.way.way].attended && key !== 'off' ? 'attended' : wet && (key !== 'leave' || setC < danger.hotC) ? 'perishable' : undefined
  return (['leave', 'hold', 'off'] as const).map((key): NightChoice => ({
    key,
    barred: barOf(key),
    kWh: energy[key],
    moisture: intervalOf(draws.map(item => wetBasis(item[key]))),
    dry: draws.filter(item => item[key] <= targetX).length / draws.length,
    hoursLeft: intervalOf(draws.map(item => left(item[key], item.balanceX))),
  }))
}

/** Hours to add to a freeze dryer's cycle so that it holds until somebody is up. */
export interface MorningHours {
  hours: number
  /** When somebody is up. */
  at: number
  kWh: number
  /** Share of its finishes that fall into sleep as it stands. */
  asleep: number
}

/** Of fewer than this share it is not worth the power. */
const WORTH_FROM = 0.2

/**
 * Whether hours are worth adding until morning: where the cycle may well end while people sleep, what lies in a cold chamber under
 * vacuum loses nothing by waiting, and only the power is spent; what is left to stand after its end takes back water.
 * @param finish when it is through, by what is known, with what was added before
 */
export function hoursUntilMorning(
  finish: { from: number; middle: number; to: number },
  watts: number,
  household: Household,
): MorningHours | undefined {
  if (!Number.isFinite(finish.to)) return undefined
  const ends = [finish.from, finish.middle, finish.middle, finish.to]
  const asleep = ends.filter(at => nextWaking(at, household) > at).length / ends.length
  const at = nextWaking(finish.middle, household)
  const hours = Math.ceil((at - finish.middle) / HOUR)
  return asleep >= WORTH_FROM && hours > 0 ? { hours, at, kWh: (hours * watts) / 1000, asleep } : undefined
}
