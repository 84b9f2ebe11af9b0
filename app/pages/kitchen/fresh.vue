<script setup lang="ts">
import { MONTH_MS, strengthAfter, useMore } from '#core/keeping'
import { freshBothWays, inVessels, spoonedG, usualAmounts, volumeOf } from '#core/using'

/** What a spoon of powder stands for, what fresh food comes to in powder, and how strong the jar still is. */
const format = useFormat()
const { now } = useClock()
const { settings } = storeToRefs(useHouseholdStore())
const { choices, jarId, jar } = useChosenJar(item => item.purpose !== 'pieces' && !['goods', 'blend', 'dried'].includes(item.group))
const freshG = ref<number | undefined>(100)
const measures = computed(() => settings.value.measures)
const SPOONS = [
  { count: 1, vessel: 'teaspoon' },
  { count: 1, vessel: 'tablespoon' },
  { count: 0.25, vessel: 'cup' },
] as const
const spoons = computed(() =>
  SPOONS.map(({ count, vessel }) => {
    const ml = volumeOf(count, vessel, measures.value)
    return {
      ...freshBothWays(jar.value!, { powderG: spoonedG(jar.value!, ml) }, measures.value),
      words: inVessels(ml, measures.value).words,
    }
  }),
)
const usual = computed(() => usualAmounts(jar.value!, measures.value))
const asked = computed(() => (freshG.value === undefined ? undefined : freshBothWays(jar.value!, { freshG: freshG.value }, measures.value)))
const whole = computed(() => freshBothWays(jar.value!, { powderG: jar.value!.leftG }, measures.value))
const months = computed(() => (now.value - jar.value!.oldestAt) / MONTH_MS)
const strength = computed(() => jar.value!.halfLife && strengthAfter(months.value, jar.value!.halfLife))
const more = computed(() => strength.value && useMore(strength.value.p50))
/** A teaspoon of fresh powder, as this jar must be dosed. */
const dose = computed(() => more.value && format.vessels(volumeOf(1, 'teaspoon', measures.value) * more.value))
</script>

<template>
  <div v-if="!jar" class="card"><p>No jar of one food is on the shelf.</p></div>
  <div v-else class="two">
    <div class="stack">
      <section class="card form">
        <JarPicker v-model="jarId" label="Jar" :jars="choices" /><SpoonWeight :key="jar.jarId" :jar="jar" />
      </section>
      <section v-if="strength" class="card" aria-label="Its strength">
        <h2>
          {{ months < 1 ? 'Packed this month' : `${Math.round(months)} months old` }}: {{ format.range(strength, format.share) }} of its
          strength
        </h2>
        <p>
          For one teaspoon of it fresh use <strong>{{ dose }}</strong>.
        </p>
        <p class="quiet small">
          By the half-life of this food in this household,
          {{ format.range(jar.halfLife!, value => value.toFixed(value < 10 ? 1 : 0)) }} months; a smell test on the jar’s page makes it
          surer. {{ jar.saltShare < 0.005 ? 'It is unsalted: salt the dish apart.' : `It holds ${format.share(jar.saltShare)} salt.` }}
          <template v-if="jar.heat && jar.heat.high > 100">Heat hardly fades: dose hot chili by heat, not by age.</template>
        </p>
      </section>
    </div>
    <section class="card" aria-live="polite" aria-label="Fresh and powder">
      <h2>{{ jar.foodName }}: powder and fresh</h2>
      <table class="ruled">
        <thead>
          <tr>
            <th>Powder</th>
            <th class="n">weighs</th>
            <th class="n">stands for fresh, trimmed</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="spoon in spoons" :key="spoon.words">
            <td>{{ spoon.words }}</td>
            <td class="n">{{ format.weight(spoon.powderG) }}</td>
            <td class="n">
              <strong>{{ format.weight(spoon.freshG) }}</strong>
            </td>
          </tr>
          <tr>
            <td>The whole jar</td>
            <td class="n">{{ format.weight(whole.powderG) }}</td>
            <td class="n">
              <strong>{{ format.weight(whole.freshG) }}</strong>
            </td>
          </tr>
        </tbody>
      </table>
      <table class="ruled">
        <thead>
          <tr>
            <th>Fresh</th>
            <th class="n">weighs</th>
            <th class="n">takes powder</th>
            <th>by the spoon</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in usual" :key="item.words">
            <td>{{ item.words }}</td>
            <td class="n">{{ format.weight(item.freshG) }}</td>
            <td class="n">
              <strong>{{ format.weight(item.powderG) }}</strong>
            </td>
            <td>{{ item.powder.words }}</td>
          </tr>
          <tr>
            <td colspan="2"><WeightField v-model="freshG" label="So much fresh" required /></td>
            <td class="n">
              <strong v-if="asked">{{ format.weight(asked.powderG) }}</strong>
            </td>
            <td>{{ asked?.powder.words }}</td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">
        By dry matter, {{ format.share(jar.rawMoisture) }} water fresh and {{ format.share(jar.moisture) }} in the jar. Middle sizes of
        common practice; your own scale knows better. With its water back it is fresh food: cold, or used within two hours.
      </p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 0.9fr) minmax(0, 1.1fr);
  gap: 1rem;
  align-items: start;
}
section {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}
@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
