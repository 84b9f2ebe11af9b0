import * as z from 'zod'
import { WAYS } from '../../ways'
import type { EntryKindOf } from '../define'
import { id } from '../fields'

const schema = z.strictObject({
  kind: z.literal('cycleShows'),
  runId: id,
  /** Hours left by the machine's own display; 0 where it has stopped by itself. */
  leftH: z
    .number({ error: 'Give the hours that the machine shows as left, as a number.' })
    .min(0, 'Less than nothing cannot be left: give 0 where it has stopped.')
    .max(96, 'More than four days left is another cycle.'),
})

/** What a freeze dryer's display says of its end: read off, it counts for all that stands in the chamber. */
export const cycleShows: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'reading the machine’s display', what: 'what the machine shows' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.run(entry.body.runId).cycle.push(entry),
  check: (_, { inMachine, run, need }) =>
    void need(inMachine && WAYS[run!.way.way].underVacuum, 'no-cycle', 'Only a freeze dryer has a cycle that shows its end'),
}
