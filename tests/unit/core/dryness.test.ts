import { FEEL_QUESTIONS, isConstantWeight, judgeDryness, judgeFeel, type DrynessEvidence, type FeelCheck } from '#core/dryness'
import type { FeelForm } from '#core/foods'

const snaps: FeelCheck = { form: 'pieces', answers: { bend: 'snaps', middle: 'even' }, cooled: true, places: 3 }
const weight = (probabilityDry: number): DrynessEvidence['weight'] => ({
  probabilityDry,
  moistureNow: { p10: 0.04, p50: 0.05, p90: 0.06 },
  weighIns: 4,
})
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
    expect(
      isConstantWeight([
        { hours: 5, weightG: 300 },
        { hours: 6.5, weightG: 300 },
      ]),
    ).toBeUndefined()
    expect(
      isConstantWeight([
        { hours: 5, weightG: 300 },
        { hours: 7, weightG: 299.5 },
      ]),
    ).toMatchObject({ constant: true, spanH: 2 })
    expect(
      isConstantWeight([
        { hours: 5, weightG: 300 },
        { hours: 7, weightG: 296 },
      ]),
    ).toMatchObject({ constant: false, lossG: 4 })
  })
  it('is not fooled by a weight that rises', () => {
    expect(
      isConstantWeight([
        { hours: 5, weightG: 300 },
        { hours: 8, weightG: 310 },
      ])!.constant,
    ).toBe(false)
  })
  it('knows a coarse scale', () => {
    expect(
      isConstantWeight(
        [
          { hours: 5, weightG: 300 },
          { hours: 8, weightG: 296 },
        ],
        5,
      )!.constant,
    ).toBe(true)
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

describe('the air of a closed jar', () => {
  const weight = (probabilityDry: number) => ({ probabilityDry, moistureNow: { p10: 0.05, p50: 0.06, p90: 0.07 }, weighIns: 4 })
  const feel = { form: 'pieces' as const, answers: { bend: 'snaps', middle: 'even' }, cooled: true, places: 3 }
  const air = (p50: number, closedHours = 12) => ({
    humidity: p50 * 5,
    closedHours,
    moisture: { p10: 0.85 * p50, p50, p90: 1.15 * p50 },
    sealBelow: 0.3,
  })
  const judge = (more: Partial<DrynessEvidence>) => judgeDryness({ purpose: 'powder', targetMoisture: 0.06, ...more })
  const says = (more: Partial<DrynessEvidence>) => judge(more).witnesses.find(witness => witness.name === 'jarAir')!.says

  it('says dry, wet or not yet', () => {
    expect(says({})).toBe('nothing')
    expect(says({ jarAir: air(0.05) })).toBe('dry')
    expect(says({ jarAir: air(0.09) })).toBe('wet')
    expect(says({ jarAir: air(0.063) })).toBe('unsure')
    expect(says({ jarAir: air(0.05, 1) })).toBe('unsure')
  })
  it('stands in for the witness that is missing', () => {
    expect(judge({ jarAir: air(0.05), feel }).level).toBe('rest')
    expect(judge({ jarAir: air(0.05), weight: weight(0.9) }).level).toBe('rest')
    expect(judge({ jarAir: air(0.05) }).level).not.toBe('rest')
    expect(judge({ jarAir: air(0.05), weight: weight(0.9), feel }).reason).toMatch(/jar air agree/)
  })
  it('is told where it contradicts, with the likely cause', () => {
    const wetAir = judge({ jarAir: air(0.09), weight: weight(0.95), feel })
    expect(wetAir).toMatchObject({ level: 'keep-drying' })
    expect(wetAir.disagreement).toMatch(/Weight says dry and jar air says wet.*hygrometer is off/)
    const dryAir = judge({ jarAir: air(0.05), weight: weight(0.05) })
    expect(dryAir.level).toBe('cool-and-check')
    expect(dryAir.disagreement).toMatch(/driest pieces/)
  })
  it('speaks before beads do: a rest without moisture to be seen goes back where the air is wet', () => {
    const verdict = judge({ jarAir: air(0.09), rest: { days: 8, lastSaw: 'dry' } })
    expect(verdict.level).toBe('keep-drying')
    expect(verdict.disagreement).toMatch(/Eyes say dry/)
    expect(judge({ jarAir: air(0.05), rest: { days: 8, lastSaw: 'dry' } }).level).toBe('grind')
  })
  it('never outweighs mould or a wet place', () => {
    expect(judge({ jarAir: air(0.05), rest: { days: 8, lastSaw: 'mould' } }).discard).toBe(true)
    expect(judge({ jarAir: air(0.05), weight: weight(0.9), feel: { ...feel, answers: { bend: 'snaps', middle: 'damp' } } }).level).toBe(
      'keep-drying',
    )
  })
})
