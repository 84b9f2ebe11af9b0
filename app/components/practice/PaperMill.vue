<script setup lang="ts">
import type { Reading } from '#core/practice'
import type { Paper } from '~/composables/usePaper'

/** The mill on paper: run after run with rests between, and what comes out of it. */
const props = defineProps<{ paper: Paper }>()
const emit = defineEmits<{ ground: [reading: Extract<Reading, { of: 'ground' }>] }>()
const burstS = ref(8)
const ground = ref<Extract<Reading, { of: 'ground' }>>()
const problem = ref('')
const format = useFormat()
const WORDS = {
  none: 'loose and dusty',
  slight: 'loose, a little of it on the wall of the cup',
  sticky: 'soft, and much of it clings to the cup',
  cakes: 'one warm lump around the blades',
}
async function run() {
  problem.value = ''
  try {
    ground.value = await props.paper.grind(burstS.value)
    emit('ground', ground.value)
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div class="mill">
    <ChoiceField
      v-model="burstS"
      label="Runs of"
      :choices="
        [4, 8, 15, 30, 60].map(seconds => ({ value: seconds, words: `${seconds} s`, note: seconds === 60 ? 'in one go' : undefined }))
      "
    />
    <div class="row"><ElButton :disabled="ground !== undefined" @click="run">Run the mill</ElButton></div>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-if="ground" role="status">
      {{ format.weight(ground.powderG) }} of powder, {{ WORDS[ground.clumps] }}. The cup is
      {{ ground.celsius > 45 ? 'hot' : ground.celsius > 32 ? 'warm' : 'cool' }}.
    </p>
  </div>
</template>

<style scoped>
.mill {
  display: grid;
  gap: 0.7rem;
  padding: 0.8rem;
  border: 1px dashed var(--quiet);
  border-radius: 8px;
}
</style>
