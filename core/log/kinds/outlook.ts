import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { id, instant } from '../fields'

const schema = z.strictObject({
  kind: z.literal('outlook'),
  runId: id,
  duskMinute: z
    .number({ error: 'Give the time of dusk.' })
    .int('Whole minutes.')
    .min(0, 'Minutes of the day count from 0.')
    .max(1439, 'A day has 1439 minutes after its first.'),
  /** The same dusk as an instant of some day: by it the sun’s days end, without knowing the household’s clock. */
  duskAt: instant.optional(),
  rainAt: instant.optional(),
})

/** What is expected of the weather, for food outdoors: minute of the day at which it comes in, and an instant of rain. */
export const outlook: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'looking at the weather', what: 'the weather' },
  evidence: true,
  effect: (draft, { body }) => {
    draft.run(body.runId).outlook = body
  },
  check: 'none',
}
