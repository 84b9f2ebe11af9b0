import { randomSource } from '#core/stats'

/** What lies in a simulated rack and how it truly dries; the estimator never sees it. */
export interface RackTruth {
  loadedAt: number
  setC: number
  /** Hours at which the weights below are true, ascending, from 0. */
  hours: number[]
  /** Net food on all trays at these hours, g. */
  weightG: number[]
  /** Weight of the empty trays together, g. */
  tareG: number
}

/** A kitchen with a machine in it, as devices would find it at an instant. The same seed gives the same world. */
export interface World {
  /** A scale with the rack's trays on it: food and trays. */
  scaleG(at: number): number
  /** A thermometer among the trays. */
  chamberC(at: number): number
  /** The room. */
  room(at: number): { celsius: number; humidity: number }
  /** A freeze dryer that goes through its cycle again and again. */
  freezeDryer(at: number): { celsius: number; pressurePa: number }
}

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Length of a freeze dryer's cycle, and where freezing and drawing the vacuum end (common practice). */
const CYCLE_H = 30
const FROZEN_H = 8
const VACUUM_H = 9

/** The thermostat of a small dryer swings about its mean, which is not what its dial says. */
const SWING_C = 2.5
const SWING_MS = 13 * 60_000
const WARM_UP_H = 0.4

/**
 * Makes a world. All of it follows from the time, the noise too: a device that is started again reads the same.
 * @param dialOffC how far the machine is from its dial
 */
export function makeWorld(truth: RackTruth, { seed = 1, dialOffC = -3 } = {}): World {
  const noise = (at: number, channel: number) => randomSource((Math.floor(at / 1000) * 31 + 7919 * channel + seed) % 0x7fff_ffff).normal()
  const room = (at: number) => ({
    celsius: 20 + 2 * Math.sin(2 * Math.PI * (at / DAY - 0.4)),
    humidity: 0.54 + 0.06 * Math.sin(2 * Math.PI * (at / DAY + 0.15)) + 0.02 * Math.sin((2 * Math.PI * at) / (3.1 * HOUR)),
  })
  const foodG = (at: number) => {
    const hours = Math.max(0, (at - truth.loadedAt) / HOUR)
    const next = truth.hours.findIndex(hour => hour > hours)
    if (next <= 0) return truth.weightG.at(next < 0 ? -1 : 0)!
    const [from, to] = [truth.hours[next - 1]!, truth.hours[next]!]
    return truth.weightG[next - 1]! + ((truth.weightG[next]! - truth.weightG[next - 1]!) * (hours - from)) / (to - from)
  }
  return {
    scaleG: at => Math.round(foodG(at) + truth.tareG + 0.6 * noise(at, 1)),
    chamberC(at) {
      const since = (at - truth.loadedAt) / HOUR
      const end = truth.setC + dialOffC
      const warm = since <= 0 ? 0 : 1 - Math.exp(-since / WARM_UP_H)
      return tenth(
        room(at).celsius + (end - room(at).celsius) * warm + warm * SWING_C * Math.sin((2 * Math.PI * at) / SWING_MS) + 0.1 * noise(at, 2),
      )
    },
    room(at) {
      const { celsius, humidity } = room(at)
      return { celsius: tenth(celsius + 0.05 * noise(at, 3)), humidity: Math.round(1000 * (humidity + 0.004 * noise(at, 4))) / 1000 }
    },
    freezeDryer(at) {
      const hours = (at / HOUR) % CYCLE_H
      if (hours < FROZEN_H) return { celsius: tenth(20 - 50 * (1 - Math.exp(-hours / 1.5))), pressurePa: 101_325 }
      const drawn = Math.min(1, (hours - FROZEN_H) / (VACUUM_H - FROZEN_H))
      const drying = Math.max(0, (hours - VACUUM_H) / (CYCLE_H - VACUUM_H))
      return {
        celsius: tenth(-30 + 75 * drying + 0.2 * noise(at, 5)),
        pressurePa: Math.max(15, Math.round(101_325 * Math.exp(-7.5 * drawn) + 25 * (1 - drying) + 3 * noise(at, 6))),
      }
    },
  }
}

const tenth = (value: number) => Math.round(value * 10) / 10
