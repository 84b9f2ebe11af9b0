import { fill } from '#core/errors'
import { changeBetween, tryLoad, usualKnobs, type TryKnobs, type TryLoad } from '#core/tries'
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
const LOAD: TryLoad = {
  food: findFood('beetroot')!,
  purpose: 'powder',
  preparedG: 2500,
  solids: { mean: 0.124, sd: 0.012 },
  machines: [MACHINE, { ...MACHINE, id: 'small', name: 'Small rack', trays: 3, watts: 300 }],
  startHour: 18,
  sleep: { from: 22.5, to: 6.5 },
}
const KNOBS = usualKnobs(LOAD, 'rack', 'slices-6')
const trying = (more: Partial<TryKnobs> = {}, load: Partial<TryLoad> = {}) => tryLoad({ ...LOAD, ...load }, { ...KNOBS, ...more })
const base = trying()

describe('what would come of a load', () => {
  it('as the card has it, ends within the card’s hours, and its curve falls', () => {
    expect(base.finishH.p10).toBeGreaterThan(10)
    expect(base.finishH.p90).toBeLessThan(24)
    expect(base.finishH.p10).toBeLessThan(base.finishH.p50)
    for (let i = 1; i < base.water.length; i++) expect(base.water[i]!.p50).toBeLessThanOrEqual(base.water[i - 1]!.p50 + 1e-6)
    expect(base.water[0]!.p50).toBeCloseTo(0.876, 2)
  })

  it.each<[string, Partial<TryKnobs>, 'sooner' | 'later']>([
    ['thinner', { thicknessMm: 4 }, 'sooner'],
    ['thicker', { thicknessMm: 9 }, 'later'],
    ['a little hotter', { setC: 61 }, 'sooner'],
    ['milder', { setC: 45 }, 'later'],
    ['fuller trays', { loadKgM2: 8 }, 'later'],
    ['a damp room', { room: { celsius: 20, humidity: 0.9 } }, 'later'],
    ['less draught', { fan: 0.5 }, 'later'],
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
  it('far too hot closes the outside of thick slices, which takes back part of what the heat gained, and makes it less sure', () => {
    const hot = trying({ setC: 75 })
    expect(hot.hardening).toBeGreaterThan(0.1)
    expect(hot.hardening).toBeLessThan(0.4)
    expect(trying({ setC: 61 }).hardening).toBe(0)
    expect(trying({ setC: 75, thicknessMm: 3 }).hardening).toBe(0)
    const spread = ({ finishH }: typeof hot) => finishH.p90 / finishH.p10
    expect(spread(hot)).toBeGreaterThan(1.05 * spread(base))
  })
  it('has no cliff: a degree more is a little sooner or a little later', () => {
    const hours = Array.from({ length: 36 }, (_, i) => trying({ setC: 40 + i }).finishH.p50)
    for (let i = 1; i < hours.length; i++) expect(Math.abs(Math.log(hours[i]! / hours[i - 1]!))).toBeLessThan(0.08)
  })
  it('changing places brings the slowest nearer the others', () => {
    expect(trying({ rotate: true }).lastTrayH!).toBeLessThan(base.lastTrayH! - 1)
  })
  it('counts trays and loads by the machine', () => {
    expect(base).toMatchObject({ loads: 1 })
    expect(trying({ machineId: 'small' }).loads).toBeGreaterThan(1)
    expect(trying({}, { preparedG: 25_000 }).loads).toBeGreaterThan(5)
    // One place of nine is free: that tray now, the others together when it is theirs.
    expect(trying({}, { machines: [{ ...MACHINE, free: 1 }] }).loads).toBe(2)
    expect(trying({}, { machines: [{ ...MACHINE, free: 0 }] }).loads).toBe(1)
  })
  it('says never rather than a time where the air cannot', () => {
    const never = trying({ setC: 35, room: { celsius: 30, humidity: 0.95 } })
    expect(never.finishH.p50).toBe(Infinity)
    expect(never.lowest).toBeGreaterThan(never.target)
    // Slow is not never: it says how far it was tried.
    const slow = trying({ thicknessMm: 15, night: 'off', fan: 0.3, setC: 45 })
    expect(slow.finishH.p90).toBe(Infinity)
    expect(slow.lowest).toBeLessThan(slow.target)
    expect(slow.horizonH).toBeGreaterThan(150)
    expect(slow.lastTrayH).toBeUndefined()
    const wordsOf = (one: typeof slow, other: typeof slow) =>
      changeBetween(one, other, LOAD.machines)
        .so.map(({ template, quantities }) => fill(template, quantities))
        .join(', ')
    expect(wordsOf(base, slow)).toMatch(/^not dry within \d+ h/)
    expect(wordsOf(slow, slow)).toMatch(/^still not dry within \d+ h$/)
    expect(wordsOf(slow, never)).toMatch(/^still never dry enough/)
    expect(wordsOf(base, never)).toMatch(/^never as dry as it should be/)
    expect(wordsOf(base, never)).not.toContain('kWh')
  })
  it('knows that perishable food stands where things grow in a mild heat, and others not', () => {
    const meat = FOODS.find(food => food.traits.includes('perishable') && food.cards[0]!.ways.some(way => way.way === 'dehydrator'))!
    const load = { ...LOAD, food: meat, solids: { mean: 0.35, sd: 0.02 } }
    const knobs = { ...usualKnobs(load, 'rack', meat.cards[0]!.key), setC: 45 }
    expect(tryLoad(load, knobs).dangerH).toBeGreaterThan(1)
    expect(base.dangerH).toBeUndefined()
  })

  it('tells finite figures, or plainly never, for every food and cut with a machine that is warmed', () => {
    const strange = FOODS.flatMap(food =>
      food.cards.flatMap(card => {
        if (!card.ways.some(way => way.way === 'dehydrator')) return []
        const water = (card.moisture ?? food.rawMoisture).value
        const load = { ...LOAD, food, solids: { mean: 1 - water.mean, sd: water.sd } }
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
  it('half as thick, hot, with much draught and little on the trays, every leaf dries on and only on', () => {
    const leaves = FOODS.flatMap(food =>
      food.cards
        .filter(card => card.feelForm === 'leaves' && card.ways.some(way => way.way === 'dehydrator'))
        .map(card => ({ food, card })),
    )
    expect(leaves.length).toBeGreaterThan(30)
    const strange = leaves.flatMap(({ food, card }) =>
      [
        { setC: 70, fan: 1, load: 1 },
        { setC: 75, fan: 2, load: 0.4 },
      ].flatMap(({ setC, fan, load: share }) => {
        const water = (card.moisture ?? food.rawMoisture).value
        const load = { ...LOAD, food, solids: { mean: 1 - water.mean, sd: water.sd } }
        const usual = usualKnobs(load, 'rack', card.key)
        const { water: curve, finishH } = tryLoad(load, {
          ...usual,
          thicknessMm: usual.thicknessMm / 2,
          loadKgM2: Math.max(0.2, usual.loadKgM2 * share),
          setC,
          fan,
        })
        const falls = curve.every(({ p50 }, i) => p50 >= 0 && p50 <= 1 && p50 <= (curve[i - 1]?.p50 ?? 1) + 1e-3)
        return falls && finishH.p50 > 0 && Number.isFinite(finishH.p50) ? [] : [`${food.key} ${card.key} ${setC}`]
      }),
    )
    expect(strange).toEqual([])
  })
  it('a cut that is chosen has its own hours, not those of the cut before', () => {
    const own = (hours: Record<string, { low: number; high: number }>) =>
      tryLoad({ ...LOAD, machines: [{ ...MACHINE, usualHours: hours }] }, usualKnobs(LOAD, 'rack', 'slices-6')).finishH.p50
    expect(own({ 'slices-3': { low: 3, high: 5 } })).toBe(base.finishH.p50)
    expect(own({ 'slices-6': { low: 3, high: 5 } })).toBeLessThan(0.6 * base.finishH.p50)
  })
  it('less heat draws less power for each of its hours, and what never gets dry has no figure for it', () => {
    const perHour = ({ kWh, finishH }: typeof base) => kWh! / finishH.p50
    expect(perHour(trying({ setC: 47 })) / perHour(base)).toBeCloseTo(27 / 37, 1)
    const celery = findFood('celery')!
    const load = { ...LOAD, food: celery, preparedG: 2450, solids: { mean: 0.046, sd: 0.006 } }
    const mild = tryLoad(load, { ...usualKnobs(load, 'rack', celery.cards[0]!.key), setC: 50 })
    expect(mild.kWh === undefined || mild.kWh < 25).toBe(true)
    expect(trying({ setC: 36, room: { celsius: 28, humidity: 0.9 } }).kWh).toBeUndefined()
  })
  it('counts the danger clock as the log does: kept hot, sour food free, twice as fast where it is warm', () => {
    const danger = (key: string, cut: string, setC: number) => {
      const food = findFood(key)!
      const load = { ...LOAD, food, solids: { mean: 0.1, sd: 0.01 } }
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
  const running = { moistureNow: { p10: 0.3, p50: 0.36, p90: 0.42 }, hoursToTarget: { p10: 4, p50: 5.2, p90: 7 }, setC: 57, weightG: 500 }
  const load = { ...LOAD, running, startHour: 12 }
  const knobs = usualKnobs(load, 'rack', 'slices-6')

  it('left alone ends when the estimator says, and is as wet now as it says', () => {
    const { finishH, water } = tryLoad(load, knobs)
    expect(finishH.p50).toBeCloseTo(5.2, 0)
    expect(finishH.p10).toBeCloseTo(4, 0)
    expect(finishH.p90).toBeCloseTo(7, 0)
    expect(water[0]!.p50).toBeCloseTo(0.36, 1)
  })
  it('hotter is sooner from where it stands', () => {
    expect(tryLoad(load, { ...knobs, setC: 65 }).finishH.p50).toBeLessThan(4.6)
  })
  it('that may never be dry says so', () => {
    const never = { ...load, running: { ...running, hoursToTarget: { p10: 9, p50: Infinity, p90: Infinity } } }
    expect(tryLoad(never, knobs).finishH.p90).toBeGreaterThan(20)
  })
})

describe('what a turn of a knob changed, in words', () => {
  const said = (more: Partial<TryKnobs>) => {
    const { what, so } = changeBetween(base, trying(more), LOAD.machines)
    const words = (list: typeof what) => list.map(({ template, quantities }) => fill(template, quantities)).join(', ')
    return `${words(what)}: ${words(so)}`
  }
  it('names the knob and what it does', () => {
    expect(said({ thicknessMm: 4 })).toMatch(/^2 mm thinner: [\d.]+ h sooner, [\d.]+ kWh less/)
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
    [{ fan: 9 }, /draught/],
    [{ room: { celsius: 20, humidity: 1.4 } }, /between 5 and 98/],
    [{ machineId: 'none' }, /no such machine/],
  ])('%j is refused in words', (knobs, words) => {
    expect(() => trying(knobs)).toThrow(words)
  })
  it('nothing to dry is refused', () => {
    expect(() => trying({}, { preparedG: 0 })).toThrow(/above zero/)
  })
})
