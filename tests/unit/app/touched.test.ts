import { addressOf } from '#shared/api'
import type { Changed } from '#shared/contracts'
import { isTouched, keyOf, noteTurn, type Asked } from '../../../app/data/touched'

const BATCH = '018f3000-0000-7000-8000-000000000001'
const OTHER = '018f3000-0000-7000-8000-000000000002'
const key = (name: Asked, params: Record<string, string> = {}) => keyOf(name, addressOf(name, { params }))
const word = (more: Partial<Changed> = {}): Changed => ({ kind: 'changed', turn: 5, since: 4, log: true, ...more })

describe('what is asked again when the server says that something was written', () => {
  it('is whatever a log may change, the page of another batch too, and not what none does', () => {
    const asked = (name: Asked, params = {}) => isTouched(key(name, params), word(), false)
    expect(asked('batch', { batchId: BATCH })).toBe(true)
    expect(asked('batch', { batchId: OTHER })).toBe(true)
    expect((['stages', 'now', 'batches', 'shelf', 'plan', 'machines', 'insight'] as const).filter(name => !asked(name))).toEqual([])
    expect(
      (['household', 'health', 'devices', 'tools', 'foods', 'schools', 'recipes', 'whoAmI'] as const).filter(name => asked(name)),
    ).toEqual([])
  })

  it('is everything where more than the log was written, or a word was not heard', () => {
    expect(isTouched(key('household'), word({ log: undefined }), false)).toBe(true)
    expect(isTouched(key('household'), word(), true)).toBe(true)
    expect(isTouched(key('batch', { batchId: OTHER }), word(), true)).toBe(true)
  })

  it('is not what was answered since', () => {
    const address = addressOf('shelf')
    noteTurn(address, 4)
    expect(isTouched(keyOf('shelf', address), word(), false)).toBe(true)
    noteTurn(address, 5)
    expect(isTouched(keyOf('shelf', address), word(), false)).toBe(false)
    expect(isTouched(keyOf('shelf', address), word({ turn: 6 }), true)).toBe(true)
  })
})
