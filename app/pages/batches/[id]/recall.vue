<script setup lang="ts">
/** From a basket to every jar that it went into, by whatever way. */
const route = useRoute()
const batchId = String(route.params.id)
const format = useFormat()
const { page, state, ready } = useBatch(batchId)
const { answer, problem, ready: told } = useServer('batchRecall', () => ({ params: { batchId } }))
await ready()
await told()
useHead({ title: 'Every jar of a basket · Dulse' })
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <div>
        <h1>Every jar of this basket</h1>
        <p v-if="state" class="quiet">
          {{ state.food.name }}, <NuxtLink :to="`/batches/${batchId}`">batch {{ page?.number }}</NuxtLink
          >, {{ state.intake.body.source.toLowerCase() }}, {{ format.date(state.intake.at) }}
        </p>
      </div>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <RecallTable v-else-if="answer" :answer="answer" of="basket" />
  </div>
</template>
