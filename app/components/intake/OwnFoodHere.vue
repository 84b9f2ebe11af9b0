<script setup lang="ts">
import { parseSpread, slugOf, type FoodSource } from '#core/foods'
import type { FoodPartsAnswer } from '#shared/contracts'

/** A food that the reference does not have, added without leaving the basket: its kind fills in the figures, who knows better corrects them. */
const props = defineProps<{ name: string }>()
const emit = defineEmits<{ added: [key: string]; leave: [] }>()
const parts = shallowRef<FoodPartsAnswer>()
const name = ref(props.name)
const family = ref('')
const water = ref<number>()
const trim = ref<number>()
const allergens = ref('')
const busy = ref(false)
const problems = ref<string[]>([])
const checkFields = useFieldChecks()
const usual = computed(() => parts.value?.families.find(item => item.key === family.value)?.usual)

onMounted(async () => {
  try {
    parts.value = await call('foodParts')
  } catch {
    problems.value = ['The kinds of food are kept by the server, and it is out of touch.']
  }
})
watch(usual, next => {
  water.value = next && parseSpread(next.water)!.mean
  trim.value = next && parseSpread(next.trim)!.mean
  allergens.value = next?.allergens?.join(', ') ?? ''
})

async function add() {
  problems.value = []
  const bad = checkFields()
  if (bad) problems.value.push(bad)
  if (name.value.trim() === '') problems.value.push('Give it a name.')
  if (!usual.value) problems.value.push('Say what kind of food it is: its figures follow from that.')
  if (problems.value.length > 0) return
  busy.value = true
  // A figure that was put right is surer than the kind’s own, and still differs from basket to basket.
  const corrected = (text: string, value: number | undefined, least: number) => {
    const { mean, sd } = parseSpread(text)!
    return value === undefined || value === mean ? text : `${value} ± ${Math.max(least, Math.round(5 * sd) / 10)}`
  }
  const list = allergens.value
    .split(',')
    .map(item => item.trim())
    .filter(Boolean)
  const food: FoodSource = {
    ...usual.value!,
    // Names may be of any script, and like those of the reference: a key of its own all the same.
    key: ['own', slugOf(name.value), crypto.randomUUID().slice(0, 4)].filter(Boolean).join('-'),
    name: name.value.trim(),
    family: family.value,
    water: corrected(usual.value!.water, water.value, 1),
    waterSource: 'own figure, or the middle of its kind',
    trim: corrected(usual.value!.trim, trim.value, 2),
    allergens: list.length > 0 ? list : undefined,
  }
  try {
    await call('saveFood', { body: { food } })
    emit('added', food.key)
  } catch (error) {
    problems.value =
      error instanceof Refused && error.problems.length > 0 ? error.problems.map(item => item.message) : [(error as Error).message]
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="own" aria-label="A food of your own">
    <TextField v-model="name" label="Its name" />
    <div class="field">
      <label for="own-family">It is of the kind</label>
      <ElSelect id="own-family" v-model="family" filterable placeholder="Choose" aria-label="Kind of food">
        <ElOption v-for="item in parts?.families" :key="item.key" :value="item.key" :label="item.name" />
      </ElSelect>
    </div>
    <template v-if="usual">
      <div :key="family" class="pair">
        <NumberField v-model="water" :label="usual.uncooked ? 'Water, cooked, %' : 'Water, %'" bare required :least="2" :most="98" />
        <NumberField v-model="trim" label="Trimmed off, %" bare required :least="0" :most="95" />
      </div>
      <TextField v-model="allergens" label="Allergens" hint="for the label, with commas between" optional />
      <p class="quiet small">
        Filled in as the middle of its kind, cut as that is usually cut:
        {{
          Object.keys(usual.forms)
            .map(form => form.replace(/ (\d+)$/, ' of $1 mm'))
            .join(', ')
        }}. Own lots sharpen the figures; all of it can be changed under Reference.
      </p>
    </template>
    <p v-for="item in problems" :key="item" class="problem" role="alert">{{ item }}</p>
    <div class="row">
      <ElButton type="primary" :loading="busy" @click="add">Add it</ElButton><ElButton @click="emit('leave')">Cancel</ElButton>
    </div>
  </section>
</template>

<style scoped>
.own {
  display: grid;
  gap: 0.8rem;
  padding: 0.9rem;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--sunk);
}
</style>
