<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { PRODUCTS, WHOLE } from '#core/using'
import type { DishRecipe } from '#shared/contracts'

/** A dish as it is written down. */
const store = useKitchen()
const route = useRoute()
const known = computed(() =>
  (store.answer?.recipes ?? []).find(
    (recipe): recipe is DishRecipe & { version: number } => recipe.kind === 'dish' && recipe.id === route.query.id,
  ),
)
type By = 'weight' | 'cup' | 'tablespoon' | 'teaspoon' | 'fresh' | 'product'
interface Row {
  foodKey: string
  by: By
  amount: number | undefined
  product: string
  rehydrate: boolean
}
const name = ref(known.value?.name ?? '')
const serves = ref(known.value?.serves ?? '')
const others = ref(known.value?.others.join('\n') ?? '')
const steps = ref(known.value?.steps.join('\n') ?? '')
const note = ref(known.value?.note ?? '')
const rows = ref<Row[]>(
  known.value?.powders.map(({ foodKey, amount, rehydrate }): Row => ({
    foodKey,
    rehydrate: rehydrate ?? false,
    product: amount.by === 'product' ? amount.product : 'puree',
    by: amount.by === 'vessel' ? amount.vessel : amount.by,
    amount: amount.by === 'vessel' ? amount.count : amount.grams,
  })) ?? [],
)
const problems = ref<string[]>([])
const busy = ref(false)
const foods = computed(() =>
  [
    ...new Map((store.answer?.jars ?? []).map(jar => [jar.foodKey, { key: jar.foodKey, name: jar.foodName }])).values(),
    ...(store.answer?.goods ?? []),
  ].sort((a, b) => a.name.localeCompare(b.name)),
)
const BYS = [
  { value: 'weight', words: 'grams of powder' },
  { value: 'teaspoon', words: 'teaspoons of powder' },
  { value: 'tablespoon', words: 'tablespoons of powder' },
  { value: 'cup', words: 'cups of powder' },
  { value: 'fresh', words: 'grams of the fresh food' },
  { value: 'product', words: 'grams of a product' },
] as const
const PRODUCT_WORDS = [...PRODUCTS, WHOLE]
if (rows.value.length === 0) add()
function add() {
  rows.value = [...rows.value, { foodKey: foods.value[0]?.key ?? '', by: 'weight', amount: undefined, product: 'puree', rehydrate: false }]
}
const linesOf = (text: string) =>
  text
    .split('\n')
    .map(line => line.trim())
    .filter(Boolean)
async function save() {
  problems.value = []
  if (name.value.trim() === '') problems.value.push('Give the dish a name.')
  rows.value.forEach((row, i) => {
    if (row.amount === undefined || !(row.amount > 0)) problems.value.push(`Powder ${i + 1}: say how much, above zero.`)
  })
  if (problems.value.length > 0) return
  busy.value = true
  const recipe: DishRecipe = {
    id: known.value?.id ?? uuidv7(),
    kind: 'dish',
    name: name.value.trim(),
    version: known.value?.version,
    ...(serves.value.trim() && { serves: serves.value.trim() }),
    ...(note.value.trim() && { note: note.value.trim() }),
    others: linesOf(others.value),
    steps: linesOf(steps.value),
    powders: rows.value.map(({ foodKey, by, amount, product, rehydrate }) => ({
      foodKey,
      ...(rehydrate && { rehydrate }),
      amount:
        by === 'weight' || by === 'fresh'
          ? { by, grams: amount! }
          : by === 'product'
            ? { by, grams: amount!, product }
            : { by: 'vessel', count: amount!, vessel: by },
    })),
  }
  try {
    await call('saveRecipe', { body: recipe })
    await store.load()
    await navigateTo(`/kitchen/recipes/${recipe.id}`)
  } catch (error) {
    problems.value = error instanceof Refused ? error.problems.map(problem => problem.message) : [(error as Error).message]
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="card form" @submit.prevent="save">
    <h2>{{ known ? 'Change the dish' : 'A new dish' }}</h2>
    <div class="pair"><TextField v-model="name" label="Name" /><TextField v-model="serves" label="For" hint="four bowls, one loaf" /></div>
    <fieldset class="powders">
      <legend>Powders and pieces</legend>
      <div v-for="(row, i) in rows" :key="i" class="powder">
        <div class="field">
          <label :for="`food${i}`">Of</label
          ><ElSelect :id="`food${i}`" v-model="row.foodKey" filterable
            ><ElOption v-for="food in foods" :key="food.key" :value="food.key" :label="food.name"
          /></ElSelect>
        </div>
        <NumberField v-model="row.amount" label="So much" :least="0" required />
        <div class="field">
          <label :for="`by${i}`">in</label
          ><ElSelect :id="`by${i}`" v-model="row.by"
            ><ElOption v-for="item in BYS" :key="item.value" :value="item.value" :label="item.words"
          /></ElSelect>
        </div>
        <div v-if="row.by === 'product'" class="field">
          <label :for="`product${i}`">namely</label
          ><ElSelect :id="`product${i}`" v-model="row.product"
            ><ElOption v-for="item in PRODUCT_WORDS" :key="item.key" :value="item.key" :label="item.name"
          /></ElSelect>
        </div>
        <ElCheckbox v-model="row.rehydrate" size="large">Water back first</ElCheckbox>
        <ElButton v-if="rows.length > 1" text :aria-label="`Take powder ${i + 1} out`" @click="rows = rows.filter((_, at) => at !== i)"
          >Take out</ElButton
        >
      </div>
      <ElButton @click="add">Another powder</ElButton>
    </fieldset>
    <div class="field">
      <label for="others">The rest, a line each</label><ElInput id="others" v-model="others" type="textarea" :rows="4" />
    </div>
    <div class="field">
      <label for="steps">How, a step each line</label
      ><ElInput
        id="steps"
        v-model="steps"
        type="textarea"
        :rows="5"
        placeholder="Water back before it goes into a batter, or the moisture of the recipe is off."
      />
    </div>
    <TextField v-model="note" label="A note" />
    <div role="alert">
      <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
    </div>
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="busy">Keep it</ElButton
      ><ElButton @click="navigateTo('/kitchen/recipes')">Cancel</ElButton>
    </div>
  </form>
</template>

<style scoped>
.powders {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}
legend {
  font-weight: 650;
  padding: 0;
  margin-bottom: 0.4rem;
}
.powder {
  display: grid;
  grid-template-columns: minmax(160px, 1.3fr) 110px minmax(170px, 1.2fr) repeat(3, auto);
  gap: 0.8rem;
  align-items: end;
  width: 100%;
}
@media (width <= 900px) {
  .powder {
    grid-template-columns: 1fr 1fr;
    border-bottom: 1px solid var(--rule);
    padding-bottom: 0.8rem;
  }
}
</style>
