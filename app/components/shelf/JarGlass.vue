<script setup lang="ts">
import type { JarSummary } from '#shared/contracts'

/** A jar filled to what is left, in its powder's own colour. */
const props = withDefaults(defineProps<{ jar: Pick<JarSummary, 'colour' | 'netG' | 'leftG'>; height?: number }>(), { height: 112 })
const colour = computed(() => props.jar.colour)
/** Height of the powder inside the glass, of 74 units; a full jar is filled to nine tenths. */
const fill = computed(() => 68 * Math.min(1, props.jar.leftG / props.jar.netG))
</script>

<template>
  <svg :height="height" :width="height * 0.7" viewBox="0 0 70 100" aria-hidden="true">
    <rect x="15" y="3" width="40" height="10" rx="2.5" fill="var(--glass)" />
    <path
      d="M18 14h34l1 4c6 4 10 7 10 15v54c0 6-4 10-10 10H17c-6 0-10-4-10-10V33c0-8 4-11 10-15z"
      fill="var(--glass-fill)"
      stroke="var(--glass)"
      stroke-width="2"
    />
    <path :d="`M9.500 ${95 - fill}H60.500V87c0 5-3.500 8-8 8H17.500c-4.500 0-8-3-8-8z`" :fill="colour" />
  </svg>
</template>
