<script setup lang="ts">
import { ElConfigProvider } from 'element-plus'

const route = useRoute()
// Whoever stands before the door sees nothing of the house.
if (route.path !== '/enter') {
  followServer()
  await useHouseholdStore().ready()
  if (signedOut.value) await navigateTo({ path: '/enter', query: route.path === '/' ? {} : { then: route.fullPath } })
}
</script>

<template>
  <ElConfigProvider size="large">
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
  </ElConfigProvider>
</template>
