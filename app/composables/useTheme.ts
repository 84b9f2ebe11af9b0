const dim = ref(false)
let started = false

/** Light by day, dim in the evening: follows the system until someone turns it by hand. */
export function useTheme() {
  if (!started) {
    started = true
    const kept = localStorage.getItem('dulse.theme')
    dim.value = kept ? kept === 'dim' : matchMedia('(prefers-color-scheme: dark)').matches
    watchEffect(() => document.documentElement.classList.toggle('dark', dim.value))
  }
  return {
    dim,
    turn() {
      dim.value = !dim.value
      localStorage.setItem('dulse.theme', dim.value ? 'dim' : 'light')
    },
  }
}
