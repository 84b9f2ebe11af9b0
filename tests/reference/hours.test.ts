import { USUAL_ROOM, wetBulbC, type Air } from '#core/air'
import { cardOf, targetIn, wayOf, type Food, type MethodCard } from '#core/foods'
import { heatLaw, hoursOf, layerKgM2, loadLaw } from '#core/hours'
import { evenAir, FaceBalance, Piece, Rack, rackSettings, type PieceSettings, type RackSettings } from '#core/simulation'
import { equilibriumIn, isothermOf } from '#core/sorption'
import { FOODS, findFood } from '../support/foods'

const DAMP: Air = { celsius: 27, humidity: 0.85 }
const DRY: Air = { celsius: 20, humidity: 0.3 }
/** Every so many of the cards that a dehydrator dries: few forms, many foods. */
const EVERY = 5
const STEP_H = 0.1
const MOST_H = 300

/** Whether such air can take a food well past its target: where it cannot, no law of hours is asked, `reachOf` says so. */
function isInReach(food: Food, celsius: number, room = USUAL_ROOM): boolean {
  const { mean } = equilibriumIn(isothermOf(food), room, celsius)
  return mean / (1 + mean) <= 0.7 * targetIn(food, 'powder', 'dehydrator')
}
const referenceOf = (card: MethodCard) => wayOf(card, 'dehydrator').temperatureC
const LOADS = FOODS.flatMap(food => food.cards.map(card => ({ food, card })))
  .filter(({ food, card }) => card.ways[0]!.way === 'dehydrator' && isInReach(food, referenceOf(card)))
  .filter((_, i) => i % EVERY === 0)

interface Turned {
  celsius?: number
  room?: Air
  thickness?: number
  heap?: RackSettings['heap']
}
/** Hours of an even load to its target, by the simulation. */
function simulatedH({ food, card }: { food: Food; card: MethodCard }, turned: Turned = {}): number {
  const { celsius = referenceOf(card), room = USUAL_ROOM, thickness, heap } = turned
  const rack = new Rack({
    ...rackSettings({
      food,
      cardKey: card.key,
      way: 'dehydrator',
      purpose: 'powder',
      trayWeightsG: [300],
      thickness,
      thicknessSpread: 0,
      traySpread: 0,
      seed: 1,
    }),
    heap,
  })
  const target = targetIn(food, 'powder', 'dehydrator')
  for (let before = rack.moisture; rack.hours < MOST_H; before = rack.moisture) {
    rack.advance(STEP_H, { setC: celsius, room })
    if (rack.moisture <= target) return rack.hours - (STEP_H * (target - rack.moisture)) / Math.max(1e-9, before - rack.moisture)
  }
  return Infinity
}
const BASES = new Map(LOADS.map(load => [load, simulatedH(load)]))
/** How the simulation's hours over its own at the card's compare with the law's: one figure a load that is in reach. */
const over = (turned: (load: (typeof LOADS)[number]) => Turned, law: (load: (typeof LOADS)[number]) => number) =>
  LOADS.filter(({ food, card }) => {
    const { celsius = referenceOf(card), room } = turned({ food, card })
    return isInReach(food, celsius, room)
  }).map(load => simulatedH(load, turned(load)) / BASES.get(load)! / law(load))
const middle = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const beside = (values: readonly number[], by: number) => values.filter(value => Math.abs(value - 1) > by)

