import { capital } from '../text'
import type { FeelForm, Purpose } from '../foods'

/** What an answer says. `veto` is a wet place: it outweighs everything. */
export type FeelVote = 'dry' | 'pliable' | 'wet' | 'veto'

export interface FeelAnswer {
  key: string
  words: string
  vote: FeelVote
}
export interface FeelQuestion {
  key: string
  ask: string
  answers: readonly FeelAnswer[]
}

const MIDDLE: FeelQuestion = {
  key: 'middle',
  ask: 'Break it open. The middle is',
  answers: [
    { key: 'even', words: 'as dry as the rim', vote: 'dry' },
    { key: 'darker', words: 'darker than the rim', vote: 'veto' },
    { key: 'damp', words: 'damp or cold', vote: 'veto' },
  ],
}

/** Questions by what lies on the tray, asked of cooled pieces from the thickest (common practice). */
export const FEEL_QUESTIONS: Record<FeelForm, readonly FeelQuestion[]> = {
  pieces: [
    {
      key: 'bend',
      ask: 'Bend a thick piece. It',
      answers: [
        { key: 'snaps', words: 'snaps clean', vote: 'dry' },
        { key: 'cracks', words: 'bends, then cracks', vote: 'pliable' },
        { key: 'leathery', words: 'bends like leather', vote: 'pliable' },
        { key: 'soft', words: 'is soft or tacky', vote: 'veto' },
      ],
    },
    MIDDLE,
  ],
  leaves: [
    {
      key: 'crumble',
      ask: 'Rub a leaf. It',
      answers: [
        { key: 'crumbles', words: 'crumbles', vote: 'dry' },
        { key: 'flakes', words: 'breaks in flakes', vote: 'dry' },
        { key: 'folds', words: 'folds', vote: 'wet' },
        { key: 'limp', words: 'is limp', vote: 'veto' },
      ],
    },
    {
      key: 'stem',
      ask: 'The thickest stem',
      answers: [
        { key: 'snaps', words: 'snaps', vote: 'dry' },
        { key: 'bends', words: 'bends', vote: 'veto' },
        { key: 'none', words: 'there are none', vote: 'dry' },
      ],
    },
  ],
  sheet: [
    {
      key: 'peel',
      ask: 'Lift the sheet. It',
      answers: [
        { key: 'breaks', words: 'peels off and breaks', vote: 'dry' },
        { key: 'bends', words: 'peels off and bends', vote: 'pliable' },
        { key: 'sticks', words: 'sticks', vote: 'veto' },
      ],
    },
    {
      key: 'middle',
      ask: 'The middle of the sheet is',
      answers: [
        { key: 'even', words: 'like the rim', vote: 'dry' },
        { key: 'darker', words: 'darker', vote: 'veto' },
        { key: 'tacky', words: 'tacky', vote: 'veto' },
      ],
    },
  ],
  foam: [
    {
      key: 'touch',
      ask: 'Take a piece from the middle of a tray. It is',
      answers: [
        { key: 'chalky', words: 'light and chalky, like foam', vote: 'dry' },
        { key: 'chewy', words: 'chewy or heavy', vote: 'wet' },
        { key: 'cold', words: 'cold, or has a cold spot', vote: 'veto' },
      ],
    },
    {
      key: 'middle',
      ask: 'Broken, its core is',
      answers: [
        { key: 'even', words: 'as pale as the rim', vote: 'dry' },
        { key: 'darker', words: 'darker', vote: 'veto' },
        { key: 'ice', words: 'icy or wet', vote: 'veto' },
      ],
    },
  ],
  shreds: [
    {
      key: 'crunch',
      ask: 'Squeeze a handful. It',
      answers: [
        { key: 'crunches', words: 'crunches', vote: 'dry' },
        { key: 'springs', words: 'springs back', vote: 'pliable' },
        { key: 'clings', words: 'clings together', vote: 'veto' },
      ],
    },
    {
      key: 'mesh',
      ask: 'Bend the mesh. The shreds',
      answers: [
        { key: 'fall', words: 'fall off', vote: 'dry' },
        { key: 'stay', words: 'stay on', vote: 'wet' },
      ],
    },
  ],
}

/** A look by hand, as recorded. */
export interface FeelCheck {
  form: FeelForm
  /** Answer key by question key. */
  answers: Readonly<Record<string, string>>
  /** Warm food feels softer than it is, and hides a wet core. */
  cooled: boolean
  /** Trays or places that pieces were taken from. */
  places: number
}

export interface FeelJudgement {
  vote: FeelVote
  /** What was felt, in words, ready to be read. */
  words: string
  /** What weakens it: warm pieces, one place only, questions left out. */
  shortcomings: string[]
}

/**
 * Weighs the answers: one veto decides, then the wettest answer. Pliable is dry enough only for
 * fruit that is kept as pieces.
 */
export function judgeFeel(check: FeelCheck, purpose: Purpose, pliableIsDone = false): FeelJudgement {
  const questions = FEEL_QUESTIONS[check.form]
  const given = questions.flatMap(question => {
    const answer = question.answers.find(item => item.key === check.answers[question.key])
    return answer ? [answer] : []
  })
  const order: FeelVote[] = ['veto', 'wet', 'pliable', 'dry']
  const worst = order.find(vote => given.some(answer => answer.vote === vote)) ?? 'wet'
  const vote = worst === 'pliable' ? (pliableIsDone && purpose === 'pieces' ? 'dry' : 'wet') : worst
  const shortcomings: string[] = []
  if (!check.cooled) shortcomings.push('The pieces were warm, and warm food feels softer than it is: let a few cool for five minutes.')
  if (check.places < 2) shortcomings.push('All came from one place: take the thickest from several trays.')
  if (given.length < questions.length) shortcomings.push('Not every question was answered.')
  return { vote, words: capital(given.map(answer => answer.words).join(', ')), shortcomings }
}
