import { fill } from '#core/errors'
import { changeBetween, insideOf, tryLoad, usualKnobs, type TryKnobs, type TryLoad } from '#core/tries'
import type { Food, Purpose } from '#core/foods'
import { assess, foldBatch } from '#core/batch'
import type { Entry, EntryBody } from '#core/log'
import { HOUR } from '#core/time'
import { heatOfRun } from '#core/water'
import { FOODS, findFood } from '../../support/foods'

const MACHINE = {
  id: 'rack',
  name: 'Tall rack',
  kind: 'dehydrator' as const,
  trays: 9,
  trayAreaM2: 0.1,
  watts: 600,
  lowC: 35,
  highC: 75,
  slowest: 0.8,
}
/** The log of a basket of a food that came in at six in the evening. */
const intakeOf = (food: Food, cardKey: string, purpose: Purpose = 'powder', weightG = 3200): Entry[] => [
  {
    id: 'in',
    seq: 1,
    at: EVENING,
    recordedAt: EVENING,
    body: { kind: 'intake', foodKey: food.key, cardKey, purpose, source: 'Garden', weightG },
  },
]
const EVENING = Date.UTC(2026, 5, 3, 18)
const BEETROOT = findFood('beetroot')!
const LOAD: TryLoad = {
  food: BEETROOT,
  log: intakeOf(BEETROOT, 'slices-6'),
  preparedG: 2500,
  machines: [MACHINE, { ...MACHINE, id: 'small', name: 'Small rack', trays: 3, watts: 300 }],
  startAt: EVENING,
  household: { timeZone: 'UTC', sleepFrom: 22.5 * 60, sleepTo: 6.5 * 60 },
}
/** A load of another food. */
const loadOf = (food: Food, cardKey: string): TryLoad => ({ ...LOAD, food, log: intakeOf(food, cardKey) })
const KNOBS = usualKnobs(LOAD, 'rack', 'slices-6')
const trying = (more: Partial<TryKnobs> = {}, load: Partial<TryLoad> = {}) => tryLoad({ ...LOAD, ...load }, { ...KNOBS, ...more })
const base = trying()

describe('taken out at a set hour', () => {
  const at = (stopH: number) => trying({ stopH })
  it('holds what is left then, and is dry as likely as its window says', () => {
    const [early, middle, late] = [at(base.finishH.p10), at(base.finishH.p50), at(base.finishH.p90)]
    expect(early.stopped!.dry).toBeCloseTo(0.1, 1)
    expect(middle.stopped!.dry).toBeCloseTo(0.5, 1)
    expect(late.stopped!.dry).toBeCloseTo(0.9, 1)
    expect(early.stopped!.water.p50).toBeGreaterThan(middle.stopped!.water.p50)
    expect(middle.stopped!.water.p50).toBeCloseTo(base.target, 2)
    expect(early.finishH).toEqual(base.finishH)
  })
  it('takes the power of those hours, and asks for some', () => {
    expect(at(2).kWh!).toBeLessThan(0.4 * base.kWh!)
    expect(() => at(0)).toThrow('stopH')
  })
})

