import { USUAL_ROOM } from '#core/air'
import { rackSettings } from '#core/simulation'
import { IceOnTrays, PiecesOnTrays, type OnTrays } from '../../../core/practice/onTrays'
import { findFood } from '../../support/foods'

const WATER = 0.86
const TRAYS = [420, 380, 400]
const apple = findFood('apple')!

function pieces(): PiecesOnTrays {
  const settings = rackSettings({
    food: apple,
    cardKey: 'slices-3',
    way: 'dehydrator',
    purpose: 'powder',
    trayWeightsG: TRAYS,
    solids: 1 - WATER,
    hours: 9,
    thicknessSpread: 0.2,
    seed: 4,
  })
  return new PiecesOnTrays(apple, settings)
}
const ice = (more: Partial<ConstructorParameters<typeof IceOnTrays>[1]> = {}) =>
  new IceOnTrays(apple, { traysG: TRAYS, water: WATER, areaM2: 0.09, hours: 1, saysDone: 1, paces: [0.8, 1, 1.1], ...more })
const WARM = { setC: 50, room: USUAL_ROOM }
const OFF = { setC: null, room: USUAL_ROOM }
const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0)

describe.each<[string, () => OnTrays]>([
  ['pieces in warm air', pieces],
  ['layers of ice', ice],
])('what lies on the trays: %s', (_, make) => {
  it('weighs as it was loaded, and holds the water that the food holds', () => {
    const load = make()
    for (const [i, grams] of TRAYS.entries()) expect(load.weightsG[i]).toBeCloseTo(grams, 6)
    expect(load.weightG).toBeCloseTo(sum(TRAYS), 6)
    expect(load.moisture).toBeCloseTo(WATER, 6)
    expect(load.present).toEqual([0, 1, 2])
  })

  it('loses nothing but water: its solids are the same to a billionth at every hour', () => {
    const load = make()
    const solidsG = load.weightG * (1 - load.moisture)
    let before = load.weightG
    for (let hour = 0; hour < 40; hour++) {
      load.advance(1, WARM)
      expect(load.weightG).toBeLessThanOrEqual(before + 1e-9)
      expect(Math.abs(load.weightG * (1 - load.moisture) - solidsG)).toBeLessThan(1e-9 * solidsG)
      before = load.weightG
    }
    expect(load.moisture).toBeLessThan(0.1)
    expect(load.thawed).toBe(true)
  })

  it('its thick pieces are wetter than the mean, and the air at the wettest is air', () => {
    const load = make()
    load.advance(5, WARM)
    const mean = load.moisture / (1 - load.moisture)
    expect(load.thickX).toBeGreaterThan(mean)
    expect(load.wettestActivity).toBeGreaterThan(0)
    expect(load.wettestActivity).toBeLessThanOrEqual(1)
  })

  it('a tray that is out dries no further; put back it does', () => {
    const load = make()
    load.advance(2, WARM)
    load.takeOut([1])
    expect(load.present).toEqual([0, 2])
    const [, out] = load.weightsG
    const [first] = load.weightsG
    load.advance(2, WARM)
    expect(load.weightsG[1]).toBe(out)
    expect(load.weightsG[0]!).toBeLessThan(first!)
    load.putBack()
    expect(load.present).toEqual([0, 1, 2])
    load.advance(2, WARM)
    expect(load.weightsG[1]!).toBeLessThan(out!)
  })

  it('shows a profile for each piece, and gives the piece that is asked for', () => {
    const load = make()
    load.advance(3, WARM)
    const profiles = load.profiles()
    expect(profiles).toHaveLength(3)
    for (const tray of profiles) for (const profile of tray) for (const x of profile) expect(x).toBeGreaterThanOrEqual(0)
    const { x } = load.piece(2, 0)
    expect(Array.from(profiles[2]![0]!)).toEqual(Array.from(x, value => Math.fround(value)))
  })
})

describe('pieces', () => {
  it('take water back from a damp room while the heat is off, ice does not', () => {
    const damp = { setC: null, room: { celsius: 18, humidity: 0.85 } }
    const [load, frozen] = [pieces(), ice()]
    load.advance(30, WARM)
    frozen.advance(30, WARM)
    const [dry, kept] = [load.weightG, frozen.weightG]
    load.advance(10, damp)
    frozen.advance(10, OFF)
    expect(load.weightG).toBeGreaterThan(dry + 1)
    expect(frozen.weightG).toBe(kept)
  })
})

describe('places', () => {
  it('a tray that was moved to a slower place dries slower from then on', () => {
    const at = (swapped: boolean) => {
      const settings = rackSettings({
        food: apple,
        cardKey: 'slices-3',
        way: 'dehydrator',
        purpose: 'powder',
        trayWeightsG: [400, 400],
        placePaces: [1.2, 0.6],
        solids: 1 - WATER,
        hours: 9,
        seed: 4,
      })
      const load = new PiecesOnTrays(apple, settings)
      load.advance(2, WARM)
      if (swapped) load.swap(0, 1)
      load.advance(4, WARM)
      return load.weightsG
    }
    const [stayed, moved] = [at(false), at(true)]
    expect(moved[0]!).toBeGreaterThan(stayed[0]! + 10)
    expect(moved[1]!).toBeLessThan(stayed[1]! - 10)
  })
})

describe('ice', () => {
  it('is said to be done by the middle of the machine: at a slow place there may be ice yet', () => {
    const says = (saysDone: number, slow: number) => {
      const load = ice({ saysDone, paces: [slow, 1, 1] })
      for (let hour = 0; hour < 200 && !load.saysDone; hour++) load.advance(1, WARM)
      return load
    }
    expect(says(1, 1).thawed).toBe(true)
    expect(says(0.85, 0.6).thawed).toBe(false)
    expect(says(0.85, 0.6).piece(0).ice).toBeGreaterThan(0)
    expect(says(1.1, 1).saysDoneH).toBeGreaterThan(says(1, 1).saysDoneH)
  })

  it('a deeper layer takes more than so much longer', () => {
    const hours = (factor: number) => ice({ traysG: TRAYS.map(grams => grams * factor) }).saysDoneH
    expect(hours(2) / hours(1)).toBeGreaterThan(1.8)
  })
})
