import type { Entry, EntryBody, EntryKind, EntryOf } from './entry'

/** An entry with what became of it. */
export interface LoggedEntry {
  entry: Entry
  state: 'stands' | 'corrected' | 'voided'
  by?: string
}

/** The id of the entry that one takes out of force, by correcting or voiding it. */
export const targetOf = ({ body, replaces }: { body: EntryBody; replaces?: string }): string | undefined =>
  body.kind === 'void' ? body.target : replaces

/** The field that names it. */
export const targetField = ({ body }: Pick<Entry, 'body'>) => (body.kind === 'void' ? 'target' : 'replaces')

/**
 * Every entry with its standing: the log keeps all, and a later entry that corrects or voids an earlier
 * one takes it out of force. Voiding a correction voids the fact; it does not bring the older figure back.
 */
export function withStanding(entries: readonly Entry[]): LoggedEntry[] {
  const fate = new Map<string, { state: 'corrected' | 'voided'; by: string }>()
  for (const entry of entries) {
    if (entry.replaces) fate.set(entry.replaces, { state: 'corrected', by: entry.id })
    if (entry.body.kind === 'void') fate.set(entry.body.target, { state: 'voided', by: entry.id })
  }
  return entries.map(entry => {
    const end = fate.get(entry.id)
    return end ? { entry, ...end } : { entry, state: 'stands' as const }
  })
}

/** The entries in force, in the order in which things happened. */
export function inForce(entries: readonly Entry[]): Entry[] {
  return withStanding(entries)
    .filter(({ entry, state }) => state === 'stands' && entry.body.kind !== 'void')
    .map(({ entry }) => entry)
    .sort((a, b) => a.at - b.at || a.seq - b.seq)
}

/** The entries of one kind, typed. */
export function ofKind<K extends EntryKind>(entries: readonly Entry[], kind: K): EntryOf<K>[] {
  return entries.filter((entry): entry is EntryOf<K> => entry.body.kind === kind)
}
