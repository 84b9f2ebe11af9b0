import { FEEL_QUESTIONS, hotHoursAllowed, judgeDryness, judgeFeel, type DrynessEvidence, type FeelCheck } from '#core/dryness'
import { FEEL_FORMS } from '#core/foods'

/** Every mixture of what four witnesses may say: whatever they do, a wet one is never overruled by a dry one. */
const answered = (bend: string, middle: string): FeelCheck => ({ form: 'pieces', answers: { bend, middle }, cooled: true, places: 3 })
const WEIGHTS: [string, DrynessEvidence['weight']][] = [
  ['nothing', undefined],
  ...(
    [
      ['wet', 0.1],
      ['unsure', 0.5],
      ['dry', 0.9],
    ] as const
  ).map(([says, probabilityDry]): [string, DrynessEvidence['weight']] => [
    says,
    { probabilityDry, moistureNow: { p10: 0.05, p50: 0.06, p90: 0.07 }, weighIns: 3 },
  ]),
]
const FEELS: [string, FeelCheck | undefined][] = [
  ['nothing', undefined],
  ['dry', answered('snaps', 'even')],
  ['wet', answered('leathery', 'even')],
  ['wet', answered('snaps', 'darker')],
  ['unsure', { ...answered('snaps', 'even'), cooled: false }],
]
const air = (p50: number, closedHours = 8): DrynessEvidence['jarAir'] => ({
  humidity: 0.3,
  closedHours,
  moisture: { p10: 0.9 * p50, p50, p90: 1.1 * p50 },
  sealBelow: 0.35,
})
const AIRS: [string, DrynessEvidence['jarAir']][] = [
  ['nothing', undefined],
  ['dry', air(0.05)],
  ['wet', air(0.12)],
  ['unsure', air(0.05, 1)],
]
const RESTS: [string, DrynessEvidence['rest']][] = [
  ['none', undefined],
  ['nothing', { days: 20, lastSaw: 'nothing' }],
  ['dry', { days: 8, lastSaw: 'dry' }],
  ['unsure', { days: 3, lastSaw: 'dry' }],
  ['wet', { days: 8, lastSaw: 'moisture' }],
  ['wet', { days: 8, lastSaw: 'clumps' }],
]
const all = WEIGHTS.flatMap(weight =>
  FEELS.flatMap(feel =>
    AIRS.flatMap(jarAir =>
      RESTS.map(rest => ({
        says: [weight[0], feel[0], jarAir[0], rest[0]],
        verdict: judgeDryness({
          purpose: 'powder',
          targetMoisture: 0.06,
          weight: weight[1],
          feel: feel[1],
          jarAir: jarAir[1],
          rest: rest[1],
        }),
      })),
    ),
  ),
)

