import { InputError } from '#core/errors'
import { checkAir, heatedHumidity, humidityRatio, saturationKPa, wetBulbC } from '#core/air'
import {
  activityAt,
  activityOfTarget,
  calibrateHygrometer,
  equilibriumIn,
  ISOTHERMS,
  isothermOf,
  lowestMoisture,
  moistureAt,
  moistureFromJarAir,
  roomBalance,
  SALTS,
} from '#core/sorption'
import { FOODS } from '../support/foods'

describe('room air', () => {
  // ASHRAE Handbook, Fundamentals, saturation pressure of water, kPa.
  it.each([
    [0, 0.6112],
    [20, 2.3388],
    [25, 3.169],
    [40, 7.3838],
    [57, 17.33],
    [60, 19.944],
  ])('saturates at %d °C with %d kPa', (celsius, kPa) => {
    expect(Math.abs(saturationKPa(celsius) / kPa - 1)).toBeLessThan(0.002)
  })
  it('holds 0.00988 kg of water a kg at 25 °C and 50 % (ASHRAE)', () => {
    expect(humidityRatio({ celsius: 25, humidity: 0.5 })).toBeCloseTo(0.00988, 5)
  })
  // Stull, J. Appl. Meteorol. Climatol. 50 (2011): 13.7 °C at 20 °C and 50 %; the others as read off ASHRAE's chart.
  it.each([
    [20, 0.5, 13.7],
    [25, 0.5, 17.9],
    [30, 0.5, 22.0],
  ])('at %d °C and a humidity of %d its wet bulb is at %d °C', (celsius, humidity, wet) => {
    expect(Math.abs(wetBulbC({ celsius, humidity }, celsius) - wet)).toBeLessThan(0.15)
  })
  it('warms a wet face less than itself, as far as saturated air has its enthalpy', () => {
    // h = 1.006 t + W (2501 + 1.86 t), ASHRAE Fundamentals, and W at saturation = 0.622 p/(101.325 − p).
    const room = { celsius: 20, humidity: 0.55 }
    const enthalpy = (celsius: number, ratio: number) => 1.006 * celsius + ratio * (2501 + 1.86 * celsius)
    const saturated = (celsius: number) => (0.622 * saturationKPa(celsius)) / (101.325 - saturationKPa(celsius))
    for (const celsius of [40, 57, 68]) {
      const wet = wetBulbC(room, celsius)
      // The water that it takes up comes along as warm as the wet face.
      const water = (saturated(wet) - humidityRatio(room)) * 4.186 * wet
      expect(Math.abs(enthalpy(wet, saturated(wet)) - water - enthalpy(celsius, humidityRatio(room)))).toBeLessThan(0.6)
    }
  })
  it('falls to about 7 % when heated from 21 °C and 50 % to 57 °C, but only to 25 % from 30 °C and 80 % to 52 °C', () => {
    expect(heatedHumidity({ celsius: 21, humidity: 0.5 }, 57)).toBeCloseTo(0.072, 2)
    expect(heatedHumidity({ celsius: 30, humidity: 0.8 }, 52)).toBeCloseTo(0.25, 2)
  })
  // An independent formula: Magnus with the constants of Alduchov & Eskridge (1996), within half a percent.
  it('agrees with Magnus over the whole kitchen', () => {
    const magnus = (c: number) => 0.61094 * Math.exp((17.625 * c) / (c + 243.04))
    for (let c = 0; c <= 60; c += 3) expect(Math.abs(saturationKPa(c) / magnus(c) - 1)).toBeLessThan(0.005)
  })
  it('does not care for pressure when it is only heated, and knows mountains', () => {
    const low = { celsius: 21, humidity: 0.5, pressureKPa: 101.325 }
    const high = { celsius: 21, humidity: 0.5, pressureKPa: 80 }
    expect(heatedHumidity(high, 57)).toBeCloseTo(heatedHumidity(low, 57), 3)
    expect(humidityRatio(high)).toBeGreaterThan(humidityRatio(low))
  })
  it.each([
    [{ celsius: 90, humidity: 0.5 }, 'celsius'],
    [{ celsius: 20, humidity: 50 }, 'humidity'],
    [{ celsius: 20, humidity: 0 }, 'humidity'],
    [{ celsius: NaN, humidity: 0.5 }, 'celsius'],
    [{ celsius: 20, humidity: 0.5, pressureKPa: 1013 }, 'pressureKPa'],
  ])('refuses %j', (air, field) => {
    expect(() => checkAir(air)).toThrow(InputError)
    expect(() => heatedHumidity(air, 57)).toThrow(field === 'celsius' ? /−20 and 60/ : field === 'humidity' ? /1 and 100/ : /60 and 110/)
  })
})

