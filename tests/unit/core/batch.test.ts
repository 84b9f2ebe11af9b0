import { assess, balanceOnTrays, checkEntry, foldBatch, toPackG } from '#core/batch'
import { inForce, withStanding, type Entry, type EntryBody } from '#core/log'
import { InputError } from '#core/errors'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = 'run-1'
const load = (totalG = 1700, trays?: { position: number; weightG: number }[]): EntryBody => ({
  kind: 'load',
  runId: RUN,
  machineId: 'm',
  positions: [1, 2, 3],
  trays,
  totalG,
})
const heat = (setC: number | null): EntryBody => ({ kind: 'heat', runId: RUN, setC })
const drying = (): Entry[] =>
  logOf([0, BEETROOT], [0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }], [1, load()], [1, heat(57)])
const CONTEXT = {
  now: MORNING + 300 * HOUR,
  find: findFood,
  machine: { name: 'Cabinet', kind: 'dehydrator' as const, trays: 6, lowC: 35, highC: 75, taken: [6] },
}

/** What the rules say of one more entry: the fields refused, or none. */
function refusals(log: Entry[], hours: number, body: EntryBody, replaces?: string): Record<string, string> {
  const entry: Entry = { id: 'new', seq: 1e9, at: MORNING + hours * HOUR, recordedAt: CONTEXT.now, replaces, body }
  try {
    checkEntry(log, entry, CONTEXT)
    return {}
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return Object.fromEntries(error.problems.map(problem => [problem.field, problem.message]))
  }
}

describe('the fold', () => {
  it('knows the stage at every step of the path', () => {
    const path: [number, EntryBody, string][] = [
      [0, BEETROOT, 'intake'],
      [0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }, 'prep'],
      [1, load(), 'drying'],
      [1, heat(57), 'drying'],
      [9, { kind: 'weigh', totalG: 300 }, 'drying'],
      [14, { kind: 'unload', weightG: 224 }, 'resting'],
      [14.5, { kind: 'rest' }, 'resting'],
      [40, { kind: 'look', saw: 'dry' }, 'resting'],
      [190, { kind: 'restEnd', weightG: 223 }, 'grinding'],
      [191, { kind: 'grind', dryInG: 223, powderOutG: 210 }, 'grinding'],
      [192, { kind: 'pack', jarId: 'j1', netG: 110, packageKey: 'screw-jar', place: 'P' }, 'grinding'],
      [192, { kind: 'pack', jarId: 'j2', netG: 99, packageKey: 'screw-jar', place: 'P' }, 'shelf'],
    ]
    path.forEach((_, i) => {
      const state = foldBatch(logOf(...path.slice(0, i + 1).map(([hours, body]) => [hours, body] as [number, EntryBody])), findFood)
      expect(state!.stage).toBe(path[i]![2])
    })
  })
  it('is nothing without an intake in force', () => {
    expect(foldBatch([], findFood)).toBeUndefined()
    expect(foldBatch(logOf([0, BEETROOT], [1, { kind: 'void', target: 'entry-0' }]), findFood)).toBeUndefined()
  })
  it('skips the grinding for pieces', () => {
    const state = foldBatch(
      logOf(
        [0, { ...BEETROOT, purpose: 'pieces' }],
        [1, load()],
        [1, heat(57)],
        [14, { kind: 'unload', weightG: 224 }],
        [15, { kind: 'rest' }],
        [190, { kind: 'restEnd' }],
      ),
      findFood,
    )!
    expect(state.stage).toBe('grinding')
    expect(toPackG(state)).toBe(224)
  })
  it('stops the drying clock while the heat is off', () => {
    const state = foldBatch(
      [
        ...drying(),
        ...logOf([4, heat(null)], [10, heat(57)], [12, { kind: 'weigh', totalG: 700 }]).map((entry, i) => ({
          ...entry,
          id: `more-${i}`,
          seq: 50 + i,
        })),
      ],
      findFood,
    )!
    expect(state.run!.clock.hoursAt(state.run!.weighings[0]!.at)).toBeCloseTo(5, 6)
    expect(state.run!.weighings[0]!.hours).toBeCloseTo(5, 6)
    expect(state.run!.spells).toMatchObject([{ lastsH: 6, before: 0 }])
    expect(state.run!.setC).toBe(57)
  })
  it('takes a load back to the machine as a second run with the solids of the first', () => {
    const again = logOf(
      [16, { kind: 'load', runId: 'run-2', machineId: 'm', positions: [1], totalG: 260 }],
      [16, { kind: 'heat', runId: 'run-2', setC: 57 }],
    ).map((entry, i) => ({ ...entry, id: `again-${i}`, seq: 90 + i }))
    const state = foldBatch(
      [...drying(), ...logOf([12, { kind: 'unload', weightG: 258 }]).map(entry => ({ ...entry, id: 'out', seq: 80 })), ...again],
      findFood,
    )!
    expect(state.stage).toBe('drying')
    expect(state.earlierRuns).toHaveLength(1)
    const { estimate } = assess(state, MORNING + 17 * HOUR)!
    expect(estimate.solidsG.p50).toBeGreaterThan(190)
    expect(estimate.solidsG.p50).toBeLessThan(230)
    // Of 8 to 13 usual hours only the last part is needed.
    expect(estimate.hoursToTarget.p50).toBeLessThan(6)
  })
})

