import { temperatureFrom, temperaturesIn } from '#core/units'
import { InputError } from '#core/errors'
import { allergensOf, checkEntry, foldBatch } from '#core/batch'
import type { Entry, EntryBody } from '#core/log'
import { cardOf, type CautionStep, type Food } from '#core/foods'
import type { WayKey } from '#core/ways'
import {
  cautionsAt,
  cautionsOf,
  mixedLoadWarnings,
  SAFETY_RULES,
  safeCoreC,
  stopsAtLoading,
  stopsAtPacking,
  stopsUnheated,
} from '#core/safety'
import { activityOfTarget, isothermOf } from '#core/sorption'
import { BOOK, findFood } from '../../support/foods'
import { HOUR, logOf, MORNING } from '../../support/logbook'

const food = (key: string): Food => findFood(key)!
const keysAt = (step: CautionStep, key: string, more: Parameters<typeof cautionsAt>[2] = {}) => {
  const { cares, notes } = cautionsAt(step, food(key), more)
  return { cares: cares.map(rule => rule.key), notes: notes.map(note => note.key ?? note.text) }
}

describe('every rule', () => {
  it('has words, an authority, and for a stop a way out', () => {
    for (const rule of SAFETY_RULES) {
      expect(rule.text.length).toBeGreaterThan(30)
      expect(rule.authority.length).toBeGreaterThan(8)
      if (rule.severity === 'stop') expect(rule.wayOut!.length).toBeGreaterThan(10)
    }
    expect(new Set(SAFETY_RULES.map(rule => rule.key)).size).toBe(SAFETY_RULES.length)
  })

  it('those that only a circumstance brings are not told at every food', () => {
    for (const rule of ['mould', 'moisture', 'no-oxygen', 'oil', 'sulphite']) {
      for (const step of ['intake', 'rest', 'pack'] as const)
        expect([...keysAt(step, 'apple').notes, ...keysAt(step, 'apple').cares]).not.toContain(rule)
    }
  })
  it('sulphite is told of, and stands among the allergens, where it was dipped in', () => {
    expect(keysAt('pack', 'apple', { sulphited: true }).notes).toContain('sulphite')
    const dipped = (school: string) =>
      foldBatch(
        logOf(
          [0, { kind: 'intake', foodKey: 'apple', cardKey: 'rings-5', purpose: 'pieces', source: 'Own tree', weightG: 1000 }],
          [1, { kind: 'prep', step: 'dip', effect: 'none', school }],
        ),
        findFood,
      )!
    expect(allergensOf(dipped('sulphite'))).toEqual(['sulphites'])
    expect(allergensOf(dipped('acid'))).toEqual([])
  })
  it('a caution once accepted is a note from then on', () => {
    expect(keysAt('prep', 'hot-chili').cares).toEqual(['gloves'])
    const after = keysAt('prep', 'hot-chili', { accepted: new Set(['gloves']) })
    expect(after.cares).toEqual([])
    expect(after.notes).toContain('gloves')
  })
  it('a food’s own caution is told at its step', () => {
    expect(keysAt('prep', 'rhubarb').notes.join()).toContain('leaves are poisonous')
  })
  it('its page shows the gravest first', () => {
    const order = cautionsOf(food('beef-cooked')).map(rule => rule.severity)
    expect(order.indexOf('stop')).toBe(0)
    expect(order).toEqual([...order].sort((a, b) => ['stop', 'care', 'note'].indexOf(a) - ['stop', 'care', 'note'].indexOf(b)))
  })
})

