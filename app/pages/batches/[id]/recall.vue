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
} catch (error) {
  problem.value = (error as Error).message
}
void useStagesStore().refresh()
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
