import { dangerZoneOf, SAFE_ACTIVITY, type Assessment } from '../batch'
import type { BatchState } from '../log'
import { dryBasis, wetBasis } from '../mass'
import { driftedMoisture, expectedWeight } from '../kinetics'
import { activityAt, equilibriumIn, isothermOf, roomBalance } from '../sorption'
import { WAYS } from '../ways'
import type { Air } from '../air'
import type { Interval } from '../stats'
import { nextWaking, type Household } from './day'
import { DUTY } from './power'
import { HOUR } from '../time'

/** What of the night's choices is not to be taken, and why: nobody sleeps beside an oven; perishable food is kept neither warm nor without heat. */
export type NightBar = 'attended' | 'perishable'

/** What may be done with a running machine at bedtime. */
export interface NightChoice {
  key: 'leave' | 'hold' | 'off'
  /** Water, wet basis, when people are up again. */
  moisture: Interval
  /** Energy of the night. */
  kWh: number
  /** Hours of heat still needed in the morning; 0 when dry. Infinity where the heat cannot do it. */
  hoursLeft: Interval
  /** Not to be taken. */
  barred?: NightBar
}

/** Temperature at which a machine only keeps food from taking water back (common practice). */
export const HOLD_C = 40

/**
 * What a night does to a load: the heat left on, held warm, or switched off, from bedtime to waking.
 * Each figure is worked out for the dry end, the middle and the wet end of what the load may be.
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
  const { estimate } = assessed
  const isotherm = isothermOf(state.food)
  const targetX = dryBasis(state.food.target[state.purpose])
  const hours = (night.to - night.from) / HOUR
  const bedtime = run.clock.equivalentHoursAt(night.from)
  const morning = bedtime + hours * run.clock.pace
  const endX = equilibriumIn(isotherm, room, setC).mean

  const cases = (['p10', 'p50', 'p90'] as const).map(p => {
    const ratePerHour = estimate.rateAtTarget.p50
    const last = estimate.curve.at(-1)!.hours
    const at = (clock: number): number => {
      const x = Math.max(0, expectedWeight(estimate, Math.min(clock, last))[p] / estimate.solidsG[p] - 1)
      // The curve is drawn to a little past the finish; what comes after is the slow end.
      return clock <= last
        ? x
        : driftedMoisture({ fromX: x, balanceX: endX, ratePerHour, setC, nowC: setC, fan: true, hours: clock - last })
    }
    const drift = { ratePerHour, setC, hours, fromX: at(bedtime) }
    return {
      leave: at(morning),
      hold: driftedMoisture({ ...drift, balanceX: equilibriumIn(isotherm, room, HOLD_C).mean, nowC: HOLD_C, fan: true }),
      off: driftedMoisture({ ...drift, balanceX: roomBalance(isotherm, room), nowC: room.celsius, fan: false }),
    }
  })
  const ordered = (values: number[]): Interval => {
    const [p10, p50, p90] = [...values].sort((a, b) => a - b) as [number, number, number]
    return { p10, p50, p90 }
  }
  const left = (x: number) =>
    x <= targetX ? 0 : endX >= targetX ? Infinity : Math.log((x - endX) / (targetX - endX)) / (estimate.rateAtTarget.p50 * run.clock.pace)
  const warmth = (celsius: number) => Math.max(0, celsius - room.celsius) / Math.max(1, setC - room.celsius)
  const full = (watts / 1000) * DUTY.mean * hours
  const energy = { leave: full, hold: full * warmth(HOLD_C), off: 0 }
  const danger = dangerZoneOf(state, night.from)
  const wet = danger !== undefined && activityAt(isotherm, Math.max(...cases.map(item => item.off)), room.celsius) > SAFE_ACTIVITY
  const barOf = (key: NightChoice['key']): NightBar | undefined =>
    WAYS[run.way.way].attended && key !== 'off' ? 'attended' : wet && (key !== 'leave' || setC < danger.hotC) ? 'perishable' : undefined
  return (['leave', 'hold', 'off'] as const).map((key): NightChoice => ({
    key,
    barred: barOf(key),
    kWh: energy[key],
    moisture: ordered(cases.map(item => wetBasis(item[key]))),
    hoursLeft: ordered(cases.map(item => left(item[key]))),
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
 * @param finish when it is through, by what is known, without what was added before
 * @param addedH hours that were added already
 */
export function hoursUntilMorning(
  finish: { from: number; middle: number; to: number },
  addedH: number,
  watts: number,
  household: Household,
): MorningHours | undefined {
  if (!Number.isFinite(finish.to)) return undefined
  const ends = [finish.from, finish.middle, finish.middle, finish.to].map(at => at + addedH * HOUR)
  const asleep = ends.filter(at => nextWaking(at, household) > at).length / ends.length
  const end = finish.middle + addedH * HOUR
  const at = nextWaking(end, household)
  const hours = Math.ceil((at - end) / HOUR)
  return asleep >= WORTH_FROM && hours > 0 ? { hours, at, kWh: (hours * watts) / 1000, asleep } : undefined
}
