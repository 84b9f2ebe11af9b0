import fc from 'fast-check'
import { type EntryBody, moistureOf, type FindLot, type JarItem } from '#core/log'
import { checkJars, contentOf, jarBest, jarDamp, replayJars } from '#core/jars'
import { bestByDates, bestByWindow, PANTRY_HUMIDITY } from '#core/keeping'
import { InputError } from '#core/errors'
import { DAY, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const lot = (moisture = 0.05, foodKey = 'beetroot', purpose: 'powder' | 'pieces' = 'powder') => ({
  food: findFood(foodKey)!,
  purpose,
  rested: true,
  moisture,
})
const LOTS: Record<string, ReturnType<typeof lot>> = { a: lot(), b: lot(0.06), damp: lot(0.09), dry: lot(0.03), onion: lot(0.05, 'onion') }
const find: FindLot = batchId => LOTS[batchId]

/** Entries by day, with the batch in whose log they stand where they have one. */
const items = (...list: [day: number, body: EntryBody, batchId?: string][]): JarItem[] =>
  list.map(([day, body, batchId], i) => ({
    id: `e${i}`,
    seq: i + 1,
    at: MORNING + day * DAY,
    recordedAt: MORNING + day * DAY,
    body,
    batchId,
  }))
const pack = (jarId: string, netG: number, more: Partial<Extract<EntryBody, { kind: 'pack' }>> = {}): EntryBody => ({
  kind: 'pack',
  jarId,
  netG,
  packageKey: 'screw-jar',
  place: 'Board',
  ...more,
})
const fill = (jarId: string, from: { jarId: string; weightG: number }[], more: object = {}): EntryBody => ({
  kind: 'fill',
  jarId,
  from,
  packageKey: 'screw-jar',
  place: 'Door',
  ...more,
})
const take = (jarId: string, weightG: number): EntryBody => ({ kind: 'take', jarId, weightG })
const pour = (jarId: string, from: string, weightG: number): EntryBody => ({ kind: 'pour', jarId, from: { jarId: from, weightG } })

const replay = (...list: Parameters<typeof items>) => replayJars(items(...list), find)

/** What the rules say of one more entry: the fields refused. */
function refusals(log: JarItem[], day: number, body: EntryBody, batchId?: string, replaces?: string): Record<string, string> {
  const entry: JarItem = { id: 'new', seq: 1e9, at: MORNING + day * DAY, recordedAt: MORNING + day * DAY, body, batchId, replaces }
  try {
    checkJars(log, entry, { now: MORNING + 400 * DAY, find })
    return {}
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return Object.fromEntries(error.problems.map(problem => [problem.field, problem.message]))
  }
}

describe('jars followed through their log', () => {
  it('give what was packed, less what was taken', () => {
    const { jars, uses } = replay([0, pack('j', 100), 'a'], [5, take('j', 30)], [9, take('j', 20)])
    expect(jars.get('j')).toMatchObject({ inG: 100, leftG: 50, packedAt: MORNING, foodKey: 'beetroot', purpose: 'powder' })
    expect(uses.map(use => use.grams)).toEqual([30, 20])
  })
  it('lose their parts in proportion, whatever was poured and split', () => {
    const { jars } = replay(
      [0, pack('j', 90), 'a'],
      [1, pack('j', 30, { topUp: true }), 'dry'],
      [2, take('j', 40)],
      [3, fill('k', [{ jarId: 'j', weightG: 20 }])],
    )
    expect(jars.get('j')!.parts.map(part => [part.lotId, Math.round(1e6 * part.grams) / 1e6])).toEqual([
      ['a', 45],
      ['dry', 15],
    ])
    expect(jars.get('k')!.parts.map(part => [part.lotId, Math.round(1e6 * part.grams) / 1e6])).toEqual([
      ['a', 15],
      ['dry', 5],
    ])
  })
  it('a correction counts in the place of what it corrects, a voided one not at all', () => {
    const log = items([0, pack('j', 100), 'a'], [5, take('j', 30)], [6, take('j', 10)])
    const more: JarItem[] = [
      { ...log[1]!, id: 'c', seq: 9, replaces: 'e1', body: take('j', 3) },
      { ...log[2]!, id: 'v', seq: 10, body: { kind: 'void', target: 'e2' } },
    ]
    expect(replayJars([...log, ...more], find).jars.get('j')!.leftG).toBe(97)
  })
  it('old powder that seeds a round goes along into the new jar', () => {
    const { jars } = replay(
      [0, pack('old', 50), 'a'],
      [30, { kind: 'grind', dryInG: 90, powderOutG: 100, seed: { jarId: 'old', weightG: 20 } }, 'b'],
      [30, pack('new', 50), 'b'],
    )
    expect(jars.get('old')!.leftG).toBe(30)
    expect(jars.get('new')!.parts.map(part => [part.lotId, Math.round(part.grams)])).toEqual([
      ['b', 40],
      ['a', 10],
    ])
    expect(jarBest(jars.get('new')!, find, { celsius: 20 }).oldestAt).toBe(MORNING)
  })
  it('what is begun again from jars keeps the baskets it came from', () => {
    const again: EntryBody = {
      kind: 'intake',
      foodKey: 'beetroot',
      source: 'Shelf',
      weightG: 40,
      purpose: 'powder',
      cardKey: 'slices-3',
      fromJars: [{ jarId: 'old', weightG: 40 }],
    }
    const { jars } = replay(
      [0, pack('old', 50), 'a'],
      [60, again, 'b'],
      [61, { kind: 'grind', dryInG: 40, powderOutG: 38 }, 'b'],
      [61, pack('new', 38), 'b'],
    )
    expect([...jars.get('new')!.ever.keys()]).toEqual(['a'])
    expect(jars.get('old')!.leftG).toBe(10)
  })
  it('what is mixed in weighs, is drawn down with the rest, and goes along', () => {
    const { jars } = replay(
      [0, pack('j', 96, { mixed: { starchG: 3, saltG: 1 } }), 'a'],
      [1, take('j', 50)],
      [2, fill('k', [{ jarId: 'j', weightG: 25 }])],
    )
    expect(jars.get('j')).toMatchObject({ leftG: 25, mixed: { starchG: 0.75, saltG: 0.25 } })
    expect(jars.get('k')!.mixed).toEqual({ starchG: 0.75, saltG: 0.25 })
  })

  it('keep mass through every split, pour and draw, part by part (property)', () => {
    const step = fc.record({
      kind: fc.constantFrom('pack', 'topUp', 'take', 'pour', 'fill', 'discard', 'move', 'seed'),
      jar: fc.nat(4),
      other: fc.nat(4),
      grams: fc.double({ min: 0.1, max: 150, noNaN: true }),
      lot: fc.constantFrom('a', 'b', 'dry'),
    })
    let made = 0
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), steps => {
        const log = items([-1, pack('j0', 120), 'a'])
        const names = ['j0']
        let packedG = 120
        let takenG = 0
        let thrownG = 0
        let seededG = 0
        steps.forEach((one, i) => {
          const jarId = names[one.jar % names.length]!
          const other = names[one.other % names.length]!
          const body = (
            {
              pack: () => pack(`p${i}`, one.grams),
              topUp: () => pack(jarId, one.grams, { topUp: true }),
              take: () => take(jarId, one.grams),
              pour: () => pour(jarId, other, one.grams),
              fill: () => fill(`f${i}`, [{ jarId, weightG: one.grams }]),
              discard: () => ({ kind: 'discard', jarId, cause: 'Old' }),
              move: () => ({ kind: 'moveJar', jarId, place: 'Cellar', storageC: 8 }),
              seed: () => ({ kind: 'grind', dryInG: 50, powderOutG: 50, seed: { jarId, weightG: one.grams } }),
            } satisfies Record<string, () => EntryBody>
          )[one.kind]() as EntryBody
          const inBatch = ['pack', 'topUp', 'seed'].includes(one.kind)
          const entry: JarItem = {
            id: `s${i}`,
            seq: i + 2,
            at: MORNING + i * DAY,
            recordedAt: MORNING + i * DAY,
            body,
            batchId: inBatch ? one.lot : undefined,
          }
          try {
            checkJars(log, entry, { now: MORNING + 400 * DAY, find })
          } catch {
            return
          }
          const before = replayJars(log, find).jars.get(jarId)?.leftG ?? 0
          log.push(entry)
          made++
          if (body.kind === 'pack') packedG += body.netG
          if (body.kind === 'take') takenG += Math.min(body.weightG, before)
          if (body.kind === 'discard') thrownG += before
          if (body.kind === 'grind') seededG += Math.min(body.seed!.weightG, before)
          if (body.kind === 'pack' || body.kind === 'fill') names.push(body.jarId)
        })
        const { jars, uses } = replayJars(log, find, true)
        const leftG = [...jars.values()].reduce((sum, jar) => sum + jar.leftG, 0)
        expect(leftG + takenG + thrownG + seededG).toBeCloseTo(packedG, 6)
        expect(uses.reduce((sum, use) => sum + use.grams, 0)).toBeCloseTo(takenG, 6)
        for (const jar of jars.values()) {
          expect(jar.parts.reduce((sum, part) => sum + part.grams, 0)).toBeCloseTo(jar.leftG, 6)
          for (const part of jar.parts) expect(part.grams).toBeGreaterThanOrEqual(0)
        }
      }),
      { numRuns: 600 },
    )
    // Most steps must have been possible, or the law was tried on nothing.
    expect(made).toBeGreaterThan(1000)
  })
})

