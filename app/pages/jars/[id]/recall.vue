<script setup lang="ts">
import type { JarAnswer, RecallAnswer } from '#shared/contracts'

/** From a packet that was bought in to every jar that it went into. */
const route = useRoute()
const jarId = String(route.params.id)
const format = useFormat()
const answer = shallowRef<RecallAnswer>()
const jar = shallowRef<JarAnswer>()
const problem = ref('')
useHead({ title: 'Every jar of a packet · Dulse' })
try {
  ;[answer.value, jar.value] = await Promise.all([
    callServer<RecallAnswer>(`/api/jars/${jarId}/recall`),
    callServer<JarAnswer>(`/api/jars/${jarId}`),
  ])
} catch (error) {
  problem.value = (error as Error).message
}
void useStagesStore().refresh()
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
