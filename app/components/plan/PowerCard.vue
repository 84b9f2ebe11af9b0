<script setup lang="ts">
/** Prices of power by the hour, own sun, and what the sky is to be. */
const store = usePlanBook()
const desk = usePlanDesk()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const problems = ref<Record<string, string>>({})
type Kind = 'one' | 'night' | 'sun'
/** Nights that are cheap, hours of own sun: as most contracts have them. */
const NIGHT = { from: 22, to: 6 }
const SUN = { from: 10, to: 16 }
const kindNow = computed((): Kind => {
  const prices = store.book?.prices ?? []
  if (prices.length === 0) return 'one'
  return prices[12] === 0 ? 'sun' : 'night'
})
const kind = ref<Kind>()
const low = ref<number>()
const hourFrom = ref<number>()
const hourTo = ref<number>()
watch(
  () => store.book,
  book => {
    if (!book || kind.value) return
    kind.value = kindNow.value
    low.value = book.prices.length > 0 ? Math.min(...book.prices) : Number((settings.value.kwhPrice / 2).toFixed(3))
  },
  { immediate: true },
)
const span = computed(() => (kind.value === 'sun' ? SUN : NIGHT))
watch(
  [kind, () => store.book],
  () => {
    const prices = store.book?.prices ?? []
    const cheap = prices.length > 0 && kind.value === kindNow.value ? prices.map(price => price === Math.min(...prices)) : undefined
    hourFrom.value = cheap ? cheap.findIndex((is, hour) => is && !cheap[(hour + 23) % 24]) : span.value.from
    hourTo.value = cheap ? cheap.findIndex((is, hour) => !is && cheap[(hour + 23) % 24]) : span.value.to
  },
  { immediate: true },
)
async function savePower() {
  const [a, b] = [hourFrom.value ?? 0, hourTo.value ?? 0]
  const isCheap = (hour: number) => (a <= b ? hour >= a && hour < b : hour >= a || hour < b)
  const cheap = kind.value === 'sun' ? 0 : low.value
  problems.value = await store.save({
    prices:
      kind.value === 'one' || cheap === undefined
        ? []
        : Array.from({ length: 24 }, (_, hour) => (isCheap(hour) ? cheap : settings.value.kwhPrice)),
  })
}
async function weatherFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  problems.value = {}
  try {
    // The server looks at it: what is wrong is said by field.
    await call('weather', { body: JSON.parse(await file.text()) as never })
    await Promise.all([store.load(), desk.load()])
  } catch (error) {
    const [field, words] = Object.entries(fieldsOf(error))[0] ?? []
    problems.value = { weather: `This is no weather that Dulse reads: ${field === 'all' ? '' : `${field}: `}${words}` }
  }
}
</script>

<template>
  <section class="card stack" aria-label="Power and weather">
    <h2>Power and weather</h2>
    <form class="stack" aria-label="Power" @submit.prevent="savePower">
      <ChoiceField
        v-model="kind"
        label="A kilowatt-hour costs"
        :choices="[
          { value: 'one', words: 'The same all day', note: format.money(settings.kwhPrice) },
          { value: 'night', words: 'Less in some hours' },
          { value: 'sun', words: 'Nothing while our own sun shines' },
        ]"
      />
      <div v-if="kind !== 'one'" class="pair">
        <NumberField :key="`f${kind}`" v-model="hourFrom" label="From, hour of day" :least="0" :most="23" required />
        <NumberField :key="`t${kind}`" v-model="hourTo" label="To, hour of day" :least="0" :most="23" required />
      </div>
      <NumberField
        v-if="kind === 'night'"
        :key="store.book ? 'l' : ''"
        v-model="low"
        label="Price in those hours"
        :least="0"
        :decimals="3"
        required
      />
      <div class="row"><ElButton native-type="submit">Save</ElButton></div>
    </form>
    <div class="field">
      <label for="weather-file">Weather from a file</label>
      <input id="weather-file" type="file" accept=".json,application/json" @change="weatherFile" />
      <p :class="problems.weather ? 'problem' : 'quiet small'">
        {{
          problems.weather ??
          (store.book?.weather
            ? `By ${store.book.weather.source}, ${plural(store.book.weather.days.length, 'day')}.`
            : 'Nobody foretold the sun: outdoors any day may be fair or not. A service sends it to /api/plan/weather, or a file says it.')
        }}
      </p>
    </div>
    <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
  </section>
</template>
