<script setup lang="ts">
/** Where the food of a basket went: every batch of it as a stream, with grams and per cent at each arrow. */
const route = useRoute()
const batchId = String(route.params.id)
const format = useFormat()
const { answer, problem, ready } = useServer('batchFlow', () => ({ params: { batchId } }))
await ready()
useHead({ title: 'Where it went · Dulse' })
const by = ref<'weight' | 'solids'>('weight')
/** What came in: one basket, or those that met in one cup. */
const came = computed(() => answer.value?.batches.filter(batch => batch.of === undefined) ?? [])
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <div>
        <h1>Where it went</h1>
        <p v-if="came[0]" class="quiet">
          {{ came.map(batch => `${format.sentence(batch.title)}, ${format.weight(batch.weightG)}`).join(' and ') }},
          {{ answer!.batches.length > 1 ? `in ${answer!.batches.length} batches` : `batch ${came[0].number}` }}
        </p>
      </div>
      <div class="row">
        <ElButton @click="print">Print</ElButton>
        <a class="el-button" :href="`/api/batches/${batchId}/flow`" download="flow.json">As JSON</a>
      </div>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <template v-else-if="answer">
      <ChoiceField
        v-model="by"
        class="by"
        label="As wide as"
        :choices="[
          { value: 'weight', words: 'its weight' },
          { value: 'solids', words: 'its solids', note: 'what stays when the water goes' },
        ]"
      />
      <div class="rivers">
        <FlowRiver v-for="batch in answer.batches" :key="batch.batchId" :batch="batch" :all="answer.batches" :by="by" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.rivers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 420px), 1fr));
  gap: 1rem;
  align-items: start;
}
@media print {
  .row,
  .by {
    display: none;
  }
}
</style>
