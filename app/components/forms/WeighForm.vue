<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { FormReading } from '~/composables/useBatch'

/** For correcting a weighing; new ones are typed on the pad. */
const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'weigh' }> }>()
const trays = ref((props.initial?.trays ?? []).map(tray => ({ ...tray }) as { position: number; weightG: number | undefined }))
const totalG = ref<number | undefined>(props.initial?.totalG)

function read(): FormReading {
  if (trays.value.length > 0) {
    if (trays.value.some(tray => tray.weightG === undefined)) return { problem: 'Give the weight of the tray.' }
    return { bodies: [{ kind: 'weigh', trays: trays.value.map(tray => ({ position: tray.position, weightG: tray.weightG! })) }] }
  }
  return totalG.value === undefined ? { problem: 'Give the weight.' } : { bodies: [{ kind: 'weigh', totalG: totalG.value }] }
}
defineExpose({ read })
</script>

<template>
  <WeightField v-for="tray in trays" :key="tray.position" v-model="tray.weightG" :label="`Tray ${tray.position}, food only`" required />
  <WeightField v-if="trays.length === 0" v-model="totalG" label="Whole load, food only" required />
</template>
