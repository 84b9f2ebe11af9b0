import { STANDARD_WAY } from '#core/ways'
import { uuidv7 } from 'uuidv7'
import { freshHousehold } from '#shared/choices'
import { openDatabase } from '#server/db/open'
import { sweepPictures, unpackPictures } from '#server/pictures/store'
import { insertMachine, listMachines, readHousehold, writeHousehold } from '#server/db/settings'
import type { Context } from './context'
import { openFoodBook } from './foods'
import { Live } from './live'
import { bringProjectionsUpToDate } from './projections'

/**
 * Opens a logbook ready for use: a new one gets a household and one machine to start with, both to be
 * changed in the Workshop.
 */
export function openLogbook(path: string, now: () => number = Date.now): Context {
  const db = openDatabase(path)
  unpackPictures(db)
  sweepPictures(db)
  const context = { db, now, live: new Live(), foods: openFoodBook(db) }
  db.transaction(() => {
    if (!readHousehold(db)) writeHousehold(db, freshHousehold())
    if (listMachines(db).length === 0) {
      insertMachine(db, {
        id: uuidv7(),
        name: 'Dehydrator',
        kind: STANDARD_WAY,
        trays: 6,
        trayAreaM2: 0.1,
        trayTareG: 0,
        trayTares: {},
        watts: 500,
        lowC: 35,
        highC: 75,
      })
    }
  }).immediate()
  bringProjectionsUpToDate(context)
  return context
}
