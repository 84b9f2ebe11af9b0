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
