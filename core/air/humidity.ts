import psychrolib from 'psychrolib'
import { InputError, type Problem } from '../errors'

/** Air of a room: temperature in °C, relative humidity 0–1, pressure in kPa (sea level when missing). */
export interface Air {
  celsius: number
  humidity: number
  pressureKPa?: number
}

const SEA_LEVEL_KPA = 101.325
// The library keeps one unit system for all: set once, here, where it is imported.
psychrolib.SetUnitSystem(psychrolib.SI)

const pascal = (air: Air) => (air.pressureKPa ?? SEA_LEVEL_KPA) * 1000

/**
 * @throws InputError for a temperature outside −20 to 60 °C, a humidity outside 1 to 100 %, or a pressure
 * outside 60 to 110 kPa.
 */
export function checkAir(air: Air): void {
  const problems: Problem[] = []
  if (!(air.celsius >= -20 && air.celsius <= 60))
    problems.push({ field: 'celsius', code: 'out-of-range', message: 'Room air is between −20 and 60 °C.' })
  if (!(air.humidity >= 0.01 && air.humidity <= 1))
    problems.push({ field: 'humidity', code: 'out-of-range', message: 'Relative humidity is between 1 and 100 %.' })
  if (air.pressureKPa !== undefined && !(air.pressureKPa >= 60 && air.pressureKPa <= 110))
    problems.push({ field: 'pressureKPa', code: 'out-of-range', message: 'Air pressure is between 60 and 110 kPa.' })
  if (problems.length > 0) throw new InputError(problems)
}

/** Saturation pressure of water vapour, kPa. ASHRAE Fundamentals 2017, by psychrolib. */
export function saturationKPa(celsius: number): number {
  return psychrolib.GetSatVapPres(celsius) / 1000
}

/** Water in dry air, kg/kg. */
export function humidityRatio(air: Air): number {
  return psychrolib.GetHumRatioFromRelHum(air.celsius, air.humidity, pascal(air))
}

/**
 * Relative humidity of the room's air once a machine has heated it: the water stays, the air could hold
 * far more. Humidity that the food itself gives off is not in it: this is how dry the air can get.
 * @throws InputError as `checkAir`.
 */
export function heatedHumidity(room: Air, celsius: number): number {
  checkAir(room)
  return Math.min(1, psychrolib.GetRelHumFromHumRatio(celsius, humidityRatio(room), pascal(room)))
}

/** What a wet face comes to in the room's air once a machine has heated it, °C: the wet bulb. ASHRAE Fundamentals 2017, by psychrolib. */
export function wetBulbC(room: Air, celsius: number): number {
  return psychrolib.GetTWetBulbFromHumRatio(celsius, humidityRatio(room), pascal(room))
}
