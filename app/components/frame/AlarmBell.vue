<script setup lang="ts">
/** Tells of what is due while a page is open; only where this device was asked to. */
const { said } = useAlarms()
onMounted(() => {
  const open = ({ data }: MessageEvent<{ type?: string; url?: string }>) => {
    if (data?.type === 'OPEN' && data.url) void navigateTo(data.url)
  }
  navigator.serviceWorker?.addEventListener('message', open)
  onScopeDispose(() => navigator.serviceWorker?.removeEventListener('message', open))
})
</script>

<template>
  <p class="visually-hidden" role="status">{{ said }}</p>
</template>
