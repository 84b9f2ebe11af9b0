import { gather, InputError, type Say } from '../errors'
import type { Entry } from './entry'
import { inForce, targetField, targetOf } from './inForce'
import { MINUTE } from '../time'

/** Clocks of phone and server differ by a little; more than this is a date in the future. */
const CLOCK_SLACK_MS = 5 * MINUTE
/** Earlier than this is a slip of the year. */
const EARLIEST = Date.UTC(2000, 0, 1)

/**
 * Checks what every entry has: its time, and the entry that it corrects or voids.
 * @throws InputError naming the field
 */
export function checkEnvelope(entries: readonly Entry[], entry: Entry, now: number): void {
  const { problems, say } = gather()
  checkInstant(entry, now + CLOCK_SLACK_MS, say)
  if (entry.at < EARLIEST) say('at', 'too-early', 'This is before the year 2000. Check the year.')
  checkReference(entries, entry, say)
  if (problems.length > 0) throw new InputError(problems)
}

export function checkInstant(entry: Entry, latest: number, say: Say): void {
  if (entry.at > latest) say('at', 'in-future', 'This is in the future. Give the time when it happened.')
}

function checkReference(entries: readonly Entry[], entry: Entry, say: Say): void {
  const target = targetOf(entry)
  if (!target) return
  const field = targetField(entry)
  const found = entries.find(item => item.id === target)
  if (!found) return say(field, 'unknown-entry', 'There is no such entry in this log.')
  const standing = inForce(entries)
  if (!standing.includes(found))
    return say(field, 'not-in-force', 'That entry has been corrected or voided already: correct the newest one.')
  if (entry.body.kind !== 'void' && found.body.kind !== entry.body.kind)
    say(field, 'other-kind', 'A correction must be of the same kind as the entry it corrects.')
  if (entry.body.kind === 'void' && found.body.kind === 'intake' && standing.length > 1)
    say(field, 'rested-on', 'The intake carries the rest of the log: void the later entries first.')
}