describe('the age of a jar', () => {
  const window = bestByWindow({ food: findFood('beetroot')!, purpose: 'powder', packageKey: 'screw-jar', rested: true })
  it('of one basket runs from its packing', () => {
    const jar = replay([0, pack('j', 100), 'a']).jars.get('j')!
    expect(jarBest(jar, find, { celsius: 20 })).toMatchObject({ ...bestByDates(MORNING, window), limit: 'fading', oldestAt: MORNING })
  })
  it('is that of its oldest part, however much fresh is poured on', () => {
    const alone = jarBest(replay([0, pack('j', 100), 'a']).jars.get('j')!, find, { celsius: 20 })
    const topped = jarBest(replay([0, pack('j', 10), 'a'], [100, pack('j', 500, { topUp: true }), 'dry']).jars.get('j')!, find, {
      celsius: 20,
    })
    expect(topped.to).toBe(alone.to)
    expect(topped.reason).toMatch(/^As old as its oldest part/)
  })
  it('goes along when it is split, and slower in the cold from the day it is moved there', () => {
    const { jars } = replay(
      [0, pack('j', 100), 'a'],
      [90, fill('k', [{ jarId: 'j', weightG: 40 }])],
      [120, { kind: 'moveJar', jarId: 'j', place: 'Cellar', storageC: 8 }],
    )
    const [warm, cold] = [jarBest(jars.get('k')!, find, { celsius: 20 }), jarBest(jars.get('j')!, find, { celsius: 20 })]
    expect(warm.oldestAt).toBe(MORNING)
    // What a split brings from its first jar is counted by the middle of its window.
    expect(Math.abs(warm.to - bestByDates(MORNING, window).to) / DAY).toBeLessThan(60)
    expect(cold.to).toBeGreaterThan(warm.to + 100 * DAY)
  })
  it('ends sooner where damp comes first, and the reason says so', () => {
    const at = (packageKey: 'screw-jar' | 'bag') =>
      jarBest(replay([0, pack('j', 40, { packageKey }), 'onion']).jars.get('j')!, find, { celsius: 22 })
    expect(at('screw-jar').limit).toBe('fading')
    expect(at('bag')).toMatchObject({ limit: 'damp', reason: expect.stringContaining('Damp comes first') })
  })
  it('ends sooner in damp air than in dry, where its lid lets it in', () => {
    const jar = replay([0, pack('j', 40, { packageKey: 'plastic-lid' }), 'onion']).jars.get('j')!
    const days = (humidity?: number) => jarDamp(jar, find, { celsius: 20, humidity })!.daysToClump
    expect(days(0.75)).toBeLessThan(0.8 * days(0.5))
    expect(days()).toBe(days(PANTRY_HUMIDITY))
    // Air drier than what clumps it never does.
    expect(days(0.3)).toBe(Infinity)
  })
  it('a lid that was measured goes by its own figure', () => {
    const days = (leakGDayKPa: number) =>
      jarDamp(replay([0, pack('j', 100, { packageKey: 'other', leakGDayKPa }), 'a']).jars.get('j')!, find, { celsius: 20 })!.daysToClump
    expect(days(0.002)).toBeGreaterThan(5 * days(0.02))
  })
})

