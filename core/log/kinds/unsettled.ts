import * as z from 'zod'
import { checkKnown } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, instant, text } from '../fields'

const schema = z.strictObject({
  kind: z.literal('unsettled'),
  jarId: id.optional(),
  /** What was to be logged; its shape is looked at again if it is taken after all. */
  said: z
    .looseObject({ kind: text(20) })
    .refine(said => said.kind !== 'unsettled' && JSON.stringify(said).length < 20_000, { error: 'This is no entry that waited.' }),
  /** What it was to correct. */
  replaces: id.optional(),
  /** When it was written down, out of reach of the log. */
  wroteAt: instant,
  /** Why the log, as it stood by then, could not take it. */
  because: text(600),
})

/**
 * What somebody logged out of reach of the server and what the log, with what others had logged meanwhile, could not take as well: a jar
 * emptied twice, a batch weighed after it was taken out. It stands beside them, changes nothing, and waits for a hand to settle it.
 */
export const unsettled: EntryKindOf<typeof schema, 'batch' | 'jar'> = {
  schema,
  scopes: ['batch', 'jar'],
  words: { doing: 'keeping what could not be taken', what: 'what could not be taken' },
  anytime: true,
  afterMould: true,
  effect: 'none',
  check: 'none',
  jars: { names: body => (body.jarId === undefined ? [] : [body.jarId]), check: checkKnown, effect: 'none' },
}
