import { conflictsOf, type Entry, type EntryBody } from '#core/log'
import { MORNING } from '../../support/logbook'

const MINUTE = 60_000
const MIRA = { id: 'mira', name: 'Mira’s phone' }
const JON = { id: 'jon', name: 'Jon’s tablet' }
const log = (...items: [minutes: number, body: EntryBody, more?: Partial<Entry>][]): Entry[] =>
  items.map(([minutes, body, more], i) => ({
    id: `e${i}`,
    seq: i + 1,
    at: MORNING + minutes * MINUTE,
    recordedAt: MORNING + minutes * MINUTE,
    body,
    ...more,
  }))
const tray = (weightG: number, position = 3): EntryBody => ({ kind: 'weigh', trays: [{ position, weightG }] })
const total = (totalG: number): EntryBody => ({ kind: 'weigh', totalG })
const late = (wroteAt: number): EntryBody => ({
  kind: 'unsettled',
  said: { kind: 'weigh', totalG: 400 },
  wroteAt: MORNING + wroteAt * MINUTE,
  because: 'Not in a machine.',
})
const kinds = (entries: Entry[]) => conflictsOf(entries).map(conflict => conflict.kind)

describe('what cannot both be', () => {
  it('is two weights of one tray, or of the load, at one minute by two devices', () => {
    expect(kinds(log([0, tray(90), { writer: MIRA }], [1, tray(120), { writer: JON }]))).toEqual(['weights'])
    expect(kinds(log([0, total(900), { writer: MIRA }], [0, total(700)]))).toEqual(['weights'])
  })
  it('is none where they agree as scales do, are of other trays or minutes, or of one hand', () => {
    expect(kinds(log([0, tray(90), { writer: MIRA }], [1, tray(92), { writer: JON }]))).toEqual([])
    expect(kinds(log([0, tray(90), { writer: MIRA }], [1, tray(120, 4), { writer: JON }]))).toEqual([])
    expect(kinds(log([0, tray(90), { writer: MIRA }], [2, tray(70), { writer: JON }]))).toEqual([])
    expect(kinds(log([0, tray(90), { writer: MIRA }], [1, tray(120), { writer: MIRA }]))).toEqual([])
    expect(kinds(log([0, tray(90)], [1, tray(120)]))).toEqual([])
    expect(kinds(log([0, total(900), { writer: MIRA }], [0, tray(120), { writer: JON }]))).toEqual([])
  })
  it('ends when one is voided, corrected, or somebody says that both stand', () => {
    const two = log([0, tray(90), { writer: MIRA }], [1, tray(120), { writer: JON }])
    const then = (body: EntryBody, more: Partial<Entry> = {}) => [...two, ...log([2, body, { id: 'x', seq: 9, ...more }])]
    expect(kinds(then({ kind: 'void', target: 'e1' }))).toEqual([])
    expect(kinds(then({ kind: 'settle', first: 'e1', second: 'e0' }))).toEqual([])
    expect(kinds(then({ kind: 'settle', first: 'e1', second: 'other' }))).toEqual(['weights'])
    expect(kinds(then(tray(91), { replaces: 'e1', at: MORNING, writer: JON }))).toEqual([])
  })
  it('is what came late, beside the newest that another logged since it was written', () => {
    const entries = log(
      [0, total(900), { writer: MIRA }],
      [10, { kind: 'unload' }, { writer: MIRA }],
      [12, { kind: 'note', text: 'mine' }, { writer: JON }],
      [20, late(5), { writer: JON }],
    )
    const [found] = conflictsOf(entries)
    expect(found).toMatchObject({ kind: 'late', late: { id: 'e3' }, against: { id: 'e1' } })
    // What another logs later is not in its way, nor is a note.
    const [since] = conflictsOf([
      ...entries,
      ...log(
        [30, { kind: 'rest', jars: [] } as never, { id: 'x', seq: 9, writer: MIRA }],
        [31, { kind: 'note', text: 'hers' }, { id: 'y', seq: 10, writer: MIRA }],
      ),
    ])
    expect(since).toMatchObject({ against: { id: 'e1' } })
    const [noted] = conflictsOf(log([10, { kind: 'note', text: 'hers' }, { writer: MIRA }], [20, late(5), { writer: JON }]))
    expect(noted).toMatchObject({ kind: 'late', against: undefined })
    // Written after all that: against nothing.
    const [alone] = conflictsOf(log([0, total(900), { writer: MIRA }], [20, late(15), { writer: JON }]))
    expect(alone).toMatchObject({ kind: 'late', against: undefined })
  })
})
