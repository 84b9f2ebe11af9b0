<script setup lang="ts">
import type { AssessedTray } from '#core/batch'
import type { BatchState } from '#core/log'
import { finishAxis } from '#core/planning'

/** The load tray by tray, top to bottom: water left, when each will be dry, and which lag. */
const props = defineProps<{ state: BatchState; trays: readonly AssessedTray[]; now: number }>()
const format = useFormat()
const isOut = (tray: AssessedTray) => !props.state.run!.present.includes(tray.position)
const axis = computed(() =>
  finishAxis(
    props.trays.map(tray => tray.finish),
    props.now,
    2,
  ),
)
const placeOf = (tray: AssessedTray) => props.state.run!.places.placeAt(tray.position, Infinity)
const sorted = computed(() => [...props.trays].sort((a, b) => Number(isOut(a)) - Number(isOut(b)) || placeOf(a) - placeOf(b)))
/** A tray counts as lagging or ahead once nine in ten say so, and by more than a twentieth: less is not worth a swap. */
const lagging = computed(() => sorted.value.filter(tray => !isOut(tray) && tray.pace.p90 < 1 && tray.pace.p50 < 0.95))
const ahead = computed(() => sorted.value.filter(tray => !isOut(tray) && tray.pace.p10 > 1 && tray.pace.p50 > 1.05))
const advice = computed(() => {
  const slow = [...lagging.value].sort((a, b) => a.pace.p50 - b.pace.p50)[0]
  const fast = [...ahead.value].sort((a, b) => b.pace.p50 - a.pace.p50)[0]
  if (!slow) return undefined
  const behind = Math.round((1 - slow.pace.p50) * 100)
  return `Tray ${placeOf(slow)} dries ${behind} % slower than the load.${fast ? ` Swap it with tray ${placeOf(fast)}, which is ahead, or take ${placeOf(fast)} out first.` : ' Give it the best place in the machine.'}`
})
</script>

<template>
  <section class="card" aria-label="Trays">
    <h2>Tray by tray</h2>
    <p v-if="sorted[0]" class="quiet small">Water in the food; must be {{ format.share(sorted[0].target) }}.</p>
    <ol class="plain-list">
      <li v-for="tray in sorted" :key="tray.position">
        <span class="number">{{ placeOf(tray) }}</span>
        <div class="tray">
          <span class="water" :style="{ width: `${Math.max(2, tray.left * 100)}%`, background: rampColour(tray.left) }" />
          <span class="words" :style="{ marginLeft: tray.left < 0.2 ? `${Math.max(2, tray.left * 100)}%` : undefined }">{{
            tray.lastG === undefined ? 'not weighed' : format.weight(tray.lastG)
          }}</span>
          <span class="figure"
            >{{ format.share(tray.moisture) }}<span class="visually-hidden"> water, must be {{ format.share(tray.target) }}</span></span
          >
        </div>
        <div class="axis" aria-hidden="true">
          <span
            v-if="!isOut(tray) && Number.isFinite(tray.finish.to)"
            class="window"
            :style="{ ...onAxis(axis, tray.finish), background: rampColour(tray.left) }"
          />
        </div>
        <span class="when small">{{
          isOut(tray) ? 'taken out' : Number.isFinite(tray.finish.to) ? format.finish(tray.finish.from, tray.finish.to, now) : 'no finish'
        }}</span>
      </li>
    </ol>
    <p v-if="advice" class="advice">{{ advice }}</p>
    <p v-else class="quiet small">No tray clearly lags behind the others.</p>
  </section>
</template>

<style scoped>
ol {
  display: grid;
  gap: 5px;
  margin: 0.6rem 0;
}
li {
  display: grid;
  grid-template-columns: 1.4rem minmax(0, 1.1fr) minmax(0, 1fr) 9.2rem;
  gap: 0.6rem;
  align-items: center;
}
.number {
  color: var(--quiet);
  font-size: 0.9rem;
}
.tray {
  position: relative;
  display: flex;
  justify-content: space-between;
  align-items: center;
  height: 30px;
  padding: 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: 4px;
  font-size: 0.92rem;
  font-weight: 650;
  overflow: hidden;
  background: var(--paper);
}
.water {
  position: absolute;
  inset: 0 auto 0 0;
  opacity: 0.82;
}
.words,
.figure {
  position: relative;
  text-shadow:
    0 0 3px var(--paper),
    0 0 3px var(--paper),
    0 0 2px var(--paper);
}
.axis {
  position: relative;
  height: 22px;
  border-left: 2px solid var(--quiet);
  background: var(--sunk);
  border-radius: 0 4px 4px 0;
}
.window {
  position: absolute;
  inset-block: 5px;
  border-radius: 3px;
}
.when {
  text-align: right;
}
.advice {
  font-weight: 650;
}
@media (width <= 760px) {
  li {
    grid-template-columns: 1.2rem minmax(0, 1fr) 8.6rem;
  }
  .axis {
    display: none;
  }
}
</style>
