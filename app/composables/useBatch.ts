import { uuidv7 } from 'uuidv7'
import { foldBatch } from '#core/batch'
import { isOfRun, type BatchState, type Entry, type EntryBody } from '#core/log'
import type { BatchAnswer, NewEntry, NewRunEntry } from '#shared/contracts'

/** What a form hands over: entries to write, in order; or the sentence that says what is missing. */
export type FormReading =
  { bodies: EntryBody[]; problem?: undefined; after?: () => Promise<void> } | { problem: string; bodies?: undefined }

/** A batch's page: its log from the server with what waits in the outbox on top, and the state that follows. */
export function useBatch(batchId: string) {
  const outbox = useOutboxStore()
  const stages = useStagesStore()
  const page = shallowRef<BatchAnswer>()
  const problem = ref<string>()

  const entries = computed<Entry[]>(() => {
    const written = page.value?.entries ?? []
    const known = new Set(written.map(entry => entry.id))
    const waiting = outbox.waiting.filter(item => item.batchId === batchId && !known.has(item.body.id) && 'body' in item.body)
    return [
      ...written,
      ...waiting.map((item, i): Entry => {
        const { id, at, body, replaces } = item.body as NewEntry
        return { id, at, body, replaces, recordedAt: at, seq: 1e12 + i }
      }),
    ]
  })
  const waits = computed(() => new Set(outbox.waiting.map(item => item.body.id)))
  const state = computed<BatchState | undefined>(() => foldBatch(entries.value, () => page.value?.food))
  const food = computed(() => page.value?.food)

  async function load() {
    try {
      page.value = await callServer<BatchAnswer>(`/api/batches/${batchId}`)
      stages.stages = page.value.stages
      problem.value = undefined
    } catch (error) {
      if (!page.value) problem.value = (error as Error).message
    }
  }

  /**
   * Writes entries one after the other.
   * @throws Refused when the server says no to one; those before it are written.
   */
  async function write(bodies: readonly EntryBody[], options: { at?: number; replaces?: string } = {}) {
    for (const body of bodies) {
      const entry = {
        id: uuidv7(),
        at: options.at ?? Date.now(),
        replaces: body.kind === 'caution' ? undefined : options.replaces,
        body,
      } as NewEntry | NewRunEntry
      const runId = runOf(entry, entries.value)
      await outbox.send({
        path: runId ? `/api/runs/${runId}/entries` : `/api/batches/${batchId}/entries`,
        body: entry,
        batchId,
        words: wordsOf(body),
      })
    }
    await load()
  }

  return { page, entries, food, waits, state, problem, load, write }
}

/** Run that an entry on heat, air or moves, or the voiding of one, belongs to. */
function runOf(entry: NewEntry | NewRunEntry, log: readonly Entry[]): string | undefined {
  const { body } = entry
  const meant = body.kind === 'void' ? log.find(item => item.id === body.target)?.body : body
  return meant && isOfRun(meant.kind) && 'runId' in meant ? meant.runId : undefined
}

const WORDS: Partial<Record<EntryBody['kind'], string>> = {
  prep: 'a step of preparing',
  load: 'the loading',
  heat: 'the heat',
  air: 'the air',
  jarAir: 'the jar’s air',
  move: 'a move',
  tick: 'a tick',
  outlook: 'the weather',
  split: 'a part',
  hold: 'where it is kept',
  caution: 'a caution',
  powderDry: 'drying the powder',
  weigh: 'a weight',
  feel: 'a feel',
  unload: 'taking out',
  rest: 'the rest',
  look: 'a look',
  restEnd: 'the end of the rest',
  grind: 'the grinding',
  pack: 'a jar',
  note: 'a note',
  take: 'what was taken',
  moveJar: 'where a jar stands',
  discard: 'what was discarded',
  void: 'a voiding',
}
function wordsOf(body: EntryBody): string {
  return WORDS[body.kind] ?? body.kind
}