describe('what stops', () => {
  // USDA's safe minimum internal temperatures: beef 160 °F, poultry 165 °F, fish 145 °F, egg dishes 160 °F (from memory).
  it.each([
    ['beef-cooked', 71, 160],
    ['chicken-cooked', 74, 165],
    ['salmon-cooked', 63, 145],
    ['shrimp-cooked', 63, 145],
    ['egg-whole', 71, 160],
  ])('%s needs %d °C, or %d °F, inside before warm air, by a thermometer in either', (key, celsius, fahrenheit) => {
    expect(Math.round(safeCoreC(food(key))!)).toBe(celsius)
    // As the form writes it down: to a tenth of a degree Celsius.
    const written = (degrees: number) => Math.round(temperatureFrom(degrees, 'F') * 10) / 10
    const inF = (degrees: number) =>
      stopsAtLoading(food(key), food(key).cards[0]!, 'dehydrator', [{ step: 'cook', coreC: written(degrees) }])
    expect(inF(fahrenheit)).toEqual([])
    const [stop] = inF(fahrenheit - 1)
    // What is refused does not read as the same figure.
    expect(temperaturesIn(stop!.message, 'F')).toContain(`needs ${fahrenheit}\u00A0°F inside; ${fahrenheit - 1}\u00A0°F were logged`)
    const card = food(key).cards[0]!
    const stops = (coreC?: number) => stopsAtLoading(food(key), card, 'dehydrator', [{ step: 'cook', coreC }]).map(stop => stop.rule.key)
    expect(stops()).toEqual(['raw-meat'])
    expect(stops(celsius - 1)).toEqual(['raw-meat'])
    expect(stops(celsius)).toEqual([])
    expect(stopsAtLoading(food(key), card, 'freeze-dryer', [])).toEqual([])
  })
  it('a temperature at another step than cooking does not count', () => {
    expect(stopsAtLoading(food('beef-cooked'), food('beef-cooked').cards[0]!, 'dehydrator', [{ step: 'toast', coreC: 90 }])).toHaveLength(1)
  })
  it('animal food is not dried outdoors, cooked or not', () => {
    for (const key of ['beef-cooked', 'milk-whole', 'white-fish-cooked']) {
      for (const way of ['sun', 'air'] as const)
        expect(stopsAtLoading(food(key), food(key).cards[0]!, way, [{ step: 'cook', coreC: 90 }]).map(stop => stop.rule.key)).toEqual([
          'animal-outdoors',
        ])
    }
    expect(stopsAtLoading(food('carrot'), food('carrot').cards[0]!, 'sun', [])).toEqual([])
  })
  it('cooked pumpkin or potato is dried neither in the sun nor in room air, raw carrot may be', () => {
    for (const [key, step] of [
      ['pumpkin', 'roast'],
      ['potato', 'boil'],
      ['carrot', 'puree'],
    ] as const)
      for (const way of ['sun', 'air'] as const)
        expect(stopsAtLoading(food(key), food(key).cards[0]!, way, [{ step }]).map(stop => stop.rule.key)).toEqual(['perishable-unheated'])
    expect(stopsAtLoading(food('apple'), food('apple').cards[0]!, 'sun', [{ step: 'puree' }])).toEqual([])
  })
  it('what is poisonous raw is boiled first, in every way of drying', () => {
    for (const key of ['cassava', 'taro', 'true-yam'])
      for (const way of ['dehydrator', 'oven', 'freeze-dryer', 'sun'] as const) {
        const [stop] = stopsAtLoading(food(key), food(key).cards[0]!, way, [{ step: 'peel' }])
        expect(stop).toMatchObject({ rule: { key: 'unblanched' } })
        expect(stopsAtLoading(food(key), food(key).cards[0]!, way, [{ step: 'blanch' }]).map(({ rule }) => rule.key)).not.toContain(
          'unblanched',
        )
      }
  })
  it('jerky is heated first by thermometer, or in the oven once it is dry, and packed no sooner (extension guidance: 275 °F, 10 min)', () => {
    const beef = food('beef-cooked')
    const card = beef.cards.find(item => item.key === 'jerky-6')!
    const stops = (choices: Record<string, string>, prep: { step: string; coreC?: number }[] = []) =>
      stopsAtLoading(beef, card, 'dehydrator', prep, choices).map(({ rule }) => rule.key)
    expect(stops({})).toEqual(['raw-meat'])
    expect(stops({}, [{ step: 'cook', coreC: 72 }])).toEqual([])
    expect(stops({ jerkyHeat: 'after' })).toEqual([])
    // Only this cut: mince stays mince.
    expect(stopsAtLoading(beef, beef.cards[0]!, 'dehydrator', [], { jerkyHeat: 'after' })).toHaveLength(1)
    const heated = (airC: number, minutes: number) => stopsUnheated(card, { jerkyHeat: 'after' }, [{ body: { airC, minutes } }])
    expect(stopsUnheated(card, { jerkyHeat: 'after' }, [])).toMatchObject([{ rule: { key: 'heat-after' } }])
    expect(heated(135, 10)).toEqual([])
    expect(heated(130, 10)).toHaveLength(1)
    expect(heated(135, 8)).toHaveLength(1)
    expect(stopsUnheated(card, {}, [])).toEqual([])
    // It bends, and is too dry for anything to grow (USDA FSIS, from memory: 0.85).
    expect(activityOfTarget(isothermOf(beef), card.target!.pieces!)).toBeLessThan(0.85)
    expect(card.target!.pieces).toBeGreaterThan(beef.target.pieces)
  })
  it('what is sold ready to eat needs no thermometer, what is raw does', () => {
    for (const key of ['tuna-tinned', 'ham-cured']) {
      expect(safeCoreC(food(key))).toBeUndefined()
      expect(stopsAtLoading(food(key), food(key).cards[0]!, 'dehydrator', [])).toEqual([])
      expect(stopsAtLoading(food(key), food(key).cards[0]!, 'sun', [])).toHaveLength(1)
    }
    expect(stopsAtLoading(food('pork-cooked'), food('pork-cooked').cards[0]!, 'dehydrator', [])).toHaveLength(1)
  })
  it('the reference plans nothing that these rules would stop once its own steps are done', () => {
    const stopped = BOOK.foods.flatMap(item =>
      item.cards.flatMap(card =>
        card.ways.flatMap(({ way }) => {
          const done = [...card.steps.map(({ step }) => ({ step, coreC: 100 }))]
          const found = stopsAtLoading(item, card, way, done).filter(({ rule }) => rule.key !== 'raw-meat')
          return found.map(({ rule }) => `${item.key}, ${card.key}, ${way}: ${rule.key}`)
        }),
      ),
    )
    expect(stopped).toEqual([])
  })
  it('oil on the shelf stops, cold oil does not', () => {
    const stops = (storageC: number | undefined, inOil = true) =>
      stopsAtPacking(food('garlic'), { packageKey: 'screw-jar', inOil, storageC, moisture: 0.05 }).map(stop => stop.rule.key)
    expect(stops(20)).toEqual(['oil'])
    expect(stops(undefined)).toEqual(['oil'])
    expect(stops(4)).toEqual([])
    expect(stops(20, false)).toEqual([])
  })
  it('without oxygen it is judged by its water activity: fruit at its 16 % may, what may be above 0.85 may not', () => {
    const stops = (key: string, moisture: number, more: Partial<Parameters<typeof stopsAtPacking>[1]> = {}) =>
      stopsAtPacking(food(key), { packageKey: 'foil-bag', moisture, ...more }).map(stop => stop.rule.key)
    for (const more of [{}, { packageKey: 'vacuum-jar' }, { packageKey: 'screw-jar', absorber: true }] as const) {
      expect(stops('apple', 0.16, more)).toEqual([])
      expect(stops('apple', 0.45, more)).toEqual(['no-oxygen'])
      // Greens hold the same water far more loosely.
      expect(stops('spinach', 0.26, more)).toEqual(['no-oxygen'])
    }
    expect(stops('apple', 0.45, { packageKey: 'screw-jar' })).toEqual([])
    expect(stops('apple', 0.45, { storageC: -18 })).toEqual([])
  })
})

