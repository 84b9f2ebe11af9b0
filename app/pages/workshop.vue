<script setup lang="ts">
/** The Workshop: machines, tools, the household, its places, devices, alarms; each a page of its own. */
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Set-up</h1>
      <WorkshopTabs />
    </header>
    <NuxtPage />
  </div>
</template>