describe('corrections', () => {
  const weigh = (totalG: number): EntryBody => ({ kind: 'weigh', totalG })
  const log = logOf([0, BEETROOT], [1, load()], [1, heat(57)], [4, weigh(900), { id: 'w1' }], [4, weigh(990), { id: 'w2', replaces: 'w1' }])

  it('take the old figure out of force and keep it in the log', () => {
    expect(foldBatch(log, findFood)!.run!.weighings.map(item => item.weightG)).toEqual([990])
    expect(withStanding(log).find(item => item.entry.id === 'w1')).toMatchObject({ state: 'corrected', by: 'w2' })
  })
  it('of a correction leave only the last', () => {
    const twice = [...log, { ...log[3]!, id: 'w3', seq: 40, replaces: 'w2', body: weigh(950) }]
    expect(foldBatch(twice, findFood)!.run!.weighings.map(item => item.weightG)).toEqual([950])
  })
  it('voided, take the fact out altogether', () => {
    const voided = [...log, { ...log[3]!, id: 'v', seq: 41, body: { kind: 'void', target: 'w2' } as EntryBody }]
    expect(inForce(voided).some(entry => entry.body.kind === 'weigh')).toBe(false)
  })
  it('are refused where they name nothing, or what is out of force already, or another kind', () => {
    expect(refusals(log, 5, weigh(800), 'nothing')).toHaveProperty('replaces')
    expect(refusals(log, 5, weigh(800), 'w1').replaces).toContain('already')
    expect(refusals(log, 5, { kind: 'note', text: 'x' }, 'w2').replaces).toContain('same kind')
    expect(refusals(log, 5, { kind: 'void', target: 'w1' })).toHaveProperty('target')
    expect(refusals(log, 5, { kind: 'void', target: 'entry-0' }).target).toContain('later entries first')
    expect(refusals(log, 5, { kind: 'void', target: 'entry-1' }).target).toContain('void them first')
  })
})

describe('weighings', () => {
  const trays = [
    { position: 1, weightG: 600 },
    { position: 2, weightG: 600 },
    { position: 3, weightG: 500 },
  ]
  const one = (position: number, weightG: number): EntryBody => ({ kind: 'weigh', trays: [{ position, weightG }] })
  const state = (...items: [number, EntryBody][]) =>
    foldBatch(logOf([0, BEETROOT], [1, load(1700, trays)], [1, heat(57)], ...items), findFood)!.run!.weighings

  it('join trays weighed one after the other to one round', () => {
    const list = state([5, one(1, 300)], [5.01, one(2, 280)], [5.02, one(3, 260)])
    expect(list).toHaveLength(1)
    expect(list[0]).toMatchObject({ weightG: 840, positions: [1, 2, 3] })
    expect(list[0]!.extraSdG).toBeUndefined()
  })
  it('carry trays left out along with a doubt', () => {
    const [round] = state([5, one(1, 300)])
    expect(round!.weightG).toBeCloseTo(1700 * 0.5, 6)
    const [two] = state([5, one(1, 300)], [5.01, one(2, 300)])
    expect(round!.extraSdG!).toBeGreaterThan(two!.extraSdG!)
    expect(two!.extraSdG!).toBeGreaterThan(10)
  })
  it('begin a new round when a tray comes again, or half an hour later', () => {
    expect(state([5, one(1, 300)], [5.1, one(1, 290)])).toHaveLength(2)
    expect(state([5, one(1, 300)], [5.6, one(2, 290)])).toHaveLength(2)
  })
})

