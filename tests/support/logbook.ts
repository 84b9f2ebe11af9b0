import { uuidv7 } from 'uuidv7'
import type { Entry, EntryBody } from '#core/log'
import type { NewEntry, NewJarEntry } from '#shared/contracts'
import { openLogbook } from '#server/services/logbook'
import { machineList } from '#server/services/machines'
import { logOnJar, logOnRun, logEntry, startBatch } from '#server/services/writeLog'
import type { Context } from '#server/services/context'

export const HOUR = 3_600_000
export const DAY = 24 * HOUR
/** Who sleeps from half past ten to seven. */
export const HOUSEHOLD = { timeZone: 'UTC', sleepFrom: 22 * 60 + 30, sleepTo: 7 * 60 }
/** A Tuesday morning. */
export const MORNING = Date.UTC(2026, 9, 6, 8)

export const BEETROOT: Extract<EntryBody, { kind: 'intake' }> = {
  kind: 'intake',
  foodKey: 'beetroot',
  source: 'Own garden',
  weightG: 2000,
  purpose: 'powder',
  cardKey: 'slices-3',
}

/** Entries of a log from bodies and hours after the morning, without a server. */
export function logOf(...items: [hours: number, body: EntryBody, more?: { id?: string; replaces?: string }][]): Entry[] {
  return items.map(([hours, body, more], i) => ({
    id: more?.id ?? `entry-${i}`,
    seq: i + 1,
    at: MORNING + hours * HOUR,
    recordedAt: MORNING + hours * HOUR,
    replaces: more?.replaces,
    body,
  }))
}

/** A logbook in memory whose clock the test moves. */
export interface TestBook {
  context: Context
  machineId: string
  at: (hours: number) => number
  /** Takes a basket in and gives its batch. */
  begin: (body?: Partial<typeof BEETROOT>, hours?: number) => string
  /** Logs on a batch at an hour. */
  log: (batchId: string, hours: number, body: NewEntry['body'], more?: { id?: string; replaces?: string }) => ReturnType<typeof logEntry>
  /** Logs on a jar at an hour. */
  onJar: (jarId: string, hours: number, body: NewJarEntry['body'], more?: { id?: string; replaces?: string }) => ReturnType<typeof logOnJar>
  heat: (runId: string, hours: number, setC: number | null) => void
  /** What was measured in the machine, or of the room. */
  air: (runId: string, hours: number, seen: { chamberC?: number; roomC?: number; roomHumidity?: number }) => void
  /** A batch from basket to jars, all at plausible hours; the ids of its run and jar. */
  whole: (begunAtHour?: number) => { batchId: string; runId: string; jarId: string }
}

export function testBook(): TestBook {
  let clock = MORNING
  const context = openLogbook(':memory:', () => clock)
  const at = (hours: number) => {
    const instant = Math.round(MORNING + hours * HOUR)
    clock = Math.max(clock, instant)
    return instant
  }
  const machineId = machineList(context)[0]!.id
  const book: TestBook = {
    context,
    machineId,
    at,
    begin(body = {}, hours = 0) {
      const id = uuidv7()
      startBatch(context, { id, entry: { id: uuidv7(), at: at(hours), body: { ...BEETROOT, ...body } } })
      return id
    },
    log: (batchId, hours, body, more = {}) =>
      logEntry(context, batchId, { id: more.id ?? uuidv7(), at: at(hours), replaces: more.replaces, body }),
    onJar: (jarId, hours, body, more = {}) =>
      logOnJar(context, jarId, { id: more.id ?? uuidv7(), at: at(hours), replaces: more.replaces, body }),
    heat(runId, hours, setC) {
      logOnRun(context, runId, { id: uuidv7(), at: at(hours), body: { kind: 'heat', runId, setC } })
    },
    air(runId, hours, seen) {
      logOnRun(context, runId, { id: uuidv7(), at: at(hours), body: { kind: 'air', runId, ...seen } })
    },
    whole(from = 0) {
      const batchId = book.begin({}, from)
      const runId = uuidv7()
      const jarId = uuidv7()
      book.log(batchId, from + 0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 })
      book.log(batchId, from + 1, { kind: 'load', runId, machineId, positions: [1, 2, 3], totalG: 1700 })
      book.heat(runId, from + 1, 57)
      for (const [hours, totalG] of [
        [4, 900],
        [7, 420],
        [9, 270],
        [12, 226],
        [14, 224.5],
      ] as const)
        book.log(batchId, from + hours, { kind: 'weigh', totalG })
      book.log(batchId, from + 14.1, {
        kind: 'feel',
        check: { form: 'pieces', answers: { bend: 'snaps', middle: 'even' }, cooled: true, places: 3 },
      })
      book.log(batchId, from + 14.2, { kind: 'unload', weightG: 224 })
      book.log(batchId, from + 14.4, { kind: 'rest', container: '1.5 L jar' })
      book.log(batchId, from + 40, { kind: 'look', saw: 'dry' })
      book.log(batchId, from + 190, { kind: 'restEnd', weightG: 224 })
      book.log(batchId, from + 191, { kind: 'grind', dryInG: 224, powderOutG: 212 })
      book.log(batchId, from + 192, { kind: 'pack', jarId, netG: 112, packageKey: 'screw-jar', place: 'Top board', sizeMl: 250 })
      book.log(batchId, from + 192.1, { kind: 'pack', jarId: uuidv7(), netG: 100, packageKey: 'bag', place: 'Cellar', sizeMl: 250 })
      return { batchId, runId, jarId }
    },
  }
  return book
}
