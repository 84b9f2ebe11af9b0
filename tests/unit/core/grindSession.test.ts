import fc from 'fast-check'
import { checkEntry, foldBatch, sieveReached, toPackG } from '#core/batch'
import type { Entry, EntryBody } from '#core/log'
import { fillOf, GRADE_UM, gradeOfOpening, gradeReached, grindSession, MESH_UM, planGrinding, seedG, sumRounds } from '#core/grinding'
import { bestJar, jarsFor, leakOf, measuredLeak, permeanceOf, strengthOf, useMore } from '#core/keeping'
import { saturationKPa } from '#core/air'
import { InputError } from '#core/errors'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const CONTEXT = { now: MORNING + 900 * HOUR, find: findFood }
const out = () =>
  logOf(
    [0, BEETROOT],
    [1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2], totalG: 1700 }],
    [1, { kind: 'heat', runId: 'r', setC: 57 }],
    [14, { kind: 'unload', weightG: 224 }],
  )
const more = (log: Entry[], ...items: Parameters<typeof logOf>) => [
  ...log,
  ...logOf(...items).map((entry, i) => ({ ...entry, id: `m${log.length}-${i}`, seq: 100 + log.length + i })),
]
function refusals(log: Entry[], hours: number, body: EntryBody): Record<string, string> {
  try {
    checkEntry(log, { id: 'new', seq: 1e9, at: MORNING + hours * HOUR, recordedAt: CONTEXT.now, body }, CONTEXT)
    return {}
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return Object.fromEntries(error.problems.map(problem => [problem.field, problem.message]))
  }
}

describe('grades', () => {
  it('go by use: flakes on top, coarse for soups, fine for drinks, flour for bread (common practice)', () => {
    expect([MESH_UM[10], MESH_UM[20], MESH_UM[60], MESH_UM[100]].map(um => gradeOfOpening(um!))).toEqual([
      'flake',
      'coarse',
      'fine',
      'flour',
    ])
    expect(Object.values(GRADE_UM)).toEqual([...Object.values(GRADE_UM)].sort((a, b) => b - a))
  })
  it('are reached by the finest sieve that nine tenths are through', () => {
    expect(gradeReached([])).toBeUndefined()
    expect(
      gradeReached([
        { openingUm: 600, throughG: 95, overG: 5 },
        { openingUm: 250, throughG: 60, overG: 35 },
      ]),
    ).toBe('coarse')
    expect(
      gradeReached([
        { openingUm: 600, throughG: 95, overG: 5 },
        { openingUm: 250, throughG: 60, overG: 35 },
        { openingUm: 250, throughG: 30, overG: 5 },
      ]),
    ).toBe('fine')
  })
  it('what is lost between two passes is neither through nor on top: the batch and the card say one grade', () => {
    const passes = [
      { openingUm: 300, throughG: 80, overG: 20 },
      { openingUm: 300, throughG: 9, overG: 6 },
    ]
    expect(gradeReached(passes)).toBe('fine')
    expect(sieveReached({ grinds: [{ body: { kind: 'grind', passes } }] } as never)).toBe(300)
  })
})

describe('a round that is too small', () => {
  it('wants so much powder that the knives are covered; a full cup wants none', () => {
    expect(seedG(10, 0.18, 0.5, 250)).toBeCloseTo((0.35 - fillOf(10, 0.18, 250)) * 250 * 0.5, 9)
    expect(seedG(30, 0.18, 0.5, 250)).toBe(0)
  })
  it('is never one of a plan that shares evenly over several rounds', () => {
    fc.assert(
      fc.property(fc.double({ min: 60, max: 900, noNaN: true }), fc.double({ min: 80, max: 400, noNaN: true }), (dryG, cupMl) => {
        const plan = planGrinding({ dryG, looseGMl: 0.2, cupMl, watts: 150, startC: 20, mostC: 45 })
        if (plan.rounds > 2) expect(fillOf(plan.gramsPerRound, 0.2, cupMl)).toBeGreaterThan(0.35)
      }),
    )
  })
})

