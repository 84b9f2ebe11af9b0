import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { text } from '../fields'

const schema = z.strictObject({ kind: z.literal('leaveOut'), reason: text(200) })

/** It is not to teach what the next ones take and give: the door stood open, the scale was wrong. Voided, it teaches again. */
export const leaveOut: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'leaving it out of what is learned', what: 'that it is not to teach' },
  anytime: true,
  afterMould: true,
  effect: (draft, { body }) => {
    draft.leftOut = body.reason
  },
  check: 'none',
}
