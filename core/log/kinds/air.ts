import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { celsius, id, roomCelsius, share } from '../fields'

const schema = z
  .strictObject({
    kind: z.literal('air'),
    runId: id,
    roomC: roomCelsius.optional(),
    roomHumidity: share('humidity').optional(),
    chamberC: celsius.optional(),
  })
  .refine(body => body.chamberC !== undefined || (body.roomC !== undefined && body.roomHumidity !== undefined), {
    path: ['roomHumidity'],
    message: 'Give the room’s temperature and humidity together, or what was measured in the machine.',
  })

/** The room's air, or what was measured in the machine. */
export const air: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'measuring the air', what: 'the air' },
  evidence: true,
  tells: ['machine'],
  replayed: true,
  effect: (draft, entry) => void draft.run(entry.body.runId).airs.push(entry),
  check: 'none',
}
