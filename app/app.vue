<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'

const household = useHouseholdStore()
followServer()
await household.ready()
</script>

<template>
  <ElConfigProvider size="large">
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
  </ElConfigProvider>
</template>