describe('the inside of a piece, for the picture', () => {
  it('dries from its face, the thickest last, and ends within a tenth of the hours that the laws give', () => {
    const { frames, shape, isHeap } = insideOf(LOAD, KNOBS, base)
    expect({ shape, isHeap }).toEqual({ shape: 'slab', isHeap: false })
    expect(frames[0]!.hours).toBe(0)
    expect(frames.at(-1)!.hours).toBeCloseTo(base.finishH.p50, 6)
    const mean = (x: readonly number[]) => x.reduce((sum, value) => sum + value, 0) / x.length
    for (const [i, { middle, last }] of frames.entries()) {
      if (i === 0) continue
      expect(middle.at(-1)!).toBeLessThan(middle[0]!)
      expect(mean(last)).toBeGreaterThan(mean(middle))
      expect(mean(middle)).toBeLessThan(mean(frames[i - 1]!.middle))
    }
    const end = mean(frames.at(-1)!.middle)
    const target = base.target / (1 - base.target)
    const nearly = mean(insideOf(LOAD, KNOBS, { finishH: { ...base.finishH, p50: 0.9 * base.finishH.p50 } }).frames.at(-1)!.middle)
    expect(end).toBeLessThan(target)
    expect(nearly).toBeGreaterThan(0.6 * target)
  })
  it('of a heap is wettest at the bottom, and stands still in a night that it is off', () => {
    const knobs = { ...KNOBS, loadKgM2: 3 * KNOBS.loadKgM2 }
    const heap = insideOf(LOAD, knobs, trying(knobs))
    expect(heap.isHeap).toBe(true)
    const at = heap.frames[2]!
    expect(at.last[0]!).toBeGreaterThan(1.5 * at.middle[0]!)
    const off = insideOf(LOAD, { ...KNOBS, night: 'off' }, base).frames[2]!
    expect(off.middle[0]!).toBeGreaterThan(insideOf(LOAD, KNOBS, base).frames[2]!.middle[0]!)
  })
})