describe('what is in a jar', () => {
  const raw: FindLot = batchId => (batchId === 'raw' ? { ...lot(), raw: true } : LOTS[batchId])
  const content = (...list: Parameters<typeof items>) => contentOf(replayJars(items(...list), raw).jars.get('j')!, raw)
  it('is raw where any part of it is', () => {
    expect(content([0, pack('j', 50), 'a']).raw).toBeFalsy()
    expect(content([0, pack('j', 50), 'a'], [1, pack('j', 10, { topUp: true }), 'raw']).raw).toBe(true)
    expect(content([0, pack('j', 50), 'raw']).raw).toBe(true)
  })
  it('of an empty one is what was in it, and its time is told as it was', () => {
    const full = replay([0, pack('j', 50), 'a'], [1, pack('j', 10, { topUp: true }), 'onion']).jars.get('j')!
    const empty = replay([0, pack('j', 50), 'a'], [1, pack('j', 10, { topUp: true }), 'onion'], [9, take('j', 60)]).jars.get('j')!
    expect(empty.leftG).toBe(0)
    expect(contentOf(empty, find).allergens).toEqual(contentOf(full, find).allergens)
    expect(jarBest(empty, find, { celsius: 20 })).toMatchObject({ oldestAt: MORNING, reason: expect.stringMatching(/^As old as/) })
  })
  it('a part that was used up before another was filled in counts no more', () => {
    const jar = replay([0, pack('j', 50), 'a'], [9, take('j', 50)], [300, pack('j', 40, { topUp: true }), 'b']).jars.get('j')!
    const { oldestAt, reason } = jarBest(jar, find, { celsius: 20 })
    expect(oldestAt).toBe(MORNING + 300 * DAY)
    expect(reason).not.toMatch(/oldest part/)
  })
  it('is as hot and as salt as its parts by weight, and as coarse as its coarsest', () => {
    const cayenne = findFood('cayenne')!
    const lots: Record<string, NonNullable<ReturnType<FindLot>>> = {
      hot: { ...lot(), food: cayenne, moisture: 0.05, sievedUm: 300 },
      mild: { ...lot(), sievedUm: 500 },
      whole: lot(),
      brined: { ...lot(), saltShare: 0.2, sievedUm: 300 },
    }
    const of = (...parts: [string, number][]) => {
      const log = parts.map(([batchId, grams], i): [number, EntryBody, string] => [i, pack('j', grams, { topUp: i > 0 }), batchId])
      return contentOf(replayJars(items(...log), id => lots[id]).jars.get('j')!, id => lots[id])
    }
    const { low, high } = cayenne.heatUnits!.value
    const mixed = of(['hot', 30], ['mild', 60])
    expect(mixed.heat!.low).toBeCloseTo(low / 3, 6)
    expect(mixed.heat!.high).toBeCloseTo(high / 3, 6)
    expect(mixed.sievedUm).toBe(500)
    expect(mixed.saltShare).toBe(0)
    expect(of(['mild', 60]).heat).toBeUndefined()
    expect(of(['mild', 60], ['whole', 1]).sievedUm).toBeUndefined()
    expect(of(['mild', 40], ['brined', 60]).saltShare).toBeCloseTo(0.12, 9)
  })
  it('lies as its parts lie, by volume; weighed by the spoon, as it was weighed', () => {
    const jar = replay([0, pack('j', 50), 'a'], [1, pack('j', 10, { topUp: true }), 'onion']).jars.get('j')!
    const [a, b] = ['beetroot', 'onion'].map(key => findFood(key)!.powderDensity.value.mean) as [number, number]
    const { densityGMl, measured } = contentOf(jar, find)
    expect(densityGMl.p50).toBeCloseTo(60 / (50 / a + 10 / b), 9)
    expect(densityGMl.p90).toBeGreaterThan(1.05 * densityGMl.p50)
    expect(measured).toBe(false)
    const weighed = contentOf({ ...jar, densityGMl: 0.5 }, find)
    expect(weighed).toMatchObject({ measured: true, densityGMl: { p50: 0.5 } })
    expect(weighed.densityGMl.p90).toBeCloseTo(0.5 + 1.2816 * 0.03 * 0.5, 4)
    // Flakes lie looser.
    expect(contentOf({ ...jar, purpose: 'flakes' }, find).densityGMl.p50).toBeCloseTo(0.6 * densityGMl.p50, 9)
    // Nothing known of it lies as powder does.
    expect(contentOf(jar, () => undefined).densityGMl.p50).toBe(0.5)
  })
  it('what was used up before is in it no more', () => {
    const celery = findFood('celery')!
    const lots: Record<string, NonNullable<ReturnType<FindLot>>> = { a: { ...lot(), food: celery, raw: true }, b: lot() }
    const log = items([0, pack('j', 50), 'a'], [9, take('j', 50)], [10, pack('j', 40, { topUp: true }), 'b'])
    const content = contentOf(replayJars(log, id => lots[id]).jars.get('j')!, id => lots[id])
    expect(content.raw).toBeFalsy()
    expect(content.allergens).toEqual(findFood('beetroot')!.allergens)
    expect(celery.allergens).not.toEqual(findFood('beetroot')!.allergens)
  })
  it('two portions of one basket are one part: as old as the older, as damp as their mean', () => {
    const jar = replay([0, pack('j', 30), 'a'], [50, pack('j', 10, { topUp: true, moisture: 0.03 }), 'a']).jars.get('j')!
    expect(jar.parts).toHaveLength(1)
    expect(jar.parts[0]).toMatchObject({ lotId: 'a', grams: 40, packedAt: MORNING })
    expect(jar.parts[0]!.moisture).toBeCloseTo((30 * 0.05 + 10 * 0.03) / 40, 12)
    expect(jar.ever.get('a')).toBe(40)
    expect(replay([0, pack('j', 30), 'a'], [50, pack('j', 10, { topUp: true }), 'b']).jars.get('j')!.parts).toHaveLength(2)
  })
  it('damp is told by what it does to the form, and not where the air never brings it there', () => {
    const best = (purpose: 'powder' | 'pieces', humidity: number) => {
      const lots: FindLot = () => lot(0.03, 'onion', purpose)
      const jar = replayJars(items([0, pack('j', 20, { packageKey: 'bag' }), 'x']), lots).jars.get('j')!
      return jarBest(jar, lots, { celsius: 25, humidity })
    }
    expect(best('powder', 0.7)).toMatchObject({
      limit: 'damp',
      reason: expect.stringMatching(/ Damp comes first: by then its package has let in enough to clump it\.$/),
    })
    expect(best('pieces', 0.85)).toMatchObject({
      limit: 'damp',
      reason: expect.stringMatching(/ Damp comes first: by then its package has let in enough to let mould grow\.$/),
    })
    expect(best('powder', 0.35).limit).toBe('fading')
    expect(best('powder', 0.7).to).toBeLessThan(best('powder', 0.35).to)
  })
  it('of which nobody knows anything has no time', () => {
    const jar = replay([0, pack('j', 50), 'a']).jars.get('j')!
    expect(jarBest(jar, () => undefined, { celsius: 20 })).toEqual({
      months: { low: 0, high: 0 },
      reason: 'Nothing is known of what is in it.',
      source: '',
      from: MORNING,
      to: MORNING,
      limit: 'fading',
      oldestAt: MORNING,
    })
    expect(jarDamp(jar, () => undefined, { celsius: 20 })).toBeUndefined()
  })
  it('its log may hold what moves nothing: a note, a look, a smell', () => {
    const moved = replay(
      [0, pack('j', 50), 'a'],
      [1, { kind: 'note', text: 'smells of earth' }, 'a'],
      [2, { kind: 'smell', jarId: 'j', smell: 'weaker' }],
    ).jars.get('j')!
    expect(moved).toMatchObject({ leftG: 50, parts: [expect.objectContaining({ grams: 50 })] })
  })
})

