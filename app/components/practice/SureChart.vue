<script setup lang="ts">
import type { Calibration } from '#core/practice'

/** Whether one's "sure" is sure: what was said against what was so, with what few cases leave open. On the line it is as said. */
const props = defineProps<{ calibration: Calibration }>()
const format = useFormat()
const SIZE = 300
const PAD = 52
/** Room for the last figure of an axis. */
const EDGE = 26
const x = (share: number) => PAD + share * (SIZE - PAD - EDGE)
const y = (share: number) => SIZE - PAD - share * (SIZE - PAD - EDGE)
const words = computed(() =>
  props.calibration.bins
    .map(
      bin =>
        `Said about ${Math.round(100 * bin.said)} % sure ${bin.count === 1 ? 'once' : `${bin.count} times`}: dry in ${Math.round(100 * bin.was)} %.`,
    )
    .join(' '),
)
</script>

<template>
  <div>
    <svg :viewBox="`0 0 ${SIZE} ${SIZE}`" class="sure" role="img" :aria-label="words">
      <line :x1="x(0)" :y1="y(0)" :x2="x(1)" :y2="y(1)" class="fair" />
      <g v-for="tick in [0, 0.5, 1]" :key="tick">
        <text :x="x(tick)" :y="SIZE - 22" text-anchor="middle">{{ format.share(tick) }}</text>
        <text :x="PAD - 8" :y="y(tick) + 4" text-anchor="end">{{ format.share(tick) }}</text>
      </g>
      <text :x="x(0.5)" :y="SIZE - 4" text-anchor="middle">how sure you were that it is dry</text>
      <g v-for="bin in calibration.bins" :key="bin.from">
        <line :x1="x(bin.said)" :y1="y(bin.low)" :x2="x(bin.said)" :y2="y(bin.high)" class="open" />
        <circle :cx="x(bin.said)" :cy="y(bin.was)" :r="4 + Math.min(8, Math.sqrt(bin.count))" class="was" />
      </g>
    </svg>
    <ChartTable
      caption="How sure you were, and how often it was dry"
      :head="['Said', 'Times', 'Was dry', 'Leaves open']"
      :rows="
        calibration.bins.map(bin => [
          format.share(bin.said),
          String(bin.count),
          format.share(bin.was),
          `${format.share(bin.low)} to ${format.share(bin.high)}`,
        ])
      "
    />
  </div>
</template>

<style scoped>
.sure {
  width: 100%;
  max-width: 420px;
  font-size: 12px;
}
.sure text {
  fill: var(--quiet);
}
.fair {
  stroke: var(--quiet);
  stroke-dasharray: 4 4;
}
.open {
  stroke: var(--husk);
  stroke-width: 3;
  opacity: 0.6;
}
.was {
  fill: var(--dulse);
}
</style>
