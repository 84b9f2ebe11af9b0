import { calibrateHygrometer, type HygrometerCalibration } from '#core/sorption'
import type { HygrometerAnswer, HygrometerSettings } from '#shared/contracts'
import { findHygrometer, listHygrometers, putHygrometer, type HygrometerRecord } from '#server/db/hygrometers'
import type { Context } from './context'
import { Conflict } from './refusals'
import { changedFields } from './settings'

const withCalibration = (record: HygrometerRecord): HygrometerAnswer => ({
  ...record,
  calibration: calibrateHygrometer(record.readings) satisfies HygrometerCalibration,
})

export function hygrometerList({ db }: Context): HygrometerAnswer[] {
  return listHygrometers(db).map(withCalibration)
}

/**
 * Adds a hygrometer (no version) or changes one; its readings over salt are checked before they are kept.
 * @throws InputError for salt readings that cannot be; Conflict for a stale version.
 */
export function saveHygrometer(context: Context, settings: HygrometerSettings): HygrometerAnswer {
  const { db } = context
  return db
    .transaction(() => {
      calibrateHygrometer(settings.readings)
      const known = findHygrometer(db, settings.id)
      if (!known && settings.version !== undefined) throw new Conflict('There is no such hygrometer to change.')
      const same = known && known.name === settings.name && JSON.stringify(known.readings) === JSON.stringify(settings.readings)
      if (known && same) return withCalibration(known)
      if (known && settings.version !== known.version)
        throw new Conflict('This hygrometer was changed elsewhere meanwhile.', changedFields({ name: known.name }, { name: settings.name }))
      const tested = JSON.stringify(known?.readings ?? []) !== JSON.stringify(settings.readings)
      putHygrometer(db, settings, tested ? context.now() : known?.testedAt)
      return withCalibration(findHygrometer(db, settings.id)!)
    })
    .immediate()
}
