import { uuidv7 } from 'uuidv7'
import { inForce, ofKind, type EntryBody } from '#core/log'
import type { Channel } from '#shared/contracts'
import { dryingViews } from '#server/db/batches'
import { listDevices, readingsBySpan, type DeviceRecord } from '#server/db/devices'
import { entriesOfRun } from '#server/db/entries'
import type { Context } from '#server/services/context'
import { logOnRun } from '#server/services/writeLog'
import { MINUTE } from '#core/time'

/** What the log holds is the mean of so long: a thermostat's swing is not news. */
const MEAN_MS = 10 * MINUTE
/** A line at least so often, and at most so often. */
const USUAL_MS = 30 * MINUTE
const SOONEST_MS = 10 * MINUTE
/** Differences that are worth a line before the half hour is over. */
const NEWS_C = 3
const NEWS_HUMIDITY = 0.05

const lookedAt = new WeakMap<Context, Map<string, number>>()

/**
 * Writes into a run's log what the devices at its machine measure: the mean of ten minutes, every half
 * hour, or sooner when it has changed. So the drying clock counts the heat that there was.
 * @param seen devices that have just read something, with the instant
 */
export function noteAirFromDevices(context: Context, seen: readonly { device: DeviceRecord; at: number }[]): void {
  const looked = lookedAt.get(context) ?? new Map<string, number>()
  lookedAt.set(context, looked)
  for (const {
    device: { machineId, kind },
    at,
  } of seen) {
    if (machineId === null || (kind !== 'probe' && kind !== 'hygrometer') || Math.abs(at - (looked.get(machineId) ?? 0)) < MINUTE) continue
    looked.set(machineId, at)
    const view = dryingViews(context.db).find(item => item.machine_id === machineId)
    if (view?.run_id) noteAir(context, machineId, view.run_id, at)
  }
}

function noteAir(context: Context, machineId: string, runId: string, at: number): void {
  const log = inForce(entriesOfRun(context.db, runId))
  const before = log.filter(entry => entry.at <= at)
  const last = ofKind(before, 'air').at(-1)
  const heat = ofKind(before, 'heat').at(-1)
  const since = at - (last?.at ?? -Infinity)
  if (since < SOONEST_MS || !heat) return
  const devices = listDevices(context.db).filter(device => device.machineId === machineId)
  const mean = (kind: DeviceRecord['kind'], channel: Channel) =>
    meanOf(
      context,
      devices.filter(device => device.kind === kind),
      channel,
      at,
    )
  // Just after a change the machine is on its way, not at its heat.
  const chamberC = heat.body.setC !== null && at - heat.at >= USUAL_MS ? mean('probe', 'celsius') : undefined
  const roomC = mean('hygrometer', 'celsius')
  const roomHumidity = mean('hygrometer', 'humidity')
  const body: Extract<EntryBody, { kind: 'air' }> = {
    kind: 'air',
    runId,
    ...(chamberC !== undefined && { chamberC: tenth(chamberC) }),
    ...(roomC !== undefined && roomHumidity !== undefined && { roomC: tenth(roomC), roomHumidity: Math.round(roomHumidity * 1000) / 1000 }),
  }
  if (body.chamberC === undefined && body.roomC === undefined) return
  const moved = (now: number | undefined, then: number | undefined, by: number) =>
    now !== undefined && (then === undefined || Math.abs(now - then) >= by)
  const news =
    moved(body.chamberC, last?.body.chamberC, NEWS_C) ||
    moved(body.roomHumidity, last?.body.roomHumidity, NEWS_HUMIDITY) ||
    moved(body.roomC, last?.body.roomC, NEWS_C)
  if (since >= USUAL_MS || news) logOnRun(context, runId, { id: uuidv7(), at, body })
}

function meanOf(context: Context, devices: readonly DeviceRecord[], channel: Channel, at: number): number | undefined {
  const means = devices.flatMap(device =>
    readingsBySpan(context.db, device.id, channel, at - MEAN_MS, at, 2 * MEAN_MS).map(span => span.value),
  )
  return means.length === 0 ? undefined : means.reduce((sum, value) => sum + value, 0) / means.length
}

const tenth = (value: number) => Math.round(value * 10) / 10
