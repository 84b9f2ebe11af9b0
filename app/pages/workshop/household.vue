<script setup lang="ts">
import { LOCALES } from '#shared/choices'
import type { HouseholdSettings } from '#shared/contracts'

const store = useHouseholdStore()
const format = useFormat()
useHead({ title: 'Household · Dulse' })

const household = reactive<HouseholdSettings>({ ...store.settings })
const nights = reactive({ from: format.clock(household.sleepFrom), to: format.clock(household.sleepTo) })
const place = reactive({ latitude: household.latitude ?? undefined, longitude: household.longitude ?? undefined })
const householdProblems = ref<Record<string, string>>({})
const told = ref('')
const checkFields = useFieldChecks()
/** A date as a place writes it, such as “25 Nov 2026 · United Kingdom”. */
const places = new Intl.DisplayNames('en', { type: 'region' })
const sample = (locale: string) =>
  `${new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric' }).format()} · ${places.of(locale.slice(3))}`

async function saveHousehold() {
  householdProblems.value = {}
  told.value = ''
  const from = minuteOfDay(nights.from)
  const to = minuteOfDay(nights.to)
  if (from === undefined) householdProblems.value.sleepFrom = `Write a time such as ${format.clock(22 * 60 + 30)}.`
  if (to === undefined) householdProblems.value.sleepTo = `Write a time such as ${format.clock(6 * 60 + 30)}.`
  if (checkFields() !== undefined || from === undefined || to === undefined || Object.keys(householdProblems.value).length > 0) return
  try {
    const { pantryC, pantryHumidity, jarMl } = store.settings
    await store.save({
      ...household,
      // These are another page's.
      pantryC,
      pantryHumidity,
      jarMl,
      sleepFrom: from,
      sleepTo: to,
      kwhPrice: household.kwhPrice ?? 0,
      hourWorth: household.hourWorth ?? 0,
      latitude: place.latitude ?? null,
      longitude: place.longitude ?? null,
      version: store.settings.version,
    })
    told.value = 'Saved.'
  } catch (error) {
    householdProblems.value = fieldsOf(error)
    if (error instanceof Refused && error.status === 409) {
      await store.load()
      householdProblems.value.all = `${error.message} Yours are still in the form; save again to put them in place.`
    }
  }
}
</script>

<template>
  <section class="card">
    <h2>Household</h2>
    <form class="form" @submit.prevent="saveHousehold">
      <TextField v-model="household.name" label="Name" :problem="householdProblems.name" />
      <ChoiceField
        v-model="household.weightUnit"
        label="Weights"
        :choices="[
          { value: 'g', words: 'Grams' },
          { value: 'oz', words: 'Pounds and ounces' },
        ]"
      />
      <ChoiceField
        v-model="household.temperatureUnit"
        label="Temperatures"
        :choices="[
          { value: 'C', words: '°C' },
          { value: 'F', words: '°F' },
        ]"
      />
      <ChoiceField
        v-model="household.measures"
        label="Spoons and cups"
        :choices="[
          { value: 'metric', words: 'Metric' },
          { value: 'us', words: 'US' },
        ]"
      />
      <div class="field">
        <label for="locale">Dates</label
        ><ElSelect id="locale" v-model="household.locale" aria-label="How dates are written"
          ><ElOption v-for="locale in LOCALES" :key="locale" :value="locale" :label="sample(locale)"
        /></ElSelect>
      </div>
      <ChoiceField
        v-model="household.clockHours"
        label="Clock"
        :choices="[
          { value: 24, words: '24 hours' },
          { value: 12, words: '12 hours' },
        ]"
      />
      <div class="pair">
        <TextField v-model="nights.from" label="Asleep from" :problem="householdProblems.sleepFrom" />
        <TextField v-model="nights.to" label="Awake from" :problem="householdProblems.sleepTo" />
      </div>
      <div class="pair">
        <TextField v-model="household.money" label="Sign of your money" :problem="householdProblems.money" />
        <NumberField v-model="household.kwhPrice" label="Price of a kWh" :least="0" :decimals="3" bare />
        <NumberField
          v-model="household.hourWorth"
          label="An hour of your work is worth"
          hint="0 where it is pleasure"
          :least="0"
          :decimals="2"
          bare
        />
      </div>
      <TextField v-model="household.timeZone" label="Time zone" hint="such as Europe/Lisbon" :problem="householdProblems.timeZone" />
      <div class="pair">
        <NumberField
          v-model="place.latitude"
          label="Degrees north"
          hint="less than 0 in the south"
          :least="-90"
          :most="90"
          :decimals="1"
          optional
        />
        <NumberField
          v-model="place.longitude"
          label="Degrees east"
          hint="less than 0 in the west"
          :least="-180"
          :most="180"
          :decimals="1"
          optional
        />
      </div>
      <p class="quiet small">
        By them Dulse knows the hours in which the sun dries, and dusk. Where they are empty it guesses them from the time zone.
      </p>
      <p v-if="householdProblems.longitude" class="problem">{{ householdProblems.longitude }}</p>
      <p v-if="householdProblems.all" class="problem">{{ householdProblems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save the household</ElButton><span class="good" role="status">{{ told }}</span>
      </div>
    </form>
  </section>
</template>

<style scoped>
section > h2 {
  margin-bottom: 0.6rem;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
