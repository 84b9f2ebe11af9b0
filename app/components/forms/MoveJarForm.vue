<script setup lang="ts">
import type { EntryBody } from '#core/batch'
import type { ShelfAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'moveJar' }>, jarId: string }>()
const place = ref(props.initial?.place ?? '')
const places = ref<string[]>([])
onMounted(async () => {
  places.value = await callServer<ShelfAnswer>('/api/shelf').then(shelf => shelf.places).catch(() => [])
})
const read = (): FormReading => place.value.trim() === ''
  ? { problem: 'Say where it stands now.' }
  : { bodies: [{ kind: 'moveJar', jarId: props.jarId, place: place.value.trim() }] }
defineExpose({ read })
</script>

<template>
  <ChoiceField v-if="places.length" v-model="place" label="A place that you have" :choices="places.map(value => ({ value, words: value }))" />
  <TextField v-model="place" label="Where it stands" />
</template>
