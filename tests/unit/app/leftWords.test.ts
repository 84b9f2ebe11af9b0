import { leftWords } from '../../../app/utils/leftWords'

const HOUR = 3_600_000
const rack = (from: number | undefined, to: number | undefined, more: object = {}) =>
  ({
    setC: 57,
    machine: { kind: 'dehydrator' },
    finishes: [
      {
        batchId: 'a',
        batchNumber: 1,
        title: 'A',
        from: from === undefined ? undefined : from * HOUR,
        to: to === undefined ? undefined : to * HOUR,
      },
    ],
    ...more,
  }) as Parameters<typeof leftWords>[0]

it('says how long a machine still runs as its windows do, in hours and in days', () => {
  const said = (from?: number, to?: number, more?: object) => leftWords(rack(from, to, more), 0).replaceAll('\u00A0', ' ')
  expect(said(3, 5)).toBe('3–5 h')
  expect(said(-1, 4)).toBe('within 4 h')
  expect(said(0.2, 0.3)).toBe('within 1 h')
  expect(said(2.9, 3.1)).toBe('about 3 h')
  expect(said(100, 330)).toBe('4–14 days')
  expect(said(-3, -1)).toBe('may be dry')
  expect(said(undefined, undefined)).toBe('no finish at this heat')
  expect(said(3, 5, { setC: null })).toBe('heat off')
  expect(said(3, 5, { finishes: [] })).toBe('empty')
})
