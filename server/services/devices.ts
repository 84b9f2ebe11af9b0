import { CHANNELS, type DeviceAnswer, type DeviceSettings, type ReadingSeries } from '#shared/contracts'
import { findDevice, lastReadings, listDevices, putDevice, readingsBySpan, type DeviceRecord } from '#server/db/devices'
import { findMachine } from '#server/db/settings'
import { InputError } from '#core/errors'
import type { Context } from './context'
import { Conflict } from './refusals'
import { changedFields } from './settings'

const withLast = ({ db }: Context, device: DeviceRecord): DeviceAnswer => ({ ...device, last: lastReadings(db, device.id, CHANNELS) })

export function deviceList(context: Context): DeviceAnswer[] {
  return listDevices(context.db).map(device => withLast(context, device))
}

/**
 * Adds a device (no version) or changes one. A device that makes itself known again as it is changes nothing.
 * @throws Conflict for a stale version; InputError for a machine that is not there.
 */
export function saveDevice(context: Context, settings: DeviceSettings): DeviceAnswer {
  const { db } = context
  return db
    .transaction(() => {
      if (settings.machineId !== null && !findMachine(db, settings.machineId))
        throw new InputError([{ field: 'machineId', code: 'no-such-machine', message: 'There is no such machine.' }])
      const known = findDevice(db, settings.id)
      const { version, ...wanted } = settings
      const changes = known ? changedFields(known, wanted) : []
      if (known && changes.length === 0) return withLast(context, known)
      if (!known && version !== undefined) throw new Conflict('There is no such device to change.')
      if (known && version !== known.version) throw new Conflict('This device was changed elsewhere meanwhile.', changes)
      putDevice(db, settings)
      return withLast(context, findDevice(db, settings.id)!)
    })
    .immediate()
}

/** What devices read in a span, thinned to about so many points a channel. */
export function readingSeries(
  { db }: Context,
  query: { device?: string; machine?: string; from: number; to: number; points: number },
): ReadingSeries[] {
  const devices = listDevices(db).filter(
    device => device.id === query.device || (query.machine !== undefined && device.machineId === query.machine),
  )
  const stepMs = Math.max(1, Math.ceil((query.to - query.from) / query.points))
  return devices.flatMap(device =>
    CHANNELS.flatMap((channel): ReadingSeries[] => {
      const spans = readingsBySpan(db, device.id, channel, query.from, query.to, stepMs)
      if (spans.length === 0) return []
      return [
        {
          deviceId: device.id,
          deviceName: device.name,
          kind: device.kind,
          channel,
          count: spans.reduce((sum, span) => sum + span.count, 0),
          points: spans.map(({ at, value, low, high }) => ({ at, value, low, high })),
        },
      ]
    }),
  )
}
