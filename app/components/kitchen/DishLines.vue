<script setup lang="ts">
import { allergenWords } from '#core/foods/allergens'
import { gramsOf, planWater, volumeOf, volumesOf, WHOLE, type Amount, type WaterPlan } from '#core/using'
import type { DishRecipe, KitchenJar } from '#shared/contracts'

/** The powders of a dish, each from a jar of the shelf, by that jar's own density and water. */
const props = defineProps<{ recipe: DishRecipe; times: number }>()
const store = useKitchen()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const chosen = reactive<Record<number, string | undefined>>({})
const told = ref('')
const problem = ref('')
type Line = DishRecipe['powders'][number]

const jarsOf = (line: Line) => store.jarsFor(line.foodKey, jar => gramsOf(scaled(line), jar), line.purpose)
const jarOf = (line: Line, i: number) => store.jarOf(chosen[i]) ?? jarsOf(line)[0]
const scaled = (line: Line): Amount => {
  const { amount } = line
  return amount.by === 'vessel'
    ? { by: 'vessel', count: amount.count * props.times, ml: volumeOf(1, amount.vessel, settings.value.measures) }
    : { ...amount, grams: amount.grams * props.times }
}
interface Shown {
  line: Line
  jar?: KitchenJar
  jars: KitchenJar[]
  grams?: number
  spoons?: string
  water?: WaterPlan
  short?: boolean
  name: string
}
const lines = computed(() =>
  props.recipe.powders.map((line, i): Shown => {
    const [jar, jars] = [jarOf(line, i), jarsOf(line)]
    const name = jar?.foodName ?? store.answer?.goods.find(item => item.key === line.foodKey)?.name ?? line.foodKey.replaceAll('-', ' ')
    if (!jar) return { line, jars, name }
    const grams = gramsOf(scaled(line), jar)
    const product = line.amount.by === 'product' ? line.amount.product : WHOLE.key
    return {
      line,
      jar,
      jars,
      name,
      grams,
      spoons: volumesOf(grams, jar.densityGMl, settings.value.measures).powder.words,
      short: grams > jar.leftG + 0.5,
      water: line.rehydrate ? planWater(jar, { product, powderG: grams }, settings.value.measures) : undefined,
    }
  }),
)
const allergens = computed(() => [...new Set(lines.value.flatMap(({ jar }) => jar?.allergens ?? []))])
const unsalted = computed(() => lines.value.every(({ jar }) => (jar?.saltShare ?? 0) < 0.005))
/** What is told of any powder in it. */
const cautions = computed(() => [...new Set(lines.value.flatMap(({ jar }) => jar?.told.use ?? []))])
const raw = computed(() => lines.value.filter(({ jar }) => jar?.raw).map(({ name }) => name.toLowerCase()))
const ready = computed(() => lines.value.every(({ jar, short }) => jar && !short))

async function cook() {
  told.value = problem.value = ''
  let taken = 0
  try {
    for (const { jar, grams } of lines.value) {
      if (!jar || !grams) continue
      await store.log(jar, { kind: 'take', jarId: jar.jarId, weightG: Math.max(0.1, Math.round(grams * 10) / 10), use: props.recipe.name })
      taken++
    }
    told.value = `Taken from ${plural(taken, 'jar')}.`
  } catch (error) {
    problem.value = `${(error as Error).message}${taken ? ` ${plural(taken, 'jar was', 'jars were')} drawn down already.` : ''}`
  }
}
</script>

<template>
  <div class="stack">
    <ul class="plain-list powders">
      <li v-for="(item, i) in lines" :key="i">
        <p v-if="!item.jar" class="caution">No jar of {{ item.name.toLowerCase() }} is on the shelf.</p>
        <template v-else>
          <p class="head">
            <strong class="big">{{ format.weight(item.grams!) }}</strong> {{ item.name.toLowerCase()
            }}{{ item.jar.purpose === 'powder' ? ' powder' : `, ${PURPOSE_WORDS[item.jar.purpose]}` }},
            <span class="quiet">{{ item.jar.measured ? '' : 'about ' }}{{ item.spoons }}</span>
          </p>
          <p v-if="item.water">
            First its water back: <strong>{{ format.weight(item.water.waterG) }}</strong> ({{ item.water.water.words }}),
            {{ item.water.how.minutes.low }} to {{ item.water.how.minutes.high }} minutes. {{ item.water.how.water }}
          </p>
          <div class="row">
            <JarPicker
              v-if="item.jars.length > 1"
              :model-value="item.jar.jarId"
              :label="`Jar for ${item.name}`"
              hide-label
              :jars="item.jars"
              class="pick"
              @update:model-value="id => (chosen[i] = id)"
            /><span v-else class="quiet small">from jar {{ item.jar.number }}, {{ format.weight(item.jar.leftG) }} left</span
            ><span v-if="item.short" class="problem">It is not enough.</span>
          </div>
        </template>
      </li>
    </ul>
    <p v-for="text in cautions" :key="text" class="caution small">{{ format.sentence(text) }}</p>
    <p class="quiet small">
      {{ unsalted ? 'These powders are unsalted: salt the dish.' : 'A powder in it is salted: taste before you salt.' }}
      {{ allergens.length ? allergenWords(allergens) : 'No known allergens in the powders.'
      }}{{ raw.length ? ` Raw until cooked through: ${raw.join(', ')}.` : '' }}
      With its water back it is fresh food: cold, or used within two hours.
    </p>
    <div class="row">
      <ElButton type="primary" :disabled="!ready" @click="cook">Take them from the jars</ElButton
      ><span class="good" role="status">{{ told }}</span>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.powders {
  display: grid;
  gap: 0.9rem;
}
.powders li {
  border-left: 4px solid var(--ochre);
  padding-left: 0.9rem;
  display: grid;
  gap: 0.3rem;
}
.big {
  font: 700 1.25rem var(--display);
}
.pick {
  width: min(340px, 100%);
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