describe('the laws of hours against the simulation: hours over those at the card', () => {
  it('asks many foods, of every form that lies on a tray', () => {
    expect(LOADS.length).toBeGreaterThan(50)
    expect(new Set(LOADS.map(({ card }) => card.feelForm)).size).toBeGreaterThanOrEqual(4)
  })

  it.each([-11, -6, 6, 11])('heat %d K beside the card’s: within a tenth', more => {
    const found = over(
      ({ card }) => ({ celsius: referenceOf(card) + more }),
      ({ card }) => heatLaw('dehydrator', referenceOf(card) + more, referenceOf(card)),
    )
    expect(found.length).toBeGreaterThan(30)
    expect(Math.abs(middle(found) - 1)).toBeLessThan(0.06)
    // One in fifty ends just where its air leaves it: there a little more heat counts for more.
    expect(beside(found, 0.12).length).toBeLessThanOrEqual(found.length / 50)
  })

  it.each([
    ['damp', DAMP],
    ['dry', DRY],
  ])('a %s room: within a tenth', (_, room) => {
    const found = over(
      () => ({ room }),
      ({ card }) => heatLaw('dehydrator', referenceOf(card), referenceOf(card), { room }),
    )
    expect(found.length).toBeGreaterThan(8)
    expect(Math.abs(middle(found) - 1)).toBeLessThan(0.05)
    expect(beside(found, 0.1)).toEqual([])
  })

  it('a heap of two layers: within a tenth in the middle; the air counts kilograms of water, the rule counts layers', () => {
    const heapOf = (layers: number) =>
      over(
        ({ card }) => ({ heap: { loadKgM2: layers * layerKgM2(card), layers } }),
        ({ card }) => loadLaw(card, layers * layerKgM2(card)),
      )
    const two = heapOf(2)
    expect(Math.abs(middle(two) - 1)).toBeLessThan(0.1)
    expect(Math.min(...two)).toBeGreaterThan(0.6)
    expect(Math.max(...two)).toBeLessThan(1.9)
    // Of three, what is heavy and wet takes as its depth or more, light leaves less: the rule errs on the long side.
    expect(middle(heapOf(3))).toBeGreaterThan(0.7)
  })

  it('thickness: diffusion alone goes by its square nearly, leaves by the air; the trade says in proportion, and the law with it', () => {
    const power = (form: string) =>
      middle(
        LOADS.filter(({ card }) => card.feelForm === form).map(load => Math.log2(simulatedH(load, { thickness: 2 }) / BASES.get(load)!)),
      )
    expect(power('pieces')).toBeGreaterThan(1.5)
    expect(power('pieces')).toBeLessThan(2)
    expect(power('leaves')).toBeLessThan(1.3)
    expect(power('leaves')).toBeGreaterThanOrEqual(1)
  })
})

describe('the heat at a face', () => {
  it('wet it is at the wet bulb, dry at the air’s own warmth (ASHRAE Fundamentals 2017, by psychrolib)', () => {
    for (const [room, celsius] of [[USUAL_ROOM, 57] as const, [DAMP, 68] as const, [DRY, 40] as const, [USUAL_ROOM, 20] as const]) {
      const face = new FaceBalance(room, celsius, 57)
      expect(face.celsius(1)).toBeCloseTo(wetBulbC(room, celsius), 6)
      expect(face.drive(1)).toBeGreaterThan(0)
      // Where the food holds no more than the air, nothing is drawn and nothing cools.
      expect(face.drive(0)).toBeLessThan(0)
      expect(face.celsius(0)).toBeGreaterThan(celsius)
    }
  })

  it('draws 1.28 times as much at 68 as at 57 °C while it is wet, less in a damp room, and warms as it dries', () => {
    const at = (celsius: number, room = USUAL_ROOM) => new FaceBalance(room, celsius, 57)
    expect(at(57).drive(1)).toBeCloseTo(1, 6)
    expect(at(68).drive(1) / at(57).drive(1)).toBeCloseTo(1.28, 1)
    expect(at(57, DAMP).drive(1)).toBeLessThan(0.9)
    for (let i = 1; i <= 20; i++) {
      expect(at(57).celsius(i / 20)).toBeLessThan(at(57).celsius((i - 1) / 20))
      expect(at(57).drive(i / 20)).toBeGreaterThan(at(57).drive((i - 1) / 20))
    }
  })
})

