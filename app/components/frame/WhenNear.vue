<script setup lang="ts">
/** What costs to draw waits until it comes near the window: on a phone the verdict is pressed long before anybody scrolls to a chart. */
defineProps<{ height: string }>()
const room = ref<HTMLElement>()
const near = ref(false)
const { stop } = useIntersectionObserver(
  room,
  entries => {
    if (!entries.some(entry => entry.isIntersecting)) return
    near.value = true
    stop()
  },
  { rootMargin: '150px' },
)
</script>

<template>
  <div ref="room">
    <slot v-if="near" />
    <div v-else :style="{ minHeight: height }" aria-busy="true" />
  </div>
</template>
