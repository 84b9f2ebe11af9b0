<script setup lang="ts">
/** Finished batches of the logbook, to be gone through once more with the judgement hidden. */
useHead({ title: 'Your own runs once more · Dulse' })
const format = useFormat()
const { answer, problem, ready } = useServer('batches', () => ({ query: {} }))
await ready()
/** What has left its machine and was weighed before: there is something to guess, and something to know. */
const done = computed(() =>
  (answer.value?.batches ?? []).filter(batch => ['resting', 'grinding', 'shelf'].includes(batch.stage) && batch.loadedG !== undefined),
)
const practice = usePracticeStore()
const times = (batchId: string) => new Set(practice.said.filter(item => item.of === batchId).map(item => item.of)).size
</script>

<template>
  <div class="stack">
    <p class="lead">
      A run of your own, minute by minute, with the judgement hidden: at each weight and each look you say what you believe, and see what
      all that came later says of that moment.
    </p>
    <p v-if="problem" class="card problem">{{ problem }}</p>
    <p v-else-if="done.length === 0" class="card">No batch has left its machine yet. When one has, it stands here.</p>
    <ul v-else class="plain-list runs">
      <li v-for="batch in done" :key="batch.batchId" class="card">
        <NuxtLink :to="`/practice/own/${batch.batchId}`" class="title">{{ batch.title }}</NuxtLink>
        <span class="quiet small"
          >Batch {{ batch.number }}, {{ format.date(batch.startedAt) }}{{ times(batch.batchId) ? ' · gone through before' : '' }}</span
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
.lead {
  max-width: 75ch;
}
.runs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 0.7rem;
}
.title {
  display: flex;
  align-items: center;
  min-height: 44px;
  font: 700 1.05rem var(--display);
  text-decoration: none;
}
</style>
