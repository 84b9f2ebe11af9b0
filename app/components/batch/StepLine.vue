<script setup lang="ts">
import { toPackG } from '#core/batch'
import type { BatchState } from '#core/log'

const props = defineProps<{ state: BatchState }>()
/** The steps of the trade, in order, and where this batch is. */
const steps = computed(() => {
  const { state } = props
  const names = ['Intake', 'Prep', 'Load', 'Dry', 'Test', 'Rest', state.purpose === 'pieces' ? undefined : 'Grind', 'Pack'].filter(
    name => name !== undefined,
  )
  const now = {
    intake: 'Prep',
    prep: 'Load',
    drying: state.feel ? 'Test' : 'Dry',
    resting: 'Rest',
    grinding: toPackG(state) === undefined ? 'Grind' : 'Pack',
    shelf: '',
  }[state.stage]
  const at = now === '' ? names.length : names.indexOf(now)
  return names.map((name, i) => ({ name, now: i === at, done: i < at }))
})
</script>

<template>
  <ol class="steps" aria-label="Steps">
    <li v-for="step in steps" :key="step.name" :class="{ done: step.done, now: step.now }" :aria-current="step.now ? 'step' : undefined">
      {{ step.name }}
    </li>
  </ol>
</template>

<style scoped>
.steps {
  display: flex;
  list-style: none;
  margin: 0;
  padding: 0;
  overflow-x: auto;
}
li {
  padding: 0.35rem 0.75rem 0.45rem;
  font-weight: 600;
  font-size: 0.95rem;
  color: var(--quiet);
  border-bottom: 4px solid var(--rule);
}
.done {
  color: var(--ink);
  border-color: var(--ochre);
}
.now {
  color: var(--dulse-ink);
  font-weight: 700;
  border-color: var(--dulse);
}
@media (width <= 760px) {
  li {
    padding: 0.3rem 0.45rem;
    font-size: 0.86rem;
  }
}
</style>
