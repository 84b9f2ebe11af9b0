import type { AssessedTray } from '#core/batch'
import type { Entry } from '#core/log'
import type { Food } from '#core/foods'

/** Every tray with its own window, worked out in the worker when the log changes; empty where none was weighed alone. */
export function useTrays(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>) {
  return useLatest<AssessedTray[]>(
    [entries, food],
    async () => food.value && ((await dryingDesk().trays(JSON.parse(JSON.stringify(entries.value)) as Entry[], food.value)) ?? []),
    [],
  ).latest
}
