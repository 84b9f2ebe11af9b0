import { problemsOfIssues, reading, type Channel, type ReadingsAnswer } from '#shared/contracts'
import { MINUTE } from '#core/time'

/** A reading that was understood. */
export interface GoodReading {
  index: number
  channel: Channel
  at: number
  value: number
}

/** Clocks of devices run ahead by a little; more than this is a date in the future. */
const CLOCK_SLACK_MS = MINUTE
const EARLIEST = Date.UTC(2000, 0, 1)

/**
 * Looks at readings one by one: what cannot be is refused with its field and the mend, the rest goes on.
 * @param now instant that readings without a time are of
 */
export function checkReadings(sent: readonly unknown[], now: number): { good: GoodReading[]; refused: ReadingsAnswer['refused'] } {
  const good: GoodReading[] = []
  const refused: ReadingsAnswer['refused'] = []
  sent.forEach((item, index) => {
    const parsed = reading.safeParse(item)
    if (!parsed.success) {
      refused.push({ index, ...problemsOfIssues(parsed.error.issues, 'reading')[0]! })
      return
    }
    const { channel, value, at = now } = parsed.data
    if (at > now + CLOCK_SLACK_MS)
      refused.push({
        index,
        field: 'at',
        code: 'in-future',
        message: 'This is in the future: set the device’s clock, or leave the time out.',
      })
    else if (at < EARLIEST)
      refused.push({ index, field: 'at', code: 'too-early', message: 'This is before the year 2000: give milliseconds since 1970, UTC.' })
    else good.push({ index, channel, at, value })
  })
  return { good, refused }
}
