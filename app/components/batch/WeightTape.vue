<script setup lang="ts">
import type { Assessment } from '#core/batch'
import type { RunState } from '#core/log'
import { isByHours, isOffAt } from '#core/water'

/** The loaded weight as a tape: solids, water that is left, water that is gone, and where it will be dry. */
const props = defineProps<{ run: RunState; assessment: Assessment; now: number }>()
const format = useFormat()
const lastG = computed(() => props.run.weighings.at(-1)?.weightG ?? props.run.loadedG)
/** Not weighed at all, or off since: what it weighs is an estimate. */
const unweighed = computed(() => isByHours(props.run))
const isGuess = computed(() => unweighed.value || isOffAt(props.run, props.now))
const nowG = computed(() =>
  isGuess.value
    ? Math.round(props.run.loadedG - props.assessment.waterGone.p50 * (props.run.loadedG - props.assessment.estimate.solidsG.p50))
    : lastG.value,
)
const percent = (grams: number) => `${Math.min(100, Math.max(0, (grams / props.run.loadedG) * 100))}%`
const estimate = computed(() => props.assessment.estimate)
const goneG = computed(() => props.run.loadedG - nowG.value)
const stillToLeave = computed(() => Math.max(0, nowG.value - estimate.value.targetWeightG.p50))
const shareGone = computed(() => Math.round(props.assessment.waterGone.p50 * 100))
/** Nobody weighed it: from so much to so much. */
const goneRange = computed(() => {
  const { p10, p90 } = props.assessment.waterGone
  const [low, high] = [Math.floor(p10 * 100), Math.round(p90 * 100)]
  return low === high ? `${low}` : `${low} to ${high}`
})
</script>

<template>
  <section class="card" aria-label="Weight tape">
    <div class="row between">
      <p>
        <span class="figure">{{
          unweighed
            ? `${format.range(estimate.moistureNow, format.share)} water now`
            : `${isGuess ? 'about ' : ''}${format.weight(nowG)} now`
        }}</span>
        <span class="quiet">
          of {{ format.weight(run.loadedG) }} loaded<template v-if="unweighed"
            >, by {{ run.felt.length > 0 ? 'what was felt and its hours' : 'its hours' }}, not weighed</template
          ><template v-else-if="isGuess">, {{ format.weight(lastG) }} when last weighed</template></span
        >
      </p>
      <p>
        <span class="figure">{{ unweighed ? goneRange : `${isGuess ? 'about ' : ''}${shareGone}` }} % of the water is gone</span>
        <span class="quiet">{{
          unweighed
            ? chanceOfDry(estimate.probabilityDry, 'now')
            : stillToLeave > 0.5
              ? `about ${format.weight(stillToLeave)} still to leave`
              : 'at or below its dry weight'
        }}</span>
      </p>
    </div>
    <div
      class="tape"
      role="img"
      :aria-label="`Solids about ${format.weight(estimate.solidsG.p50)}, water left about ${format.weight(estimate.waterLeftG.p50)}, water gone ${format.weight(goneG)}. Dry at ${format.weightRange(estimate.targetWeightG)}.`"
    >
      <div class="gone" :style="{ left: percent(nowG) }">
        <span v-if="goneG > run.loadedG * 0.25">water gone, {{ format.weight(goneG) }}</span>
      </div>
      <div class="left" :style="{ left: percent(estimate.solidsG.p50), width: percent(Math.max(0, nowG - estimate.solidsG.p50)) }">
        <span v-if="nowG - estimate.solidsG.p50 > run.loadedG * 0.13">water left</span>
      </div>
      <div class="solids" :style="{ width: percent(Math.min(nowG, estimate.solidsG.p50)) }">
        <span v-if="estimate.solidsG.p50 > run.loadedG * 0.07">solids</span>
      </div>
      <div
        class="dry"
        :style="{ left: percent(estimate.targetWeightG.p10), width: percent(estimate.targetWeightG.p90 - estimate.targetWeightG.p10) }"
      />
    </div>
    <div class="row between foot small">
      <span class="dry-words" :style="{ marginLeft: percent(estimate.targetWeightG.p10) }"
        >dry here, {{ format.weightRange(estimate.targetWeightG) }}</span
      >
      <span class="quiet">loaded {{ format.day(run.loadedAt) }} {{ format.time(run.loadedAt) }}</span>
    </div>
  </section>
</template>

<style scoped>
.figure {
  font: 700 1.15rem var(--display);
}
.tape {
  position: relative;
  height: 36px;
  margin: 0.7rem 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--sunk);
}
.tape > div {
  position: absolute;
  inset-block: 0;
  display: flex;
  align-items: center;
  overflow: hidden;
  font-weight: 650;
  font-size: 0.92rem;
  white-space: nowrap;
}
.solids {
  left: 0;
  background: var(--husk);
  color: var(--on-husk);
  padding-left: 0.7rem;
  z-index: 1;
  border-radius: 5px 0 0 5px;
}
.solids,
.left {
  container-type: inline-size;
}
@container (width < 4.4rem) {
  .solids span,
  .left span {
    display: none;
  }
}
.tape > .left {
  /* Water is never of the solids' colour, however little is left of it. */
  background: var(--sea-glass);
  border-left: 2px solid var(--card);
  color: #1f1a17;
  padding-left: 0.7rem;
}
.gone {
  right: 0;
  justify-content: center;
  color: var(--quiet);
  background: repeating-linear-gradient(-45deg, transparent 0 7px, color-mix(in srgb, var(--rule) 70%, transparent) 7px 14px);
}
.gone span {
  background: var(--sunk);
  padding: 0 0.5rem;
  border-radius: 4px;
}
.tape > .dry {
  inset-block: -5px;
  border-inline: 2px solid var(--dulse-ink);
  background: color-mix(in srgb, var(--dulse) 22%, transparent);
  overflow: visible;
}
.dry-words {
  color: var(--dulse-ink);
  font-weight: 700;
}
.foot {
  gap: 0.2rem 1rem;
}
</style>
