import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { roomCelsius, share } from '../fields'

const schema = z.strictObject({
  kind: z.literal('jarAir'),
  shown: share('humidity'),
  celsius: roomCelsius.optional(),
  calibration: z.strictObject({
    offset: z.number().min(-0.5).max(0.5),
    gain: z.number().min(0.5).max(2),
    sd: z.number().min(0).max(0.2),
  }),
  closedHours: z
    .number({ error: 'Say how many hours the jar was closed.' })
    .min(0, 'Hours are not negative.')
    .max(2000, 'That is over twelve weeks.'),
})

/** What a hygrometer shows in a closed jar of the food. */
export const jarAir: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'reading the jar’s air', what: 'the jar’s air' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.jarAirs.push(entry),
  check: ({ calibration, shown }, { run, state, need, say }) => {
    need(run !== undefined && state.stage !== 'shelf', 'nothing-dried', 'Nothing has been dried yet')
    // The hygrometer's own error may take a reading over the edge; this far it may not.
    const corrected = calibration.offset + calibration.gain * shown
    if (corrected < 0 || corrected > 1)
      say('shown', 'beyond-salt-test', 'Corrected by its salt test this reads {readShare}: the hygrometer needs a new salt test.', {
        readShare: Math.round(corrected * 100) / 100,
      })
  },
}
