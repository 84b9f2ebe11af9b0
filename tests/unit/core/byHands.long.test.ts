import { assess, foldBatch } from '#core/batch'
import { targetIn, wayOf } from '#core/foods'
import { feltTable } from '#core/hands'
import { FELT_LN_X, HAND_AT } from '#core/kinetics'
import type { Entry, EntryBody } from '#core/log'
import { Rack, rackSettings } from '#core/simulation'
import { activityCurve, isothermOf } from '#core/sorption'
import { randomSource } from '#core/stats'
import { waterOf } from '#core/water'
import { feelOfPiece, feelTogether } from '../../../core/practice/hands'
import { findFood, FOODS } from '../../support/foods'
import { HOUR, MORNING } from '../../support/logbook'

/** Cuts that a dehydrator dries and a hand can tell something of. */
const LOADS = FOODS.flatMap(food => food.cards.map(card => ({ food, card }))).filter(
  ({ card }) => card.ways[0]!.way === 'dehydrator' && card.feelForm !== 'foam',
)
/** Wetter than that by its own activity no piece is dry throughout. */
const DRY_ACTIVITY = 0.6

interface Who {
  /** What one calls a snap another calls leather: standard deviation of its warmth, K. */
  handK: number
  /** Three thick pieces, cold; or the one that comes to hand, warm most of the time. */
  careful: boolean
  /** Spread of the load's hours about its card's, logarithm. */
  off: number
}
interface Told {
  /** Water beyond the target when it was told to be dry enough to rest; undefined where it never was. */
  over?: number
  /** Hours beyond being dry throughout, over those. */
  late?: number
  /** The first window held the true end. */
  held: boolean
}

/** A kitchen without a scale: a load dried on paper, felt from two thirds of its usual hours on, until it is told that it may rest. */
function kitchen(seed: number, { handK, careful, off }: Who): Told {
  const chance = randomSource(seed)
  const { food, card } = chance.pick(LOADS)
  const purpose = chance.pick(['powder', 'pieces'] as const)
  const { temperatureC, usualHours } = wayOf(card, 'dehydrator')
  const target = targetIn(food, purpose, 'dehydrator')
  const usualH = Math.sqrt(usualHours.value.low * usualHours.value.high)
  const bias = handK * chance.normal()
  const { mean, sd } = (card.moisture ?? food.rawMoisture).value
  const rack = new Rack(
    rackSettings({
      food,
      cardKey: card.key,
      way: 'dehydrator',
      purpose,
      trayWeightsG: [500, 500, 500],
      solids: Math.max(0.03, 1 - mean + 0.7 * sd * chance.normal()),
      hours: usualH * Math.exp(off * chance.normal()),
      thicknessSpread: 0.08 + 0.15 * chance.uniform(),
      traySpread: 0.08,
      seed,
    }),
  )
  const air = { setC: temperatureC, room: { celsius: 18 + 10 * chance.uniform(), humidity: 0.35 + 0.3 * chance.uniform() } }
  const activity = activityCurve(isothermOf(food), 20)
  let [meanAt, throughAt] = [Infinity, Infinity]
  const dryTo = (hour: number) => {
    while (rack.hours < hour - 1e-9) {
      rack.advance(Math.min(0.25, hour - rack.hours), air)
      if (rack.moisture > target) continue
      meanAt = Math.min(meanAt, rack.hours)
      // The thickest twentieth is what a rest is for.
      const wettest = Math.max(...rack.trays.flatMap(({ pieces }) => pieces.slice(0, 3).map(({ piece }) => piece.meanX)))
      if (activity(wettest) <= DRY_ACTIVITY) throughAt = Math.min(throughAt, rack.hours)
    }
  }
  const log: Entry[] = []
  const write = (body: EntryBody, hours: number) => {
    const at = MORNING + hours * HOUR
    log.push({ id: `e${log.length}`, seq: log.length + 1, at, recordedAt: at, body })
  }
  write({ kind: 'intake', foodKey: food.key, cardKey: card.key, purpose, source: 'Garden', weightG: 1700 }, 0)
  write({ kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2, 3], totalG: 1500, weightSdG: 250, way: 'dehydrator' }, 0)
  write({ kind: 'heat', runId: 'r', setC: temperatureC }, 0)
  let first: { from: number; to: number } | undefined
  for (let hour = 0.66 * usualH, looks = 0; looks < 30; looks++, hour += Math.max(0.5, 0.12 * usualH)) {
    dryTo(hour)
    const cooled = careful || chance.uniform() < 0.3
    const pieces = rack.trays.slice(0, careful ? 3 : 1).map(tray =>
      feelOfPiece(food, card.feelForm, {
        x: tray.pieces[careful ? 2 : chance.integer(0, 2)]!.piece.x,
        celsius: (cooled ? 22 : temperatureC) + bias + 4 * chance.normal(),
      }),
    )
    write({ kind: 'feel', check: feelTogether(card.feelForm, pieces, cooled, pieces.length) }, hour)
    const { verdict, finish } = assess(foldBatch(log, findFood)!, MORNING + hour * HOUR)!
    first ??= { from: (finish.from - MORNING) / HOUR, to: (finish.to - MORNING) / HOUR }
    if (verdict.level !== 'rest') continue
    const over = rack.moisture - target
    dryTo(6 * usualH)
    return { over, late: hour / throughAt - 1, held: meanAt >= first.from && meanAt <= first.to }
  }
  dryTo(6 * usualH)
  return { held: meanAt >= first!.from && meanAt <= first!.to }
}