describe('a session on the bench', () => {
  const bench = { dryG: 224, cupMl: 250, watts: 150, cupCm: 8, warm: false }
  const beetroot = findFood('beetroot')!
  it('runs each burst until what is in the cup reaches its most, and never past where it sticks', () => {
    const { plan, mostC, stickyC, minuteK } = grindSession(beetroot, 'powder', bench)
    expect(mostC).toBe(Math.min(45, stickyC))
    expect(22 + (minuteK * plan!.burstS) / 60).toBeLessThanOrEqual(mostC)
    expect(22 + (minuteK * (plan!.burstS + 1)) / 60).toBeGreaterThan(mostC)
    expect(plan!.burstsPerRound).toBe(Math.ceil(60 / plan!.burstS))
  })
  it('has shorter bursts for what comes warm from the machine', () => {
    const cool = grindSession(beetroot, 'powder', bench).plan!
    const warm = grindSession(beetroot, 'powder', { ...bench, warm: true })
    expect(warm.sticks || warm.plan!.burstS < cool.burstS).toBe(true)
  })
  it('has no plan for what sticks as it is, nor before all is known', () => {
    expect(grindSession({ ...beetroot, target: { ...beetroot.target, powder: 0.3 } }, 'powder', bench)).toMatchObject({
      sticks: true,
      plan: undefined,
    })
    expect(grindSession(beetroot, 'powder', { ...bench, dryG: undefined }).plan).toBeUndefined()
    expect(grindSession(beetroot, 'powder', { ...bench, cupMl: undefined }).plan).toBeUndefined()
    expect(grindSession(beetroot, 'powder', { ...bench, watts: undefined }).plan).toBeUndefined()
  })
  it('keeps the lid on longer for chilies, and in a higher cup', () => {
    const lid = (food: string, cupCm?: number) => grindSession(findFood(food)!, 'powder', { ...bench, cupCm }).lidS
    expect(lid('hot-chili')).toBeGreaterThan(lid('beetroot'))
    expect(lid('beetroot', 16)).toBeGreaterThan(1.9 * lid('beetroot', 8) - 10)
    expect(lid('beetroot', undefined)).toBe(lid('beetroot', 8))
  })
  it('asks for powder where the cup is nearly empty', () => {
    const { fill, seedG: asked } = grindSession(beetroot, 'powder', { ...bench, dryG: 6 })
    expect(fill).toBeLessThan(0.35)
    expect(asked).toBeGreaterThan(0)
    expect(grindSession(beetroot, 'powder', bench).seedG).toBe(0)
  })
  it('sums its rounds, and says what goes in next', () => {
    const { plan } = grindSession(beetroot, 'powder', { ...bench, cupMl: 300 })
    const each = plan!.gramsPerRound
    expect(sumRounds([], plan, 224)).toEqual({ inG: 0, outG: 0, rounds: plan!.rounds, nextG: Math.round(each * 10) / 10 })
    expect(sumRounds([{ inG: 10.04, outG: 9 }, { inG: 10.04 }], plan, 224)).toMatchObject({ inG: 20.1, outG: undefined })
    expect(sumRounds([{ inG: 219, outG: 210 }], plan, 224)).toMatchObject({ outG: 210, nextG: 5 })
    expect(sumRounds([{ inG: 223.5, outG: 210 }], undefined, 224).rounds).toBe(1)
    expect(sumRounds([{ inG: 222, outG: 210 }], undefined, 224).rounds).toBe(2)
    expect(sumRounds([{ inG: 224, outG: 210 }], plan, 224).nextG).toBeUndefined()
  })
})

