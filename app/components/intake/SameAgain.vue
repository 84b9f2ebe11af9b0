<script setup lang="ts">
import { foldBatch } from '#core/batch'
import type { Purpose } from '#core/foods'

/** A basket as an earlier one: what it was cut into and dried in, and what was done to it, with what it taught. */
export interface LikeBasket {
  foodKey: string
  cardKey: string
  purpose: Purpose
  cultivar?: string
  source: string
  weightG: number
  machineId?: string
}
const props = defineProps<{ batchId: string }>()
const emit = defineEmits<{ begin: [basket: LikeBasket] }>()
const format = useFormat()
const { answer: page, ready } = useServer('batch', () => ({ params: { batchId: props.batchId } }))
await ready()
const state = computed(() => page.value && foldBatch(page.value.entries, () => page.value!.food))
/** The machine that it was dried in, else the one that was meant. */
const machine = computed(() => {
  const id = state.value?.run?.machineId ?? state.value?.intake.body.machineId
  return page.value?.machines.find(item => item.id === id)
})
const steps = computed(() =>
  (state.value?.prep ?? []).map(({ body }) => logWords(body, { ...format, dayTime: at => format.moment(at, Date.now()) })),
)
const hours = computed(() => {
  const run = state.value?.run
  return run?.unloadedAt === undefined ? undefined : run.clock.equivalentHoursAt(run.unloadedAt)
})
if (state.value) {
  const { foodKey, cardKey, purpose, cultivar, source, weightG } = state.value.intake.body
  emit('begin', { foodKey, cardKey, purpose, cultivar, source, weightG, machineId: machine.value?.id })
}
</script>

<template>
  <section v-if="state && page" class="card again" aria-label="As last time">
    <h2>As batch {{ page.number }}</h2>
    <p>
      {{ state.food.name }}, {{ format.sentence(state.card.name)
      }}<template v-if="machine">
        in the {{ machine.name }}<template v-if="hours">, {{ format.hours(hours) }} of heat</template></template
      >. Cut, machine and purpose are set so; change what is otherwise.
    </p>
    <ul v-if="steps.length" class="steps">
      <li v-for="(words, i) in steps" :key="i">{{ words }}</li>
    </ul>
    <NuxtLink :to="`/batches/${batchId}`">Batch {{ page.number }}</NuxtLink>
  </section>
</template>

<style scoped>
.again {
  display: grid;
  gap: 0.5rem;
}
.steps {
  margin: 0;
  padding-left: 1.2rem;
}
</style>
