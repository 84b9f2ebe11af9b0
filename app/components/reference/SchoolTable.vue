<script setup lang="ts">
import { capital } from '#core/text'
import type { SchoolQuestion } from '#core/foods'

/** A question's schools side by side; the default comes first. */
defineProps<{ question: SchoolQuestion }>()
const format = useFormat()
/** The tag says already which one is the default. */
function reasonOf(reason: string): string {
  const rest = reason.replace(/^The default: /, '')
  return capital(rest)
}
</script>

<template>
  <section class="question" :aria-label="question.ask">
    <h3>{{ question.ask }}</h3>
    <ul class="plain-list">
      <li v-for="(school, i) in question.schools" :key="school.key" :class="{ first: i === 0 }">
        <strong>{{ format.sentence(school.name) }}</strong>
        <span v-if="i === 0" class="tag good">the default</span>
        <p class="small">{{ format.sentence(reasonOf(school.reason)) }}</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.question h3 {
  margin-bottom: 0.4rem;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 0.6rem;
}
li {
  border-top: 3px solid var(--rule);
  padding: 0.4rem 0.6rem 0.4rem 0;
}
li.first {
  border-color: var(--kelp);
}
.tag {
  margin-left: 0.4rem;
}
</style>
