import { assess, checkEntry, foldBatch, taughtBy } from '#core/batch'
import { inForce, type EntryBody } from '#core/log'
import { waterOf } from '#core/water'
import { findFood } from '../../support/foods'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'

/** The whole path of a load that nobody weighs: in, felt, out, rested, ground. */
const RUN = '018f0000-0000-7000-8000-000000000001'
type Item = [hours: number, body: EntryBody]
const load = (weightSdG?: number): Item => [
  1,
  { kind: 'load', runId: RUN, machineId: 'cabinet', positions: [1, 2], totalG: 1700, weightSdG },
]
const feel = (places: number): EntryBody => ({
  kind: 'feel',
  check: { form: 'pieces', answers: { bend: 'snaps', middle: 'even' }, cooled: true, places },
})
const entries = (...items: Item[]) => logOf([0, BEETROOT], load(170), [1, { kind: 'heat', runId: RUN, setC: 57 }], ...items)
const state = (...items: Item[]) => foldBatch(entries(...items), findFood)!
const verdict = (hours: number, ...items: Item[]) => assess(state(...items), MORNING + hours * HOUR)!.verdict

describe('a load that nobody weighs goes on', () => {
  it('from loading to its rest by hand alone', () => {
    expect(verdict(2)).toMatchObject({ level: 'keep-drying', ask: 'weigh' })
    // Sooner than its hours say, and one hand for it.
    expect(verdict(3, [2.9, feel(2)])).toMatchObject({ level: 'cool-and-check', ask: 'feel' })
    expect(verdict(14, [13.9, feel(4)])).toMatchObject({ level: 'rest', ask: 'unload' })
    const out = state([13.9, feel(4)], [14, { kind: 'unload' }])
    const { moisture, known } = waterOf(out)
    expect(known).toBe('hand')
    expect(moisture.p90).toBeGreaterThan(1.3 * moisture.p10)
    const path: Item[] = [
      [13.9, feel(4)],
      [14, { kind: 'unload' }],
      [14.1, { kind: 'rest' }],
      [40, { kind: 'look', saw: 'dry' }],
      [200, { kind: 'restEnd' }],
    ]
    expect(() =>
      checkEntry(
        entries(...path),
        { ...logOf([201, { kind: 'grind', dryInG: 230, powderOutG: 220 }])[0]!, id: 'g', seq: 99 },
        {
          find: findFood,
          now: MORNING + 300 * HOUR,
        },
      ),
    ).not.toThrow()
  })
  it('its windows are wider than those of one that was weighed, and a weight narrows them', () => {
    const width = (items: Item[], sd?: number) => {
      const log = logOf([0, BEETROOT], load(sd), [1, { kind: 'heat', runId: RUN, setC: 57 }], ...items)
      const { solidsG } = assess(foldBatch(log, findFood)!, MORNING + 9 * HOUR)!.estimate
      return solidsG.p90 / solidsG.p10
    }
    expect(width([], 170)).toBeGreaterThan(1.1 * width([]))
    const plateau: Item[] = [7, 9, 11, 13].map((hours): Item => [hours, { kind: 'weigh', totalG: [420, 270, 226, 224][(hours - 7) / 2]! }])
    expect(width(plateau, 170)).toBeLessThan(width([], 170))
  })
  it('a first weight above what was expected is no slip of the scale, within its doubt', () => {
    const weigh = (totalG: number) => () =>
      checkEntry(entries(), { ...logOf([2, { kind: 'weigh', totalG }])[0]!, id: 'w', seq: 99 }, { find: findFood, now: MORNING + 9 * HOUR })
    expect(weigh(1900)).not.toThrow()
    expect(weigh(2600)).toThrow(/only gets lighter/)
  })
  it('teaches no yields and no solids', () => {
    const log = entries([9, { kind: 'weigh', totalG: 270 }], [13, { kind: 'weigh', totalG: 224 }], [14, { kind: 'unload', weightG: 224 }])
    const taught = taughtBy(foldBatch(log, findFood)!, inForce(log))
    expect([taught.solids, taught.prep, taught.dry]).toEqual([undefined, undefined, undefined])
  })
})