describe('a session in the log', () => {
  const log = more(out(), [20, { kind: 'restEnd', weightG: 224 }])
  it.each<[string, Partial<Extract<EntryBody, { kind: 'grind' }>>, string, RegExp]>([
    ['rounds that do not add up', { rounds: [{ inG: 100 }, { inG: 50 }] }, 'rounds', /add up to 150 g, not to the 224 g/],
    [
      'a round that gave more than it took',
      { rounds: [{ inG: 100 }, { inG: 124, outG: 180 }] },
      'rounds.1.outG',
      /Was the cup on the scale/,
    ],
    [
      'a sieve series out of order',
      {
        passes: [
          { openingUm: 250, throughG: 100, overG: 110 },
          { openingUm: 600, throughG: 90, overG: 20 },
        ],
      },
      'passes.1.openingUm',
      /coarse to fine/,
    ],
    [
      'more on top than there was',
      {
        passes: [
          { openingUm: 250, throughG: 150, overG: 60 },
          { openingUm: 250, throughG: 40, overG: 50 },
        ],
      },
      'passes.1.overG',
      /more than the 60 g/,
    ],
    ['losses beyond what is missing', { lost: { dustG: 40 } }, 'lost', /add up to 40 g, but only 14 g is missing/],
    ['powder beyond what went in', { powderOutG: 260 }, 'powderOutG', /more than the 224 g/],
  ])('refuses %s, by its field', (_, body, field, message) => {
    expect(refusals(log, 21, { kind: 'grind', dryInG: 224, powderOutG: 210, ...body })[field]).toMatch(message)
  })
  it('takes one that adds up, its seed counted in', () => {
    expect(
      refusals(log, 21, {
        kind: 'grind',
        dryInG: 224,
        powderOutG: 232,
        seed: { jarId: 'old', weightG: 20 },
        rounds: [{ inG: 112, outG: 105 }, { inG: 112 }],
        passes: [
          { openingUm: 600, throughG: 200, overG: 30, back: true },
          { openingUm: 600, throughG: 25, overG: 5 },
          { openingUm: 250, throughG: 200, overG: 25 },
        ],
        lost: { filmG: 4 },
      }),
    ).toEqual({})
  })
  it('begins straight from the machine too, warm as it is', () => {
    expect(refusals(out(), 14.5, { kind: 'grind', dryInG: 224, powderOutG: 210, warm: true })).toEqual({})
  })
  it('begins from jars of the shelf, as shards or as powder to be dried', () => {
    const again = (fromForm: 'pieces' | 'powder') =>
      logOf([0, { ...BEETROOT, weightG: 80, source: 'Jar 3', fromJars: [{ jarId: 'j', weightG: 80 }], fromForm }])
    expect(foldBatch(again('pieces'), findFood)).toMatchObject({ stage: 'grinding', dryG: 80, unpacked: { pieces: 80 } })
    expect(foldBatch(again('powder'), findFood)).toMatchObject({ stage: 'grinding', unpacked: { powder: 80 } })
    expect(refusals(again('pieces'), 1, { kind: 'grind', dryInG: 80, powderOutG: 77 })).toEqual({})
    expect(refusals(again('pieces'), 1, { kind: 'grind', dryInG: 90, powderOutG: 77 }).dryInG).toMatch(
      /more than there is: 80 g of dry pieces/,
    )
    const dried = more(again('powder'), [1, { kind: 'powderDry', how: 'low-oven', minutes: 15, beforeG: 80, afterG: 77 }])
    expect(toPackG(foldBatch(dried, findFood)!)).toBe(77)
    expect(refusals(dried, 2, { kind: 'pack', jarId: 'n', netG: 77, packageKey: 'screw-jar', place: 'P' })).toEqual({})
  })
  it('what goes back into the machine from the shelf is held to be nearly dry', () => {
    const log = more(
      logOf([0, { ...BEETROOT, weightG: 80, source: 'Jar 3', fromJars: [{ jarId: 'j', weightG: 80 }], fromForm: 'powder' }]),
      [1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1], totalG: 80 }],
      [1, { kind: 'heat', runId: 'r', setC: 57 }],
    )
    const state = foldBatch(log, findFood)!
    expect(state.balance.moisture.p50).toBeCloseTo(0.08, 2)
    expect(state.run!.powder).toBe(true)
    expect(foldBatch(more(log, [2.5, { kind: 'unload', weightG: 77 }]), findFood)).toMatchObject({
      stage: 'grinding',
      unpacked: { powder: 77 },
    })
  })
})

describe('several jars at rest', () => {
  const rest = more(out(), [
    15,
    {
      kind: 'rest',
      jars: [
        { name: 'Red lid', weightG: 120 },
        { name: 'Blue lid', weightG: 104 },
      ],
    },
  ])
  it('are looked at one by one; the worst one decides', () => {
    const state = foldBatch(
      more(rest, [40, { kind: 'look', saw: 'dry', jar: 1 }], [40, { kind: 'look', saw: 'moisture', jar: 2 }]),
      findFood,
    )!
    expect(state.rest!.jars.map(jar => [jar.name, jar.last])).toEqual([
      ['Red lid', 'dry'],
      ['Blue lid', 'moisture'],
    ])
    expect(refusals(rest, 40, { kind: 'look', saw: 'dry', jar: 3 }).jar).toMatch(/2 jars are at rest; there is no number 3/)
  })
  it('a mouldy one goes and the others rest on, lighter by it', () => {
    const mouldy = more(rest, [40, { kind: 'look', saw: 'mould', jar: 2 }])
    expect(foldBatch(mouldy, findFood)!.mould).toBe(true)
    expect(refusals(mouldy, 41, { kind: 'restEnd' }).kind).toMatch(/[Mm]ould/)
    const gone = more(mouldy, [41, { kind: 'restOut', jar: 2, weightG: 104, cause: 'Mould' }])
    expect(foldBatch(gone, findFood)).toMatchObject({ mould: false, dryG: 120 })
    expect(refusals(gone, 42, { kind: 'look', saw: 'dry', jar: 2 }).jar).toMatch(/thrown away/)
    expect(refusals(mouldy, 41, { kind: 'restOut', jar: 1, weightG: 400, cause: 'Mould' }).weightG).toMatch(/Only 224 g/)
  })
  it('pieces that hang up and fall when knocked are dry', () => {
    expect(foldBatch(more(rest, [40, { kind: 'look', saw: 'hung' }]), findFood)!.rest!.jars.every(jar => jar.last === 'hung')).toBe(true)
  })
})

