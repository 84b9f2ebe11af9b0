<script setup lang="ts">
/** A lesson that is played: the kitchen of this number. */
const route = useRoute()
const key = computed(() => String(route.params.lesson))
const seed = computed(() => {
  const asked = Number(route.query.kitchen)
  return Number.isInteger(asked) && asked > 0 && asked < 2 ** 30 ? asked : undefined
})
const { lessons, ready } = useLessonShelf()
await ready()
// What was brought in is read by the server a moment later.
const answer = computed(() => lessons.value.find(({ lesson }) => lesson.key === key.value))
useHead({ title: () => `${answer.value?.lesson.title ?? 'Practice'} · Dulse` })
</script>

<template>
  <PaperDesk v-if="answer && seed" :key="`${key}-${seed}`" :answer="answer" :seed="seed" />
  <section v-else class="card stack">
    <h1>{{ answer ? 'Which kitchen?' : 'No such lesson' }}</h1>
    <p>
      {{
        answer
          ? `A kitchen is a whole number above zero, such as 12; “${String(route.query.kitchen ?? '')}” is none. The same number, the same kitchen.`
          : `Nobody here knows a lesson called ${key}.`
      }}
    </p>
    <p>
      <NuxtLink v-if="answer" :to="`/practice/play/${key}?kitchen=1`">Begin in kitchen 1</NuxtLink>
      <NuxtLink v-else to="/practice">All lessons</NuxtLink>
    </p>
  </section>
</template>
