<script setup lang="ts">
const route = useRoute()
const jarId = String(route.params.id)
const svg = ref('')
const problem = ref('')
useHead({ title: 'Label · Dulse' })

try {
  const response = await fetch(`/api/jars/${jarId}/label.svg`)
  if (response.ok) svg.value = await response.text()
  else problem.value = ((await response.json()) as { message: string }).message
}
catch {
  problem.value = 'Dulse’s server cannot be reached.'
}
// The label is drawn by our own server with all text escaped; as an image nothing in it can run.
const source = computed(() => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg.value)}`)
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <header class="page-head no-print">
      <h1>Label</h1>
      <NuxtLink :to="`/jars/${jarId}`">Back to the jar</NuxtLink>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <template v-else>
      <img :src="source" alt="The label as it is printed, with a code that opens this jar’s page" class="label">
      <div class="row no-print">
        <ElButton type="primary" @click="print">Print</ElButton>
        <a class="el-button el-button--large" :href="`/api/jars/${jarId}/label.pdf`" target="_blank">PDF</a>
        <a class="el-button el-button--large" :href="`/api/jars/${jarId}/label.svg`" :download="`label-${jarId}.svg`">SVG</a>
      </div>
      <p class="quiet no-print">70 × 37 mm. Print at 100 %, not fitted to the page. The code opens this jar’s page at the address that Dulse is open at now, so open it by an address that your phone reaches too.</p>
    </template>
  </div>
</template>

<style scoped>
.label { width: 70mm; height: 37mm; border: 1px dashed var(--glass); background: #fff; }
@media print { .no-print { display: none; } .label { border: 0; } }
</style>