describe('what would come of a load', () => {
  it('as the card has it, ends within the card’s hours, and its curve falls', () => {
    expect(base.finishH.p10).toBeGreaterThan(10)
    expect(base.finishH.p90).toBeLessThan(24)
    expect(base.finishH.p10).toBeLessThan(base.finishH.p50)
    for (let i = 1; i < base.water.length; i++) expect(base.water[i]!.p50).toBeLessThanOrEqual(base.water[i - 1]!.p50 + 1e-6)
    expect(base.water[0]!.p50).toBeCloseTo(0.876, 1)
  })

  it.each<[string, Partial<TryKnobs>, 'sooner' | 'later']>([
    ['thinner', { thicknessMm: 4 }, 'sooner'],
    ['thicker', { thicknessMm: 9 }, 'later'],
    ['a little hotter', { setC: 61 }, 'sooner'],
    ['milder', { setC: 45 }, 'later'],
    ['fuller trays', { loadKgM2: 8 }, 'later'],
    ['a damp room', { room: { celsius: 20, humidity: 0.9 } }, 'later'],
    ['off at night', { night: 'off' }, 'later'],
    ['held warm at night', { night: 'warm' }, 'later'],
  ])('%s is %s', (_, knobs, when) => {
    const other = trying(knobs).finishH.p50
    if (when === 'sooner') expect(other).toBeLessThan(base.finishH.p50 - 0.2)
    else expect(other).toBeGreaterThan(base.finishH.p50 + 0.2)
  })

  it('off at night costs more hours than the night held warm', () => {
    expect(trying({ night: 'off' }).finishH.p50).toBeGreaterThan(trying({ night: 'warm' }).finishH.p50)
  })
  it('far too hot closes the outside of thick slices, which takes back part of what the heat gained', () => {
    const hot = trying({ setC: 75 })
    expect(hot.hardening).toBeGreaterThan(0.1)
    expect(hot.hardening).toBeLessThan(0.4)
    expect(trying({ setC: 61 }).hardening).toBe(0)
    expect(trying({ setC: 75, thicknessMm: 3 }).hardening).toBe(0)
  })
  it('has no cliff: a degree more is a little sooner or a little later', () => {
    const hours = Array.from({ length: 28 }, (_, i) => trying({ setC: 48 + i }).finishH.p50)
    for (let i = 1; i < hours.length; i++) expect(Math.abs(Math.log(hours[i]! / hours[i - 1]!))).toBeLessThan(0.08)
  })
  it('changing places brings the slowest nearer the others', () => {
    expect(trying({ rotate: true }).lastTrayH!).toBeLessThan(base.lastTrayH! - 1)
  })
  it('counts trays and loads by the machine', () => {
    expect(base).toMatchObject({ loads: 1 })
    expect(trying({ machineId: 'small' }).loads).toBeGreaterThan(1)
    expect(trying({}, { preparedG: 25_000, log: intakeOf(BEETROOT, 'slices-6', 'powder', 30_000) }).loads).toBeGreaterThan(5)
    // One place of nine is free: that tray now, the others together when it is theirs.
    expect(trying({}, { machines: [{ ...MACHINE, free: 1 }] }).loads).toBe(2)
    expect(trying({}, { machines: [{ ...MACHINE, free: 0 }] }).loads).toBe(1)
  })
  it('says never rather than a time where the air cannot', () => {
    const never = trying({ setC: 35, room: { celsius: 30, humidity: 0.95 } })
    expect(never.finishH.p50).toBe(Infinity)
    expect(never.reach.verdict).toBe('cannot')
    expect(never.lastTrayH).toBeUndefined()
    expect(never.kWh).toBeUndefined()
    // Slow is not never.
    const slow = trying({ thicknessMm: 15, setC: 45, room: { celsius: 20, humidity: 0.4 } })
    expect(slow.finishH.p50).toBeGreaterThan(35)
    expect(slow.finishH.p50).toBeLessThan(100)
    const wordsOf = (one: typeof slow, other: typeof slow) =>
      changeBetween(one, other, LOAD.machines)
        .so.map(({ template, quantities }) => fill(template, quantities))
        .join(', ')
    expect(wordsOf(base, never)).toMatch(/^not as dry as it should be/)
    expect(wordsOf(never, never)).toMatch(/^still not dry enough/)
    expect(wordsOf(never, base)).toMatch(/^it gets dry now/)
  })
  it('knows that perishable food stands where things grow in a mild heat, and others not', () => {
    const meat = FOODS.find(food => food.traits.includes('perishable') && food.cards[0]!.ways.some(way => way.way === 'dehydrator'))!
    const load = loadOf(meat, meat.cards[0]!.key)
    const knobs = { ...usualKnobs(load, 'rack', meat.cards[0]!.key), setC: 45 }
    expect(tryLoad(load, knobs).dangerH).toBeGreaterThan(1)
    expect(base.dangerH).toBeUndefined()
  })

  it('tells finite figures, or plainly never, for every food and cut with a machine that is warmed', () => {
    const strange = FOODS.flatMap(food =>
      food.cards.flatMap(card => {
        if (!card.ways.some(way => way.way === 'dehydrator')) return []
        const load = loadOf(food, card.key)
        const { finishH, kWh, trays, water: curve } = tryLoad(load, usualKnobs(load, 'rack', card.key))
        const good =
          finishH.p50 > 0 &&
          !Number.isNaN(finishH.p90) &&
          (kWh === undefined) === !Number.isFinite(finishH.p50) &&
          (kWh ?? 0) >= 0 &&
          trays >= 1 &&
          curve.every(point => point.p50 >= 0 && point.p50 <= 1)
        return good ? [] : [`${food.key} ${card.key}`]
      }),
    )
    expect(strange).toEqual([])
  })
  it('half as thick, hot, with little on the trays, every leaf dries on and only on', () => {
    const leaves = FOODS.flatMap(food =>
      food.cards
        .filter(card => card.feelForm === 'leaves' && card.ways.some(way => way.way === 'dehydrator'))
        .map(card => ({ food, card })),
    )
    expect(leaves.length).toBeGreaterThan(30)
    const strange = leaves.flatMap(({ food, card }) =>
      [
        { setC: 70, load: 1 },
        { setC: 75, load: 0.4 },
      ].flatMap(({ setC, load: share }) => {
        const load = loadOf(food, card.key)
        const usual = usualKnobs(load, 'rack', card.key)
        const { water: curve, finishH } = tryLoad(load, {
          ...usual,
          thicknessMm: usual.thicknessMm / 2,
          loadKgM2: Math.max(0.2, usual.loadKgM2 * share),
          setC,
        })
        const falls = curve.every(({ p50 }, i) => p50 >= 0 && p50 <= 1 && p50 <= (curve[i - 1]?.p50 ?? 1) + 1e-3)
        return falls && finishH.p50 > 0 && Number.isFinite(finishH.p50) ? [] : [`${food.key} ${card.key} ${setC}`]
      }),
    )
    expect(strange).toEqual([])
  })
  it('a cut that is chosen has its own hours, not those of the cut before', () => {
    const own = (hours: Record<string, { low: number; high: number; runs: number }>) =>
      tryLoad({ ...LOAD, machines: [{ ...MACHINE, usualHours: hours }] }, usualKnobs(LOAD, 'rack', 'slices-6')).finishH.p50
    expect(own({ 'slices-3': { low: 3, high: 5, runs: 2 } })).toBe(base.finishH.p50)
    expect(own({ 'slices-6': { low: 3, high: 5, runs: 2 } })).toBeLessThan(0.6 * base.finishH.p50)
  })
  it('less heat draws less power for each of its hours, and what never gets dry has no figure for it', () => {
    const perHour = ({ kWh, finishH }: typeof base) => kWh! / finishH.p50
    expect(perHour(trying({ setC: 47 })) / perHour(base)).toBeCloseTo(27 / 37, 1)
    const celery = findFood('celery')!
    const load = { ...loadOf(celery, celery.cards[0]!.key), preparedG: 2450 }
    const mild = tryLoad(load, { ...usualKnobs(load, 'rack', celery.cards[0]!.key), setC: 50 })
    expect(mild.kWh === undefined || mild.kWh < 25).toBe(true)
    expect(trying({ setC: 36, room: { celsius: 28, humidity: 0.9 } }).kWh).toBeUndefined()
  })
  it('counts the danger clock as the log does: kept hot, sour food free, twice as fast where it is warm', () => {
    const danger = (key: string, cut: string, setC: number) => {
      const food = findFood(key)!
      const load = loadOf(food, cut)
      return tryLoad(load, { ...usualKnobs(load, 'rack', cut), setC }).dangerH
    }
    const cooked = FOODS.flatMap(food =>
      food.cards
        .filter(card => card.steps.some(({ step }) => step === 'boil' || step === 'roast') && !food.traits.includes('perishable'))
        .map(card => ({ food, card })),
    )
    const sweet = cooked.find(({ food }) => food.group === 'root' || food.group === 'starchy')!
    expect(danger(sweet.food.key, sweet.card.key, 57)).toBe(0)
    expect(danger(sweet.food.key, sweet.card.key, 48)).toBeGreaterThan(2)
    expect(danger('apple', findFood('apple')!.cards[0]!.key, 48)).toBeUndefined()
  })
})

