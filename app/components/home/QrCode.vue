<script setup lang="ts">
import { renderSVG } from 'uqr'

/** A code for a phone's camera, dark on light in both themes. */
const props = defineProps<{ text: string; label: string }>()
const source = computed(
  () => `data:image/svg+xml,${encodeURIComponent(renderSVG(props.text, { border: 2, whiteColor: '#ffffff', blackColor: '#1d1815' }))}`,
)
</script>

<template>
  <img class="qr" :src="source" :alt="label" width="184" height="184" />
</template>

<style scoped>
.qr {
  display: block;
  border-radius: 8px;
  background: #fff;
}
</style>
