import { InputError, type Problem } from '../errors'
import { inForce } from './effective'
import type { Entry } from './types'

/** Clocks of phone and server differ by a little; more than this is a date in the future. */
const CLOCK_SLACK_MS = 5 * 60_000
/** Earlier than this is a slip of the year. */
const EARLIEST = Date.UTC(2000, 0, 1)

/**
 * Checks what every entry has: its time, and the entry that it corrects or voids.
 * @throws InputError naming the field
 */
export function checkEnvelope(entries: readonly Entry[], entry: Entry, now: number): void {
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, message })
  if (entry.at > now + CLOCK_SLACK_MS) say('at', 'This is in the future. Give the time when it happened.')
  if (entry.at < EARLIEST) say('at', 'This is before the year 2000. Check the year.')
  checkReference(entries, entry, say)
  if (problems.length > 0) throw new InputError(problems)
}

function checkReference(entries: readonly Entry[], entry: Entry, say: (field: string, message: string) => void): void {
  const target = entry.body.kind === 'void' ? entry.body.target : entry.replaces
  if (!target) return
  const field = entry.body.kind === 'void' ? 'target' : 'replaces'
  const found = entries.find(item => item.id === target)
  if (!found) return say(field, 'There is no such entry in this log.')
  if (!inForce(entries).includes(found)) return say(field, 'That entry has been corrected or voided already: correct the newest one.')
  if (entry.body.kind !== 'void' && found.body.kind !== entry.body.kind)
    say(field, 'A correction must be of the same kind as the entry it corrects.')
  if (entry.body.kind === 'void' && found.body.kind === 'intake' && inForce(entries).length > 1) {
    say(field, 'The intake carries the rest of the log: void the later entries first.')
  }
}
