import * as z from 'zod'
import type { EntryKindOf, LogScope } from './define'
import type { BodyOf, EntryBody, EntryKind } from './entry'
import { KINDS } from './kinds'

/** The declaration of some kind: whoever walks all of them hands a body only to its own kind. */
export type AnyKind = EntryKindOf<z.ZodType<EntryBody>, LogScope>
export const kindOf = (kind: EntryKind): AnyKind => KINDS[kind] as unknown as AnyKind

export const ENTRY_KINDS = Object.keys(KINDS) as EntryKind[]

/** Whether a kind belongs to a whole run, and so to every batch in the machine; or to a jar's own log. */
export const isOfRun = (kind: EntryKind) => kindOf(kind).scopes[0] === 'run'
export const isOfJar = (kind: EntryKind) => kindOf(kind).scopes[0] === 'jar'

/** Bodies that may stand in a log of this scope. */
export type BodyIn<Scope extends LogScope> = {
  [Kind in EntryKind]: (typeof KINDS)[Kind] extends EntryKindOf<infer _, infer Own extends LogScope>
    ? Scope extends Own
      ? BodyOf<Kind>
      : never
    : never
}[EntryKind]

/** What may stand in a log of this scope, as a schema: the contract of the wire is made of the same objects. */
export function bodyIn<Scope extends LogScope>(scope: Scope): z.ZodType<BodyIn<Scope>> {
  return unionOf(ENTRY_KINDS.filter(kind => kindOf(kind).scopes.includes(scope))) as z.ZodType<BodyIn<Scope>>
}

/** Whatever may stand in a log. */
export const anyBody = unionOf(ENTRY_KINDS)

function unionOf(kinds: readonly EntryKind[]): z.ZodType<EntryBody> {
  const schemas = kinds.map(kind => KINDS[kind].schema)
  return z.discriminatedUnion(
    'kind',
    schemas as unknown as [z.ZodObject<{ kind: z.ZodLiteral<EntryKind> }>],
  ) as unknown as z.ZodType<EntryBody>
}
