import fc from 'fast-check'
import { betweenGrindings, checkEntry, foldBatch, grindsAgain, productOf, taughtBy, toGrindG, toPackG } from '#core/batch'
import { driesFor, targetOfRun } from '#core/water'
import { InputError } from '#core/errors'
import { inForce, type EntryBody } from '#core/log'
import { findFood } from '../../support/foods'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'

const beetroot = findFood('beetroot')!
const RUN = '018f0000-0000-7000-8000-000000000001'
type Item = [hours: number, body: EntryBody]
/** A batch that came out of its machine, on the scale or not, and rested. */
const dried = (outG: number | undefined, ...items: Item[]) =>
  logOf(
    [0, { ...BEETROOT, weightG: 800 }],
    [1, { kind: 'load', runId: RUN, machineId: 'cabinet', positions: [1], totalG: 600 }],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    [14, { kind: 'unload', weightG: outG }],
    [14.2, { kind: 'restEnd' }],
    ...items,
  )
const state = (outG: number | undefined, ...items: Item[]) => foldBatch(dried(outG, ...items), findFood)!
const grind = (dryInG: number, powderOutG: number, again?: boolean): EntryBody => ({ kind: 'grind', dryInG, powderOutG, again })
function refused(outG: number | undefined, items: Item[], body: EntryBody): string | undefined {
  const entries = dried(outG, ...items)
  const [entry] = logOf([60, body])
  try {
    checkEntry(entries, { ...entry!, id: 'new', seq: 99 }, { find: findFood, now: MORNING + 99 * HOUR })
    return undefined
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return error.problems[0]!.message
  }
}
const pack = (netG: number): EntryBody => ({ kind: 'pack', jarId: 'jar', netG, packageKey: 'screw-jar', place: 'Board' })

describe('what the mill had and gave', () => {
  it('powder that is dried and ground again replaces itself, said or not', () => {
    for (const again of [true, undefined]) {
      const whole = state(
        54,
        [15, grind(54, 52)],
        [16, { kind: 'powderDry', how: 'low-oven', minutes: 20, beforeG: 52, afterG: 50 }],
        [17, grind(50, 48, again)],
      )
      expect([toPackG(whole), whole.powderG, whole.piecesInG, whole.dryG]).toEqual([48, 48, 54, 54])
    }
  })
  it('more than came out is refused, and so is more powder than there is', () => {
    expect(refused(103, [], grind(600, 500))).toMatch(/600 g to grind is more than there is: 103 g of dry pieces/)
    expect(refused(103, [], grind(104, 100))).toBeUndefined()
    expect(refused(103, [[15, grind(103, 100)]], grind(150, 140, true))).toMatch(/0 g of dry pieces and 100 g of powder/)
    expect(
      refused(
        103,
        [
          [15, grind(103, 100)],
          [16, pack(60)],
        ],
        grind(60, 58, true),
      ),
    ).toMatch(/40 g of powder/)
  })
  it('what was not ground is not lost with the packing', () => {
    const part = state(300, [15, grind(100, 96)], [16, pack(96)])
    expect(part).toMatchObject({ stage: 'grinding', finished: false, left: { pieces: 200, powder: 0 }, dryG: 300 })
    expect([grindsAgain(part), toGrindG(part, false), productOf(part)]).toEqual([false, 200, 296])
    const rest = state(300, [15, grind(100, 96)], [16, pack(96)], [17, grind(200, 190)])
    expect(rest).toMatchObject({ left: { pieces: 0, powder: 190 }, powderG: 286 })
    expect([grindsAgain(rest), toGrindG(rest, true)]).toEqual([true, 190])
  })
  it('teaches the mill by what was ground, not by all that was dry', () => {
    const recovery = (...items: Item[]) => taughtBy(state(300, ...items), inForce(dried(300, ...items))).recovery!.log
    expect(recovery([15, grind(100, 95)])).toBeCloseTo(recovery([15, grind(300, 285)]), 6)
  })
  it('where nobody weighed what came out, a cup of just the powder is that powder', () => {
    expect(state(undefined, [15, grind(100, 96)], [16, grind(96, 94)])).toMatchObject({ piecesInG: 100, powderG: 94 })
    expect(state(undefined, [15, grind(100, 96)], [16, grind(60, 57)])).toMatchObject({ piecesInG: 160, powderG: 153 })
  })
  it('never gives more than came out, in whatever order it is ground', () => {
    const session = fc.record({
      share: fc.double({ min: 0.05, max: 1, noNaN: true }),
      gives: fc.double({ min: 0.8, max: 1, noNaN: true }),
      again: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(session, { minLength: 1, maxLength: 8 }), sessions => {
        const items: Item[] = []
        for (const [i, { share, gives, again }] of sessions.entries()) {
          const before = state(200, ...items)
          const there = again ? before.powderG : before.left.pieces!
          if (there * share > 1) items.push([15 + i, grind(there * share, there * share * gives, again || undefined)])
        }
        const { powderG, piecesInG, left } = state(200, ...items)
        const piecesLeftG = left.pieces!
        expect(powderG + piecesLeftG).toBeLessThanOrEqual(200 * 1.02 + 1)
        expect(Math.abs(piecesInG + piecesLeftG - 200)).toBeLessThanOrEqual(5.1)
      }),
    )
  })
})

describe('ground, dried and ground again', () => {
  const between = (...items: Item[]) =>
    foldBatch(
      logOf([0, { ...BEETROOT, weightG: 800 }], [0.1, { kind: 'choose', question: 'powderDry', school: 'between' }], ...items),
      findFood,
    )!
  const toTheMill: Item[] = [
    [1, { kind: 'load', runId: RUN, machineId: 'cabinet', positions: [1], totalG: 600 }],
    [1, { kind: 'heat', runId: RUN, setC: 57 }],
    [12, { kind: 'unload', weightG: 106 }],
  ]
  const coarse: Item = [12.5, grind(106, 104)]
  const oven: Item = [14, { kind: 'powderDry', how: 'dryer', minutes: 60, beforeG: 104, afterG: 101 }]
  it('is dry enough for the first round at what pieces keep at, and for the second at what powder does', () => {
    const first = between(...toTheMill)
    expect([driesFor(first, first.run), targetOfRun(first, first.run!)]).toEqual(['pieces', beetroot.target.pieces])
    const again = between(...toTheMill, coarse, [14, { kind: 'load', runId: 'two', machineId: 'cabinet', positions: [1], totalG: 104 }])
    expect([again.run!.powder, targetOfRun(again, again.run!)]).toEqual([true, beetroot.target.powder])
    // Without the school it is dried for powder at once.
    expect(targetOfRun(state(100), state(100).run!)).toBe(beetroot.target.powder)
  })
  it('says the next step: dry, then grind what the first round left; 106 to 104, dried to 101, ground to 99', () => {
    expect(betweenGrindings(between(...toTheMill))).toBeUndefined()
    expect(betweenGrindings(between(...toTheMill, coarse))).toBe('dry')
    const dry = between(...toTheMill, coarse, oven)
    expect([betweenGrindings(dry), grindsAgain(dry), toGrindG(dry, true)]).toEqual(['grind', true, 101])
    const fine = between(...toTheMill, coarse, oven, [15, grind(101, 99, true)])
    expect([betweenGrindings(fine), toPackG(fine), fine.piecesInG]).toEqual([undefined, 99, 106])
    expect(betweenGrindings(state(106, [15, grind(106, 104)]))).toBeUndefined()
  })
})
