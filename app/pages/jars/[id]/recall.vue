<script setup lang="ts">
/** From a packet that was bought in to every jar that it went into. */
const route = useRoute()
const jarId = String(route.params.id)
const format = useFormat()
const { answer, problem, ready } = useServer('jarRecall', () => ({ params: { jarId } }))
const { answer: jar, ready: jarReady } = useServer('jar', () => ({ params: { jarId } }))
useHead({ title: 'Every jar of a packet · Dulse' })
await Promise.all([ready(), jarReady()])
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <div>
        <h1>Every jar of this packet</h1>
        <p v-if="jar" class="quiet">
          {{ jar.foodName }}, <NuxtLink :to="`/jars/${jarId}`">jar {{ jar.number }}</NuxtLink
          >, {{ format.date(jar.packedAt) }}
        </p>
      </div>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <RecallTable v-else-if="answer" :answer="answer" of="packet" />
  </div>
</template>
