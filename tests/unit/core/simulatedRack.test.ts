import { Rack, type RackAir, type RackSettings } from '#core/simulation'
import { CARROTS } from '../../support/carrotRack'

const KITCHEN = { celsius: 21, humidity: 0.5 }
const HEAT: RackAir = { setC: 57, room: KITCHEN }
const OFF: RackAir = { setC: null, room: KITCHEN }
function after(hours: number, more: Partial<RackSettings> = {}, air = HEAT): Rack {
  const rack = new Rack({ ...CARROTS, ...more })
  rack.advance(hours, air)
  return rack
}
/** Hours until the whole is as dry, or the horizon. */
function hoursTo(moisture: number, more: Partial<RackSettings> = {}, air = HEAT): number {
  const rack = new Rack({ ...CARROTS, ...more })
  while (rack.moisture > moisture && rack.hours < 60) rack.advance(0.25, air)
  return rack.hours
}

describe('a rack on paper', () => {
  it('loses what its pieces lose: nothing comes from nowhere', () => {
    const rack = new Rack(CARROTS)
    expect(rack.weightG).toBeCloseTo(3600, 9)
    for (let i = 0; i < 30; i++) {
      rack.advance(0.5, i > 12 && i < 20 ? OFF : HEAT)
      const lost = rack.trays.reduce(
        (sum, { solidsG, pieces }) => sum + solidsG * pieces.reduce((all, { piece, share }) => all + share * piece.lost, 0),
        0,
      )
      expect(Math.abs(rack.weightG + lost - 3600)).toBeLessThan(1e-6)
    }
  })

  it('is the same for the same seed, and another for another', () => {
    expect(after(6).trayWeightsG).toEqual(after(6).trayWeightsG)
    expect(after(6, { seed: 5 }).trayWeightsG).not.toEqual(after(6).trayWeightsG)
  })

  it.each<[string, () => [number, number]]>([
    ['hotter is sooner', () => [hoursTo(0.1, {}, { ...HEAT, setC: 65 }), hoursTo(0.1)]],
    ['a draught is sooner', () => [hoursTo(0.1), hoursTo(0.1, {}, { ...HEAT, fan: 0.5 })]],
    [
      'a dry room is sooner',
      () => [
        hoursTo(0.08, {}, { ...HEAT, room: { celsius: 21, humidity: 0.3 } }),
        hoursTo(0.08, {}, { ...HEAT, room: { celsius: 27, humidity: 0.85 } }),
      ],
    ],
    ['thinner is sooner', () => [hoursTo(0.1, { piece: { ...CARROTS.piece, diffusionRate: 1 } }), hoursTo(0.1)]],
    ['a good place is sooner', () => [hoursTo(0.1, { placePaces: CARROTS.trayWeightsG.map(() => 1.2) }), hoursTo(0.1)]],
  ])('%s', (_, both) => {
    const [sooner, later] = both()
    expect(sooner).toBeLessThan(later)
  })

  it('takes as long as its card says where its rates are meant so: a working day', () => {
    expect(hoursTo(0.06)).toBeGreaterThan(6)
    expect(hoursTo(0.06)).toBeLessThan(16)
  })

  it('has thick pieces that are wet within while the weight says that all is well', () => {
    const rack = new Rack({ ...CARROTS, thicknessSpread: 0.3 })
    while (rack.moisture > 0.08) rack.advance(0.25, HEAT)
    expect(rack.wettest.whole).toBeGreaterThan(0.16)
    expect(rack.wettest.core).toBeGreaterThan(rack.wettest.whole)
  })

  it('takes water back in a night that it is off, and never dries by itself', () => {
    const rack = after(9)
    const evening = rack.weightG
    rack.advance(9, { setC: null, room: { celsius: 18, humidity: 0.75 } })
    expect(rack.weightG).toBeGreaterThan(evening)
    const damp = after(3, {}, { setC: null, room: { celsius: 18, humidity: 0.8 } })
    expect(damp.weightG).toBeGreaterThan(0.9 * 3600)
  })

  it('closes in a hot start where the food hardens: more is left within after as many hours', () => {
    const hardening = { piece: { ...CARROTS.piece, hardening: 0.3 } }
    const gentle = after(8, hardening)
    const hot = new Rack({ ...CARROTS, ...hardening })
    hot.advance(3, { ...HEAT, setC: 75 })
    hot.advance(5, HEAT)
    expect(hot.wettest.core).toBeGreaterThan(gentle.wettest.core)
  })

  it('halving the step of whoever looks changes nothing that is seen', () => {
    const one = after(10)
    const other = new Rack(CARROTS)
    for (let i = 0; i < 20; i++) other.advance(0.5, HEAT)
    // Steps end where somebody looks: what is left of it is their own error.
    expect(Math.abs(other.weightG / one.weightG - 1)).toBeLessThan(1e-4)
  })
})
