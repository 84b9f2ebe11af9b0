<script setup lang="ts">
import type { Assessment } from '#core/batch'
import type { BatchState, EntryKind } from '#core/log'
import { WAYS } from '#core/ways'
import type { ActStep } from '~/components/frame/ActSteps.vue'

/** In a machine: the one thing that follows from the verdict, what else is likely, and the rest behind one word. */
const props = defineProps<{ state: BatchState; assessment?: Assessment; batchId: string }>()
const emit = defineEmits<{ act: [kind: EntryKind]; rack: [] }>()

interface Step extends ActStep {
  kind: EntryKind
}
const way = computed(() => WAYS[props.state.run!.way.way])
const steps = computed((): Record<'weigh' | 'feel' | 'heat' | 'unload' | 'air' | 'jarAir', Step> => {
  const straightOn = way.value.underVacuum || way.value.partOnly
  return {
    weigh: { kind: 'weigh', words: 'Weigh', key: 'W' },
    feel: { kind: 'feel', words: props.assessment?.verdict.ask === 'feel' ? 'Cool and feel' : 'Feel', key: 'F' },
    heat: { kind: 'heat', words: props.state.run!.setC === null ? `${way.value.words.verb} on` : way.value.words.verb, key: 'H' },
    unload: { kind: 'unload', words: level.value === 'rest' && !straightOn ? 'Take out and rest' : 'Take out' },
    air: { kind: 'air', words: 'Room air', key: 'A' },
    jarAir: { kind: 'jarAir', words: 'Air in a closed jar', key: 'J' },
  }
})
const level = computed(() => props.assessment?.verdict.level)
const first = computed((): Step => {
  const { weigh, heat, unload } = steps.value
  const ask = props.assessment?.verdict.ask
  if (ask === 'discard') return { kind: 'finish', words: 'Discard it' }
  if (ask === 'unload') return unload
  // Off it takes water back: nothing else comes before that.
  if (props.state.run!.setC === null && way.value.nightsCount) return heat
  return ask === 'feel' || ask === 'air' || ask === 'jarAir' ? steps.value[ask] : weigh
})
const likely = computed(() => {
  const { weigh, feel, unload } = steps.value
  return [weigh, feel, unload].filter(step => step.kind !== first.value.kind)
})
const goes = (step: Step): ActStep => ({ ...step, go: () => emit('act', step.kind) })
const others = computed((): Step[] => [
  ...(first.value.kind === 'heat' ? [] : [steps.value.heat]),
  ...[...(way.value.underVacuum ? [] : [steps.value.air]), steps.value.jarAir].filter(step => step.kind !== first.value.kind),
  { kind: 'note', words: 'Note', key: 'N' },
  { kind: 'picture', words: 'Picture' },
])
</script>

<template>
  <ActSteps
    :first="goes(first)"
    :likely="likely.map(goes)"
    :others="[
      ...others.map(goes),
      { words: 'Rack', key: 'R', go: () => emit('rack') },
      { words: 'Sheet to write on', go: () => navigateTo(`/batches/${batchId}/paper`) },
    ]"
  />
</template>
