<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** All that is left, or single trays that are done before the others. */
type Unload = Extract<EntryBody, { kind: 'unload' }>
const props = defineProps<{ state: BatchState; initial?: Unload; place?: number }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const present = computed(() =>
  (props.initial ? run.value.positions : run.value.present).map(tray => run.value.places.placeAt(tray, Infinity)).sort((a, b) => a - b),
)
const chosen = ref([...(props.initial?.positions ?? (props.place && present.value.includes(props.place) ? [props.place] : present.value))])
const weightG = ref<number | undefined>(props.initial?.weightG)
const all = computed(() => chosen.value.length === present.value.length)
const hint = computed(() => {
  const last = all.value && run.value.present.length === run.value.positions.length ? run.value.weighings.at(-1)?.weightG : undefined
  return last === undefined ? 'food only' : `last weighed ${format.weight(last)}`
})

function read(): FormReading {
  if (chosen.value.length === 0) return { problem: 'Choose the trays that come out.' }
  return { bodies: [{ kind: 'unload', weightG: weightG.value, positions: all.value ? undefined : chosen.value }] }
}
defineExpose({ read })
</script>

<template>
  <TrayPicker v-if="present.length > 1" v-model="chosen" label="Trays that come out" :trays="present">
    <p class="quiet small">{{ all ? 'The batch leaves the machine.' : 'The others dry on; the window is theirs from now on.' }}</p>
  </TrayPicker>
  <WeightField v-model="weightG" label="Dry weight" :hint="hint" autofocus />
  <p class="quiet">It says what the jar will hold and how much water gives it back. Let the food cool before a jar is closed on it.</p>
</template>
