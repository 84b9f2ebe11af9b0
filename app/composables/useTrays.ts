import type { AssessedTray, Entry } from '#core/batch'

/** Every tray with its own window, worked out in the worker when the log changes; empty where none was weighed alone. */
export function useTrays(entries: Ref<readonly Entry[]>) {
  const trays = shallowRef<AssessedTray[]>([])
  let asked = 0
  watch(entries, async (log) => {
    const turn = ++asked
    const answer = await dryingDesk().trays(JSON.parse(JSON.stringify(log)) as Entry[]).catch(() => undefined)
    if (turn === asked) trays.value = answer ?? []
  }, { immediate: true })
  return trays
}
