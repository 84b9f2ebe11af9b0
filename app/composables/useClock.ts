/** The present instant, moving on every half minute while the page is open. */
export function useClock() {
  const now = ref(Date.now())
  const tick = () => {
    now.value = Date.now()
  }
  useIntervalFn(tick, 30_000)
  return { now, tick }
}
