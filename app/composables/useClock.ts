/** The present instant, or the story's where work is practised on paper, moving on every half minute while the page is open. */
export function useClock() {
  const paper = usePaper()
  if (paper) return { now: paper.now, tick() {} }
  const now = ref(Date.now())
  const tick = () => {
    now.value = Date.now()
  }
  useIntervalFn(tick, 30_000)
  return { now, tick }
}
