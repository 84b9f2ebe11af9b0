<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { flipHour } from '#core/water'

/** Sheets are turned over once: when, and one press when it is done. */
const props = defineProps<{ state: BatchState; now: number; write: (bodies: readonly EntryBody[]) => Promise<unknown> }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const at = computed(() => {
  const hour = run.value.places.flippedAt === undefined ? flipHour(props.state, run.value) : undefined
  return hour === undefined ? undefined : run.value.clock.instantAt(hour)
})
const due = computed(() => at.value !== undefined && at.value <= props.now)
const busy = ref(false)
const problem = ref('')
async function turned() {
  busy.value = true
  problem.value = ''
  try {
    const trays = run.value.present
      .map(tray => run.value.places.placeAt(tray, Infinity))
      .map(place => ({ from: place, to: place, flipped: true }))
    await props.write([{ kind: 'move', runId: run.value.runId, trays }])
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section v-if="at !== undefined" class="card" aria-label="Turn the sheets over">
    <h3>{{ due ? 'Turn the sheets over' : `Turn over at ${Number.isFinite(at) ? format.moment(at, now) : 'half'}` }}</h3>
    <p class="quiet small">
      Once the top holds: peel each off, the other way up without its paper, and turn the tray round. Left as they lie, the underside takes
      a quarter longer.
    </p>
    <div class="row">
      <ElButton :type="due ? 'primary' : undefined" :loading="busy" @click="turned">Turned over</ElButton>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>
