import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { text } from '../fields'

const schema = z.strictObject({ kind: z.literal('choose'), question: text(40), school: text(40) })

/** Which school it is done by, where practitioners disagree; the last word on a question counts. */
export const choose: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'choosing how it is done', what: 'how it is done' },
  anytime: true,
  effect: (draft, { body }) => {
    draft.choices[body.question] = body.school
  },
  check: ({ question, school }, { state, say }) => {
    const known = Object.keys(state.food.schoolEffects).flatMap(key =>
      key.startsWith(`${question}/`) ? [key.slice(question.length + 1)] : [],
    )
    if (known.length === 0) say('question', 'unknown-question', 'There is no question “{question}”.', { question })
    else if (!known.includes(school))
      say('school', 'unknown-school', '“{school}” is no answer to “{question}”: {schools}.', {
        school,
        question,
        schools: known.join(', '),
      })
  },
}