describe('the log lets nothing past a stop', () => {
  const RUN = '018f0000-0000-7000-8000-000000000001'
  const machine = (kind: WayKey) => ({ name: 'M', kind, trays: 6, lowC: 10, highC: 120, taken: [] })
  const refused = (log: Entry[], hours: number, body: EntryBody, kind: WayKey = 'dehydrator') => {
    try {
      checkEntry(
        log,
        { id: 'new', seq: 999, at: MORNING + hours * HOUR, recordedAt: MORNING + hours * HOUR, body },
        { now: MORNING + 999 * HOUR, find: BOOK.find, machine: machine(kind) },
      )
      return {}
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return Object.fromEntries(error.problems.map(problem => [problem.field, problem.message]))
    }
  }
  const intake = (foodKey: string, cardKey: string, purpose: 'pieces' | 'powder' = 'powder'): EntryBody => ({
    kind: 'intake',
    foodKey,
    cardKey,
    purpose,
    source: 'Market',
    weightG: 1000,
  })
  const load = (way: WayKey): EntryBody => ({ kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 800, way })

  it('raw chicken is not loaded, with the way out said; cooked it is', () => {
    const log = logOf([0, intake('chicken-cooked', 'mince')])
    expect(refused(log, 1, load('dehydrator')).machineId).toMatch(/74 °C.*Cook it through.*local guidance/)
    expect(
      refused(
        logOf([0, intake('chicken-cooked', 'mince')], [0.5, { kind: 'prep', step: 'cook', effect: 'none', coreC: 75 }]),
        1,
        load('dehydrator'),
      ),
    ).toEqual({})
  })
  it('the cooking that let it in is not voided or corrected below its heat while it lies on the trays', () => {
    const log = logOf(
      [0, intake('chicken-cooked', 'mince')],
      [0.5, { kind: 'prep', step: 'cook', effect: 'none', coreC: 75 }],
      [1, load('dehydrator')],
      [1, { kind: 'heat', runId: RUN, setC: 70 }],
    )
    expect(refused(log, 2, { kind: 'void', target: log[1]!.id }).target).toMatch(/loading rests on this.*74 °C/)
    const corrected = (coreC: number) => () =>
      checkEntry(
        log,
        {
          id: 'new',
          seq: 999,
          at: log[1]!.at,
          recordedAt: MORNING + 2 * HOUR,
          replaces: log[1]!.id,
          body: { kind: 'prep', step: 'cook', effect: 'none', coreC },
        },
        { now: MORNING + 999 * HOUR, find: BOOK.find, machine: machine('dehydrator') },
      )
    expect(corrected(68)).toThrow(/74 °C/)
    expect(corrected(78)).not.toThrow()
    // Without the loading it may go.
    expect(refused(log.slice(0, 2), 2, { kind: 'void', target: log[1]!.id })).toEqual({})
  })
  it('after mould only discarding is left', () => {
    const log = logOf(
      [0, intake('carrot', 'slices-3')],
      [1, load('dehydrator')],
      [1, { kind: 'heat', runId: RUN, setC: 57 }],
      [12, { kind: 'unload', weightG: 110 }],
      [13, { kind: 'rest' }],
      [40, { kind: 'look', saw: 'mould' }],
    )
    for (const body of [{ kind: 'restEnd' }, { kind: 'grind', dryInG: 100, powderOutG: 90 }, load('dehydrator')] as EntryBody[])
      expect(refused(log, 50, body).kind).toMatch(/^Mould anywhere/)
    expect(refused(log, 50, { kind: 'finish', reason: 'mould, to the compost' })).toEqual({})
  })
  it('a jar under oil on the shelf is refused', () => {
    const log = logOf(
      [0, intake('garlic', 'slices-3')],
      [1, load('dehydrator')],
      [1, { kind: 'heat', runId: RUN, setC: 57 }],
      [12, { kind: 'unload', weightG: 400 }],
      [13, { kind: 'grind', dryInG: 400, powderOutG: 380 }],
    )
    const pack = (storageC: number): EntryBody => ({
      kind: 'pack',
      jarId: RUN,
      netG: 100,
      packageKey: 'screw-jar',
      place: 'Pantry',
      inOil: true,
      storageC,
    })
    expect(refused(log, 14, pack(20)).inOil).toMatch(/botulism.*at or below 4 °C/)
    expect(refused(log, 14, pack(3))).toEqual({})
  })
  it('a caution that there is not is refused', () => {
    expect(refused(logOf([0, intake('carrot', 'slices-3')]), 1, { kind: 'caution', rule: 'bad-luck' }).rule).toMatch(/no caution/)
    expect(refused(logOf([0, intake('carrot', 'slices-3')]), 1, { kind: 'caution', rule: 'blades' })).toEqual({})
  })
  it('a machine of another kind is named, not guessed', () => {
    const log = logOf([0, intake('carrot', 'slices-3')])
    expect(refused(log, 1, { ...load('dehydrator'), way: undefined } as EntryBody, 'oven').way).toMatch(/give “oven”/)
    expect(refused(log, 1, load('dehydrator'), 'oven').way).toMatch(/give “oven”/)
    expect(refused(log, 1, load('oven'), 'oven')).toEqual({})
  })
})

