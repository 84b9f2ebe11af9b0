<script setup lang="ts">
import { uuidv7 } from 'uuidv7'

/** Hands, absences, and hours in which a machine is wanted for something else. */
const store = usePlanBook()
const desk = usePlanDesk()
const format = useFormat()
const { now } = useClock()
const problems = ref<Record<string, string>>({})
const handsHours = ref<number>()
const pace = ref<number>()
watch(
  () => store.book,
  book => {
    handsHours.value ??= book && book.handsMinutes / 60
    pace.value ??= book?.pace
  },
  { immediate: true },
)
async function saveHands() {
  if (handsHours.value === undefined || pace.value === undefined) return
  problems.value = await store.save({ handsMinutes: Math.round(60 * handsHours.value), pace: pace.value })
}
const from = ref<number>()
const to = ref<number>()
const words = ref('')
const adding = ref<'away' | 'meal'>()
async function addAway() {
  if (from.value === undefined || to.value === undefined) {
    problems.value = { all: 'Say when they leave and when they come back.' }
    return
  }
  const found = await store.save({ away: [...store.book!.away, { id: uuidv7(), from: from.value, to: to.value, words: words.value }] })
  problems.value = store.ofLine(found, 'away', store.book!.away.length)
  if (Object.keys(found).length === 0) adding.value = undefined
}
const machineId = ref('')
const mealFrom = ref('17:00')
const mealTo = ref('19:30')
async function addMeal() {
  const [fromMinute, toMinute] = [minuteOfDay(mealFrom.value), minuteOfDay(mealTo.value)]
  if (!machineId.value) problems.value = { machineId: 'Choose a machine.' }
  else if (fromMinute === undefined || toMinute === undefined) problems.value = { all: 'Write the times as 17:30, or 5:30 pm.' }
  else {
    const found = await store.save({
      meals: [...store.book!.meals, { id: uuidv7(), machineId: machineId.value, fromMinute, toMinute }],
    })
    problems.value = store.ofLine(found, 'meals', store.book!.meals.length)
    if (Object.keys(found).length === 0) adding.value = undefined
  }
}
const machines = computed(() => desk.problem?.machines ?? [])
const nameOf = (id: string) => machines.value.find(machine => machine.id === id)?.name ?? 'a machine that is gone'
const coming = computed(() => (store.book?.away ?? []).filter(gap => gap.to > now.value))
</script>

<template>
  <section class="card stack" aria-label="Hands and days">
    <h2>Hands and days</h2>
    <form class="pair" aria-label="Hands" @submit.prevent="saveHands">
      <NumberField
        :key="store.book ? 'h' : ''"
        v-model="handsHours"
        label="Hours for preparing, a day"
        :least="0"
        :most="24"
        :decimals="1"
        required
      />
      <NumberField
        :key="store.book ? 'p' : ''"
        v-model="pace"
        label="It takes us, against the usual"
        hint="1 is the usual pace, 2 twice as long"
        :least="0.2"
        :most="5"
        :decimals="1"
        required
      />
      <ElButton native-type="submit">Save</ElButton>
    </form>
    <div class="row between">
      <h3>Nobody at home</h3>
      <ElButton @click="adding = adding === 'away' ? undefined : 'away'">Add an absence</ElButton>
    </div>
    <p v-if="coming.length === 0" class="quiet small">Sleep is asked in the set-up. What is entered here is dark on the board too.</p>
    <ul class="plain-list">
      <li v-for="gap in coming" :key="gap.id" class="list-line">
        <span>{{ format.window(gap.from, gap.to, now) }}{{ gap.words ? `, ${gap.words}` : '' }}</span>
        <ElButton
          :aria-label="`Take away the absence ${format.window(gap.from, gap.to, now)}`"
          @click="store.save({ away: store.book!.away.filter(item => item.id !== gap.id) })"
          >Take away</ElButton
        >
      </li>
    </ul>
    <form v-if="adding === 'away'" class="stack" aria-label="An absence" @submit.prevent="addAway">
      <div class="pair">
        <MomentField v-model="from" label="They leave" />
        <MomentField v-model="to" label="They come back" />
      </div>
      <TextField v-model="words" label="Why" optional :problem="problems.words" />
      <p v-if="problems.to" class="problem" role="alert">{{ problems.to }}</p>
      <div class="row"><ElButton type="primary" native-type="submit">Save</ElButton></div>
    </form>
    <div class="row between">
      <h3>Wanted for something else</h3>
      <ElButton @click="adding = adding === 'meal' ? undefined : 'meal'">Add hours</ElButton>
    </div>
    <ul class="plain-list">
      <li v-for="meal in store.book?.meals ?? []" :key="meal.id" class="list-line">
        <span>{{ nameOf(meal.machineId) }}, each day {{ format.clock(meal.fromMinute) }} to {{ format.clock(meal.toMinute) }}</span>
        <ElButton
          :aria-label="`Take away the hours of ${nameOf(meal.machineId)}`"
          @click="store.save({ meals: store.book!.meals.filter(item => item.id !== meal.id) })"
          >Take away</ElButton
        >
      </li>
    </ul>
    <form v-if="adding === 'meal'" class="stack" aria-label="Hours of a machine" @submit.prevent="addMeal">
      <ChoiceField
        v-model="machineId"
        label="Machine"
        :choices="machines.map(machine => ({ value: machine.id, words: machine.name }))"
        :problem="problems.machineId"
      />
      <div class="pair">
        <TextField v-model="mealFrom" label="From" /><TextField v-model="mealTo" label="To" :problem="problems.toMinute" />
      </div>
      <div class="row"><ElButton type="primary" native-type="submit">Save</ElButton></div>
    </form>
    <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
  </section>
</template>
