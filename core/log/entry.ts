import type * as z from 'zod'
import type { KINDS } from './kinds'

export type EntryKind = keyof typeof KINDS
/** What is written into a log: one kind a fact; grams are net of the tray. Inferred from the kinds' schemas. */
export type EntryBody = { [Kind in EntryKind]: z.infer<(typeof KINDS)[Kind]['schema']> }[EntryKind]
export type BodyOf<Kind extends EntryKind> = Extract<EntryBody, { kind: Kind }>

/** A device that was let in, by the name that it had when it wrote. */
export interface Writer {
  id: string
  name: string
}

/** An entry as it stands in the log. Instants are milliseconds since 1970, UTC. */
export interface Entry {
  id: string
  /** Order of arrival; breaks ties between entries of the same instant. */
  seq: number
  /** When it happened. */
  at: number
  /** When it was written down. */
  recordedAt: number
  /** Which device of the house wrote it, where it was not the machine that Dulse runs on. */
  writer?: Writer
  /** The entry that this one corrects. */
  replaces?: string
  body: EntryBody
}

export type EntryOf<Kind extends EntryKind> = Entry & { body: BodyOf<Kind> }

/** Where a batch stands, in the order of the stage band. */
export const STAGES = ['intake', 'prep', 'drying', 'resting', 'grinding', 'shelf'] as const
export type Stage = (typeof STAGES)[number]