const kitchens = (from: number, count: number, who: Who) => Array.from({ length: count }, (_, i) => kitchen(from + i, who))
const share = <T>(items: readonly T[], is: (item: T) => boolean) => items.filter(is).length / items.length

describe('kitchens without a scale', () => {
  it.each<[string, number, Who]>([
    ['careful hands', 11_000, { handK: 10, careful: true, off: 0.35 }],
    ['hands whose snap is another’s leather', 12_000, { handK: 20, careful: true, off: 0.35 }],
    ['loads that the cards know little of', 13_000, { handK: 10, careful: true, off: 0.5 }],
  ])('%s: told dry is dry, and not much too late', (_, from, who) => {
    const all = kitchens(from, 32, who)
    const told = all.filter(({ over }) => over !== undefined)
    expect(told.length).toBeGreaterThan(0.9 * all.length)
    expect(share(told, ({ over }) => over! <= 0.01)).toBeGreaterThanOrEqual(0.95)
    expect(share(told, ({ over }) => over! > 0.02)).toBe(0)
    const late = told.flatMap(({ late: hours }) => (Number.isFinite(hours) && hours! > -1 ? [hours!] : []))
    expect(late.length).toBeGreaterThan(0.6 * told.length)
    expect(late.reduce((sum, hours) => sum + hours, 0) / late.length).toBeLessThan(0.3)
    expect(share(all, ({ held }) => held)).toBeGreaterThan(0.74)
  })

  it('hasty hands are never told that it may rest: one warm piece is no full test', () => {
    expect(kitchens(14_000, 6, { handK: 10, careful: false, off: 0.35 }).filter(({ over }) => over !== undefined)).toEqual([])
  })
})

describe('how likely what was felt is', () => {
  const beetroot = findFood('beetroot')!
  const felt = (bend: string, middle: string, more: { cooled?: boolean; places?: number } = {}) =>
    feltTable(beetroot, { form: 'pieces', answers: { bend, middle }, cooled: true, places: 3, ...more }, 57)!
  const step = (FELT_LN_X.to - FELT_LN_X.from) / (FELT_LN_X.count - 1)
  /** Water at which it is likeliest, of a hand without an error of its own. */
  const likeliest = (table: readonly (readonly number[])[]) => {
    const row = table[HAND_AT.indexOf(0)]!
    return Math.exp(FELT_LN_X.from + row.indexOf(Math.max(...row)) * step)
  }
  it('a snap is dry, leather wetter, soft and damp wet', () => {
    const [snap, leather, soft] = [felt('snaps', 'even'), felt('leathery', 'darker'), felt('soft', 'damp')].map(likeliest) as [
      number,
      number,
      number,
    ]
    expect(snap).toBeLessThan(0.07)
    expect(leather).toBeGreaterThan(snap)
    expect(soft).toBeGreaterThan(leather)
    expect(soft).toBeGreaterThan(0.3)
  })
  it('warm leather may be dry: it is softer for its warmth alone', () => {
    const at = (table: readonly (readonly number[])[], x: number) => table[2]![Math.round((Math.log(x) - FELT_LN_X.from) / step)]!
    const odds = (cooled: boolean) => at(felt('leathery', 'even', { cooled }), 0.05) - at(felt('leathery', 'even', { cooled }), 0.15)
    expect(odds(false)).toBeGreaterThan(odds(true))
  })
  it('of ice it says nothing: that has its own rounds', () => {
    expect(feltTable(beetroot, { form: 'foam', answers: { touch: 'chalky' }, cooled: true, places: 2 }, 20)).toBeUndefined()
  })
  it('moves the water like a weight does, and not at all where something was weighed', () => {
    const log = (bodies: [number, EntryBody][]) =>
      bodies.map(([hours, body], i): Entry => ({
        id: `f${i}`,
        seq: i + 1,
        at: MORNING + hours * HOUR,
        recordedAt: MORNING + hours * HOUR,
        body,
      }))
    const begun: [number, EntryBody][] = [
      [0, { kind: 'intake', foodKey: 'beetroot', cardKey: 'slices-3', purpose: 'powder', source: 'Garden', weightG: 2000 }],
      [0.1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2, 3], totalG: 1800 }],
      [0.1, { kind: 'heat', runId: 'r', setC: 57 }],
    ]
    const feel = (bend: string, middle: string): [number, EntryBody] => [
      8,
      { kind: 'feel', check: { form: 'pieces', answers: { bend, middle }, cooled: true, places: 3 } },
    ]
    const weigh: [number, EntryBody] = [7.9, { kind: 'weigh', totalG: 400 }]
    const water = (...more: [number, EntryBody][]) => waterOf(foldBatch(log([...begun, ...more]), findFood)!, MORNING + 8 * HOUR).moisture
    const [dry, none, wet] = [water(feel('snaps', 'even')), water(), water(feel('soft', 'damp'))]
    expect(dry.p50).toBeLessThan(none.p50)
    expect(wet.p50).toBeGreaterThan(none.p50)
    expect(dry.p90 - dry.p10).toBeLessThan(none.p90 - none.p10)
    expect(water(weigh, feel('soft', 'damp'))).toEqual(water(weigh))
  })
})
