<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** Allergens beside the food's own: of a marinade, a filling, what was stirred in. */
type Contains = Extract<EntryBody, { kind: 'contains' }>
const props = defineProps<{ state?: BatchState; jar?: JarAnswer; initial?: Contains }>()
/** Those that a label names in most places (EU 1169/2011, Annex II, from memory). */
const USUAL = [
  'gluten',
  'crustacean',
  'egg',
  'fish',
  'peanut',
  'soya',
  'milk',
  'nuts',
  'celery',
  'mustard',
  'sesame',
  'sulphites',
  'lupin',
  'mollusc',
]
const said = props.initial ?? props.state?.contains ?? props.jar?.contains
const chosen = ref<string[]>(said ? [...said.allergens] : [])
const other = ref('')
const all = ref(said?.all ?? false)
const own = computed(() => props.jar?.allergens ?? props.state?.food.allergens ?? [])
const isUnknown = computed(() => own.value.some(name => name.startsWith('unknown: ')))
/** The last word counts: what was said here before is chosen again, and only what its food brings stays whatever is said. */
const known = computed(() =>
  own.value.filter(name => !name.startsWith('unknown: ') && !name.startsWith('may contain ') && !said?.allergens.includes(name)),
)

function read(): FormReading {
  const allergens = [...new Set([...chosen.value, ...(other.value.trim() ? [other.value.trim().toLowerCase()] : [])])]
  if (allergens.length === 0 && !all.value) return { problem: 'Choose what it contains, or say that there is nothing else.' }
  return { bodies: [{ kind: 'contains', jarId: props.jar?.jarId, allergens, all: all.value || undefined }] }
}
defineExpose({ read })
</script>

<template>
  <p v-if="known.length" class="quiet">Its food brings {{ known.join(', ') }}: that stays.</p>
  <fieldset class="allergens">
    <legend>It contains</legend>
    <ElCheckboxGroup v-model="chosen">
      <ElCheckbox
        v-for="name in [...USUAL, ...chosen.filter(item => !USUAL.includes(item))].filter(item => !known.includes(item))"
        :key="name"
        :value="name"
        size="large"
        >{{ name }}</ElCheckbox
      >
    </ElCheckboxGroup>
  </fieldset>
  <TextField v-model="other" label="Something else" optional />
  <ElCheckbox v-model="all" size="large">{{ isUnknown ? 'That is all: its packet was read' : 'There is nothing else in it' }}</ElCheckbox>
</template>

<style scoped>
.allergens {
  border: 0;
  margin: 0;
  padding: 0;
}
.allergens legend {
  padding: 0;
  font-weight: 650;
}
</style>
