<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'

const household = useHouseholdStore()
await household.load()
</script>

<template>
  <ElConfigProvider size="large">
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
  </ElConfigProvider>
</template>
