/** The present instant, moving on every half minute while the page is open. */
export function useClock() {
  const now = ref(Date.now())
  const timer = setInterval(() => {
    now.value = Date.now()
  }, 30_000)
  onScopeDispose(() => clearInterval(timer))
  return {
    now,
    tick: () => {
      now.value = Date.now()
    },
  }
}
