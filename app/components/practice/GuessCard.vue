<script setup lang="ts">
import type { Guess } from '#core/practice'

/** Before Dulse says it: how wet, dry when, how sure. Windows are to hold eight of ten. */
defineProps<{ drying: boolean; target: number; busy: boolean }>()
const emit = defineEmits<{ say: [guess: Guess]; skip: [] }>()
const format = useFormat()
const water = reactive<{ low?: number; high?: number }>({})
const hours = reactive<{ low?: number; high?: number }>({})
const sure = ref(0.5)
const problem = ref('')
const SURE = [
  { value: 0.03, words: 'surely not' },
  { value: 0.2, words: 'hardly' },
  { value: 0.5, words: 'even' },
  { value: 0.8, words: 'likely' },
  { value: 0.97, words: 'surely' },
]
const both = ({ low, high }: { low?: number; high?: number }) => low !== undefined && high !== undefined
function say() {
  problem.value = ''
  if ((water.low === undefined) !== (water.high === undefined))
    return void (problem.value = 'Give both ends of the water’s window, or neither.')
  if ((hours.low === undefined) !== (hours.high === undefined)) return void (problem.value = 'Give both ends of the hours, or neither.')
  if (both(water) && water.low! > water.high!) return void (problem.value = 'Water: the lower figure comes first.')
  if (both(hours) && hours.low! > hours.high!) return void (problem.value = 'Hours: the lower figure comes first.')
  emit('say', {
    ...(both(water) && { water: { low: water.low! / 100, high: water.high! / 100 } }),
    ...(both(hours) && { dryIn: { low: hours.low!, high: hours.high! } }),
    sure: sure.value,
  })
}
</script>

<template>
  <section class="card guess" aria-label="What you believe">
    <h2>What do you believe?</h2>
    <p class="quiet small">
      First you, then Dulse. Give windows that you would bet eight to two on. Dry is {{ format.share(target) }} water.
    </p>
    <form class="form" novalidate @submit.prevent="say">
      <fieldset class="span">
        <legend>Water in it now, %</legend>
        <NumberField v-model="water.low" label="from" :least="0" :most="99" bare /><NumberField
          v-model="water.high"
          label="to"
          :least="0"
          :most="99"
          bare
        />
      </fieldset>
      <fieldset v-if="drying" class="span">
        <legend>Dry in, hours from now</legend>
        <NumberField v-model="hours.low" label="from" :least="0" :most="500" bare /><NumberField
          v-model="hours.high"
          label="to"
          :least="0"
          :most="500"
          bare
        />
      </fieldset>
      <ChoiceField
        v-model="sure"
        label="Is it dry now?"
        :choices="SURE.map(item => ({ ...item, note: `${Math.round(100 * item.value)} %` }))"
      />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="busy">Say it</ElButton
        ><ElButton @click="$emit('skip')">Just show Dulse’s</ElButton>
      </div>
    </form>
  </section>
</template>

<style scoped>
.guess {
  display: grid;
  gap: 0.6rem;
}
.span {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
}
.span legend {
  padding: 0;
  font-weight: 650;
  margin-bottom: 0.2rem;
}
</style>
