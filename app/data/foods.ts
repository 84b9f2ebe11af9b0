import { useQueryCache } from '@pinia/colada'
import { call } from './call'
import { useServer } from './useServer'

/** The foods of the reference and the household's own: fetched where the list is needed, and kept. */
export function useFoods() {
  const { answer, problem, ready, load } = useServer('foods')
  const cache = useQueryCache()
  return reactive({
    list: computed(() => answer.value ?? []),
    problem,
    /** Waits for the list; asks again after a change. */
    load: async (again = false) => {
      if (again) await cache.invalidateQueries({ key: ['foods'] }).catch(() => undefined)
      await (again ? load() : ready())
    },
    /** A food with all that is known of it. */
    page: (foodKey: string) => call('food', { params: { foodKey } }),
  })
}
