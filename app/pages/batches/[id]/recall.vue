<script setup lang="ts">
import type { RecallAnswer } from '#shared/contracts'

/** From a basket to every jar that it went into, by whatever way. */
const route = useRoute()
const batchId = String(route.params.id)
const format = useFormat()
const { page, state, load } = useBatch(batchId)
const answer = shallowRef<RecallAnswer>()
const problem = ref('')
await load()
try {
  answer.value = await callServer<RecallAnswer>(`/api/batches/${batchId}/recall`)
}
catch (error) {
  problem.value = (error as Error).message
}
void useStagesStore().refresh()
useHead({ title: 'Every jar of a basket · Dulse' })
const there = computed(() => answer.value?.jars.filter(jar => jar.partLeftG > 0.05) ?? [])
</script>

<template>
  <div class="stack">
    <header class="page-head"><div><h1>Every jar of this basket</h1><p v-if="state" class="quiet">{{ state.food.name }}, <NuxtLink :to="`/batches/${batchId}`">batch {{ page?.number }}</NuxtLink>, {{ state.intake.body.source.toLowerCase() }}, {{ format.date(state.intake.at) }}</p></div></header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <section v-else-if="answer" class="card scroll">
      <p v-if="answer.jars.length === 0">Nothing of it has been packed yet.</p>
      <template v-else>
        <p><strong>{{ format.weight(there.reduce((sum, jar) => sum + jar.partLeftG, 0)) }}</strong> of it stand in {{ plural(there.length, 'jar') }}; {{ format.weight(answer.eatenG) }} were eaten, poured on or thrown away.</p>
        <table>
          <thead><tr><th>Jar</th><th>What</th><th>Stands</th><th class="n">Of this basket, ever</th><th class="n">Still in it</th><th class="n">In the jar</th></tr></thead>
          <tbody><tr v-for="jar in answer.jars" :key="jar.jarId"><td><NuxtLink :to="`/jars/${jar.jarId}`"><strong>{{ jar.number }}</strong></NuxtLink></td><td>{{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose] }}{{ jar.baskets > 1 ? `, with ${plural(jar.baskets - 1, 'other basket')}` : '' }}</td><td>{{ jar.leftG > 0 ? jar.place : 'empty' }}</td><td class="n">{{ format.weight(jar.everG) }}</td><td class="n">{{ format.weight(jar.partLeftG) }}</td><td class="n">{{ format.weight(jar.leftG) }}</td></tr></tbody>
        </table>
        <p class="quiet small">A jar that was topped up, split or begun again brings its baskets along, so all of them are here.</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.scroll { overflow-x: auto; } table { border-collapse: collapse; width: 100%; margin: 0.7rem 0; }
th { text-align: left; color: var(--quiet); font: 650 0.9rem var(--text); } td, th { padding: 0.55rem 0.9rem 0.55rem 0; border-bottom: 1px solid var(--rule); } .n { text-align: right; }
</style>
