<script setup lang="ts">
/** Every question on which practitioners disagree. */
useHead({ title: 'Schools side by side · Dulse' })
const { answer, problem, ready } = useServer('schools')
const questions = computed(() => answer.value ?? [])
await ready()
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
