/** Light by day, dim in the evening: follows the system until someone turns it by hand. */
export const useTheme = createSharedComposable(() => {
  const kept = useLocalStorage<'dim' | 'light' | null>('dulse.theme', null)
  const system = usePreferredDark()
  const dim = computed(() => (kept.value ? kept.value === 'dim' : system.value))
  watchEffect(() => document.documentElement.classList.toggle('dark', dim.value))
  return {
    dim,
    turn() {
      kept.value = dim.value ? 'light' : 'dim'
    },
  }
})