describe('isotherms', () => {
  const groups = Object.entries(ISOTHERMS)
  it.each(groups)('%s turns round, rises with humidity and falls with warmth', (_, isotherm) => {
    for (const celsius of [5, 25, 57]) {
      for (let a = 0.05; a < 0.9; a += 0.05) {
        const x = moistureAt(isotherm, a, celsius)
        expect(activityAt(isotherm, x, celsius)).toBeCloseTo(a, 6)
        expect(moistureAt(isotherm, a + 0.05, celsius)).toBeGreaterThan(x)
        if (a < 0.6) expect(moistureAt(isotherm, a, celsius + 20)).toBeLessThan(x)
      }
    }
    expect(moistureAt(isotherm, 0, 25)).toBe(0)
    expect(activityAt(isotherm, 0, 25)).toBe(0)
    expect(isotherm.source).toMatch(/from memory|published/)
  })

  /**
   * Moistures at 25 °C, g/g dry, read from published curves, from memory, so with a wide hand: Iglesias &
   * Chirife, Handbook of Food Isotherms (1982): potato, onion, red pepper, mushroom, raisin, beef, tomato; skimmed milk
   * before its lactose sets: Jouppila & Roos (1994).
   */
  it.each([
    ['starchy', 0.33, 0.068],
    ['starchy', 0.75, 0.15],
    ['allium', 0.33, 0.09],
    ['allium', 0.6, 0.18],
    ['chili', 0.33, 0.065],
    ['chili', 0.75, 0.19],
    ['mushroom', 0.33, 0.07],
    ['sugaryFruit', 0.6, 0.2],
    ['sugaryFruit', 0.75, 0.36],
    ['protein', 0.33, 0.065],
    ['tomato', 0.2, 0.065],
    ['tomato', 0.4, 0.12],
    ['tomato', 0.6, 0.21],
    // Skimmed milk: what is not fat.
    ['milk', 0.11, 0.034],
    ['milk', 0.22, 0.05],
    ['milk', 0.33, 0.065],
  ] as const)('%s at %d holds about %d', (group, activity, x) => {
    const ours = moistureAt(ISOTHERMS[group], activity, 25)
    expect(ours / x).toBeGreaterThan(0.8)
    expect(ours / x).toBeLessThan(1.25)
  })

  it('fat holds no water: whole milk of 27 % fat in its dry matter holds 0.73 of what skimmed does', () => {
    const whole = moistureAt(isothermOf({ isotherm: 'milk', fat: 0.27 }), 0.33, 25)
    expect(whole / moistureAt(ISOTHERMS.milk, 0.33, 25)).toBeCloseTo(0.73, 6)
    expect(activityAt(isothermOf({ isotherm: 'milk', fat: 0.27 }), whole, 25)).toBeCloseTo(0.33, 6)
  })
  it('crisp and grindable powders stand at an activity of 0.1–0.4; only pliable fruit comes near 0.6, where mould begins (common practice)', () => {
    for (const food of FOODS) {
      const isotherm = isothermOf(food)
      expect(activityOfTarget(isotherm, food.target.powder)).toBeGreaterThan(0.1)
      expect(activityOfTarget(isotherm, food.target.powder)).toBeLessThan(0.4)
      expect(activityOfTarget(isotherm, food.target.pieces)).toBeLessThan(food.target.pieces > 0.12 ? 0.65 : 0.5)
    }
  })
  it('a dry room lets a run end near 3 % water, a damp one above the target of powder', () => {
    const isotherm = isothermOf({ isotherm: 'wateryVegetable' })
    const dry = lowestMoisture(equilibriumIn(isotherm, { celsius: 21, humidity: 0.5 }, 57))
    expect(dry.p50).toBeGreaterThan(0.02)
    expect(dry.p50).toBeLessThan(0.045)
    const damp = lowestMoisture(equilibriumIn(isotherm, { celsius: 30, humidity: 0.8 }, 52))
    expect(damp.p50).toBeGreaterThan(1.7 * dry.p50)
    // Eight in ten reach past 6 %: a damp kitchen may not get powder dry at 52 °C.
    expect(damp.p90).toBeGreaterThan(0.06)
    expect(equilibriumIn(isotherm, { celsius: 21, humidity: 0.5 }, 57).sd).toBeGreaterThan(0)
  })
  it('a switched-off rack drifts to what the room holds, 10–20 % water at 60 %', () => {
    const x = roomBalance(isothermOf({ isotherm: 'wateryVegetable' }), { celsius: 21, humidity: 0.6 })
    expect(x / (1 + x)).toBeGreaterThan(0.1)
    expect(x / (1 + x)).toBeLessThan(0.2)
  })
  it('jar air tells the moisture, the less surely the cheaper the hygrometer', () => {
    const isotherm = isothermOf({ isotherm: 'wateryVegetable' })
    const sure = moistureFromJarAir(isotherm, { mean: 0.3, sd: 0.01 }, 21)
    const loose = moistureFromJarAir(isotherm, { mean: 0.3, sd: 0.06 }, 21)
    expect(sure.p50).toBeCloseTo(loose.p50, 9)
    expect(loose.p90 - loose.p10).toBeGreaterThan(sure.p90 - sure.p10)
    expect(sure.p10).toBeLessThan(0.08)
    expect(sure.p90).toBeGreaterThan(0.06)
  })
})

