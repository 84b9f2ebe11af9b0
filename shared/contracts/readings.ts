import type { Problem } from '#core/errors'
import * as z from 'zod'
import { id, instant, text } from './parts'

/** Kinds of device, and what each reads. A logger is a file of readings. */
const DEVICE_KINDS = ['scale', 'probe', 'hygrometer', 'controller', 'logger'] as const
export type DeviceKind = (typeof DEVICE_KINDS)[number]

/** What a reading is of, in the unit of its name; humidity as a share from 0 to 1. */
export const CHANNELS = ['weightG', 'celsius', 'humidity', 'pressurePa'] as const
export type Channel = (typeof CHANNELS)[number]

/** What a channel can read at all; anything beyond is a fault of the device. */
const CHANNEL_RANGE: Record<Channel, { low: number; high: number; words: string }> = {
  weightG: { low: -5000, high: 100_000, words: 'A scale reads from −5 to 100 kg' },
  celsius: { low: -80, high: 300, words: 'A probe reads from −80 to 300 °C' },
  humidity: { low: 0, high: 1, words: 'Humidity is a share from 0 to 1' },
  pressurePa: { low: 0, high: 120_000, words: 'Pressure is from 0 to 120,000 Pa' },
}

export const deviceSettings = z.strictObject({
  id,
  name: text(80),
  kind: z.enum(DEVICE_KINDS, { error: 'Choose a kind of device.' }),
  /** The machine that it stands at. */
  machineId: id.nullable(),
  version: z.number().int().min(1).optional(),
})
export type DeviceSettings = z.infer<typeof deviceSettings>

/** One reading. Without `at` it is of the moment when it arrives. */
export const reading = z
  .strictObject({
    channel: z.enum(CHANNELS, { error: `Give a channel: ${CHANNELS.join(', ')}.` }),
    at: instant.optional(),
    value: z.number({ error: 'Give a number: not text, not NaN.' }),
  })
  .superRefine(({ channel, value }, context) => {
    const { low, high, words } = CHANNEL_RANGE[channel]
    if (value < low || value > high) context.addIssue({ code: 'custom', path: ['value'], message: `${words}; this says ${value}.` })
  })
export type Reading = z.infer<typeof reading>

/** Readings are looked at one by one, so that a bad one does not cost the others. */
export const readingsPost = z.strictObject({
  device: id,
  readings: z
    .array(z.unknown(), { error: 'Give a list of readings.' })
    .min(1, 'Send at least one reading.')
    .max(5000, 'At most 5000 readings at once: send them in parts.'),
})
export type ReadingsPost = z.infer<typeof readingsPost>

/** What became of the readings sent. */
export interface ReadingsAnswer {
  kept: number
  /** Were there already with the same value. */
  repeated: number
  /** Beyond what is kept of a channel in a second. */
  thinned: number
  refused: ({ index: number } & Problem)[]
}

export const readingsQuery = z
  .strictObject({
    device: id.optional(),
    machine: id.optional(),
    from: z.coerce.number().int().min(0),
    to: z.coerce.number().int().min(0),
    points: z.coerce.number().int().min(10).max(2000).default(400),
  })
  .refine(query => query.to > query.from, { path: ['to'], message: 'The end must be after the start.' })
  .refine(query => query.device !== undefined || query.machine !== undefined, { path: ['device'], message: 'Name a device or a machine.' })

/** A channel of a device over time, thinned: middle of each stretch, with its least and greatest. */
export interface ReadingSeries {
  deviceId: string
  deviceName: string
  kind: DeviceKind
  channel: Channel
  /** Readings in the span before thinning. */
  count: number
  points: { at: number; value: number; low: number; high: number }[]
}

export interface DeviceAnswer extends DeviceSettings {
  version: number
  /** Newest of each channel. */
  last: { channel: Channel; at: number; value: number }[]
}

/** Word that something was written. The turn tells one from the next; `log`: since turn `since` it was nothing but the log. */
export interface Changed {
  kind: 'changed'
  turn: number
  since?: number
  log?: true
}

/** What the server tells while a page is open. */
export type LiveEvent =
  | { kind: 'readings'; readings: { deviceId: string; machineId: string | null; channel: Channel; at: number; value: number }[] }
  /** Something was written, by whomever: what a page shows may be old. */
  | Changed
