<script setup lang="ts">
/** One large next step, two or three that are likely, and the rest behind one word. */
export interface ActStep {
  words: string
  go?: () => unknown
  /** A file or a page of its own. */
  href?: string
  /** Its key on the keyboard. */
  key?: string
  disabled?: boolean
}
defineProps<{ first?: ActStep; likely: readonly ActStep[]; others?: readonly ActStep[] }>()
</script>

<template>
  <div class="step" role="group" aria-label="What to do">
    <ElButton v-if="first" type="primary" class="first" :disabled="first.disabled" @click="first.go?.()"
      >{{ first.words }} <kbd v-if="first.key" class="key">{{ first.key }}</kbd></ElButton
    >
    <div v-if="likely.length" class="likely">
      <ElButton v-for="step in likely" :key="step.words" :disabled="step.disabled" @click="step.go?.()"
        >{{ step.words }} <kbd v-if="step.key" class="key">{{ step.key }}</kbd></ElButton
      >
    </div>
    <details v-if="others?.length">
      <summary>More</summary>
      <div class="likely">
        <template v-for="step in others" :key="step.words">
          <a v-if="step.href" class="el-button el-button--large" :href="step.href" target="_blank">{{ step.words }}</a>
          <ElButton v-else :disabled="step.disabled" @click="step.go?.()"
            >{{ step.words }} <kbd v-if="step.key" class="key">{{ step.key }}</kbd></ElButton
          >
        </template>
      </div>
    </details>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  gap: 0.5rem;
}
.first.el-button {
  width: 100%;
  min-height: 54px;
  font-size: 1.1rem;
}
.likely {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.likely > .el-button {
  flex: 1 1 auto;
  margin: 0;
}
summary {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  padding: 0 0.3rem;
  color: var(--dulse-ink);
  font-weight: 650;
  cursor: pointer;
}
summary::before {
  content: '▸';
}
details[open] > summary::before {
  content: '▾';
}
</style>
