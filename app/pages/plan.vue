<script setup lang="ts">
/** The plan: what to cut when, and where it goes. */
useHead({ title: 'Plan · Dulse' })
const desk = providePlanDesk()
await desk.ready()
const TABS = [
  { to: '/plan', words: 'The board' },
  { to: '/plan/garden', words: 'Harvests and days' },
  { to: '/plan/compare', words: 'Side by side' },
  { to: '/plan/year', words: 'The year' },
]
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Plan</h1>
      <TabLinks :tabs="TABS" label="In the plan" />
    </header>
    <p v-if="desk.lost" class="card problem">{{ desk.lost }}</p>
    <p v-if="desk.refused" class="card problem" role="alert">{{ desk.refused }}</p>
    <NuxtPage />
  </div>
</template>
