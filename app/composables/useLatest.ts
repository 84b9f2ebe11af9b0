import type { WatchSource } from 'vue'

/**
 * What comes of work that takes its time, done anew when what it rests on changes. The last that came stays until the next is
 * there; an older one never overtakes a newer one.
 */
export function useLatest<Made>(sources: WatchSource[], work: () => Promise<Made | undefined>, first: Made) {
  const latest = shallowRef<Made>(first) as Ref<Made>
  const working = ref(false)
  const problem = ref<string>()
  let asked = 0
  watch(
    sources,
    async () => {
      const turn = ++asked
      working.value = true
      try {
        const made = await work()
        if (turn !== asked) return
        if (made !== undefined) latest.value = made
        problem.value = undefined
      } catch (error) {
        if (turn === asked) problem.value = error instanceof Error ? error.message : String(error)
      } finally {
        if (turn === asked) working.value = false
      }
    },
    { immediate: true },
  )
  return { latest, working, problem }
}
