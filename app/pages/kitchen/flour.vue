<script setup lang="ts">
import { allergenWords } from '#core/foods/allergens'
import { FLOUR_G_ML, flourSwap, MOST_FLOUR_SHARE, volumesOf } from '#core/using'

/** Powder in place of a part of the flour, and the water that it drinks besides. */
const store = useKitchen()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { choices, jarId, jar } = useChosenJar(item => item.purpose === 'powder' && item.group !== 'goods' && item.group !== 'blend')
const flourG = ref<number | undefined>(500)
const share = ref(0.1)
const told = ref('')
const problem = ref('')
const SHARES = [
  { value: 0.1, words: 'A tenth' },
  { value: 0.2, words: 'A fifth' },
  { value: 0.25, words: 'A quarter' },
  { value: MOST_FLOUR_SHARE, words: 'A third' },
]
const swap = computed(() =>
  jar.value && flourG.value !== undefined ? flourSwap(flourG.value, share.value, jar.value.densityGMl.p50) : undefined,
)
const spoons = computed(() =>
  swap.value && jar.value ? volumesOf(swap.value.powderG, jar.value.densityGMl, settings.value.measures).powder.words : '',
)
const short = computed(() => (swap.value && jar.value ? Math.max(0, swap.value.powderG - jar.value.leftG) : 0))
watch([jarId, flourG, share], () => {
  told.value = problem.value = ''
})
async function take() {
  if (!swap.value || !jar.value) return
  try {
    const grams = swap.value.powderG
    await store.log(jar.value, { kind: 'take', jarId: jar.value.jarId, weightG: Math.round(grams * 10) / 10, use: 'baking' })
    told.value = `${format.weight(grams)} taken.`
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="!jar" class="card"><p>No powder of one food is on the shelf.</p></div>
  <div v-else class="two">
    <form class="card form" @submit.prevent="take">
      <JarPicker v-model="jarId" label="Powder" :jars="choices" />
      <WeightField v-model="flourG" label="Flour in the recipe" hint="or 4 cups" :density-g-ml="FLOUR_G_ML" required />
      <ChoiceField v-model="share" label="In place of" :choices="SHARES" />
      <SpoonWeight :key="jar.jarId" :jar="jar" />
    </form>
    <section class="card" aria-live="polite" aria-label="What to weigh">
      <template v-if="swap">
        <dl class="sums">
          <dt>Flour</dt>
          <dd>
            <span class="big">{{ format.weight(swap.flourG) }}</span>
          </dd>
          <dt>{{ jar.foodName }}</dt>
          <dd>
            <span class="big">{{ format.weight(swap.powderG) }}</span> {{ spoons }}
          </dd>
          <dt>More water</dt>
          <dd>
            <span class="big">{{ format.weight(swap.waterG) }}</span> {{ format.vessels(swap.waterG) }}, by and by: powders differ in their
            thirst
          </dd>
        </dl>
        <p>
          The swap is by volume, as bakers do it. Powder has no gluten: begin with a tenth and raise it slowly; above a third the dough does
          not hold together.
        </p>
        <p class="quiet small">
          The water beyond what flour drinks is taken as eight tenths of the powder’s weight (common practice). Fine powder sifts in with
          the flour; coarse has its water back first, or the moisture of the recipe is off.{{
            jar.allergens.length ? ` ${allergenWords(jar.allergens)}` : ''
          }}
        </p>
        <p v-if="short > 0.5" class="caution">The jar holds {{ format.weight(jar.leftG) }}: {{ format.weight(short) }} are missing.</p>
        <div class="row">
          <ElButton type="primary" :disabled="short > 0.5" @click="take"
            >Take {{ format.weight(swap.powderG) }} from jar {{ jar.number }}</ElButton
          ><span class="good" role="status">{{ told }}</span>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      </template>
      <p v-else class="quiet">Say how much flour the recipe has.</p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 0.8fr) minmax(0, 1.2fr);
  gap: 1rem;
  align-items: start;
}
section {
  display: grid;
  gap: 0.8rem;
}
.sums {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0.5rem 1.4rem;
  margin: 0;
  align-items: baseline;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
.big {
  font: 700 1.7rem/1.1 var(--display);
  margin-right: 0.5rem;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
