<script setup lang="ts">
/** A new version waits: for a press, or for a moment in which nobody looks and nothing waits to be sent. */
const { $pwa } = useNuxtApp()
const outbox = useOutboxStore()
const visibility = useDocumentVisibility()
const busy = ref(false)
const waits = computed(() => $pwa?.needRefresh ?? false)

async function take() {
  busy.value = true
  await $pwa?.updateServiceWorker(true)
}
watch([visibility, waits], () => {
  // A form that is open may hold what is not sent yet.
  if (waits.value && visibility.value === 'hidden' && outbox.waiting.length === 0 && !document.querySelector('[role="dialog"], form'))
    void take()
})
</script>

<template>
  <div v-if="waits" class="card version" role="status">
    <p>A new version of Dulse is here. It waits for a quiet moment; nothing that you typed is lost by it once it is logged.</p>
    <ElButton :loading="busy" @click="take">Use it now</ElButton>
  </div>
</template>

<style scoped>
.version {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 1rem;
}
</style>