describe('a load that runs', () => {
  const at = (hours: number) => EVENING + hours * HOUR
  const bodies: [number, EntryBody][] = [
    [0.5, { kind: 'load', runId: 'r', machineId: 'rack', positions: [1, 2, 3, 4, 5, 6], totalG: 2500 }],
    [0.5, { kind: 'heat', runId: 'r', setC: 57 }],
    [5, { kind: 'weigh', totalG: 1450 }],
    [9, { kind: 'weigh', totalG: 820 }],
  ]
  const log = [
    ...LOAD.log,
    ...bodies.map(([hours, body], i): Entry => ({ id: `r${i}`, seq: i + 2, at: at(hours), recordedAt: at(hours), body })),
  ]
  const load: TryLoad = { ...LOAD, log, startAt: at(10), running: { setC: 57, onC: 57 } }
  const knobs = usualKnobs(load, 'rack', 'slices-6')
  const { estimate, finish } = assess(
    foldBatch(log, () => BEETROOT)!,
    at(10),
  )!

  it('left alone ends when its page says, to the minute', () => {
    const { finishH } = tryLoad(load, knobs)
    expect(at(10) + finishH.p10 * HOUR).toBeCloseTo(finish.from, 3)
    expect(at(10) + finishH.p50 * HOUR).toBeCloseTo(finish.middle, 3)
    expect(at(10) + finishH.p90 * HOUR).toBeCloseTo(finish.to, 3)
  })
  it('turned hotter ends when its page would say once the heat is logged', () => {
    const turned = [...log, { id: 'h', seq: 99, at: at(10), recordedAt: at(10), body: { kind: 'heat', runId: 'r', setC: 65 } } as Entry]
    const then = assess(
      foldBatch(turned, () => BEETROOT)!,
      at(10),
    )!.finish
    const { finishH } = tryLoad(load, { ...knobs, setC: 65 })
    expect(at(10) + finishH.p50 * HOUR).toBeCloseTo(then.middle, 3)
    expect(then.middle).toBeLessThan(finish.middle)
  })
  it('off at night ends by day, later', () => {
    const off = tryLoad({ ...load, startAt: at(10) }, { ...knobs, night: 'off' })
    expect(off.finishH.p50).toBeGreaterThan(tryLoad(load, knobs).finishH.p50 + 1)
    expect(off.endsAtNight).toBe(false)
  })
  it('switched off, is put on again at the heat that it had', () => {
    const off = foldBatch(
      [...log, { id: 'h', seq: 99, at: at(10), recordedAt: at(10), body: { kind: 'heat', runId: 'r', setC: null } }],
      () => BEETROOT,
    )!
    expect(heatOfRun(off.run!)).toBe(57)
    expect(heatOfRun({ ...off.run!, clock: { ...off.run!.clock, spells: [{ from: 0, to: 1, setC: 63 }] } })).toBe(63)
  })
  it('draws water from what it is now', () => {
    expect(tryLoad({ ...load, startAt: at(9) }, knobs).water[0]!.p50).toBeCloseTo(estimate.moistureNow.p50, 2)
  })
})

