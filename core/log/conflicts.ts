import { isOfRun, kindOf } from './bodies'
import type { Entry, EntryOf } from './entry'
import { inForce, ofKind } from './inForce'
import { MINUTE } from '../time'

/** Two entries of a log that cannot both be, or hardly. */
export type LogConflict =
  /** Two weights of the same at the same minute. */
  | { kind: 'weights'; first: EntryOf<'weigh'>; second: EntryOf<'weigh'> }
  /** What came late and could not be taken; with what was logged meanwhile by another, where that is known. */
  | { kind: 'late'; late: EntryOf<'unsettled'>; against?: Entry }

/** Two scales, or a scale read twice, differ by a little. */
const SCALES_DIFFER = { share: 0.02, leastG: 3 }

/**
 * Where two that did not know of each other logged what cannot both be. Whoever is alone, or corrects a figure, has none: the writers
 * differ.
 * @param entries the log of a batch, or of a jar
 */
export function conflictsOf(entries: readonly Entry[]): LogConflict[] {
  const standing = inForce(entries)
  const settled = new Set(ofKind(standing, 'settle').map(({ body }) => pairOf(body.first, body.second)))
  const weighs = ofKind(standing, 'weigh')
  const weights = weighs.flatMap((first, i) =>
    weighs
      .slice(i + 1)
      .filter(second => second.at - first.at <= MINUTE && differ(first, second) && !settled.has(pairOf(first.id, second.id)))
      .map(second => ({ kind: 'weights' as const, first, second })),
  )
  const late = ofKind(standing, 'unsettled').map(entry => ({ kind: 'late' as const, late: entry, against: meanwhile(standing, entry) }))
  return [...weights, ...late]
}

/**
 * The newest that another logged between the writing of an entry and its arrival, of what changes something: a note is in nobody's way. What
 * belongs to a whole run is corrected there.
 */
export function meanwhile(standing: readonly Entry[], { writer, body, seq }: EntryOf<'unsettled'>): Entry | undefined {
  return standing
    .filter(item => item.seq < seq && item.recordedAt >= body.wroteAt && item.writer?.id !== writer?.id && changesSomething(item.body.kind))
    .sort((a, b) => b.seq - a.seq)[0]
}

function changesSomething(kind: Entry['body']['kind']): boolean {
  const { effect, jars } = kindOf(kind)
  return !isOfRun(kind) && (effect !== 'none' || (jars !== undefined && jars.effect !== 'none'))
}

const pairOf = (a: string, b: string) => [a, b].sort().join(' ')

function differ(first: EntryOf<'weigh'>, second: EntryOf<'weigh'>): boolean {
  if (first.writer?.id === second.writer?.id) return false
  const far = (a: number, b: number) => Math.abs(a - b) > Math.max(SCALES_DIFFER.leastG, SCALES_DIFFER.share * Math.max(a, b))
  if (first.body.totalG !== undefined && second.body.totalG !== undefined) return far(first.body.totalG, second.body.totalG)
  return (first.body.trays ?? []).some(tray =>
    (second.body.trays ?? []).some(other => other.position === tray.position && far(tray.weightG, other.weightG)),
  )
}
