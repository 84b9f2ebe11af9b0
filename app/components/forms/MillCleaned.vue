<script setup lang="ts">
/** How the mill was cleaned since its last food: asked wherever a grinding is logged. */
type Cleaned = 'washed' | 'brushed'
const cleaned = defineModel<Cleaned>()
const chosen = computed({
  get: () => cleaned.value ?? 'unsaid',
  set: (value: Cleaned | 'unsaid') => (cleaned.value = value === 'unsaid' ? undefined : value),
})
</script>

<template>
  <ChoiceField
    v-model="chosen"
    label="The mill before this"
    :choices="[
      { value: 'unsaid' as const, words: 'Not said' },
      { value: 'brushed' as const, words: 'Brushed', note: 'traces stay' },
      { value: 'washed' as const, words: 'Washed and dry', note: 'no traces' },
    ]"
  />
</template>
