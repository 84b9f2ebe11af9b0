<script setup lang="ts">
import { heatFigures, heatWords, middleHeat } from '#core/blends'

/** Heat from sweet to fierce, tenfold a step: the whole, and its parts below it. */
const props = defineProps<{
  heat: { low: number; high: number }
  parts: readonly { name: string; heat?: { low: number; high: number }; colour: string }[]
}>()
const [LOW, HIGH] = [100, 2_000_000]
const x = (units: number) => (100 * Math.log(Math.min(HIGH, Math.max(LOW, units)) / LOW)) / Math.log(HIGH / LOW)
const TICKS = [
  { units: 100, words: '100' },
  { units: 1000, words: '1,000' },
  { units: 10_000, words: '10,000' },
  { units: 100_000, words: '100,000' },
  { units: 1_000_000, words: '1 million' },
]
const hot = computed(() => props.parts.filter(part => part.heat && part.heat.high > LOW))
const span = ({ low, high }: { low: number; high: number }) => ({ left: `${x(low)}%`, width: `${Math.max(1, x(high) - x(low))}%` })
</script>

<template>
  <div class="heat" role="img" :aria-label="`${heatWords(heat)}, ${heatFigures(heat)} Scoville units`">
    <div class="scale">
      <span class="whole" :style="span(heat)" /><span class="mid" :style="{ left: `${x(middleHeat(heat))}%` }" />
      <span v-for="tick in TICKS" :key="tick.units" class="tick" :style="{ left: `${x(tick.units)}%` }">{{ tick.words }}</span>
    </div>
    <div v-for="part in hot" :key="part.name" class="part">
      <span class="bar" :style="{ ...span(part.heat!), background: part.colour }" /><span
        class="name"
        :style="x(part.heat!.high) > 60 ? { right: `${102 - x(part.heat!.low)}%` } : { left: `${x(part.heat!.high) + 2}%` }"
        >{{ part.name }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.heat {
  display: grid;
  gap: 0.35rem;
}
.scale {
  position: relative;
  height: 46px;
  margin-right: 3.4rem;
  border-top: 1px solid var(--rule);
}
.whole {
  position: absolute;
  top: 4px;
  height: 14px;
  background: var(--dulse);
  border-radius: 7px;
}
.mid {
  position: absolute;
  top: 0;
  width: 3px;
  height: 22px;
  background: var(--ink);
  translate: -50% 0;
}
.tick {
  position: absolute;
  top: 24px;
  font-size: 0.8rem;
  color: var(--quiet);
  white-space: nowrap;
}
.part {
  position: relative;
  height: 22px;
  margin-right: 3.4rem;
}
.bar {
  position: absolute;
  top: 7px;
  height: 8px;
  border-radius: 4px;
}
.name {
  position: absolute;
  top: 0;
  font-size: 0.82rem;
  color: var(--quiet);
  white-space: nowrap;
}
</style>