describe('jars for a weight', () => {
  it('are the smallest that takes all, tapped down; beyond the largest, several of it', () => {
    expect(bestJar(jarsFor(100, 0.5, 'powder'))).toMatchObject({ sizeMl: 250, count: 1 })
    expect(bestJar(jarsFor(4000, 0.5, 'powder'))).toMatchObject({ sizeMl: 2000, count: 4 })
  })
  it('never overflow, and hold all that there is (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 5000, noNaN: true }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.constantFrom('powder', 'flakes', 'pieces'),
        (grams, density, purpose) => {
          for (const choice of jarsFor(grams, density, purpose)) expect(choice.fill).toBeLessThanOrEqual(0.9 + 1e-9)
          const { sizeMl, count } = bestJar(jarsFor(grams, density, purpose))
          if (count > 1) expect(sizeMl).toBe(2000)
        },
      ),
    )
  })
})

describe('a lid that nobody knows', () => {
  it('is measured by silica gel: what it gained a day for each kPa of the room', () => {
    expect(measuredLeak({ gainedG: 0.7, days: 7, room: { celsius: 20, humidity: 0.5 } })).toBeCloseTo(0.1 / (saturationKPa(20) * 0.5), 9)
    expect(() => measuredLeak({ gainedG: 0, days: 7, room: { celsius: 20, humidity: 0.5 } })).toThrow(InputError)
  })
  it('has no figure of its own; a measured one outweighs the usual', () => {
    expect(leakOf('other')).toBeUndefined()
    expect(leakOf('other', 0.02)).toBe(0.02)
    expect(leakOf('bag', permeanceOf(5, 0.05))).toBeCloseTo(0.25 / (saturationKPa(38) * 0.9), 9)
  })
})

describe('strength over the months', () => {
  const months = { low: 6, high: 9 }
  it('has lost half at the middle of the usual months, unless noses say otherwise', () => {
    const { halfLife, curve } = strengthOf(months, [])
    expect(halfLife.p50).toBeCloseTo(Math.sqrt(54), 1)
    expect(curve[0]!.strength.p50).toBe(1)
    for (let i = 1; i < curve.length; i++) expect(curve[i]!.strength.p50).toBeLessThan(curve[i - 1]!.strength.p50)
  })
  it('is learned: strong after a year means slower, nothing after two months faster, and doubt shrinks', () => {
    const usual = strengthOf(months, [])
    const slow = strengthOf(months, [
      { months: 12, smell: 'strong' },
      { months: 15, smell: 'weaker' },
    ])
    const fast = strengthOf(months, [
      { months: 2, smell: 'weaker' },
      { months: 4, smell: 'none' },
    ])
    expect(slow.halfLife.p50).toBeGreaterThan(1.4 * usual.halfLife.p50)
    expect(fast.halfLife.p50).toBeLessThan(0.6 * usual.halfLife.p50)
    expect(Math.log(slow.halfLife.p90 / slow.halfLife.p10)).toBeLessThan(Math.log(usual.halfLife.p90 / usual.halfLife.p10))
  })
  it('finds a half-life again from what a nose would say', () => {
    const truth = 14
    const word = (strength: number) =>
      strength > 0.65
        ? ('strong' as const)
        : strength > 0.35
          ? ('weaker' as const)
          : strength > 0.12
            ? ('crushed' as const)
            : ('none' as const)
    const tests = Array.from({ length: 24 }, (_, i) => ({ months: 2 * i, smell: word(2 ** ((-2 * i) / truth)) }))
    expect(strengthOf(months, tests).halfLife.p50 / truth).toBeGreaterThan(0.85)
    expect(strengthOf(months, tests).halfLife.p50 / truth).toBeLessThan(1.15)
  })
  it('half the strength wants twice the powder', () => {
    expect(useMore(0.5)).toBe(2)
  })
})
