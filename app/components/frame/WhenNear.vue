<script setup lang="ts">
/** What costs to draw waits until it comes near the window: on a phone the verdict is pressed long before anybody scrolls to a chart. */
const props = defineProps<{
  height: string
  /** So long after it may be drawn all the same, ms: words that somebody searches the page for. */
  within?: number
}>()
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
if (props.within !== undefined) useTimeoutFn(() => (near.value = true), props.within)
</script>

<template>
  <div ref="room">
    <slot v-if="near" />
    <div v-else :style="{ minHeight: height }" aria-busy="true" />
  </div>
</template>
