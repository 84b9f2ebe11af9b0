<script setup lang="ts">
import { temperatureFrom, temperatureIn } from '#core/units'

/** Where jars stand: the pantry as it usually is, and every place that was named. */
const store = useHouseholdStore()
const format = useFormat()
useHead({ title: 'Places · Dulse' })
const unit = computed(() => store.settings.temperatureUnit)
const degrees = () => String(Math.round(temperatureIn(store.settings.pantryC, unit.value)))
const pantry = ref(degrees())
const pantryHumidity = ref<number | undefined>(Math.round(store.settings.pantryHumidity * 100))
const jarMl = ref<number | undefined>(store.settings.jarMl)
const problems = ref<Record<string, string>>({})
const told = ref('')
const checkFields = useFieldChecks()
const { answer: places, ready } = useServer('places')
await ready()

async function save() {
  problems.value = {}
  told.value = ''
  const pantryC = temperatureFrom(Number(pantry.value.replace(',', '.')), unit.value)
  if (pantry.value.trim() === '' || Number.isNaN(pantryC)) problems.value.pantryC = `“${pantry.value}” is not a temperature.`
  if (checkFields() !== undefined || Object.keys(problems.value).length > 0) return
  try {
    await store.save({
      ...store.settings,
      pantryC,
      pantryHumidity: (pantryHumidity.value ?? 100 * store.settings.pantryHumidity) / 100,
      jarMl: Math.round(jarMl.value!),
    })
    pantry.value = degrees()
    told.value = 'Saved.'
  } catch (error) {
    problems.value = fieldsOf(error)
    if (error instanceof Refused && error.status === 409) {
      await store.load()
      problems.value.all = `${error.message} Yours are still in the form; save again to put them in place.`
    }
  }
}
</script>

<template>
  <div class="two">
    <section class="card">
      <h2>The pantry</h2>
      <p class="quiet">Jars that nobody put elsewhere stand here: how long they keep is reckoned with it.</p>
      <form class="form" @submit.prevent="save">
        <div class="pair">
          <TextField v-model="pantry" :label="`Pantry, °${unit}`" :problem="problems.pantryC" />
          <NumberField
            v-model="pantryHumidity"
            label="Pantry humidity, %"
            hint="by a hygrometer beside the jars"
            :least="5"
            :most="95"
            :decimals="0"
            bare
          />
          <VolumeField v-model="jarMl" label="Usual jar" required :least="20" :most="10000" />
          <p v-if="problems.jarMl" class="problem">{{ problems.jarMl }}</p>
        </div>
        <p v-if="problems.all" class="problem">{{ problems.all }}</p>
        <div class="row">
          <ElButton type="primary" native-type="submit">Save the pantry</ElButton><span class="good" role="status">{{ told }}</span>
        </div>
      </form>
    </section>
    <section class="card" aria-label="Places in use">
      <h2>Places in use</h2>
      <p class="quiet">A place comes into this list when a jar is packed there or moved to it, with its temperature where one was given.</p>
      <ul class="plain-list">
        <li v-for="item in places ?? []" :key="item.place" class="list-line">
          <NuxtLink :to="{ path: '/shelf', query: { place: item.place } }">{{ item.place }}</NuxtLink>
          <span class="quiet">{{ item.storageC === undefined ? 'as the pantry' : format.temperature(item.storageC) }}</span>
        </li>
        <li v-if="!places?.length" class="quiet">No jar stands anywhere yet.</li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 1rem;
  align-items: start;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
