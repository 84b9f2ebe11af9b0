import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { weightG } from '../fields'
import { SCALE_SHARE } from '../weights'

const schema = z.strictObject({
  kind: z.literal('powderDry'),
  how: z.enum(['oven-off', 'low-oven', 'dryer'], { error: 'Say how it was dried.' }),
  minutes: z.number({ error: 'Give minutes, as a number.' }).positive('Minutes are above zero.').max(1440, 'At most a day.'),
  beforeG: weightG.optional(),
  afterG: weightG.optional(),
})

/** Damp powder dried in a thin layer. */
export const powderDry: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'drying powder', what: 'drying the powder' },
  effect: (draft, entry) => void draft.powderDries.push(entry),
  check: (body, { state, need, say }) => {
    const isPowder = (state.left.flakes ?? 0) + (state.left.powder ?? 0) > 0
    if (!need(isPowder, 'no-powder', 'Only powder that is not packed yet is dried so')) return
    if (body.afterG !== undefined && body.afterG > (body.beforeG ?? state.powderG) * (1 + SCALE_SHARE) + 1)
      say('afterG', 'heavier-than-before', 'Powder only gets lighter: {afterG} is more than before.', { afterG: body.afterG })
  },
}
