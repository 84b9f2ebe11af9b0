<script setup lang="ts">
import { allergenWords } from '#core/foods/allergens'
import { planWater, PRODUCTS, WHOLE, type WaterPlan } from '#core/using'
import { InputError } from '#core/errors'
import type { KitchenJar } from '#shared/contracts'

/** Water back: a jar, what is wanted of it and how much, and what to weigh or spoon. */
const store = useKitchen()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { choices, jarId, jar } = useChosenJar(item => item.group !== 'goods')
const product = ref('puree')
const percent = ref<number | undefined>(12)
const by = ref<'wanted' | 'powder'>('wanted')
const amountG = ref<number | undefined>(500)
const told = ref('')
const problem = ref('')
const checkFields = useFieldChecks()

/** What a food is usually made into. */
const usual = (item: KitchenJar) =>
  item.purpose === 'pieces' || ['dairy', 'egg', 'meat', 'fish'].includes(item.group) ? WHOLE.key : 'puree'
watch(
  jar,
  (now, before) => {
    if (!now || now.jarId === before?.jarId) return
    product.value = usual(now)
    told.value = problem.value = ''
  },
  { immediate: true },
)

const PRODUCT_CHOICES = [
  ...PRODUCTS.map(item => ({ value: item.key, words: item.name })),
  { value: WHOLE.key, words: WHOLE.name },
  { value: 'own', words: 'By solids' },
]
const plan = computed((): WaterPlan | { problem: string } | undefined => {
  if (!jar.value || amountG.value === undefined || (product.value === 'own' && percent.value === undefined)) return undefined
  try {
    const amount = by.value === 'wanted' ? { wantedG: amountG.value } : { powderG: amountG.value }
    return planWater(
      jar.value,
      product.value === 'own' ? { solids: (percent.value ?? 0) / 100, ...amount } : { product: product.value, ...amount },
      settings.value.measures,
    )
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    return { problem: error.problems[0]!.message }
  }
})
const good = computed(() => (plan.value && 'powderG' in plan.value ? plan.value : undefined))
const named = computed(() =>
  product.value === 'own' ? (good.value?.makes?.name ?? 'mixture') : PRODUCT_CHOICES.find(choice => choice.value === product.value)!.words,
)

async function take() {
  if (checkFields() !== undefined || !good.value || !jar.value) return
  problem.value = ''
  try {
    const { powderG, totalG } = good.value
    const { number } = jar.value
    await store.log(jar.value, {
      kind: 'take',
      jarId: jar.value.jarId,
      weightG: Math.round(powderG * 10) / 10,
      use: `${product.value === WHOLE.key ? 'water back' : named.value.toLowerCase()}, ${format.weight(totalG)}`.replaceAll('\u00A0', ' '),
    })
    told.value = `${format.weight(powderG)} taken from jar ${number}.`
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="jar" class="two">
    <form class="card form" @submit.prevent="take">
      <JarPicker v-model="jarId" label="From" :jars="choices" />
      <ChoiceField v-model="product" label="Into" :choices="PRODUCT_CHOICES" />
      <NumberField
        v-if="product === 'own'"
        v-model="percent"
        label="Solids, percent"
        hint="the rest is water: a thin soup has 6, purée 12, paste 26"
        :least="1"
        :most="99"
        bare
      />
      <ChoiceField
        v-model="by"
        label="By"
        :choices="[
          { value: 'wanted', words: 'What I want of it' },
          { value: 'powder', words: 'The powder I have' },
        ]"
      />
      <WeightField
        v-model="amountG"
        :label="by === 'wanted' ? 'So much of it' : 'So much powder'"
        :hint="format.sentence('or 2 cups, 500 mL')"
        :density-g-ml="by === 'wanted' ? 1 : jar.densityGMl.p50"
        required
      />
      <SpoonWeight :key="jar.jarId" :jar="jar" />
    </form>
    <div class="stack">
      <section class="card" aria-live="polite" aria-label="What to weigh">
        <p v-if="plan && 'problem' in plan" class="problem">{{ plan.problem }}</p>
        <template v-else-if="good">
          <div class="amounts">
            <div>
              <p class="quiet">{{ { powder: 'Powder', flakes: 'Flakes', pieces: 'Pieces' }[jar.purpose] }}</p>
              <p class="big">{{ format.weight(good.powderG) }}</p>
              <p v-if="jar.purpose !== 'pieces'">{{ jar.measured ? '' : 'about ' }}{{ good.powder.words }}</p>
            </div>
            <span class="plus" aria-hidden="true">+</span>
            <div>
              <p class="quiet">Water</p>
              <p class="big">{{ format.weight(good.waterG) }}</p>
              <p>{{ good.water.words }}</p>
            </div>
            <span class="plus" aria-hidden="true">=</span>
            <div>
              <p class="quiet">{{ named }}</p>
              <p class="big">{{ format.weight(good.totalG) }}</p>
              <p>{{ format.share(good.solids) }} solids</p>
            </div>
          </div>
          <ul class="how">
            <li>
              {{ good.how.water }} Hold back <strong>{{ format.weight(good.holdBackG) }}</strong> ({{ good.holdBack.words }}) of the water.
            </li>
            <li>
              Wait <strong>{{ good.how.minutes.low }} to {{ good.how.minutes.high }} minutes</strong>, then judge it.
            </li>
            <li>{{ good.how.thick }}</li>
            <li>{{ good.how.thin }}</li>
          </ul>
          <p v-if="good.shortG" class="caution">
            The jar holds {{ format.weight(jar.leftG) }}: {{ format.weight(good.shortG) }} are missing.
          </p>
          <p v-for="text in jar.told.use" :key="text" class="caution">{{ format.sentence(text) }}</p>
          <p class="quiet small">
            {{
              jar.saltShare < 0.005
                ? 'It is unsalted: salt the dish.'
                : `It holds ${format.share(jar.saltShare)} salt: taste before you salt.`
            }}
            {{ allergenWords(jar.allergens) }} With its water back it is fresh food: cold, or used within two hours.
          </p>
          <div class="row foot">
            <ElButton type="primary" :disabled="Boolean(good.shortG)" @click="take"
              >Take {{ format.weight(good.powderG) }} from jar {{ jar.number }}</ElButton
            ><span class="good" role="status">{{ told }}</span>
          </div>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        </template>
        <p v-else class="quiet">Say how much.</p>
      </section>
      <section v-if="good" class="card" aria-label="By the schools">
        <h2>Where it stands</h2>
        <SolidsRuler :plan="good" />
        <p class="quiet small">
          By mass balance: the solids stay. Purée holds 8 to under 24 % and paste at least 24 % of tomato solids by 21 CFR 155.191; the rest
          is common practice. Never thicken home-canned food with powder before canning, and never can pumpkin purée at home.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 0.8fr) minmax(0, 1.2fr);
  gap: 1rem;
  align-items: start;
}
.amounts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.1rem;
  align-items: start;
}
.big {
  font: 700 2.1rem/1.1 var(--display);
  letter-spacing: -0.01em;
}
.plus {
  font: 700 1.6rem var(--display);
  color: var(--quiet);
  padding-top: 1.35rem;
}
.how {
  margin: 0.9rem 0;
  padding-left: 1.2rem;
  display: grid;
  gap: 0.35rem;
}
.foot {
  margin-top: 0.8rem;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .big {
    font-size: 1.6rem;
  }
}
</style>
