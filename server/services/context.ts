import type { FoodBook } from '#core/foods'
import type { Writer } from '#core/log'
import type { Pantry } from '#core/jars'
import { measuresIn } from '#core/units'
import type { HouseholdSettings } from '#shared/contracts'
import { readHousehold } from '#server/db/settings'
import type { Db } from '#server/db/open'
import type { Live } from './live'

/** What every use case needs: the logbook and the time. */
export interface Context {
  db: Db
  now: () => number
  /** The foods of the reference and of the household; opened anew when one is changed. */
  foods: FoodBook
  /** Tells open pages. */
  live: Live
  /** The device that writes, where it is not this machine. */
  writer?: Writer
  /** While long work holds the logbook: ends when others may write again. */
  busy?: Promise<void>
  /** What is said of its file, once pages of it were found not to hold together: it is read from then on, and not written. */
  damaged?: string
}

/** Where its jars stand. */
export function pantryOf(context: Context): Pantry {
  const { pantryC, pantryHumidity } = householdOf(context)
  return { celsius: pantryC, humidity: pantryHumidity }
}

/** The household's row; it is made when the logbook is opened. */
export function householdOf({ db }: Context): HouseholdSettings {
  const household = readHousehold(db)
  if (!household) throw new Error('The logbook has no household row: it was not opened by openLogbook.')
  return household
}

/** A sentence with its figures in the household's units, for what the server itself says: to-dos, the calendar, messages. */
export function wordsFor(context: Context): (text: string) => string {
  const household = householdOf(context)
  return text => measuresIn(text, household)
}