describe('laws of the verdict', () => {
  it('tries every mixture', () => expect(all).toHaveLength(4 * 5 * 4 * 6))
  it('says of each witness what it says, in words', () => {
    for (const { says, verdict } of all) {
      const of = (name: string) => verdict.witnesses.find(witness => witness.name === name)
      expect(['weight', 'feel', 'jarAir', 'rest'].map(name => of(name)?.says ?? 'none')).toEqual(says)
      for (const witness of verdict.witnesses) expect(witness.headline.length * witness.detail.length).toBeGreaterThan(0)
      expect(verdict.reason).toMatch(/\.$/)
    }
  })
  it('never says rest, grind or seal while any witness says wet', () => {
    for (const { says, verdict } of all) if (says.includes('wet')) expect(['keep-drying', 'cool-and-check']).toContain(verdict.level)
  })
  it('never says that a jar is done which nobody looked at, unless its air was read', () => {
    for (const { says, verdict } of all)
      if (says[3] === 'nothing' && says[2] !== 'dry') expect(['grind', 'seal', 'rest']).not.toContain(verdict.level)
  })
  it('never says dry where nothing says so', () => {
    for (const { says, verdict } of all) if (!says.includes('dry')) expect(['grind', 'seal']).not.toContain(verdict.level)
  })
  it('tells a contradiction between weight and hand before the rest, with its likely cause', () => {
    for (const { says, verdict } of all)
      if (says[3] === 'none' && says[2] === 'nothing' && says.slice(0, 2).sort().join() === 'dry,wet')
        expect(verdict.disagreement).toMatch(/^(Weight says dry and feel says wet|Feel says dry and weight says wet)\. Likely/)
  })
  it('keeps drying, and says why, where a wet place was found by hand', () => {
    for (const { says, verdict } of all)
      if (says[0] === 'dry' && says[1] === 'wet' && says[2] === 'nothing' && says[3] === 'none')
        expect(verdict).toMatchObject({
          level: 'keep-drying',
          reason:
            'The weight says dry, but a wet place was found by hand, and that decides. Dry on, then feel the wettest pieces again, cold.',
        })
  })
  it('tells nothing weighed from not dry by weight', () => {
    const of = (weight: string) => all.find(({ says }) => says.join() === `${weight},nothing,nothing,none`)!.verdict.reason
    expect(of('nothing')).toMatch(/^Nothing says yet that it is dry\./)
    expect(of('wet')).toMatch(/^By weight it is not dry\./)
  })
})

describe('headline, reason and button are of one mind', () => {
  /** Every mixture again, off the usual: a hand that went to four places, a weight newer than the hand, a room that nobody measured. */
  const stopped = { constant: true, lossG: 0, spanH: 3, noiseG: 1 }
  const wide = WEIGHTS.flatMap(([, weight]) =>
    [undefined, { chance: 0.5, known: false }, { chance: 0.5, known: true }, { chance: 0.95, known: false }].flatMap(reach =>
      [undefined, stopped].flatMap(constant => [true, false].map(sinceFeel => weight && { ...weight, reach, constant, sinceFeel })),
    ),
  )
  const hands = [...FEELS.map(([, feel]) => feel), { ...answered('snaps', 'even'), places: 4 }]
  const cases = wide.flatMap(weight =>
    hands.flatMap(feel =>
      AIRS.flatMap(([, jarAir]) =>
        RESTS.map(([, rest]) => ({
          weight,
          feel,
          jarAir,
          rest,
          verdict: judgeDryness({ purpose: 'powder', targetMoisture: 0.06, weight, feel, jarAir, rest }),
        })),
      ),
    ),
  )
  const ASKED = {
    weigh: /weigh/i,
    feel: /feel/i,
    air: /log the room’s air|: log it/i,
    jarAir: /read the air/i,
    look: /look/i,
    load: /back to the machine/i,
    discard: /discard/i,
  } as const
  it('the reason asks for the deed that the button does', () => {
    for (const { verdict } of cases) {
      const words = ASKED[verdict.ask as keyof typeof ASKED]
      if (words) expect([verdict.ask, verdict.reason]).toEqual([verdict.ask, expect.stringMatching(words)])
      else
        expect([verdict.ask, verdict.level]).toEqual(
          verdict.ask === 'unload' ? ['unload', 'rest'] : [verdict.ask, verdict.ask === 'pack' ? 'seal' : 'grind'],
        )
    }
  })
  it('what was just done is not asked for again, unless it came to nothing', () => {
    for (const { weight, feel, rest, verdict } of cases) {
      if (rest) continue
      // A weight after the hand, and it is still unsure: the scale has said what it can.
      if (verdict.ask === 'weigh' && weight?.sinceFeel && feel) expect(verdict.level).toBe('keep-drying')
      // Dry by hand in four places: nobody is sent back to feel, unless weight or jar say that it is wet, or its hours that it cannot be.
      if (verdict.ask === 'feel' && feel?.places === 4) expect(verdict.reason).toMatch(/weight says it is not|by that and its hours/)
    }
  })
  it('what nobody weighs goes on by hand, as likely as hand and hours make it', () => {
    const felt = (probabilityDry: number, places: number) =>
      judgeDryness({
        purpose: 'powder',
        targetMoisture: 0.06,
        weight: { probabilityDry, moistureNow: { p10: 0.03, p50: 0.05, p90: 0.08 }, weighIns: 0 },
        feel: { ...answered('snaps', 'even'), places },
      })
    expect(felt(0.88, 3)).toMatchObject({
      level: 'rest',
      ask: 'unload',
      reason: expect.stringMatching(/8 in 10.*The closed jar will tell/),
    })
    expect(felt(0.72, 4)).toMatchObject({ level: 'rest', ask: 'unload' })
    for (const fewer of [felt(0.7, 3), felt(0.6, 4)])
      expect(fewer).toMatchObject({ level: 'cool-and-check', ask: 'feel', reason: expect.stringMatching(/three thickest/) })
  })
  it('a constant weight in a room that nobody measured asks for its air where that decides', () => {
    const of = (reach: { chance: number; known: boolean }) =>
      judgeDryness({ purpose: 'powder', targetMoisture: 0.06, weight: { ...WEIGHTS[2]![1]!, constant: stopped, reach } })
    expect(of({ chance: 0.5, known: false })).toMatchObject({ level: 'cool-and-check', ask: 'air' })
    expect(of({ chance: 0.9, known: false })).toMatchObject({ level: 'cool-and-check', ask: 'feel' })
  })
  it('a hygrometer alone seals nothing, however dry it shows', () => {
    for (const { weight, feel, jarAir, rest, verdict } of cases)
      if (rest?.lastSaw === 'nothing' && !feel && weight?.probabilityDry !== 0.9 && !weight?.constant && jarAir)
        expect(['seal', 'grind', 'rest']).not.toContain(verdict.level)
  })
  it('the doubt of the hygrometer counts against the limit', () => {
    const read = (sd: number) =>
      judgeDryness({
        purpose: 'pieces',
        targetMoisture: 0.18,
        feel: answered('snaps', 'even'),
        jarAir: { humidity: 0.55, sd, closedHours: 8, moisture: { p10: 0.12, p50: 0.15, p90: 0.19 }, sealBelow: 0.6 },
      }).witnesses.find(({ name }) => name === 'jarAir')!.says
    expect([read(0.01), read(0.055)]).toEqual(['dry', 'unsure'])
  })
})