describe('mixed loads', () => {
  const mate = (key: string, frozen?: boolean) => ({ food: food(key), card: cardOf(food(key)), frozen })
  it('warns of taint in warm air, both ways round, and not in a freeze dryer', () => {
    expect(mixedLoadWarnings(mate('apple'), [mate('onion')], 'dehydrator').join()).toMatch(/Onion goes into.*apple/)
    expect(mixedLoadWarnings(mate('onion'), [mate('apple')], 'dehydrator').join()).toMatch(/Onion goes into.*apple/)
    expect(mixedLoadWarnings(mate('onion', true), [mate('apple', true)], 'freeze-dryer')).toEqual([])
  })
  it('warns where heats are far apart', () => {
    expect(mixedLoadWarnings(mate('parsley'), [mate('carrot')], 'dehydrator').join()).toMatch(/57 °C, this at 41 °C/)
    expect(mixedLoadWarnings(mate('parsley'), [mate('carrot')], 'dehydrator').join()).toMatch(/Take the lower/)
    expect(mixedLoadWarnings(mate('beetroot'), [mate('carrot')], 'dehydrator')).toEqual([])
    // A purée that was roasted is as perishable as meat: not lowered for the sake of a herb.
    const roasted = { ...mate('pumpkin'), cooked: true }
    for (const words of [
      mixedLoadWarnings(roasted, [mate('parsley')], 'dehydrator'),
      mixedLoadWarnings(mate('parsley'), [roasted], 'dehydrator'),
    ]) {
      expect(words.join()).toMatch(/pumpkin must be kept that hot.*run of its own/)
      expect(words.join()).not.toMatch(/Take the lower/)
    }
    for (const [coming, there] of [
      ['chicken-cooked', 'carrot'],
      ['carrot', 'chicken-cooked'],
    ] as const) {
      const words = mixedLoadWarnings(mate(coming), [mate(there)], 'dehydrator').join()
      expect(words).toMatch(/chicken must be kept that hot.*run of its own/)
      expect(words).not.toMatch(/Take the lower/)
    }
  })
  it('warns of unfrozen beside frozen', () => {
    expect(mixedLoadWarnings(mate('strawberry', false), [mate('raspberry', true)], 'freeze-dryer').join()).toMatch(/Unfrozen beside frozen/)
  })
  it('says nothing of more of the same food', () => {
    expect(mixedLoadWarnings(mate('onion'), [mate('onion')], 'dehydrator')).toEqual([])
  })
})