describe('what a turn of a knob changed, in words', () => {
  const said = (more: Partial<TryKnobs>) => {
    const { what, so } = changeBetween(base, trying(more), LOAD.machines)
    const words = (list: typeof what) => list.map(({ template, quantities }) => fill(template, quantities)).join(', ')
    return `${words(what)}: ${words(so)}`
  }
  it('names the knob and what it does', () => {
    expect(said({ thicknessMm: 4, loadKgM2: (KNOBS.loadKgM2 * 4) / 6 })).toMatch(
      /^2 mm thinner: [\d.]+ h sooner, \w+ trays more, [\d.]+ kWh less/,
    )
    expect(said({ night: 'off' })).toMatch(/^off at night: [\d.]+ h later/)
    expect(said({ loadKgM2: 8 })).toMatch(/fuller trays: [\d.]+ h later, .* trays? fewer/)
    expect(said({ machineId: 'small' })).toMatch(/^in Small rack: .*in \d+ loads/)
    expect(said({ setC: 75 })).toMatch(/outside may close/)
  })
  it('is silent where nothing was turned', () => {
    expect(said({})).toBe(': ')
  })
})

describe('knobs turned too far', () => {
  it.each<[Partial<TryKnobs>, RegExp]>([
    [{ thicknessMm: -2 }, /between 0.5 and 60 mm/],
    [{ setC: 400 }, /35 to 75/],
    [{ setC: NaN }, /35 to 75/],
    [{ loadKgM2: 0 }, /0.05 to 40/],
    [{ room: { celsius: 20, humidity: 1.4 } }, /between 5 and 98/],
    [{ machineId: 'none' }, /no such machine/],
  ])('%j is refused in words', (knobs, words) => {
    expect(() => trying(knobs)).toThrow(words)
  })
  it('nothing to dry is refused', () => {
    expect(() => trying({}, { preparedG: 0 })).toThrow(/above zero/)
  })
})