describe('questions for the hand', () => {
  it.each(FEEL_FORMS)('%s: every question and answer has words of its own, and each vote counts as it says', form => {
    const questions = FEEL_QUESTIONS[form]
    for (const question of questions) {
      expect(question.ask).toMatch(/\S/)
      expect(new Set(question.answers.map(answer => answer.key)).size).toBe(question.answers.length)
      for (const answer of question.answers) {
        expect(answer.words).toMatch(/\S/)
        expect(['dry', 'pliable', 'wet', 'veto']).toContain(answer.vote)
        const dry = Object.fromEntries(questions.map(item => [item.key, item.answers.find(other => other.vote === 'dry')!.key]))
        const judged = judgeFeel({ form, answers: { ...dry, [question.key]: answer.key }, cooled: true, places: 3 }, 'powder')
        expect(judged.vote).toBe(answer.vote === 'pliable' ? 'wet' : answer.vote)
        expect(judged.words.toLowerCase()).toContain(answer.words.toLowerCase())
        expect(judged.words[0]).toBe(judged.words[0]!.toUpperCase())
      }
    }
  })
})

it('thin food may stay hot for longer; what is 4 mm, or of which nobody knows, may not', () => {
  const hours = (thicknessMm?: number) => hotHoursAllowed({ cardC: 57, nowC: 67, thicknessMm, waterGone: 0.2 })
  expect([hours(3.9), hours(4), hours(undefined)]).toEqual([3, 1.5, 1.5])
})
