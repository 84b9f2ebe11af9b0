<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { Purpose } from '#core/foods'
import type { JarAnswer, NewBatch } from '#shared/contracts'

/** What stands in a jar becomes a batch once more: shards to grind, old or damp powder to dry or grind again. */
const props = defineProps<{ jar: JarAnswer }>()
const emit = defineEmits<{ close: [] }>()
const format = useFormat()
const outbox = useOutboxStore()
const weightG = ref<number | undefined>(Math.round(props.jar.leftG * 10) / 10)
const purpose = ref<Purpose>('powder')

async function begin() {
  if (weightG.value === undefined) return ['Weigh what comes out of the jar.']
  const id = uuidv7()
  const entry: NewBatch['entry'] = {
    id: uuidv7(),
    at: Date.now(),
    body: {
      kind: 'intake',
      foodKey: props.jar.foodKey,
      cardKey: props.jar.cardKey,
      source: `Jar ${props.jar.number}`,
      weightG: weightG.value,
      purpose: purpose.value,
      fromJars: [{ jarId: props.jar.jarId, weightG: weightG.value }],
      fromForm: props.jar.purpose,
    },
  }
  await outbox.send({ begin: { id, entry } }, `from jar ${props.jar.number}`)
  await navigateTo(`/batches/${id}`)
}
</script>

<template>
  <FormFrame :title="`Begin again from jar ${jar.number}`" width="560px" verb="Begin" :save="begin" @close="emit('close')">
    <p class="quiet">
      {{
        jar.purpose === 'powder'
          ? 'Old or damp powder is dried in a thin layer, ground once more where it set, and packed again.'
          : 'Shards and pieces keep longer than powder: grind as much as is wanted now.'
      }}
      It keeps its age and its baskets.
    </p>
    <WeightField v-model="weightG" label="Out of the jar" :hint="`${format.weight(jar.leftG)} are in it`" required autofocus />
    <ChoiceField
      v-model="purpose"
      label="It becomes"
      :choices="[
        { value: 'powder', words: 'Fine powder' },
        { value: 'flakes', words: 'Flakes' },
      ]"
    />
  </FormFrame>
</template>
