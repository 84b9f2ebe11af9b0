<script setup lang="ts">
import type { SchoolQuestion } from '#core/foods'

/** Every question on which practitioners disagree. */
useHead({ title: 'Schools side by side · Dulse' })
void useStagesStore().refresh()
const questions = shallowRef<SchoolQuestion[]>([])
const problem = ref('')
try {
  questions.value = await callServer<SchoolQuestion[]>('/api/foods/schools')
} catch (error) {
  problem.value = (error as Error).message
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <div>
        <p class="small"><NuxtLink to="/reference">Reference</NuxtLink></p>
        <h1>Schools side by side</h1>
        <p class="quiet">Practitioners disagree, each with a reason. Dulse takes one default, and lets you take another.</p>
      </div>
    </header>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <section v-for="question in questions" :key="question.key" class="card"><SchoolTable :question="question" /></section>
  </div>
</template>
