import { uuidv7 } from 'uuidv7'
import { foldBatch } from '#core/batch'
import { isOfRun, kindOf, type BatchState, type Entry, type EntryBody } from '#core/log'
import type { PictureFile, Sent } from '~/data/parcel'
import type { TakenPicture } from './usePictures'

/**
 * What a form hands over: entries to write, in order, and what else belongs to them (the batch that a part begins); or the
 * sentence that says what is missing.
 */
export type FormReading =
  { bodies: EntryBody[]; more?: Sent[]; files?: readonly PictureFile[]; problem?: undefined } | { problem: string; bodies?: undefined }

/** How entries are written: when they happened, what they correct, and what goes along. */
export interface WriteOptions {
  at?: number
  replaces?: string
  more?: Sent[]
  /** Bytes of the pictures that the entries name. */
  files?: readonly PictureFile[]
  /** Pictures that were taken with the first of the entries. */
  taken?: readonly TakenPicture[]
}

/** A batch's page: its log from the server with what waits in the outbox on top, and the state that follows. */
export function useBatch(batchId: string) {
  const outbox = useOutboxStore()
  const { answer: page, problem, ready, load } = useServer('batch', () => ({ params: { batchId } }))

  const entries = computed<Entry[]>(before => {
    const written = page.value?.entries ?? []
    const known = new Set(written.map(entry => entry.id))
    const waiting = [...outbox.arrived, ...outbox.waiting]
      .flatMap(parcel => (parcel.about === batchId ? parcel.items : []))
      .flatMap(item => (isOfBatch(item, batchId) && !known.has(item.entry.id) ? [item.entry] : []))
    const log = [
      ...written,
      ...waiting.map(({ id, at, body, replaces }, i): Entry => ({ id, at, body, replaces, recordedAt: at, seq: 1e12 + i })),
    ]
    // What waited and has arrived is the same log: nothing is worked out or drawn anew for it.
    const same = before?.length === log.length && log.every(({ id, seq }, i) => before[i]!.id === id && before[i]!.seq === seq)
    return same ? before : log
  })
  const waits = computed(
    () => new Set(outbox.waiting.flatMap(parcel => parcel.items.map(item => ('begin' in item ? item.begin.entry.id : item.entry.id)))),
  )
  const state = computed<BatchState | undefined>(() => foldBatch(entries.value, () => page.value?.food))
  const food = computed(() => page.value?.food)

  /**
   * Writes entries together: all of them, or none.
   * @throws Refused when the server says no to one
   */
  async function write(bodies: readonly EntryBody[], { at = Date.now(), replaces, more = [], files = [], taken = [] }: WriteOptions = {}) {
    const items = bodies.map((body): Sent => {
      const entry = { id: uuidv7(), at, replaces: body.kind === 'caution' ? undefined : replaces, body }
      const runId = runOf(body, entries.value)
      return (runId ? { runId, entry } : { batchId, entry }) as Sent
    })
    const pictures = pictureBodies(taken, takenWith(items)).map((body): Sent => ({ batchId, entry: { id: uuidv7(), at, body } }))
    // What was written stands in the page's own view of the log at once; what follows from it is asked for when the server tells of it.
    await outbox.sendTogether([...items, ...pictures, ...more], wordsOfBodies(bodies), batchId, [...files, ...taken].map(plainFile))
  }

  return { page, entries, food, waits, state, problem, ready, load, write }
}

/** Written in its own log, or in its run's: what goes along into other batches and jars is theirs. */
const isOfBatch = (item: Sent, batchId: string): item is Extract<Sent, { batchId: string } | { runId: string }> =>
  'runId' in item || ('batchId' in item && item.batchId === batchId)

/** Run that an entry on heat, air or moves, or the voiding of one, belongs to. */
function runOf(body: EntryBody, log: readonly Entry[]): string | undefined {
  const meant = body.kind === 'void' ? log.find(item => item.id === body.target)?.body : body
  return meant && isOfRun(meant.kind) && 'runId' in meant ? meant.runId : undefined
}

/** "the loading, the heat": every kind has its words. */
const wordsOfBodies = (bodies: readonly EntryBody[]) => [...new Set(bodies.map(body => kindOf(body.kind).words.what))].join(', ')
