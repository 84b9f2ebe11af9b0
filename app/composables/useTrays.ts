import type { AssessedTray } from '#core/batch'
import type { Entry } from '#core/log'
import type { Food } from '#core/foods'

/** Every tray with its own window, worked out in the worker when the log changes; empty where none was weighed alone. */
export function useTrays(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>) {
  const trays = shallowRef<AssessedTray[]>([])
  let asked = 0
  watch(
    entries,
    async log => {
      const turn = ++asked
      if (!food.value) return
      const answer = await dryingDesk()
        .trays(JSON.parse(JSON.stringify(log)) as Entry[], food.value)
        .catch(() => undefined)
      if (turn === asked) trays.value = answer ?? []
    },
    { immediate: true },
  )
  return trays
}