describe('the rules', () => {
  const out = () => [...drying(), ...logOf([14, { kind: 'unload', weightG: 224 }]).map(entry => ({ ...entry, id: 'out', seq: 80 }))]
  const ground = () => [
    ...out(),
    ...logOf(
      [190, { kind: 'restEnd', weightG: 224 }],
      [191, { kind: 'grind', dryInG: 224, powderOutG: 212 }],
      [192, { kind: 'pack', jarId: 'j', netG: 100, packageKey: 'bag', place: 'P' }],
    ).map((entry, i) => ({ ...entry, id: `g${i}`, seq: 90 + i })),
  ]

  it.each<[string, () => Entry[], number, EntryBody, string, RegExp]>([
    ['a date in the future', drying, 350, { kind: 'weigh', totalG: 500 }, 'at', /future/],
    ['a date before the basket', drying, -5, { kind: 'weigh', totalG: 500 }, 'at', /before the food came in/],
    ['the last century', drying, -3e5, { kind: 'note', text: 'x' }, 'at', /year/],
    [
      'a load heavier than it was',
      drying,
      5,
      { kind: 'weigh', totalG: 1900 },
      'totalG',
      /1900 g is more than the 1700 g.*tray on the scale/,
    ],
    [
      'a tray heavier than it was loaded',
      () =>
        logOf(
          [0, BEETROOT],
          [
            1,
            load(1700, [
              { position: 1, weightG: 600 },
              { position: 2, weightG: 600 },
              { position: 3, weightG: 500 },
            ]),
          ],
          [1, heat(57)],
        ),
      5,
      { kind: 'weigh', trays: [{ position: 3, weightG: 560 }] },
      'trays.0.weightG',
      /560 g is more than the 500 g/,
    ],
    [
      'a tray that does not carry it',
      drying,
      5,
      { kind: 'weigh', trays: [{ position: 5, weightG: 100 }] },
      'trays.0.position',
      /lies on 1, 2, 3/,
    ],
    ['loading more than came in', () => logOf([0, BEETROOT]), 1, load(2500), 'totalG', /2500 g.*more than the 2000 g/],
    [
      'a tray position that is taken',
      () => logOf([0, BEETROOT]),
      1,
      { ...load(), positions: [5, 6] } as EntryBody,
      'positions',
      /Taken by another batch: 6/,
    ],
    [
      'a tray that the machine lacks',
      () => logOf([0, BEETROOT]),
      1,
      { ...load(), positions: [7] } as EntryBody,
      'positions',
      /trays 1 to 6/,
    ],
    ['a tray named twice', () => logOf([0, BEETROOT]), 1, { ...load(), positions: [1, 1] } as EntryBody, 'positions', /twice/],
    [
      'trays that do not add up',
      () => logOf([0, BEETROOT]),
      1,
      load(1700, [
        { position: 1, weightG: 1 },
        { position: 2, weightG: 1 },
        { position: 3, weightG: 1 },
      ]),
      'totalG',
      /add up to 3 g/,
    ],
    ['loading twice', drying, 5, load(), 'kind', /in a machine already/],
    ['weighing what is not in a machine', () => logOf([0, BEETROOT]), 1, { kind: 'weigh', totalG: 5 }, 'kind', /not in a machine/],
    ['a rest before taking out', drying, 5, { kind: 'rest' }, 'kind', /left the machine/],
    ['a look at no jar', out, 20, { kind: 'look', saw: 'dry' }, 'kind', /No jar is resting/],
    ['grinding what is still in the machine', drying, 5, { kind: 'grind', dryInG: 1, powderOutG: 1 }, 'kind', /not left the machine/],
    [
      'more powder than went into the cup',
      out,
      20,
      { kind: 'grind', dryInG: 200, powderOutG: 240 },
      'powderOutG',
      /240 g of powder is more than the 200 g/,
    ],
    [
      'a jar with more than was ground',
      ground,
      200,
      { kind: 'pack', jarId: 'k', netG: 150, packageKey: 'bag', place: 'P' },
      'netG',
      /Only 112 g of powder is left/,
    ],
    ['a jar packed twice', ground, 200, { kind: 'pack', jarId: 'j', netG: 10, packageKey: 'bag', place: 'P' }, 'jarId', /already/],
    [
      'packing at a time before the grinding',
      ground,
      190.5,
      { kind: 'pack', jarId: 'k', netG: 10, packageKey: 'bag', place: 'P' },
      'kind',
      /Grind before packing/,
    ],
    [
      'packing before grinding',
      out,
      20,
      { kind: 'pack', jarId: 'k', netG: 10, packageKey: 'bag', place: 'P' },
      'kind',
      /Grind before packing/,
    ],
    ['what belongs in a jar’s own log', ground, 200, { kind: 'take', jarId: 'j', weightG: 12 }, 'kind', /jar’s own log/],
    ['preparing what lies on the trays', drying, 5, { kind: 'prep', step: 'cut', effect: 'none' }, 'kind', /on the trays already/],
    ['an unknown food', () => [], 0, { ...BEETROOT, foodKey: 'moon-dust' }, 'foodKey', /not a food in the reference/],
    ['an unknown card', () => [], 0, { ...BEETROOT, cardKey: 'cubes' }, 'cardKey', /no method card/],
  ])('refuse %s', (_, log, hours, body, field, words) => {
    expect(refusals(log(), hours, body)[field]).toMatch(words)
  })
  it('refuse a correction that would leave a later entry impossible', () => {
    const log = ground()
    expect(refusals(log, 195, { kind: 'grind', dryInG: 224, powderOutG: 212 }, 'g1').at).toMatch(/packed before anything was ground/)
    expect(Object.values(refusals(log, 191, { kind: 'grind', dryInG: 100, powderOutG: 60 }, 'g1'))[0]).toMatch(
      /jars hold 100 g of powder, more than the 60 g/,
    )
    expect(
      Object.values(
        refusals(
          [...drying(), ...logOf([5, { kind: 'weigh', totalG: 900 }]).map(entry => ({ ...entry, id: 'w', seq: 60 }))],
          1,
          load(800),
          'entry-2',
        ),
      )[0],
    ).toMatch(/weigh-in of 900 g would be more than the 800 g/)
    expect(Object.values(refusals(log, 0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 1999 }, 'entry-1'))[0]).toMatch(
      /more than/,
    )
  })
  it('take what is right', () => {
    expect(refusals(drying(), 5, { kind: 'weigh', totalG: 900 })).toEqual({})
    expect(refusals(drying(), 5, { kind: 'note', text: 'Rain' })).toEqual({})
    expect(refusals(out(), 20, { kind: 'rest' })).toEqual({})
  })
})

