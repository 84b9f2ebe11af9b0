<script setup lang="ts">
import { cssOf, type Lab } from '#core/colour'

/** A measured colour: the colour itself, beside its figures. */
const props = defineProps<{ colour: Lab }>()
const figures = computed(() => {
  const { l, a, b } = props.colour
  return `L* ${Math.round(l)}  a* ${Math.round(a)}  b* ${Math.round(b)}`
})
</script>

<template>
  <span class="swatch"><span class="dab" :style="{ background: cssOf(colour) }" aria-hidden="true" />{{ figures }}</span>
</template>

<style scoped>
.swatch {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  white-space: pre;
  font-variant-numeric: tabular-nums;
}
.dab {
  width: 1.5rem;
  height: 1.5rem;
  border-radius: 6px;
  border: 1px solid color-mix(in srgb, var(--ink) 30%, transparent);
}
</style>
