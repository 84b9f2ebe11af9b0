import { uuidv7 } from 'uuidv7'
import { type StandingTray } from '#core/batch'
import { inForce, type EntryBody } from '#core/log'
import type { MachinePageAnswer, NewRunEntry } from '#shared/contracts'

/** A tray in its place, with the batch that lies on it. */
export interface RackedTray extends StandingTray {
  batchId: string
  number: number
  food: string
  title: string
}

/** A machine's page: what runs in it, tray by tray, worked out in the worker when its log changes. */
export function useMachine(machineId: string, now: Ref<number>) {
  const outbox = useOutboxStore()
  const page = shallowRef<MachinePageAnswer>()
  const trays = shallowRef<RackedTray[]>([])
  const problem = ref<string>()
  let asked = 0

  async function load() {
    try {
      page.value = await callServer<MachinePageAnswer>(`/api/machines/${machineId}`)
      problem.value = undefined
    } catch (error) {
      if (!page.value) problem.value = (error as Error).message
    }
  }

  watch(page, async answer => {
    const turn = ++asked
    const batches = answer?.run?.batches ?? []
    const racks =
      batches.length === 0
        ? []
        : await dryingDesk()
            .rack(
              batches.map(({ entries, food }) => ({ entries, food })),
              now.value,
            )
            .catch(() => undefined)
    if (turn !== asked || !racks) return
    trays.value = batches
      .flatMap((batch, i) =>
        racks[i]!.map(tray => ({
          ...tray,
          batchId: batch.batchId,
          number: batch.number,
          title: batch.title,
          food: batch.food.name,
        })),
      )
      .sort((a, b) => a.place - b.place)
  })

  /** The run's own log, in force. */
  const log = computed(() => inForce(page.value?.run?.entries ?? []))

  /**
   * Logs on the run.
   * @returns the entry's id, to void it by
   * @throws Refused when the server says no
   */
  async function write(
    body: Extract<EntryBody, { kind: 'move' | 'tick' | 'heat' | 'air' | 'outlook' | 'void' }>,
    words: string,
  ): Promise<string> {
    const { runId, batches } = page.value!.run!
    const id = uuidv7()
    await outbox.send({
      path: `/api/runs/${runId}/entries`,
      body: { id, at: Date.now(), body } as NewRunEntry,
      batchId: batches[0]!.batchId,
      words,
    })
    await load()
    return id
  }

  return { page, trays, log, problem, load, write }
}
