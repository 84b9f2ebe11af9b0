import type { Entry } from '#core/log'
import type { Food } from '#core/foods'

/**
 * What each weighing changed, in words, by the id of its last entry. Worked out in the worker when the
 * log changes; empty until then, since the log can be read without it.
 */
export function useLessons(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>) {
  const format = useFormat()
  const changes = shallowRef<ReadonlyMap<string, string>>(new Map())
  let asked = 0
  watch(
    entries,
    async log => {
      const turn = ++asked
      if (!food.value) return
      const lessons = await dryingDesk()
        .lessons(JSON.parse(JSON.stringify(log)) as Entry[], food.value)
        .catch(() => [])
      if (turn !== asked) return
      changes.value = new Map(
        lessons.map(({ entryId, finish }) => {
          const at = log.find(entry => entry.id === entryId)?.at ?? Date.now()
          return [entryId, Number.isFinite(finish.to) ? format.finish(finish.from, finish.to, at) : 'no finish at this heat']
        }),
      )
    },
    { immediate: true },
  )
  return changes
}
