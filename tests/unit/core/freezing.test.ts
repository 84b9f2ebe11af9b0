import { constantTrays, foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import { InputError } from '#core/errors'
import { chamberFinish, freezeCycle, iceCapacity, SUBLIMATION_MJ_KG, waterBackG } from '#core/freezing'
import { layerUnderVacuum } from '#core/hours'
import { HOUR } from '#core/time'
import { findFood } from '../../support/foods'
import { logOf } from '../../support/logbook'

const milk = { loadG: 5600, moisture: 0.881, areaM2: 0.48, thicknessMm: 11.7, frozen: true, liquid: true }

describe('a freeze dryer’s cycle', () => {
  describe('as they were recorded (common practice; none of them set a constant)', () => {
    /** Nobody wrote down what lay there: trays of a tenth of a square metre, filled with some 650 g each; the slowest ends it. */
    const TRAY_M2 = 0.1
    const FILLED_KG_M2 = 6.5
    const trays = (frozen: number, ...foods: [string, string][]) =>
      chamberFinish(
        foods.map(([key, cut], i) => {
          const food = findFood(key)!
          const card = food.cards.find(item => item.key === cut)!
          const isFrozen = i < frozen
          const { freezeH, finalH, hours } = freezeCycle({
            ...layerUnderVacuum({ food, card }, FILLED_KG_M2),
            frozen: isFrozen,
          })
          const end = hours.p50 * HOUR
          return { finish: { from: end, middle: end, to: end }, freezeH, finalH }
        }),
      ).middle / HOUR
    it('5.7 L of milk on four full trays, frozen before: 40 h', () => {
      const loadG = 5700 * 1.03
      const areaM2 = 4 * TRAY_M2
      const { hours } = freezeCycle({ loadG, moisture: 0.877, areaM2, thicknessMm: loadG / 1000 / areaM2, frozen: true, liquid: true })
      expect(Math.abs(hours.p50 / 40 - 1)).toBeLessThan(0.15)
    })
    it('a mixed load of vegetables, one tray of it frozen: 26 h', () => {
      const hours = trays(1, ['mushroom', 'slices-6'], ['carrot', 'slices-3'], ['green-pepper', 'pieces-25'], ['onion', 'rings-5'])
      expect(Math.abs(hours / 26 - 1)).toBeLessThan(0.15)
    })
    it('peppers, onions and garlic, none frozen: 30 h', () => {
      const hours = trays(0, ['sweet-pepper', 'pieces-25'], ['onion', 'pieces-10'], ['garlic', 'slices-3'])
      expect(Math.abs(hours / 30 - 1)).toBeLessThan(0.15)
    })
  })
  it('takes the heat of sublimation of its water: 2.838 MJ/kg (handbook)', () => {
    const { waterG, sublimationKWh } = freezeCycle(milk)
    expect(SUBLIMATION_MJ_KG).toBe(2.838)
    expect(waterG).toBeCloseTo(5600 * 0.881, 6)
    expect(sublimationKWh).toBeCloseTo((4.9336 * 2.838) / 3.6, 4)
  })
  it('is longer unfrozen, thicker, wetter; as its parts add up', () => {
    const base = freezeCycle(milk)
    expect(base.hours.p50).toBeCloseTo(base.freezeH + base.vacuumH + base.finalH, 6)
    expect(freezeCycle({ ...milk, frozen: false }).hours.p50 - base.hours.p50).toBeCloseTo(7.5, 6)
    expect(freezeCycle({ ...milk, thicknessMm: 20 }).vacuumH).toBeGreaterThan(base.vacuumH)
    expect(freezeCycle({ ...milk, areaM2: 0.24 }).vacuumH).toBeCloseTo(2 * base.vacuumH, 6)
    expect(freezeCycle({ ...milk, liquid: false }).finalH).toBeLessThan(base.finalH)
  })
  it.each([
    ['loadG', 0],
    ['areaM2', -1],
    ['thicknessMm', 0],
    ['moisture', 1.3],
    ['moisture', Number.NaN],
  ])('refuses %s of %d by name', (field, value) => {
    expect(() => freezeCycle({ ...milk, [field]: value })).toThrow(InputError)
    expect(() => freezeCycle({ ...milk, [field]: value })).toThrow(field)
  })
  it('says in how many loads the ice fits', () => {
    expect(iceCapacity(4000, 5500)).toMatchObject({ over: false, loads: 1 })
    expect(iceCapacity(5500, 5500)).toMatchObject({ over: false, loads: 1 })
    expect(iceCapacity(11_001, 5500)).toMatchObject({ over: true, loads: 3 })
    expect(() => iceCapacity(100, 0)).toThrow(InputError)
  })
  it('gives back exactly the water that went: 244 g of milk dried to 30 g need 214 g (mass balance)', () => {
    expect(waterBackG(244, 30)).toBe(214)
    expect(() => waterBackG(30, 244)).toThrow(InputError)
  })
})

describe('rounds of extra drying', () => {
  const RUN = '018f0000-0000-7000-8000-000000000001'
  const trays = (...grams: number[]): EntryBody => ({ kind: 'weigh', trays: grams.map((weightG, i) => ({ position: i + 1, weightG })) })
  const run = (...more: [number, EntryBody][]) =>
    foldBatch(
      logOf(
        [0, { kind: 'intake', foodKey: 'raspberry', cardKey: 'whole', purpose: 'powder', source: 'Farm', weightG: 1600 }],
        [
          1,
          {
            kind: 'load',
            runId: RUN,
            machineId: RUN,
            positions: [1, 2],
            trays: [
              { position: 1, weightG: 800 },
              { position: 2, weightG: 780 },
            ],
            totalG: 1580,
            way: 'freeze-dryer',
            frozen: [1, 2],
          },
        ],
        [1, { kind: 'heat', runId: RUN, setC: 50 }],
        ...more,
      ),
      findFood,
    )!.run!

  it('a tray is done when it lost nothing in two hours', () => {
    expect(constantTrays(run()).map(tray => tray.test)).toEqual([undefined, undefined])
    expect(constantTrays(run([28, trays(123, 122)], [29, trays(122.8, 119)])).map(tray => tray.test?.constant)).toEqual([
      undefined,
      undefined,
    ])
    expect(constantTrays(run([28, trays(123, 122)], [30.2, trays(122.8, 118)])).map(tray => tray.test?.constant)).toEqual([true, false])
    expect(
      constantTrays(run([28, trays(123, 122)], [30.2, trays(122.8, 118)], [32.5, trays(122.8, 117.9)])).map(tray => tray.test?.constant),
    ).toEqual([true, true])
  })
  it('under vacuum nothing is taken back while it stands', () => {
    expect(
      run([10, { kind: 'heat', runId: RUN, setC: null }], [20, { kind: 'heat', runId: RUN, setC: 50 }], [30, trays(123, 122)]).spells,
    ).toEqual([])
  })
})