describe('moisture by balance', () => {
  it('is the mean of the parts by weight', () => {
    expect(moistureOf(replay([0, pack('j', 60), 'b'], [1, pack('j', 30, { topUp: true }), 'dry']).jars.get('j')!)).toBeCloseTo(
      (60 * 0.06 + 30 * 0.03) / 90,
      12,
    )
  })
  it('refuses an addition that is damper than the jar, and takes one as dry', () => {
    const log = items([0, pack('j', 100), 'a'])
    expect(refusals(log, 1, pack('j', 20, { topUp: true }), 'damp').moisture).toMatch(/holds 9 % water and the jar 5 %/)
    expect(refusals(log, 1, pack('j', 20, { topUp: true, moisture: 0.049 }), 'damp')).toEqual({})
    expect(
      refusals([...log, ...items([0, pack('k', 50), 'damp']).map(item => ({ ...item, id: 'k1', seq: 5 }))], 2, pour('j', 'k', 10)).moisture,
    ).toBeDefined()
  })
})

describe('what cannot be is refused by field, with the mend', () => {
  const log = items(
    [0, pack('j', 100), 'a'],
    [1, pack('o', 50), 'onion'],
    [2, take('j', 60)],
    [3, pack('m', 30), 'a'],
    [4, { kind: 'lookJar', jarId: 'm', saw: 'mould' }],
    [5, pack('gone', 10), 'a'],
    [6, { kind: 'discard', jarId: 'gone', cause: 'Old' }],
  )
  it.each<[string, EntryBody, string | undefined, string, RegExp]>([
    ['more than it holds', take('j', 41), undefined, 'weightG', /Only 40 g are left/],
    ['from a jar that is not', take('x', 1), undefined, 'jarId', /no such jar/],
    ['from one thrown away', take('gone', 1), undefined, 'jarId', /has been discarded/],
    ['from a mouldy one', take('m', 1), undefined, 'jarId', /Mould was seen/],
    ['onion onto beetroot', pour('j', 'o', 5), undefined, 'jarId', /something else/],
    ['a jar into itself', pour('j', 'j', 5), undefined, 'from.jarId', /into itself/],
    ['a split of more than there is', fill('n', [{ jarId: 'j', weightG: 90 }]), undefined, 'from.weightG', /Only 40 g/],
    [
      'a jar named twice',
      fill('n', [
        { jarId: 'j', weightG: 9 },
        { jarId: 'j', weightG: 9 },
      ]),
      undefined,
      'from.jarId',
      /named twice/,
    ],
    [
      'two foods in one',
      fill('n', [
        { jarId: 'j', weightG: 9 },
        { jarId: 'o', weightG: 9 },
      ]),
      undefined,
      'from',
      /different things/,
    ],
    ['a jar filled before', fill('j', [{ jarId: 'o', weightG: 9 }]), undefined, 'jarId', /filled already/],
    ['packing onto one unasked', pack('j', 10), 'a', 'jarId', /packed already: top it up/],
    ['topping up what is not', pack('x', 10, { topUp: true }), 'a', 'jarId', /no such jar to top up/],
    ['a lid nobody measured', pack('n', 10, { packageKey: 'other' }), 'a', 'leakGDayKPa', /what this lid lets in/],
    [
      'a new jar under a lid nobody measured, filled from another',
      fill('n', [{ jarId: 'j', weightG: 9 }], { packageKey: 'other' }),
      undefined,
      'leakGDayKPa',
      /what this lid lets in/,
    ],
    [
      'a seed of more than there is',
      { kind: 'grind', dryInG: 50, powderOutG: 50, seed: { jarId: 'o', weightG: 70 } },
      'onion',
      'seed.weightG',
      /Only 50 g/,
    ],
  ])('%s', (_, body, batchId, field, message) => {
    expect(refusals(log, 10, body, batchId)[field]).toMatch(message)
  })
  it('voiding a packing that was drawn on, and a correction that leaves less than was taken', () => {
    expect(Object.values(refusals(log, 10, { kind: 'void', target: 'e0' }, 'a'))[0]).toMatch(/taken from this jar: void that first/)
    expect(Object.values(refusals(log, 0, pack('j', 30), 'a', 'e0'))[0]).toMatch(/More was taken from the jar/)
    expect(refusals(log, 0, pack('j', 70), 'a', 'e0')).toEqual({})
  })
  it('a lid is asked for once: topping up such a jar does not ask again', () => {
    expect(refusals(log, 10, pack('j', 5, { topUp: true, packageKey: 'other' }), 'a')).toEqual({})
  })
  it('a taking before the jar was packed', () => {
    expect(refusals(log, -1, take('j', 1)).jarId).toMatch(/no such jar/)
  })
  it('a correction that names another jar, or one of what is not there', () => {
    expect(refusals(log, 3, take('o', 5), undefined, 'e2').jarId).toMatch(/same jar/)
    expect(refusals(log, 3, take('j', 5), undefined, 'nothing').replaces).toMatch(/no such entry/)
  })
})
