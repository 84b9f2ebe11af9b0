import type { FoodPageAnswer, FoodSummary } from '#shared/contracts'

/** The foods of the reference and the household's own: the list, and pages that were opened. */
export const useFoodsStore = defineStore('foods', () => {
  const list = shallowRef<FoodSummary[]>([])
  const problem = ref('')
  let asking: Promise<void> | undefined

  /** Fetches the list once; again after a change. */
  async function load(again = false) {
    if (list.value.length > 0 && !again) return
    asking ??= callServer<FoodSummary[]>('/api/foods')
      .then(answer => {
        list.value = answer
        problem.value = ''
      })
      .catch((error: Error) => {
        problem.value = error.message
      })
      .finally(() => {
        asking = undefined
      })
    await asking
  }

  /** A food with all that is known of it. */
  const page = (key: string) => callServer<FoodPageAnswer>(`/api/foods/${encodeURIComponent(key)}`)

  return { list, problem, load, page }
})
