import { uuidv7 } from 'uuidv7'
import type { StandingTray } from '#core/batch'
import { inForce, kindOf, type BodyIn } from '#core/log'

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
  const { answer: page, problem, ready, load } = useServer('machine', () => ({ params: { machineId } }))

  const trays = useLatest(
    [page],
    async () => {
      const batches = page.value?.run?.batches ?? []
      const racks =
        batches.length === 0
          ? []
          : await dryingDesk().rack(
              batches.map(({ entries, food }) => ({ entries, food })),
              now.value,
            )
      return batches
        .flatMap((batch, i): RackedTray[] =>
          racks[i]!.map(tray => ({ ...tray, batchId: batch.batchId, number: batch.number, title: batch.title, food: batch.food.name })),
        )
        .sort((a, b) => a.place - b.place)
    },
    [],
  ).latest

  /** The run's own log, in force. */
  const log = computed(() => inForce(page.value?.run?.entries ?? []))

  /**
   * Logs on the run.
   * @returns the entry's id, to void it by
   * @throws Refused when the server says no
   */
  async function write(body: BodyIn<'run'>): Promise<string> {
    const { runId, batches } = page.value!.run!
    const id = uuidv7()
    await outbox.send({ runId, entry: { id, at: Date.now(), body } }, kindOf(body.kind).words.what, batches[0]!.batchId)
    await load()
    return id
  }

  return { page, trays, log, problem, ready, load, write }
}
