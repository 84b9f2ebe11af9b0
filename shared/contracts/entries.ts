import * as z from 'zod'
import { bodyIn, fields, KINDS } from '#core/log'

/** Around every entry: its id, made by whoever sends it, when it happened, and what it corrects. */
const envelope = { id: fields.id, at: fields.instant, replaces: fields.id.optional() }

export const newEntry = z.strictObject({ ...envelope, body: bodyIn('batch') })
export type NewEntry = z.infer<typeof newEntry>

export const newRunEntry = z.strictObject({ ...envelope, body: bodyIn('run') })
export type NewRunEntry = z.infer<typeof newRunEntry>

export const newJarEntry = z.strictObject({ ...envelope, body: bodyIn('jar') })
export type NewJarEntry = z.infer<typeof newJarEntry>

export const newBatch = z.strictObject({
  id: fields.id,
  entry: z.strictObject({ id: fields.id, at: fields.instant, body: KINDS.intake.schema }),
})
export type NewBatch = z.infer<typeof newBatch>

/** Entries that belong together: written all or not at all, in this order. A batch may begin among them. */
export const newTogether = z.strictObject({
  entries: z
    .array(
      z.union(
        [
          z.strictObject({ begin: newBatch }),
          z.strictObject({ batchId: fields.id, entry: newEntry }),
          z.strictObject({ runId: fields.id, entry: newRunEntry }),
          z.strictObject({ jarId: fields.id, entry: newJarEntry }),
        ],
        { error: 'Each item is { begin }, or { entry } with one of batchId, runId and jarId.' },
      ),
    )
    .min(1, 'Give at least one entry.')
    .max(50, 'At most 50 entries at once.'),
})
export type NewTogether = z.infer<typeof newTogether>
