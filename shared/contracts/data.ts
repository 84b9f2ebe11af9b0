import type { Problem } from '#core/errors'
import * as z from 'zod'
import { EXPORT_TABLES } from '../choices'
import { foodSource, ownCardSource } from './foods'
import { anyBody, KINDS } from '#core/log'
import { id, instant, text } from './parts'
import { keptRun, planBook } from './plan'
import { CHANNELS, deviceSettings } from './readings'
import { blendRecipe, dishRecipe } from './recipes'
import { foodWish, householdSettings, hygrometerSettings, machineSettings, toolSettings } from './settings'

const version = z.number().int().min(1)
const retiredAt = instant.optional()
const kept = { version, retiredAt }
const past = { version, until: instant }

/**
 * A whole logbook as one JSON file: everything that was written, nothing that follows from it. Weights are grams,
 * temperatures °C, instants milliseconds since 1970 UTC.
 */
export const logbookFile = z.strictObject({
  format: z.literal('dulse-logbook', { error: 'This is not a logbook of Dulse: its first field is not “format”: “dulse-logbook”.' }),
  form: z.literal(1, { error: 'This logbook was written by a newer Dulse. Update Dulse; nothing was changed.' }),
  household: householdSettings,
  machines: z.array(machineSettings.safeExtend(kept)),
  tools: z.array(z.discriminatedUnion('kind', [toolSettings.options[0].extend(kept), toolSettings.options[1].extend(kept)])),
  hygrometers: z.array(hygrometerSettings.extend({ version, testedAt: instant.optional() })),
  devices: z.array(deviceSettings.extend({ version })),
  foods: z.array(z.strictObject({ version, food: foodSource })),
  cards: z.array(z.strictObject({ version, cardKey: text(80), card: ownCardSource })),
  wishes: z.array(foodWish),
  /** Late things that need not be done; not in files of before. */
  cleared: z.array(z.strictObject({ batchId: id, kind: text(20), fromAt: instant, reason: text(200), clearedAt: instant })).optional(),
  /** What was said for planning, and the plan that people work by; not in files of before. */
  planBook: z
    .array(z.strictObject({ version, book: planBook }))
    .max(1)
    .optional(),
  planRuns: z.array(z.strictObject({ basketId: text(120), batchId: id.optional(), takenAt: instant, run: keptRun })).optional(),
  recipes: z.array(z.discriminatedUnion('kind', [blendRecipe.extend({ version }), dishRecipe.extend({ version })])),
  /** As they stood before they were changed or removed. */
  recipesPast: z.array(z.discriminatedUnion('kind', [blendRecipe.extend(past), dishRecipe.extend(past)])),
  /** Each a time that a machine was filled. */
  runs: z.array(z.strictObject({ id, machineId: id, createdAt: instant })),
  batches: z.array(z.strictObject({ id, number: z.number().int().min(1), createdAt: instant })),
  jars: z.array(z.strictObject({ id, number: z.number().int().min(1) })),
  upkeep: z.array(z.strictObject({ id, machineId: id, task: text(40), at: instant, hoursRun: z.number().min(0) })),
  /** The log, in the order in which it was written; each belongs to a batch, a run or a jar. */
  entries: z.array(
    z
      .strictObject({
        seq: z.number().int().min(1),
        id,
        batchId: id.optional(),
        runId: id.optional(),
        jarId: id.optional(),
        at: instant,
        recordedAt: instant,
        replaces: id.optional(),
        /** The device of the house that wrote it, and its name then. */
        writerId: id.optional(),
        writerName: text(40).optional(),
        body: anyBody,
      })
      .refine(entry => [entry.batchId, entry.runId, entry.jarId].filter(Boolean).length === 1, {
        path: ['batchId'],
        message: 'An entry belongs to one batch, one run or one jar.',
      }),
  ),
  /** What devices read: instants and values of each channel. */
  readings: z.array(z.strictObject({ deviceId: id, channel: z.enum(CHANNELS), points: z.array(z.tuple([instant, z.number()])) })),
  /** The pictures that the log names, each under the SHA-256 of its bytes; not in files of before. */
  pictures: z
    .array(z.strictObject({ name: KINDS.picture.schema.shape.picture, base64: z.base64('Give the picture’s bytes as base64.') }))
    .optional(),
})
export type LogbookFile = z.infer<typeof logbookFile>

/** A table to take in, as its file has it and as its columns were set. */
export const tableImport = z.strictObject({
  kind: z.enum(['weighIns', 'inventory'], { error: 'Say whether these are weigh-ins or an inventory.' }),
  text: z.string({ error: 'Give the file as text.' }),
  settings: z.strictObject({
    columns: z.record(z.string(), z.number().int().min(0).max(500).optional()),
    unit: z.enum(['g', 'kg', 'oz', 'lb'], { error: 'Choose g, kg, oz or lb.' }),
    decimal: z.enum(['point', 'comma'], { error: 'Choose point or comma.' }),
    dayOrder: z.enum(['dayFirst', 'monthFirst'], { error: 'Say whether the day or the month comes first.' }),
    timeZone: text(60),
    firstLine: z.number().int().min(1),
  }),
})
export type TableImport = z.infer<typeof tableImport>

/** `check` finds out what would come of it and writes nothing; `leaveOut` takes in the good lines where some are wrong. */
export const importQuery = z.strictObject({
  check: z.stringbool({ error: 'Say check=true or check=false.' }).default(false),
  leaveOut: z.stringbool({ error: 'Say leaveOut=true or leaveOut=false.' }).default(false),
})

export interface TableImportAnswer {
  rows: number
  kept: number
  /** Were there already. */
  repeated: number
  errors: ({ line: number } & Problem)[]
}

/** What a long piece of work tells, a line each: where it is, and at last what came of it. */
export type WorkLine<Answer> =
  | { progress: { phase: string; done: number; of: number } }
  | { answer: Answer; written: boolean }
  | { refused: { statusCode: number; message: string; problems: Problem[] } }

export const tableQuery = z.strictObject({ table: z.enum(EXPORT_TABLES, { error: `Choose a table: ${EXPORT_TABLES.join(', ')}.` }) })
