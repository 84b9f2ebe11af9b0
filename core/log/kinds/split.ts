import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { id, text, weightG } from '../fields'

const schema = z.strictObject({ kind: z.literal('split'), weightG, to: id, what: text(120).optional() })

/** Part of the basket becomes a batch of its own. */
export const split: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'taking a part', what: 'a part' },
  effect: (draft, entry) => void draft.splits.push(entry),
  check: (body, { run, state, need, say }) => {
    if (need(!run, 'on-the-trays', 'The food is on the trays already') && body.weightG >= state.balance.weightG.p90)
      say('weightG', 'more-than-there-is', 'Only about {thereG} is there: take less, or correct the intake.', {
        thereG: state.balance.weightG.p50,
      })
  },
}
