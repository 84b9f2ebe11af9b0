import { useLocalStorage } from '@vueuse/core'
import { measuresIn } from '#core/units'
import { quantityWords } from '~/utils/words'
import type { HouseholdSettings } from '#shared/contracts'
import { call, speakIn } from './call'
import { useServer } from './useServer'

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
  const settings = useLocalStorage<HouseholdSettings>('dulse.household', FALLBACK, { mergeDefaults: true, flush: 'sync' })
  const { answer, ready, load } = useServer('household')
  watch(
    answer,
    known => {
      if (known) settings.value = known
    },
    { immediate: true, flush: 'sync' },
  )
  watchEffect(() => {
    const units = settings.value
    const isMetric = units.weightUnit === 'g' && units.temperatureUnit === 'C'
    speakIn(quantityWords(units), isMetric ? undefined : text => measuresIn(text, units))
  })

  async function save(wanted: HouseholdSettings) {
    settings.value = await call('saveHousehold', { body: wanted })
    await load()
  }

  return { settings, ready, load, save }
})
