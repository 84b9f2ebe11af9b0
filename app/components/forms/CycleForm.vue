<script setup lang="ts">
import type { BatchState, BodyOf } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** What a freeze dryer's display says of its end, or what was added to it there: for all that stands in the chamber. */
const props = defineProps<{ state: BatchState; initial?: BodyOf<'cycleHours' | 'cycleShows'>; told?: 'added' }>()
const { runId } = props.state.run!
const { initial } = props
const told = ref<'left' | 'through' | 'added'>(initial?.kind === 'cycleShows' && initial.leftH === 0 ? 'through' : (props.told ?? 'left'))
const leftH = ref<number | undefined>(initial?.kind === 'cycleShows' && initial.leftH > 0 ? initial.leftH : undefined)
const addedH = ref<number | undefined>(initial?.kind === 'cycleHours' ? initial.hours : undefined)
const why = ref(initial?.kind === 'cycleHours' ? (initial.why ?? '') : '')

function read(): FormReading {
  if (told.value === 'through') return { bodies: [{ kind: 'cycleShows', runId, leftH: 0 }] }
  if (told.value === 'left')
    return leftH.value === undefined
      ? { problem: 'Give the hours that the machine shows as left.' }
      : { bodies: [{ kind: 'cycleShows', runId, leftH: leftH.value }] }
  return addedH.value === undefined
    ? { problem: 'Say how many hours were added on the machine.' }
    : { bodies: [{ kind: 'cycleHours', runId, hours: addedH.value, why: why.value.trim() || undefined }] }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-model="told"
    label="It says"
    :choices="[
      { value: 'left', words: 'Hours left' },
      { value: 'through', words: 'It is through', note: 'or has stopped' },
      { value: 'added', words: 'I added hours' },
    ]"
  />
  <NumberField
    v-if="told === 'left'"
    v-model="leftH"
    label="Hours left"
    :least="0"
    :most="96"
    hint="as it stands on the display"
    required
    autofocus
  />
  <template v-else-if="told === 'added'">
    <NumberField
      v-model="addedH"
      label="Hours added to the cycle"
      :least="-48"
      :most="48"
      hint="less than nothing takes some off again"
      required
      autofocus
    />
    <TextField v-model="why" label="Why" optional placeholder="so that it holds until morning" />
  </template>
  <p class="quiet">
    {{
      told === 'through'
        ? 'That is the machine’s opinion: every tray is weighed, given two hours more, and weighed again.'
        : 'Its end moves, and the next weighing with it, for all that stands in the chamber. Under vacuum the food loses nothing by waiting.'
    }}
  </p>
</template>
