<script setup lang="ts">
import { HOUR, MINUTE } from '#core/time'

/** What is wrong with the file of the logbook, or with a clock: said on every page until it is put right. */
const { answer, load } = useServer('health')
const { now } = useClock()
/** This device's clock against the server's, when it was last asked. */
const offMs = ref(0)
watch(answer, health => {
  if (health) offMs.value = Date.now() - health.now
})
/** A log of hours does not mind a minute. */
const MOST_OFF = 2 * MINUTE
const clock = computed(() => {
  const off = Math.abs(offMs.value)
  if (off < MOST_OFF) return undefined
  const by =
    off > 48 * HOUR
      ? plural(Math.round(off / (24 * HOUR)), 'day')
      : off > HOUR
        ? plural(Math.round(off / HOUR), 'hour')
        : `${Math.round(off / MINUTE)} minutes`
  return `The clock of this device is ${by} ${offMs.value > 0 ? 'ahead of' : 'behind'} the server’s. What you log is dated by this device: set the one that is wrong.`
})
const asked = ref(now.value)
watch(now, at => {
  if (at - asked.value < 5 * MINUTE) return
  asked.value = at
  void load().catch(() => undefined)
})
</script>

<template>
  <div v-if="answer?.damaged || clock" class="health card" role="status">
    <p v-if="answer?.damaged"><strong>Read only.</strong> {{ answer.damaged }} <NuxtLink to="/data">To the copies</NuxtLink></p>
    <p v-if="clock">{{ clock }}</p>
  </div>
</template>

<style scoped>
.health {
  margin-bottom: 1rem;
  background: var(--amber-wash);
  font-weight: 650;
}
.health p {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
