<script setup lang="ts">
import type { Assessment } from '#core/batch'
import type { BatchState, EntryKind } from '#core/log'
import { WAYS } from '#core/ways'

/** In a machine: the one thing that follows from the verdict, what else is likely, and the rest behind one word. */
const props = defineProps<{ state: BatchState; assessment?: Assessment; batchId: string }>()
const emit = defineEmits<{ act: [kind: EntryKind]; rack: [] }>()

interface Step {
  kind: EntryKind
  words: string
  key?: string
}
const way = computed(() => WAYS[props.state.run!.way.way])
const steps = computed((): Record<'weigh' | 'feel' | 'heat' | 'unload', Step> => {
  const straightOn = way.value.underVacuum || way.value.partOnly
  return {
    weigh: { kind: 'weigh', words: 'Weigh', key: 'W' },
    feel: { kind: 'feel', words: level.value === 'cool-and-check' ? 'Cool and feel' : 'Feel', key: 'F' },
    heat: { kind: 'heat', words: props.state.run!.setC === null ? `${way.value.words.verb} on` : way.value.words.verb, key: 'H' },
    unload: { kind: 'unload', words: level.value === 'rest' && !straightOn ? 'Take out and rest' : 'Take out' },
  }
})
const level = computed(() => props.assessment?.verdict.level)
const first = computed((): Step => {
  const { weigh, feel, heat, unload } = steps.value
  if (props.assessment?.verdict.discard) return { kind: 'finish', words: 'Discard it' }
  if (level.value === 'rest' || level.value === 'grind' || level.value === 'seal') return unload
  // Off it takes water back: nothing else comes before that.
  if (props.state.run!.setC === null && way.value.nightsCount) return heat
  return level.value === 'cool-and-check' ? feel : weigh
})
const likely = computed(() => {
  const { weigh, feel, unload } = steps.value
  return [weigh, feel, unload].filter(step => step.kind !== first.value.kind)
})
const others = computed((): Step[] => [
  ...(first.value.kind === 'heat' ? [] : [steps.value.heat]),
  ...(way.value.underVacuum ? [] : [{ kind: 'air' as const, words: 'Room air', key: 'A' }]),
  { kind: 'jarAir', words: 'Air in a closed jar', key: 'J' },
  { kind: 'note', words: 'Note', key: 'N' },
  { kind: 'picture', words: 'Picture' },
])
</script>

<template>
  <div class="step" role="group" aria-label="What to do">
    <ElButton type="primary" class="first" @click="emit('act', first.kind)"
      >{{ first.words }} <kbd v-if="first.key" class="key">{{ first.key }}</kbd></ElButton
    >
    <div class="likely">
      <ElButton v-for="step in likely" :key="step.kind" @click="emit('act', step.kind)"
        >{{ step.words }} <kbd v-if="step.key" class="key">{{ step.key }}</kbd></ElButton
      >
    </div>
    <details>
      <summary>More</summary>
      <div class="likely">
        <ElButton v-for="step in others" :key="step.kind" @click="emit('act', step.kind)"
          >{{ step.words }} <kbd v-if="step.key" class="key">{{ step.key }}</kbd></ElButton
        >
        <ElButton @click="emit('rack')">Rack <kbd class="key">R</kbd></ElButton>
        <ElButton @click="navigateTo(`/batches/${batchId}/paper`)">Sheet to write on</ElButton>
      </div>
    </details>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.5rem;
}
.first.el-button {
  width: 100%;
  min-height: 54px;
  font-size: 1.1rem;
}
.likely {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.likely > .el-button {
  flex: 1 1 auto;
  margin: 0;
}
summary {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0 0.3rem;
  color: var(--dulse-ink);
  font-weight: 650;
  cursor: pointer;
}
summary::before {
  content: '▸';
}
details[open] > summary::before {
  content: '▾';
}
</style>
