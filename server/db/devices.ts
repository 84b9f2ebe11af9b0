import type { Channel, DeviceAnswer, DeviceKind, DeviceSettings } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface DeviceRow {
  id: string
  name: string
  kind: DeviceKind
  machine_id: string | null
  version: number
}
export type DeviceRecord = DeviceSettings & { version: number }

const toDevice = (row: DeviceRow): DeviceRecord => ({
  id: row.id,
  name: row.name,
  kind: row.kind,
  machineId: row.machine_id,
  version: row.version,
})

export function listDevices(db: Db): DeviceRecord[] {
  return statement<DeviceRow>(db, 'SELECT * FROM device ORDER BY name').all().map(toDevice)
}

export function findDevice(db: Db, id: string): DeviceRecord | undefined {
  const row = statement<DeviceRow>(db, 'SELECT * FROM device WHERE id = ?').get(id)
  return row && toDevice(row)
}

export function putDevice(db: Db, device: DeviceSettings): void {
  statement(
    db,
    `
    INSERT INTO device (id, name, kind, machine_id) VALUES (?, ?, ?, ?)
    ON CONFLICT (id) DO UPDATE SET name = excluded.name, kind = excluded.kind, machine_id = excluded.machine_id, version = device.version + 1`,
  ).run(device.id, device.name, device.kind, device.machineId)
}

/** Newest reading of each channel of a device. */
export function lastReadings(db: Db, deviceId: string, channels: readonly Channel[]): DeviceAnswer['last'] {
  return channels.flatMap(channel => {
    const row = statement<{ at: number; value: number }>(
      db,
      'SELECT at, value FROM reading WHERE device_id = ? AND channel = ? ORDER BY at DESC LIMIT 1',
    ).get(deviceId, channel)
    return row ? [{ channel, ...row }] : []
  })
}

/** Adds a reading. @returns what was there before at that instant, or undefined when it is new */
export function addReading(db: Db, deviceId: string, channel: Channel, at: number, value: number): number | undefined {
  const added = statement(db, 'INSERT INTO reading (device_id, channel, at, value) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING').run(
    deviceId,
    channel,
    at,
    value,
  )
  if (added.changes > 0) return undefined
  return statement<{ value: number }>(db, 'SELECT value FROM reading WHERE device_id = ? AND channel = ? AND at = ?').get(
    deviceId,
    channel,
    at,
  )!.value
}

/** Readings of a channel in a span, in stretches of `stepMs`: mean, least and greatest of each, oldest first. */
export function readingsBySpan(
  db: Db,
  deviceId: string,
  channel: Channel,
  from: number,
  to: number,
  stepMs: number,
): { at: number; value: number; low: number; high: number; count: number }[] {
  return statement<{ at: number; value: number; low: number; high: number; count: number }>(
    db,
    `
    SELECT CAST(avg(at) AS INTEGER) AS at, avg(value) AS value, min(value) AS low, max(value) AS high, count(*) AS count
    FROM reading WHERE device_id = ? AND channel = ? AND at >= ? AND at <= ?
    GROUP BY CAST((at - ?) / ? AS INTEGER) ORDER BY 1`,
  ).all(deviceId, channel, from, to, from, stepMs)
}
