<script setup lang="ts">
useHead({ title: 'Machines · Dulse' })
</script>

<template>
  <MachinesCard />
</template>
