<script setup lang="ts">
useHead({ title: 'Tools · Dulse' })
</script>

<template>
  <div class="stack">
    <ToolsCard />
    <HygrometerCard />
  </div>
</template>