describe('trays that come out one by one', () => {
  const loaded = logOf(
    [0, BEETROOT],
    [
      1,
      {
        kind: 'load',
        runId: RUN,
        machineId: RUN,
        positions: [1, 2, 3, 4],
        trays: [1, 2, 3, 4].map(position => ({ position, weightG: 400 })),
        totalG: 1600,
      },
    ],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    [8, { kind: 'weigh', totalG: 260 }],
  )
  const after = (...more: Parameters<typeof logOf>) => [
    ...loaded,
    ...logOf(...more).map((entry, i) => ({ ...entry, id: `more-${i}`, seq: 50 + i })),
  ]
  const check = (log: Entry[], hours: number, body: EntryBody) =>
    checkEntry(
      log,
      { id: 'new', seq: 99, at: MORNING + hours * HOUR, recordedAt: MORNING + hours * HOUR, body },
      { now: MORNING + 100 * HOUR, find: findFood },
    )

  it('leave the batch drying until the last is out', () => {
    const state = foldBatch(after([9, { kind: 'unload', weightG: 55, positions: [4] }]), findFood)!
    expect(state.stage).toBe('drying')
    expect(state.run).toMatchObject({ positions: [1, 2, 3, 4], present: [1, 2, 3] })
    expect(state.run!.unloadedAt).toBeUndefined()
    const done = foldBatch(after([9, { kind: 'unload', weightG: 55, positions: [4] }], [11, { kind: 'unload', weightG: 170 }]), findFood)!
    expect(done.stage).toBe('resting')
    expect(done.run!.unloadedAt).toBe(MORNING + 11 * HOUR)
    expect(done.dryG).toBe(225)
  })
  it('are not in the next weight of all: it is raised to the whole load, with a doubt', () => {
    const state = foldBatch(after([9, { kind: 'unload', positions: [4] }], [10, { kind: 'weigh', totalG: 174 }]), findFood)!
    const weighing = state.run!.weighings.at(-1)!
    expect(weighing.weightG).toBeCloseTo((174 / 1200) * 1600, 6)
    expect(weighing.extraSdG).toBeGreaterThan(0)
    expect(weighing.positions).toEqual([1, 2, 3])
    expect(assess(state, MORNING + 10 * HOUR)!.estimate.flags).toEqual([])
  })
  it('give no dry weight by sum unless each was weighed', () => {
    expect(foldBatch(after([9, { kind: 'unload', positions: [4] }], [11, { kind: 'unload', weightG: 170 }]), findFood)!.dryG).toBe(260)
  })
  it.each<[EntryBody, RegExp]>([
    [{ kind: 'unload', positions: [4] }, /Tray 4 is not in the machine with this batch: it has 1, 2, 3/],
    [{ kind: 'unload', positions: [7] }, /Tray 7 is not in the machine/],
    [{ kind: 'unload', positions: [1], weightG: 500 }, /500 g is more than the 400 g that was loaded/],
    [{ kind: 'weigh', trays: [{ position: 4, weightG: 60 }] }, /Tray 4 has been taken out/],
    [{ kind: 'weigh', totalG: 1500 }, /1500 g is more than the 1200 g that was loaded/],
    [{ kind: 'rest' }, /Only food that has left the machine/],
  ])('refuse %j', (body, words) => {
    expect(() => check(after([9, { kind: 'unload', positions: [4] }]), 10, body)).toThrow(words)
  })
  it('cannot be put back by a correction when later entries rest on them', () => {
    const log = after([9, { kind: 'unload', positions: [4] }], [11, { kind: 'unload', weightG: 170 }], [12, { kind: 'rest' }])
    expect(() => check(log, 13, { kind: 'void', target: 'more-1' })).toThrow(/Later entries rest on this taking out/)
  })
})

describe('a school that brings steps of its own', () => {
  it('is charred, sweated and peeled before it is cut, with the water that this takes', () => {
    const begun = logOf([0, { ...BEETROOT, foodKey: 'poblano', cardKey: findFood('poblano')!.cards[0]!.key }])
    const chosen = [
      ...begun,
      ...logOf([0.1, { kind: 'choose', question: 'charPeel', school: 'char' }]).map(entry => ({ ...entry, id: 'c', seq: 9 })),
    ]
    const [raw, charred] = [begun, chosen].map(log => foldBatch(log, findFood)!)
    const names = charred!.card.steps.map(({ step }) => step)
    expect(names.slice(names.indexOf('char'), names.indexOf('cut'))).toEqual(['char', 'hold', 'peel'])
    expect(charred!.card.steps.flatMap(({ step, minutes }) => (step === 'char' || step === 'hold' ? [minutes] : []))).toEqual([5, 15])
    expect(raw!.card.steps.some(({ step }) => step === 'char')).toBe(false)
    // An eighth of it goes off as steam (common practice).
    expect(balanceOnTrays(charred!).weightG.p50 / balanceOnTrays(raw!).weightG.p50).toBeCloseTo(0.88, 2)
  })
})
