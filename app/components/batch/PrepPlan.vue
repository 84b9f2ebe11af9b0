<script setup lang="ts">
import type { BatchState, EntryKind } from '#core/log'
import { balanceOnTrays, stepsAhead } from '#core/batch'
import type { CardStep, PrepStepName } from '#core/foods'

/** The steps of the card in their order, those done ticked, with what is known of the food on the tray by now. */
const props = defineProps<{ state: BatchState; batchId: string; now: number }>()
const emit = defineEmits<{ act: [kind: EntryKind, step?: string] }>()
const format = useFormat()
const { timers, start } = useTimers()
/** What lies on the trays once what is ahead is done too. */
const onTrays = computed(() => balanceOnTrays(props.state))
const done = computed(() => new Set(props.state.prep.map(entry => entry.body.step)))
const guessed = computed(() => {
  const list: string[] = []
  if (!props.state.prep.some(entry => entry.body.effect === 'waste')) list.push('what is trimmed off')
  for (const { body } of props.state.prep)
    if ((body.effect === 'waste' || body.effect === 'water') && body.weightG === undefined)
      list.push(`what ${PREP_WORDS[body.step].toLowerCase()} took`)
  for (const { name } of stepsAhead(props.state)) list.push(`what ${PREP_WORDS[name as PrepStepName].toLowerCase()} will take`)
  if (props.state.prep.every(entry => entry.body.kind === 'prep')) list.push('the food’s own water')
  return list
})
const timerKey = (step: CardStep) => `${props.batchId}/${step.step}`
const running = (step: CardStep) => timers.value.some(timer => timer.key === timerKey(step))
const minutes = (step: CardStep) => (step.minutes! < 120 ? `${step.minutes} min` : format.hours(step.minutes! / 60))
</script>

<template>
  <section class="card" aria-label="Before the tray">
    <h3>Before the tray</h3>
    <ol class="plain-list">
      <li v-for="(step, i) in state.card.steps" :key="i" :class="{ done: done.has(step.step) }">
        <span class="mark" aria-hidden="true">{{ done.has(step.step) ? '✓' : i + 1 }}</span>
        <div>
          <strong>{{ PREP_WORDS[step.step] }}</strong><span v-if="step.school" class="quiet small"> in one school</span
          ><span v-if="done.has(step.step)" class="visually-hidden"> logged</span>
          <p class="small">{{ format.sentence(step.words) }}</p>
        </div>
        <div class="row acts">
          <ElButton
            v-if="step.minutes && !running(step)"
            :aria-label="`Timer: ${PREP_WORDS[step.step]}, ${minutes(step)}`"
            @click="start(timerKey(step), `${PREP_WORDS[step.step]}, ${state.food.name.toLowerCase()}`, step.minutes!)"
            >{{ minutes(step) }}</ElButton
          >
          <ElButton v-if="!done.has(step.step)" :aria-label="`Log: ${PREP_WORDS[step.step]}`" @click="emit('act', 'prep', step.step)"
            >Log</ElButton
          >
        </div>
      </li>
    </ol>
    <dl class="sum">
      <div>
        <dt>To go on the trays</dt>
        <dd>{{ format.weightRange(onTrays.weightG) }}</dd>
      </div>
      <div>
        <dt>Solids in it</dt>
        <dd>{{ format.weightRange(onTrays.solidsG) }}</dd>
      </div>
      <div>
        <dt>Water</dt>
        <dd>{{ format.range(onTrays.moisture, format.share) }}</dd>
      </div>
      <div>
        <dt>Of the basket</dt>
        <dd>{{ format.range(onTrays.prepYield, format.share) }}</dd>
      </div>
    </dl>
    <p v-if="guessed.length" class="quiet small">
      Still guessed: {{ guessed.join(', ') }}. A weight narrows it; the weight at loading narrows it most.
    </p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1.9rem minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: start;
  padding: 0.6rem 0;
  border-top: 1px solid var(--rule);
}
h3 + ol {
  margin-top: 0.5rem;
}
.mark {
  display: grid;
  place-items: center;
  width: 1.7rem;
  height: 1.7rem;
  border-radius: 50%;
  background: var(--sunk);
  font-weight: 700;
  font-size: 0.9rem;
}
.done .mark {
  background: var(--kelp-wash);
  color: var(--kelp);
}
.acts {
  flex-wrap: nowrap;
  gap: 0.4rem;
}
.sum {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 0.6rem;
  margin: 0.4rem 0 0.5rem;
  border-top: 1px solid var(--rule);
  padding-top: 0.7rem;
}
dt {
  color: var(--quiet);
  font-size: 0.9rem;
}
dd {
  margin: 0;
  font: 700 1.05rem var(--display);
}
@media (width <= 560px) {
  .acts {
    grid-column: 2;
  }
}
</style>
