import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { id, trayPosition } from '../fields'

const trayMove = z
  .strictObject({ from: trayPosition, to: trayPosition, turned: z.boolean().optional(), flipped: z.boolean().optional() })
  .refine(move => move.from !== move.to || move.turned || move.flipped, {
    path: ['to'],
    message: 'This tray stays as it is: give it another place, turn it, or turn its food over.',
  })
/** A tray that goes from one place to another, or stays; turned end for end, or its food turned over. */
export type TrayMove = z.infer<typeof trayMove>

const schema = z
  .strictObject({
    kind: z.literal('move'),
    runId: id,
    trays: z.array(trayMove).min(1, 'Name at least one tray.').max(40, 'At most 40 trays.'),
  })
  .refine(body => new Set(body.trays.map(tray => tray.from)).size === body.trays.length, {
    path: ['trays'],
    message: 'A tray is named twice.',
  })

/** Trays change places in a machine, of whatever batch. */
export const move: EntryKindOf<typeof schema, 'run'> = {
  schema,
  scopes: ['run'],
  words: { doing: 'moving trays', what: 'a move' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.run(entry.body.runId).moves.push(entry),
  check: 'none',
}
