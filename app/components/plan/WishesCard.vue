<script setup lang="ts">
/** What the shelf is to hold by a day, in grams or jars, or as much as was used in a year. */
const store = usePlanBook()
const foods = useFoods()
const format = useFormat()
const { form, problems, lines, edit, leave, save, remove } = usePlanLines(store, 'wishes', { foodKey: '', by: '', purpose: 'powder' })
void foods.load()
const nameOf = (key: string) => foods.list.find(food => food.key === key)?.name ?? key
const wishes = computed(() => [...lines.value].sort((a, b) => a.by.localeCompare(b.by)))
const haveG = (wish: { foodKey: string; purpose: string }) =>
  store.answer?.shelf.find(row => row.foodKey === wish.foodKey && row.purpose === wish.purpose)?.leftG ?? 0
const usedG = computed(() => (form.value?.foodKey ? store.answer?.usedLastYear[form.value.foodKey] : undefined))
/** Typed again where it was taken from last year. */
const typed = ref(0)

function asLastYear() {
  form.value!.grams = Math.round(usedG.value!)
  typed.value++
}
const dayWords = (day: string) => format.date(Date.parse(`${day}T12:00:00Z`))
</script>

<template>
  <section class="card stack" aria-label="Wishes">
    <div class="row between">
      <h2>Wishes</h2>
      <ElButton @click="edit()">Add a wish</ElButton>
    </div>
    <p v-if="wishes.length === 0 && !form" class="quiet">
      What the shelf is to hold by a day: it is counted back to baskets, machine nights and the last day to begin.
    </p>
    <ul class="plain-list">
      <li v-for="wish in wishes" :key="wish.id" class="list-line">
        <span
          ><strong>{{ nameOf(wish.foodKey) }}</strong> {{ format.weight(wish.grams) }} {{ PURPOSE_WORDS[wish.purpose] }} by
          {{ dayWords(wish.by) }};
          {{ haveG(wish) >= wish.grams ? 'it stands on the shelf' : `${format.weight(haveG(wish))} stand on the shelf` }}</span
        >
        <span class="row acts">
          <ElButton :aria-label="`Change the wish: ${nameOf(wish.foodKey)}`" @click="edit(wish)">Change</ElButton>
          <ElButton :aria-label="`Take away the wish: ${nameOf(wish.foodKey)}`" @click="remove(wish)">Take away</ElButton>
        </span>
      </li>
    </ul>
    <p v-if="problems.all && !form" class="problem">{{ problems.all }}</p>
    <form v-if="form" class="stack form" aria-label="A wish" @submit.prevent="save">
      <div class="pair">
        <FoodField v-model="form.foodKey" label="Food" :problem="problems.foodKey" />
        <ChoiceField v-model="form.purpose" label="As" :choices="PURPOSE_CHOICES" :problem="problems.purpose" />
      </div>
      <div class="pair">
        <WeightField :key="typed" v-model="form.grams" label="The shelf is to hold" required :problem="problems.grams" />
        <DayField v-model="form.by" label="By" :problem="problems.by" />
      </div>
      <ElButton v-if="usedG" @click="asLastYear">As much as was used in the last year: {{ format.weight(usedG) }}</ElButton>
      <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save</ElButton><ElButton @click="leave">Leave it as it was</ElButton>
      </div>
    </form>
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
