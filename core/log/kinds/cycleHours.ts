import * as z from 'zod'
import { WAYS } from '../../ways'
import type { EntryKindOf } from '../define'
import { id, text } from '../fields'

const schema = z.strictObject({
  kind: z.literal('cycleHours'),
  runId: id,
  hours: z
    .number({ error: 'Give the hours that were added, as a number.' })
    .min(-48, 'More than two days off a cycle is another cycle.')
    .max(48, 'More than two days onto a cycle is another cycle.')
    .refine(hours => hours !== 0, 'Nothing was added.'),
  why: text(120).optional(),
})

/** Hours added to a freeze dryer's cycle, or taken off again: owners add hours so that it holds until somebody is up. */
export const cycleHours: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'adding hours to the cycle', what: 'hours added to a cycle' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.run(entry.body.runId).cycle.push(entry),
  check: (body, { inMachine, run, need, say }) => {
    const cycles = inMachine && WAYS[run!.way.way].underVacuum
    if (!need(cycles, 'no-cycle', 'Only a freeze dryer’s cycle is given hours')) return
    if (run!.cycle.addedH + body.hours < 0)
      say('hours', 'more-than-was-added', 'Only {added} h were added to this cycle: no more can be taken off.', {
        added: run!.cycle.addedH,
      })
  },
}