describe('the salt test', () => {
  it('knows Greenspan’s salts at 25 °C', () => {
    expect(SALTS['magnesium-chloride'].humidity).toBe(0.328)
    expect(SALTS['sodium-chloride'].humidity).toBe(0.753)
  })
  it('finds offset and slope from two salts', () => {
    const { offset, gain, sd } = calibrateHygrometer([
      { salt: 'magnesium-chloride', shown: 0.36 },
      { salt: 'sodium-chloride', shown: 0.74 },
    ])
    expect(offset + gain * 0.36).toBeCloseTo(0.328, 9)
    expect(offset + gain * 0.74).toBeCloseTo(0.753, 9)
    expect(sd).toBeLessThan(calibrateHygrometer([{ salt: 'sodium-chloride', shown: 0.74 }]).sd)
    expect(calibrateHygrometer([]).sd).toBeGreaterThan(calibrateHygrometer([{ salt: 'sodium-chloride', shown: 0.74 }]).sd)
  })
  it.each([
    [[{ salt: 'sodium-chloride', shown: 75 }], /between 0 and 100/],
    [[{ salt: 'sodium-chloride', shown: 0.4 }], /12 hours/],
    [
      [
        { salt: 'sodium-chloride', shown: 0.74 },
        { salt: 'sodium-chloride', shown: 0.75 },
      ],
      /twice/,
    ],
    [
      [
        { salt: 'magnesium-chloride', shown: 0.52 },
        { salt: 'magnesium-nitrate', shown: 0.521 },
      ],
      /too close|swapped/,
    ],
  ] as const)('refuses %j', (readings, words) => expect(() => calibrateHygrometer(readings)).toThrow(words))
})
