import { FEEL_QUESTIONS, judgeDryness, judgeFeel, type DrynessEvidence, type FeelCheck } from '#core/dryness'
import type { FeelForm } from '#core/foods'
import { collapse } from '../../support/collapse'

/**
 * What is said of every state of the evidence, word for word: whoever changes a threshold or a sentence sees here which verdicts
 * change with it.
 */
const TARGET = 0.06
const weights: Record<string, DrynessEvidence['weight']> = {
  'not weighed': undefined,
  'weighed, 3 in 100': weighed(0.03),
  'weighed, 20 in 100': weighed(0.2),
  'weighed, 21 in 100': weighed(0.21),
  'weighed, 79 in 100': weighed(0.79),
  'weighed, 80 in 100': weighed(0.8),
  'weighed, 97 in 100': weighed(0.97),
  'constant, 10 in 100': { ...weighed(0.1), constant: { constant: true, lossG: 0.4, spanH: 2.25, noiseG: 2 } } as DrynessEvidence['weight'],
  'constant, 20 in 100': { ...weighed(0.2), constant: { constant: true, lossG: -1, spanH: 3, noiseG: 0.4 } } as DrynessEvidence['weight'],
  'unweighed for minutes, 20 in 100': { ...weighed(0.2), unweighedH: 0.4 },
  'unweighed for an hour, 90 in 100': { ...weighed(0.9), unweighedH: 1.2 },
  'unweighed for a night, 21 in 100': { ...weighed(0.21), unweighedH: 9 },
  'unweighed for days, 5 in 100': { ...weighed(0.05), unweighedH: 72 },
}
function weighed(probabilityDry: number): NonNullable<DrynessEvidence['weight']> {
  return { probabilityDry, moistureNow: { p10: 0.05, p50: 0.072, p90: 0.104 }, weighIns: 3 }
}
const feel = (middle: string, more: Partial<FeelCheck> = {}): FeelCheck => ({
  form: 'pieces',
  answers: { bend: 'snaps', middle },
  cooled: true,
  places: 3,
  ...more,
})
const feels: Record<string, FeelCheck | undefined> = {
  'not felt': undefined,
  'feels dry': feel('even'),
  'feels dry, one place': feel('even', { places: 1 }),
  leathery: feel('even', { answers: { bend: 'leathery', middle: 'even' } }),
  'a wet middle': feel('darker'),
}
const jarAir = (p10: number, p50: number, p90: number, closedHours = 5): DrynessEvidence['jarAir'] => ({
  humidity: 0.31,
  closedHours,
  moisture: { p10, p50, p90 },
  sealBelow: 0.35,
})
const airs: Record<string, DrynessEvidence['jarAir']> = {
  'no jar air': undefined,
  'jar air dry': jarAir(0.04, TARGET, 1.3 * TARGET),
  'jar air wide': jarAir(0.04, 0.05, 1.31 * TARGET),
  'jar air above': jarAir(TARGET, 0.08, 0.1),
  'jar air wet': jarAir(0.061, 0.08, 0.1),
  'jar air too soon': jarAir(0.061, 0.08, 0.1, 3.9),
}
const rests: Record<string, DrynessEvidence['rest']> = {
  ...Object.fromEntries(
    (['dry', 'moisture', 'clumps', 'mould', 'nothing'] as const).flatMap(lastSaw =>
      [1, 6, 7].map(days => [`${days} days, saw ${lastSaw}`, { days, lastSaw }]),
    ),
  ),
}

const judged = (evidence: Partial<DrynessEvidence>) => judgeDryness({ purpose: 'powder', targetMoisture: TARGET, ...evidence })
/** A verdict as it is read, without its witnesses. */
function words(evidence: Partial<DrynessEvidence>): string {
  const { level, headline, reason, disagreement, discard } = judged(evidence)
  return [level, headline, reason, ...(disagreement ? [`(${disagreement})`] : []), ...(discard ? ['DISCARD'] : [])].join(' | ')
}

describe('the verdict, word for word', () => {
  const tables = (said: Record<string, string[][]>) => Object.fromEntries(Object.entries(said).map(([key, rows]) => [key, collapse(rows)]))
  it('of weight, feel and jar air', () => {
    const said: Record<string, string[][]> = {}
    for (const [w, weight] of Object.entries(weights))
      for (const [f, felt] of Object.entries(feels))
        for (const [a, air] of Object.entries(airs)) (said[words({ weight, feel: felt, jarAir: air })] ??= []).push([w, f, a])
    expect(tables(said)).toMatchSnapshot()
  })
  it('of the jar at rest', () => {
    const said: Record<string, string[][]> = {}
    for (const [r, rest] of Object.entries(rests))
      for (const w of ['not weighed', 'weighed, 20 in 100', 'weighed, 80 in 100'])
        for (const [f, felt] of Object.entries({ 'not felt': undefined, 'a wet middle': feels['a wet middle'], leathery: feels.leathery }))
          for (const a of ['no jar air', 'jar air dry', 'jar air wide', 'jar air wet'])
            (said[words({ rest, weight: weights[w], feel: felt, jarAir: airs[a] })] ??= []).push([r, w, f, a])
    expect(tables(said)).toMatchSnapshot()
  })
  it('of each witness by itself', () => {
    const witness = (evidence: Partial<DrynessEvidence>, name: string) => {
      const found = judged(evidence).witnesses.find(item => item.name === name)
      return found && `${found.says} | ${found.headline} | ${found.detail}`
    }
    expect({
      weight: Object.fromEntries(Object.entries(weights).map(([key, weight]) => [key, witness({ weight }, 'weight')])),
      feel: Object.fromEntries(Object.entries(feels).map(([key, felt]) => [key, witness({ feel: felt }, 'feel')])),
      jarAir: Object.fromEntries(Object.entries(airs).map(([key, air]) => [key, witness({ jarAir: air }, 'jarAir')])),
      rest: Object.fromEntries(Object.entries(rests).map(([key, rest]) => [key, witness({ rest }, 'rest')])),
    }).toMatchSnapshot()
  })
  it('pieces that have rested are sealed, others ground', () => {
    const rest = { days: 7, lastSaw: 'dry' as const }
    expect(judged({ rest, purpose: 'pieces' }).level).toBe('seal')
    expect(judged({ rest, purpose: 'powder' }).level).toBe('grind')
    expect(judged({ rest, purpose: 'flakes' }).level).toBe('grind')
  })
})

describe('feel, word for word', () => {
  it('every answer, alone', () => {
    expect(
      Object.fromEntries(
        (Object.keys(FEEL_QUESTIONS) as FeelForm[]).map(form => [
          form,
          FEEL_QUESTIONS[form].map(({ key, ask, answers }) => [
            `${key}: ${ask}`,
            ...answers.map(answer => {
              const { vote, words: felt } = judgeFeel({ form, answers: { [key]: answer.key }, cooled: true, places: 2 }, 'pieces', true)
              return `${answer.key}: ${felt}: ${vote}`
            }),
          ]),
        ]),
      ),
    ).toMatchSnapshot()
  })
  it('what weakens it', () => {
    expect(judgeFeel(feel('even', { places: 2 }), 'powder').shortcomings).toEqual([])
    expect(judgeFeel(feel('even', { places: 1, cooled: false, answers: { middle: 'even' } }), 'powder').shortcomings).toMatchSnapshot()
    expect(judgeFeel({ form: 'pieces', answers: {}, cooled: true, places: 2 }, 'powder')).toMatchObject({ vote: 'wet', words: '' })
  })
})
