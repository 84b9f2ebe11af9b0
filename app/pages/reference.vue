<script setup lang="ts">
import { FOODS, findFood, START_SCHOOLS, TEMPERATURE_SCHOOLS } from '#core/foods'

const route = useRoute()
const format = useFormat()
useHead({ title: 'Reference · Dulse' })
void useStagesStore().refresh()
const food = computed(() => findFood(String(route.query.food ?? '')) ?? FOODS[0]!)
const months = (window: { low: number, high: number }) => window.low === window.high ? `${window.low} months` : `${window.low} to ${window.high} months`
</script>

<template>
  <div class="reference">
    <nav class="card foods" aria-label="Foods">
      <NuxtLink v-for="item in FOODS" :key="item.key" :to="`/reference?food=${item.key}`" class="food" :class="{ on: item.key === food.key }" :aria-current="item.key === food.key ? 'true' : undefined"><span class="dot" :style="{ background: item.powderColour }" />{{ item.name }}</NuxtLink>
    </nav>
    <article class="stack">
      <header class="page-head"><h1>{{ food.name }}</h1><ElButton type="primary" @click="navigateTo(`/intake?food=${food.key}`)">A basket came in</ElButton></header>
      <section class="card">
        <dl>
          <dt>Water</dt><dd>{{ format.share(food.rawMoisture.value.mean) }} ± {{ format.share(food.rawMoisture.value.sd) }} <span class="quiet">({{ food.rawMoisture.source }})</span></dd>
          <dt>Trimmed off</dt><dd>{{ format.share(food.trimShare.value.mean) }} ± {{ format.share(food.trimShare.value.sd) }} of the basket <span class="quiet">({{ food.trimShare.source }})</span></dd>
          <dt>Waits</dt><dd>about {{ food.freshDays.value }} days in the cold <span class="quiet">({{ food.freshDays.source }})</span></dd>
          <dt>Dry is</dt><dd>{{ food.drynessTest.value }} <span class="quiet">({{ food.drynessTest.source }})</span></dd>
          <dt>Target</dt><dd>{{ format.share(food.target.pieces) }} water for pieces, {{ format.share(food.target.flakes) }} for flakes, {{ format.share(food.target.powder) }} for fine powder <span class="quiet">({{ food.targetSource }})</span></dd>
          <dt>Keeps</dt><dd>pieces {{ months(food.keepsMonths.pieces) }}, flakes {{ months(food.keepsMonths.flakes) }}, powder {{ months(food.keepsMonths.powder) }} at {{ format.temperature(20) }} in a lined screw jar. {{ food.keepsReason }} <span class="quiet">({{ food.keepsSource }})</span></dd>
          <dt>Allergens</dt><dd>{{ food.allergens.length ? food.allergens.join(', ') : 'none known' }}</dd>
        </dl>
      </section>
      <section class="card">
        <h2>Method cards</h2>
        <div class="scroll">
          <table>
            <thead><tr><th>Cut</th><th>Hours of heat</th><th>Set</th><th>Reason</th></tr></thead>
            <tbody>
              <tr v-for="card in food.cards" :key="card.key"><td class="strong">{{ card.name }}</td><td>{{ card.usualHours.value.low }} to {{ card.usualHours.value.high }} <span class="quiet small">({{ card.usualHours.source }})</span></td><td>{{ format.temperature(card.temperatureC) }}</td><td>{{ card.temperatureReason }}</td></tr>
            </tbody>
          </table>
        </div>
      </section>
      <section v-if="food.cards.some(card => card.temperatureC >= 50)" class="card">
        <h2>Schools of temperature</h2>
        <ul class="plain-list schools"><li v-for="school in START_SCHOOLS" :key="school.key"><strong>{{ school.name }}.</strong> {{ school.reason }}</li></ul>
        <ul class="plain-list schools"><li v-for="school in TEMPERATURE_SCHOOLS" :key="school.celsius"><strong>{{ format.temperature(school.celsius) }}, {{ school.name }}.</strong> {{ school.reason }}</li></ul>
      </section>
      <section v-if="food.cautions.length" class="card stack">
        <h2>Cautions</h2>
        <p v-for="caution in food.cautions" :key="caution.text" class="caution">{{ caution.text }}</p>
        <p class="quiet small">The usual cautions of the trade; your local food-safety authority and the machine’s manual come first.</p>
      </section>
    </article>
  </div>
</template>

<style scoped>
.reference { display: grid; grid-template-columns: 220px minmax(0, 1fr); gap: 1.2rem; align-items: start; }
.foods { padding: 0.4rem; display: grid; }
.food { display: flex; align-items: center; gap: 0.7rem; min-height: 44px; padding: 0 0.7rem; border-radius: 8px; text-decoration: none; }
.food:hover, .food.on { background: var(--sunk); } .food.on { font-weight: 700; }
.dot { width: 0.9rem; height: 0.9rem; border-radius: 4px; }
dl { display: grid; grid-template-columns: 110px 1fr; gap: 0.55rem 1rem; margin: 0; } dt { color: var(--quiet); } dd { margin: 0; }
.scroll { overflow-x: auto; } table { border-collapse: collapse; width: 100%; margin-top: 0.5rem; }
th { text-align: left; color: var(--quiet); font: 650 0.9rem var(--text); padding: 0.3rem 0.8rem 0.3rem 0; } td { border-top: 1px solid var(--rule); padding: 0.55rem 0.8rem 0.55rem 0; vertical-align: top; }
.schools { display: grid; gap: 0.4rem; margin-top: 0.5rem; }
@media (width <= 760px) { .reference { grid-template-columns: minmax(0, 1fr); } .foods { grid-auto-flow: column; overflow-x: auto; } .food { white-space: nowrap; } dl { grid-template-columns: 84px 1fr; } }
</style>
