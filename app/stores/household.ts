import type { HouseholdSettings } from '#shared/contracts'

const FALLBACK: HouseholdSettings = {
  name: 'Our kitchen',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  weightUnit: 'g',
  temperatureUnit: 'C',
  clockHours: 24,
  sleepFrom: 1350,
  sleepTo: 390,
  pantryC: 20,
  pantryHumidity: 0.55,
  jarMl: 250,
  money: '€',
  kwhPrice: 0.3,
  hourWorth: 0,
  measures: 'metric',
  locale: 'en-GB',
  version: 1,
}

/** The household's choices: units, clock, nights. Kept in the browser too, so that a page opens out of touch. */
export const useHouseholdStore = defineStore('household', () => {
  const settings = ref<HouseholdSettings>(remembered() ?? FALLBACK)

  async function load() {
    try {
      take(await callServer<HouseholdSettings>('/api/household'))
    } catch {
      // What is remembered serves until the server is back.
    }
  }

  async function save(wanted: HouseholdSettings) {
    take(await callServer<HouseholdSettings>('/api/household', { method: 'PUT', body: wanted }))
  }

  function take(next: HouseholdSettings) {
    settings.value = next
    localStorage.setItem('dulse.household', JSON.stringify(next))
  }

  return { settings, load, save }
})

function remembered(): HouseholdSettings | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem('dulse.household') ?? 'null') as Partial<HouseholdSettings> | null
    // What an older Dulse kept may lack newer choices.
    return kept ? { ...FALLBACK, ...kept } : undefined
  } catch {
    return undefined
  }
}
