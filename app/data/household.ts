import { useLocalStorage } from '@vueuse/core'
import { measuresIn } from '#core/units'
import { quantityWords } from '~/utils/words'
import { freshHousehold } from '#shared/choices'
import type { HouseholdSettings } from '#shared/contracts'
import { call, speakIn } from './call'
import { useServer } from './useServer'

/** The household's choices: units, clock, nights. Kept in the browser too, so that a page opens out of touch. */
export const useHouseholdStore = defineStore('household', () => {
  const settings = useLocalStorage<HouseholdSettings>('dulse.household', freshHousehold(), { mergeDefaults: true, flush: 'sync' })
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
