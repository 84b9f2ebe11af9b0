import { FEEL_QUESTIONS, isConstantWeight, judgeDryness, judgeFeel, type DrynessEvidence, type FeelCheck } from '#core/dryness'
import type { FeelForm } from '#core/foods'

const snaps: FeelCheck = { form: 'pieces', answers: { bend: 'snaps', middle: 'even' }, cooled: true, places: 3 }
const weight = (probabilityDry: number): DrynessEvidence['weight'] => ({ probabilityDry, moistureNow: { p10: 0.04, p50: 0.05, p90: 0.06 }, weighIns: 4 })
const base: DrynessEvidence = { purpose: 'powder', targetMoisture: 0.06 }

describe('feel', () => {
  it('has questions for every form, each with a dry answer and one that is not', () => {
    for (const form of Object.keys(FEEL_QUESTIONS) as FeelForm[]) {
      for (const question of FEEL_QUESTIONS[form]) {
        expect(question.answers.some(answer => answer.vote === 'dry')).toBe(true)
        expect(question.answers.some(answer => answer.vote !== 'dry')).toBe(true)
      }
    }
  })
  it('one wet place outweighs everything', () => {
    expect(judgeFeel({ ...snaps, answers: { bend: 'snaps', middle: 'darker' } }, 'powder').vote).toBe('veto')
  })
  it('leathery is dry enough only for fruit kept as pieces', () => {
    const leathery = { ...snaps, answers: { bend: 'leathery', middle: 'even' } }
    expect(judgeFeel(leathery, 'pieces', true).vote).toBe('dry')
    expect(judgeFeel(leathery, 'powder', true).vote).toBe('wet')
    expect(judgeFeel(leathery, 'pieces').vote).toBe('wet')
  })
  it('says what weakens it', () => {
    expect(judgeFeel({ ...snaps, cooled: false, places: 1, answers: { bend: 'snaps' } }, 'powder').shortcomings).toHaveLength(3)
  })
})

describe('constant weight', () => {
  it('compares over at least two hours of heat', () => {
    expect(isConstantWeight([{ hours: 5, weightG: 300 }, { hours: 6.5, weightG: 300 }])).toBeUndefined()
    expect(isConstantWeight([{ hours: 5, weightG: 300 }, { hours: 7, weightG: 299.5 }])).toMatchObject({ constant: true, spanH: 2 })
    expect(isConstantWeight([{ hours: 5, weightG: 300 }, { hours: 7, weightG: 296 }])).toMatchObject({ constant: false, lossG: 4 })
  })
  it('is not fooled by a weight that rises', () => {
    expect(isConstantWeight([{ hours: 5, weightG: 300 }, { hours: 8, weightG: 310 }])!.constant).toBe(false)
  })
  it('knows a coarse scale', () => {
    expect(isConstantWeight([{ hours: 5, weightG: 300 }, { hours: 8, weightG: 296 }], 5)!.constant).toBe(true)
  })
})

describe('the verdict', () => {
  it.each<[string, Partial<DrynessEvidence>, string, boolean]>([
    ['nothing known', {}, 'keep-drying', false],
    ['weight alone says wet', { weight: weight(0.01) }, 'keep-drying', false],
    ['weight alone says dry', { weight: weight(0.95) }, 'cool-and-check', false],
    ['weight is unsure', { weight: weight(0.5) }, 'cool-and-check', false],
    ['feel alone says dry', { feel: snaps }, 'cool-and-check', false],
    ['both say dry', { weight: weight(0.9), feel: snaps }, 'rest', false],
    ['feel dry, weight half wet', { weight: weight(0), feel: snaps }, 'keep-drying', true],
    ['weight dry, a wet place found', { weight: weight(0.95), feel: { ...snaps, answers: { bend: 'soft' } } }, 'keep-drying', true],
    ['felt warm', { weight: weight(0.9), feel: { ...snaps, cooled: false } }, 'cool-and-check', false],
    ['resting', { rest: { days: 3, lastSaw: 'dry' } }, 'rest', false],
    ['rested', { rest: { days: 7, lastSaw: 'dry' } }, 'grind', false],
    ['rested pieces', { purpose: 'pieces', rest: { days: 8, lastSaw: 'dry' } }, 'seal', false],
    ['beads in the jar', { weight: weight(0.99), feel: snaps, rest: { days: 2, lastSaw: 'moisture' } }, 'keep-drying', false],
  ])('%s', (_, evidence, level, disagrees) => {
    const verdict = judgeDryness({ ...base, ...evidence })
    expect(verdict.level).toBe(level)
    expect(verdict.disagreement !== undefined).toBe(disagrees)
    expect(verdict.reason.length).toBeGreaterThan(10)
  })
  it('mould discards the jar whatever else is said', () => {
    const verdict = judgeDryness({ ...base, weight: weight(1), feel: snaps, rest: { days: 9, lastSaw: 'mould' } })
    expect(verdict.discard).toBe(true)
    expect(verdict.headline).toBe('Discard it')
  })
  it('constant weight speaks for dry, and for unsure where the estimate says wet', () => {
    const constant = { constant: true, spanH: 2.5, lossG: 0, noiseG: 1 }
    expect(judgeDryness({ ...base, weight: { ...weight(0.4)!, constant }, feel: snaps }).level).toBe('rest')
    expect(judgeDryness({ ...base, weight: { ...weight(0.02)!, constant } }).witnesses[0]!.says).toBe('unsure')
  })
})