describe('an outside that closes', () => {
  const thick: PieceSettings = { shape: 'slab', startX: 8, diffusionRate: 0.12, slowing: 0.12, hardening: 0.3 }
  const hot = evenAir({ evaporationRate: 6, humidity: 0.05 })
  const hoursTo = (piece: Piece, x: number, stepH: number) => {
    let hours = 0
    for (; piece.meanX > x && hours < 200; hours += stepH) piece.step(hot, stepH)
    return hours
  }

  it('is the same on a finer grid and with whoever looks more often', () => {
    const coarse = hoursTo(new Piece({ ...thick, cells: 12 }), 0.2, 0.1)
    const fine = hoursTo(new Piece({ ...thick, cells: 48 }), 0.2, 0.1)
    const often = hoursTo(new Piece({ ...thick, cells: 12 }), 0.2, 0.02)
    expect(Math.abs(coarse / fine - 1)).toBeLessThan(0.03)
    expect(Math.abs(coarse / often - 1)).toBeLessThan(0.03)
  })

  it('draws the end out, by a bounded part of it, and softens where water comes back', () => {
    const plain = hoursTo(new Piece({ ...thick, hardening: 0 }), 0.2, 0.1)
    const closed = new Piece(thick)
    const closing = hoursTo(closed, 0.2, 0.1)
    expect(closing / plain).toBeGreaterThan(1.1)
    const worst = hoursTo(new Piece({ ...thick, hardening: 100 }), 0.2, 0.1)
    expect(worst / plain).toBeLessThan(3)
    const before = closed.skin
    expect(before).toBeGreaterThan(0.05)
    closed.step(evenAir({ evaporationRate: 0.4, humidity: 0.85, warmth: 0.3 }), 48)
    expect(closed.skin).toBeLessThan(0.5 * before)
  })
})

describe('hours against what is published', () => {
  /**
   * Activation energies of thin-layer drying, kJ/mol, from memory of the literature: carrot 28.4 (Doymaz 2004), tomato 32.9 (Doymaz
   * 2007), green bean 35.4 (Doymaz 2005), apple 20 to 23 and red pepper 42.8 (Kaymak-Ertekin 2002). Of whole runs between 50 and 70 °C,
   * slices of 3 to 6 mm.
   */
  it.each([
    ['carrot', 28.4],
    ['tomato', 32.9],
    ['green-bean', 35.4],
    ['apple', 21.5],
    ['sweet-pepper', 42.8],
  ])('%s: from 50 to 70 °C as an activation energy of %d kJ/mol says, within three tenths', (key, kJ) => {
    const card = cardOf(findFood(key)!)
    const ratio = heatLaw('dehydrator', 50, referenceOf(card)) / heatLaw('dehydrator', 70, referenceOf(card))
    const published = Math.exp((kJ * 1000 * (1 / 323.15 - 1 / 343.15)) / 8.314)
    expect(Math.abs(ratio / published - 1)).toBeLessThan(0.3)
  })

  /** Hours in a dehydrator at 140 °F (60 °C): drying table of the extension service of Georgia (So Easy to Preserve), from memory. */
  const TABLE = [
    ['green-bean', 'pieces-25', 8, 14],
    ['beetroot', 'slices-3', 10, 12],
    ['broccoli', 'pieces-25', 12, 15],
    ['cabbage', 'shreds', 10, 12],
    ['carrot', 'slices-3', 10, 12],
    ['celery', 'slices-6', 10, 16],
    ['sweetcorn', 'seeds', 6, 8],
    ['garlic', 'slices-3', 6, 8],
    ['okra', 'slices-6', 8, 10],
    ['onion', 'rings-5', 3, 9],
    ['pea', 'whole', 8, 10],
    ['green-pepper', 'pieces-25', 8, 12],
    ['potato', 'slices-3', 8, 12],
    ['pumpkin', 'slices-6', 10, 16],
    ['zucchini', 'slices-6', 10, 12],
    ['tomato', 'slices-12', 10, 18],
  ] as const
  it('the window at 60 °C meets the table’s, its middle within a third of theirs: all but thin cabbage, sooner, and onion, later', () => {
    const beside = TABLE.filter(([key, cardKey, low, high]) => {
      const food = findFood(key)!
      const hours = hoursOf({ food, card: cardOf(food, cardKey), way: 'dehydrator', purpose: 'pieces', choices: {}, setC: 60 })
      const ratio = Math.sqrt((hours.low * hours.high) / (low * high))
      return hours.low > high || hours.high < low || ratio > 4 / 3 || ratio < 3 / 4
    })
    expect(beside.map(([key]) => key)).toEqual(['cabbage', 'onion'])
  })
})
