import { HOUR } from '../time'

/** Share of the rated power that a dryer's heater and fan draw over a run at the usual heat (common practice; measure your own). */
export const DUTY = { mean: 0.65, sd: 0.1 }
/** The usual heat over its room, K: at 57 °C in a room of 20 °C. What a heater must make goes with how far it is above its room. */
const USUAL_RISE_K = 37
/** The fan and the thermostat's lamp go on in hardly any heat; the element cannot give more than it has. */
const LEAST = 0.15
const MOST = 1

/**
 * Share of its rated power that a machine draws while its heat is on, 0–1.
 * @param machine under vacuum the pump draws all of it; without power none is drawn
 */
export function dutyAt(machine: { underVacuum: boolean; drawsPower: boolean }, setC: number, roomC: number): number {
  if (!machine.drawsPower) return 0
  if (machine.underVacuum) return 1
  return Math.min(MOST, Math.max(LEAST, (DUTY.mean * (setC - roomC)) / USUAL_RISE_K))
}

/**
 * Hours at the rated power that spells of heat come to, until an instant.
 * @param spells instants between which the heat was on, °C; the last may be open
 */
export function heatOverTime(
  spells: readonly { from: number; to?: number; setC: number }[],
  machine: Parameters<typeof dutyAt>[0],
  roomC: number,
  until: number,
): number {
  return spells.reduce(
    (sum, { from, to = until, setC }) => sum + (Math.max(0, Math.min(to, until) - from) / HOUR) * dutyAt(machine, setC, roomC),
    0,
  )
}
