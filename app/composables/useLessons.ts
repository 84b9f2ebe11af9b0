import type { Entry } from '#core/log'
import type { Food } from '#core/foods'

/**
 * What each weighing changed, in words, by the id of its last entry. Worked out in the worker when the
 * log changes; empty until then, since the log can be read without it.
 */
export function useLessons(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>) {
  const format = useFormat()
  return useLatest<ReadonlyMap<string, string>>(
    [entries, food],
    async () => {
      if (!food.value) return undefined
      const log = entries.value
      const lessons = await dryingDesk().lessons(JSON.parse(JSON.stringify(log)) as Entry[], food.value)
      return new Map(
        lessons.map(({ entryId, finish, revised }) => {
          const at = log.find(entry => entry.id === entryId)?.at ?? Date.now()
          const window = Number.isFinite(finish.to) ? format.finish(finish.from, finish.to, at) : 'no finish at this heat'
          if (!revised) return [entryId, window]
          const { saidThen, knownSince } = revised
          return [entryId, `${window}; said ${format.share(saidThen)} water, by the weights since ${format.share(knownSince)}`]
        }),
      )
    },
    new Map(),
  ).latest
}
