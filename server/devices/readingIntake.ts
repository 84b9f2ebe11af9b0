import { TooFast, NotFound } from '#server/services/refusals'
import { InputError } from '#core/errors'
import type { LiveEvent, ReadingsAnswer, ReadingsPost } from '#shared/contracts'
import { addReading, findDevice, type DeviceRecord } from '#server/db/devices'
import type { Context } from '#server/services/context'
import { checkReadings, type GoodReading } from './checkReadings'
import { noteAirFromDevices } from './noteAir'
import { MINUTE } from '#core/time'

/** Kept of one channel in a second; what comes faster is dropped and counted. */
export const MOST_A_SECOND = 25
/** Readings of this long go to the disk together; their senders are answered then. */
const GATHER_MS = 100
const LOOK_MS = 10 * MINUTE
/** Waiting beyond this, senders are asked to slow down. */
const MOST_WAITING = 20_000

interface Waiting {
  device: DeviceRecord
  readings: GoodReading[]
  answer: ReadingsAnswer
  done: (answer: ReadingsAnswer) => void
  failed: (error: unknown) => void
}

/**
 * Takes readings from devices. Each call is answered when its readings are on the disk; calls that come
 * close together share one transaction, so that twenty a second cost the disk ten.
 */
export class ReadingIntake {
  private waiting: Waiting[] = []
  private count = 0
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly inSecond = new Map<string, number>()

  constructor(private readonly context: Context) {}

  /**
   * @throws NotFound for a device that is not known; TooFast when the disk is behind; the answer names
   * each reading that was refused.
   */
  take(post: ReadingsPost): Promise<ReadingsAnswer> {
    const device = findDevice(this.context.db, post.device)
    if (!device) throw new NotFound('device', 'There is no device with this id: add it in the set-up, or by PUT /api/devices.')
    if (this.count + post.readings.length > MOST_WAITING)
      throw new TooFast('More readings come than can be written: send again in a second, and fewer.')
    const { good, refused } = checkReadings(post.readings, this.context.now())
    const readings = good.filter(item => this.hasRoom(device.id, item))
    const answer: ReadingsAnswer = { kept: 0, repeated: 0, thinned: good.length - readings.length, refused }
    if (readings.length === 0) return Promise.resolve(answer)
    return new Promise((done, failed) => {
      this.waiting.push({ device, readings, answer, done, failed })
      this.count += readings.length
      this.timer ??= setTimeout(() => this.flush(), GATHER_MS)
    })
  }

  /** Writes what waits, in one transaction. */
  flush(): void {
    clearTimeout(this.timer)
    this.timer = undefined
    if (this.context.busy) {
      this.timer = setTimeout(() => this.flush(), GATHER_MS)
      return
    }
    const taken = this.waiting
    this.waiting = []
    this.count = 0
    if (taken.length === 0) return
    try {
      this.context.db.transaction(() => taken.forEach(item => this.write(item))).immediate()
    } catch (error) {
      taken.forEach(({ failed }) => failed(error))
      return
    }
    taken.forEach(({ done, answer }) => done(answer))
    this.context.live.tell({ kind: 'readings', readings: newest(taken) })
    try {
      noteAirFromDevices(
        this.context,
        taken.flatMap(({ device, readings }) => instantsOf(readings).map(at => ({ device, at }))),
      )
    } catch (error) {
      // The readings are kept; only the line in the log is missing.
      if (!(error instanceof InputError)) console.error(error)
    }
  }

  private write({ device, readings, answer }: Waiting): void {
    for (const { index, channel, at, value } of readings) {
      const before = addReading(this.context.db, device.id, channel, at, value)
      if (before === undefined) answer.kept++
      else if (before === value) answer.repeated++
      else
        answer.refused.push({
          index,
          field: 'value',
          code: 'read-otherwise-already',
          message: `At this instant the ${device.name} read ${before} already; a reading is never changed.`,
        })
    }
  }

  private hasRoom(deviceId: string, { channel, at }: GoodReading): boolean {
    const key = `${deviceId} ${channel} ${Math.floor(at / 1000)}`
    const count = (this.inSecond.get(key) ?? 0) + 1
    this.inSecond.set(key, count)
    if (this.inSecond.size > 2000) this.inSecond.delete(this.inSecond.keys().next().value!)
    return count <= MOST_A_SECOND
  }
}

/** Instants of a post at which the log is looked after: its last, and one in ten minutes of a long one. */
function instantsOf(readings: readonly GoodReading[]): number[] {
  const sorted = readings.map(item => item.at).sort((a, b) => a - b)
  const instants: number[] = []
  for (const at of sorted) if (at - (instants.at(-1) ?? -Infinity) >= LOOK_MS) instants.push(at)
  const last = sorted.at(-1)!
  return instants.at(-1) === last ? instants : [...instants, last]
}

/** The newest reading of each channel among those taken. */
function newest(taken: readonly Waiting[]): Extract<LiveEvent, { kind: 'readings' }>['readings'] {
  const last = new Map<string, Extract<LiveEvent, { kind: 'readings' }>['readings'][number]>()
  for (const { device, readings } of taken) {
    for (const { channel, at, value } of readings) {
      const before = last.get(device.id + channel)
      if (!before || before.at <= at)
        last.set(device.id + channel, { deviceId: device.id, machineId: device.machineId, channel, at, value })
    }
  }
  return [...last.values()]
}
