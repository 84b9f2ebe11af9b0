import * as z from 'zod'
import { safetyRule } from '../../safety'
import type { EntryKindOf } from '../define'
import { text } from '../fields'

const schema = z.strictObject({ kind: z.literal('caution'), rule: text(40) })

/** A caution that was read and accepted. */
export const caution: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'accepting a caution', what: 'a caution' },
  anytime: true,
  effect: (draft, { body }) => void draft.accepted.add(body.rule),
  check: ({ rule }, { say }) => {
    if (!safetyRule(rule)) say('rule', 'unknown-caution', 'There is no caution “{rule}”.', { rule })
  },
}
