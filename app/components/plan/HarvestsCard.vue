<script setup lang="ts">
import { expectAgain } from '#core/plan'

/** The harvest calendar: what comes in, from when to when, how often, how much. */
const store = usePlanBook()
const foods = useFoods()
const format = useFormat()
const {
  form,
  problems,
  lines: all,
  edit,
  leave,
  save,
  remove,
} = usePlanLines(store, 'harvests', {
  foodKey: '',
  from: '',
  to: '',
  purpose: 'powder',
  everyDays: 7,
})
const lines = computed(() => [...all.value].sort((a, b) => a.from.localeCompare(b.from)))
const nameOf = (key: string) => foods.list.find(food => food.key === key)?.name ?? key
void foods.load()
/** Own years of which no line stands in the calendar yet. */
const ownYears = computed(() =>
  (store.answer?.ownYears ?? [])
    .filter(year => !store.book?.harvests.some(line => line.foodKey === year.foodKey))
    .filter(year => year.baskets > 1)
    .filter((year, i, all) => all.findIndex(other => other.foodKey === year.foodKey) === i)
    .slice(0, 4),
)
const { settings } = storeToRefs(useHouseholdStore())
function likeYear(year: NonNullable<typeof store.answer>['ownYears'][number]) {
  const today = new Intl.DateTimeFormat('sv-SE', { timeZone: settings.value.timeZone }).format(Date.now())
  edit({ foodKey: year.foodKey, purpose: year.purpose, ...expectAgain(year, today) })
}
const dayWords = (day: string) => format.day(Date.parse(`${day}T12:00:00Z`))
</script>

<template>
  <section class="card stack" aria-label="Harvests">
    <div class="row between">
      <h2>Harvests</h2>
      <ElButton @click="edit()">Add a harvest</ElButton>
    </div>
    <p v-if="lines.length === 0 && !form" class="quiet">
      What the garden or the market will bring: with it the plan keeps places free, and the year shows which month is too narrow.
    </p>
    <ul class="plain-list">
      <li v-for="line in lines" :key="line.id" class="list-line">
        <span
          ><strong>{{ nameOf(line.foodKey) }}</strong> {{ format.weight(line.lowG) }} to {{ format.weight(line.highG) }}
          {{ line.everyDays === 1 ? 'each day' : `every ${line.everyDays} days` }}, {{ dayWords(line.from)
          }}{{ line.from === line.to ? '' : ` to ${dayWords(line.to)}` }}, {{ PURPOSE_WORDS[line.purpose] }}</span
        >
        <span class="row acts">
          <ElButton :aria-label="`Change the harvest: ${nameOf(line.foodKey)}`" @click="edit(line)">Change</ElButton>
          <ElButton :aria-label="`Take away the harvest: ${nameOf(line.foodKey)}`" @click="remove(line)">Take away</ElButton>
        </span>
      </li>
    </ul>
    <p v-if="problems.all && !form" class="problem">{{ problems.all }}</p>
    <form v-if="form" class="stack form" aria-label="A harvest" @submit.prevent="save">
      <div class="pair">
        <FoodField v-model="form.foodKey" label="Food" :problem="problems.foodKey" />
        <ChoiceField v-model="form.purpose" label="It is to be" :choices="PURPOSE_CHOICES" :problem="problems.purpose" />
      </div>
      <div class="pair">
        <WeightField v-model="form.lowG" label="A poor picking" required :problem="problems.lowG" />
        <WeightField v-model="form.highG" label="A good picking" required :problem="problems.highG" />
      </div>
      <div class="pair">
        <DayField v-model="form.from" label="First picking" :problem="problems.from" />
        <DayField v-model="form.to" label="Last picking" :problem="problems.to" />
      </div>
      <NumberField v-model="form.everyDays" label="Days from one picking to the next" :least="1" :most="365" required />
      <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save</ElButton><ElButton @click="leave">Leave it as it was</ElButton>
      </div>
    </form>
    <div v-if="ownYears.length > 0 && !form" class="stack">
      <h3>As in your own years</h3>
      <ul class="plain-list">
        <li v-for="year in ownYears" :key="`${year.foodKey}${year.year}`" class="list-line">
          <span
            ><strong>{{ year.foodName }}</strong> {{ year.year }}: {{ plural(year.baskets, 'basket') }}, {{ format.weight(year.weightG) }},
            {{ dayWords(year.from) }}{{ year.from === year.to ? '' : ` to ${dayWords(year.to)}` }}</span
          >
          <ElButton :aria-label="`Expect it again: ${year.foodName}`" @click="likeYear(year)">Expect it again</ElButton>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.acts {
  flex-wrap: nowrap;
}
.form {
  border-top: 1px solid var(--rule);
  padding-top: 0.8rem;
}
</style>
