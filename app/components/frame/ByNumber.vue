<script setup lang="ts">
/** The short address in a printed code: on to the page of the jar or batch that has this number. */
const props = defineProps<{ kind: 'jar' | 'batch'; number: string }>()
const PAGES = { jar: 'jars', batch: 'batches' } as const
const problem = ref('')
try {
  const { id } = await call('byNumber', { query: { kind: props.kind, number: props.number } })
  await navigateTo(`/${PAGES[props.kind]}/${id}`, { replace: true })
} catch (error) {
  problem.value = (error as Error).message
}
</script>

<template>
  <div class="card">
    <h1>{{ problem ? 'Nothing there' : 'A moment' }}</h1>
    <p>{{ problem }}</p>
    <p><NuxtLink to="/">To Now</NuxtLink></p>
  </div>
</template>
