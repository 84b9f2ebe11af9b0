<script setup lang="ts">
import type { BatchSummary } from '#shared/contracts'
import type { Stage } from '#core/log'

const emit = defineEmits<{ close: [] }>()
const open = ref(true)
const batches = ref<BatchSummary[]>([])
const problem = ref('')
const ACTS: Partial<Record<Stage, { words: string; act: string }[]>> = {
  intake: [
    { words: 'What was cut', act: 'prep' },
    { words: 'Load', act: 'load' },
  ],
  prep: [{ words: 'Load', act: 'load' }],
  drying: [
    { words: 'Weigh', act: 'weigh' },
    { words: 'Feel', act: 'feel' },
  ],
  resting: [{ words: 'Open', act: '' }],
  grinding: [{ words: 'Open', act: '' }],
}

onMounted(async () => {
  try {
    const stages: Stage[] = ['drying', 'prep', 'intake', 'resting', 'grinding']
    const answers = await Promise.all(stages.map(stage => call('batches', { query: { stage } })))
    batches.value = answers.flatMap(answer => answer.batches.slice(0, 8))
  } catch (error) {
    problem.value = (error as Error).message
  }
})

function go(to: string) {
  open.value = false
  void navigateTo(to)
}
</script>

<template>
  <ElDialog v-model="open" title="What happened?" width="560px" @closed="emit('close')">
    <ElButton type="primary" class="wide" autofocus @click="go('/intake')">A basket came in</ElButton>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <ul class="plain-list">
      <li v-for="batch in batches" :key="batch.batchId" class="line">
        <div>
          <div class="strong">{{ batch.title }}</div>
          <div class="quiet small">Batch {{ batch.number }} · {{ STAGE_WORDS[batch.stage].toLowerCase() }}</div>
        </div>
        <div class="row">
          <ElButton
            v-for="item in ACTS[batch.stage]"
            :key="item.act"
            :aria-label="`${item.words}: batch ${batch.number}`"
            @click="go(`/batches/${batch.batchId}${item.act ? `?act=${item.act}` : ''}`)"
            >{{ item.words }}</ElButton
          >
        </div>
      </li>
    </ul>
  </ElDialog>
</template>

<style scoped>
.wide {
  width: 100%;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--rule);
}
.line:last-child {
  border: 0;
}
</style>
