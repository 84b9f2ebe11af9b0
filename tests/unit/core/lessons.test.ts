import { assess, foldBatch, lessonsOf } from '#core/batch'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'
import { findFood } from '../../support/foods'

const RUN = '0199b000-0000-7000-8000-000000000001'
const LOG = logOf(
  [0, BEETROOT],
  [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2], totalG: 1700 }],
  [1, { kind: 'heat', runId: RUN, setC: 57 }],
  [4, { kind: 'weigh', totalG: 900 }],
  [7, { kind: 'weigh', trays: [{ position: 1, weightG: 210 }] }],
  [7.1, { kind: 'weigh', trays: [{ position: 2, weightG: 214 }] }],
  [9, { kind: 'weigh', totalG: 280 }],
)

describe('what each weighing changed', () => {
  const lessons = lessonsOf(LOG, findFood)
  it('is one window a weighing, trays of a round together', () => {
    expect(lessons.map(lesson => lesson.entryId)).toEqual(['entry-3', 'entry-5', 'entry-6'])
  })
  it('is the window that the page showed then, and narrows', () => {
    const then = assess(foldBatch(LOG.slice(0, 4), findFood)!, MORNING + 4 * HOUR)!.finish
    expect(lessons[0]!.finish).toEqual(then)
    const widths = lessons.map(({ finish }) => finish.to - finish.from)
    expect(widths[2]!).toBeLessThan(0.8 * widths[0]!)
  })
  it('ends in what the page shows now', () => {
    expect(lessons.at(-1)!.finish).toEqual(assess(foldBatch(LOG, findFood)!, MORNING + 9 * HOUR)!.finish)
  })
  it('takes a correction as if it had been right from the start', () => {
    const [corrected] = logOf([10, { kind: 'weigh', totalG: 1050 }, { id: 'right', replaces: 'entry-3' }])
    const after = lessonsOf([...LOG, { ...corrected!, at: MORNING + 4 * HOUR, seq: 99 }], findFood)
    expect(after.map(lesson => lesson.entryId)).toEqual(['right', 'entry-5', 'entry-6'])
    expect(after[0]!.finish).not.toEqual(lessons[0]!.finish)
    // The last word is the later weights'.
    expect(Math.abs(after[2]!.finish.middle - lessons[2]!.finish.middle)).toBeLessThan(3 * HOUR)
  })
  it('is nothing where nothing was weighed, or there is no batch', () => {
    expect(lessonsOf(LOG.slice(0, 3), findFood)).toEqual([])
    expect(lessonsOf([], findFood)).toEqual([])
  })
  it('say where a later plateau showed that the solids were others than believed, and only there', () => {
    const weights = [
      [4, 800],
      [8, 450],
      [14, 372],
      [20, 362],
      [26, 360],
      [32, 360],
    ] as const
    const log = [
      ...LOG.slice(0, 3),
      ...logOf(
        ...weights
          .map(([hours, totalG]) => [hours, { kind: 'weigh', totalG }] as const)
          .map(item => [...item] as [number, { kind: 'weigh'; totalG: number }]),
      ),
    ].map((entry, i) => ({ ...entry, id: `entry-${i}`, seq: i + 1 }))
    const found = lessonsOf(log, findFood)
    const { saidThen, knownSince } = found[0]!.revised!
    // By hand: some 350 g of solids in 800 g, where the card has about 215 g.
    expect(knownSince).toBeGreaterThan(0.5)
    expect(knownSince).toBeLessThan(0.6)
    expect(saidThen).toBeGreaterThan(knownSince + 0.08)
    expect(found.at(-1)!.revised).toBeUndefined()
  })
})
