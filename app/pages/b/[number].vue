<script setup lang="ts">
/** The short address in a printed code: on to the batch's own page. */
const route = useRoute()
const problem = ref('')
try {
  const { id } = await callServer<{ id: string }>(`/api/by-number?kind=batch&number=${encodeURIComponent(String(route.params.number))}`)
  await navigateTo(`/batches/${id}`, { replace: true })
}
catch (error) {
  problem.value = (error as Error).message
}
</script>

<template>
  <div class="card"><h1>{{ problem ? 'Nothing there' : 'A moment' }}</h1><p>{{ problem }}</p><p><NuxtLink to="/">To Now</NuxtLink></p></div>
</template>
