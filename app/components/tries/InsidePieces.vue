<script setup lang="ts">
import { insideOf, type TryInside, type TryKnobs, type TryLoad, type TryResult } from '#core/tries'
import { wetBasis } from '#core/mass'

/** Pieces cut open at some hours of a try: drawn by the simulation once the knobs rest, as an illustration. */
const props = defineProps<{ load: TryLoad; knobs: TryKnobs; result: TryResult }>()
const format = useFormat()
/** Knobs that are being turned are not waited for. */
const RESTS_MS = 250
const inside = shallowRef<TryInside>()
watchDebounced(
  () => [props.load, props.knobs, props.result] as const,
  ([load, knobs, result]) => (inside.value = insideOf(load, knobs, result)),
  { debounce: RESTS_MS, immediate: true },
)
const wettest = computed(() => wetBasis(inside.value?.frames[0]?.middle[0] ?? 1))
/** Near dry is where the judgement is: the ramp is drawn out there. */
const colourOf = (x: number) => rampColour(Math.min(1, wetBasis(x) / wettest.value) ** 0.6)
const rows = computed(() => {
  const it = inside.value
  if (!it) return []
  return [
    { name: 'A piece of middle size', of: 'middle' as const },
    { name: it.isHeap ? 'At the bottom of the heap' : 'The thickest piece', of: 'last' as const },
  ].map(({ name, of }) => ({
    name,
    looks: it.frames.map(frame => {
      const x = frame[of]
      return { hours: frame.hours, x, within: format.share(wetBasis(x[0]!)), face: format.share(wetBasis(x.at(-1)!)) }
    }),
  }))
})
const isRound = computed(() => inside.value?.shape !== 'slab')
/** From the outside to the middle: what lies on top is drawn last. */
const rings = (x: readonly number[]) => x.map((value, i) => ({ value, r: ((i + 1) / x.length) * 22 })).reverse()
/** A slice dries from both its faces. */
const bands = (x: readonly number[]) => [...x].reverse().concat(x)
</script>

<template>
  <figure v-if="inside" class="inside">
    <figcaption>
      <strong>Cut open</strong>
      <span class="quiet small">
        A picture from a simulated tray, which ends within a tenth of the hours above; the hours are not taken from it.</span
      >
    </figcaption>
    <div v-for="row in rows" :key="row.name">
      <p class="small">{{ row.name }}</p>
      <ol>
        <li v-for="look in row.looks" :key="look.hours">
          <svg viewBox="0 0 72 48" width="72" height="48" shape-rendering="crispEdges" aria-hidden="true">
            <template v-if="isRound">
              <circle v-for="(ring, i) in rings(look.x)" :key="i" cx="36" cy="24" :r="ring.r" :style="{ fill: colourOf(ring.value) }" />
            </template>
            <template v-else>
              <rect
                v-for="(value, i) in bands(look.x)"
                :key="i"
                x="2"
                width="68"
                :y="4 + (i * 40) / (2 * look.x.length)"
                :height="40 / (2 * look.x.length) + 0.3"
                :style="{ fill: colourOf(value) }"
              />
            </template>
          </svg>
          <span class="small">{{ look.hours === 0 ? 'loaded' : `${Math.round(look.hours)}\u00A0h` }}</span>
          <span class="quiet small"
            >{{ look.within }}<template v-if="look.face !== look.within"><br />rim {{ look.face }}</template></span
          >
        </li>
      </ol>
    </div>
  </figure>
</template>

<style scoped>
.inside {
  margin: 0;
  display: grid;
  gap: 0.4rem;
}
.inside p {
  margin: 0.2rem 0;
}
ol {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 0.4rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  justify-items: start;
  align-content: start;
  line-height: 1.25;
}
svg {
  max-width: 100%;
  height: auto;
}
</style>
