<script setup lang="ts">
import { WAYS } from '#core/ways'
import type { BatchState, EntryKind } from '#core/log'
import { HOUR } from '#core/time'

/** What an oven or a smoker asks for while it runs. */
const props = defineProps<{ state: BatchState; now: number }>()
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const smoker = computed(() => WAYS[run.value.way.way].smokes)
const spent = computed(() => run.value.clock.hoursAt(props.now))
const looked = computed(() => Math.max(run.value.loadedAt, run.value.places.movedAt ?? 0, run.value.weighings.at(-1)?.at ?? 0))
const pass = computed(() => run.value.way.usualHours.value)
</script>

<template>
  <section class="card way" :aria-label="smoker ? 'In the smoke' : 'In the oven'">
    <template v-if="smoker">
      <h3>{{ spent < pass.low ? 'In the smoke' : 'The smoke may end' }}</h3>
      <p>
        {{ format.hours(spent) }} of {{ pass.low }} to {{ pass.high }} hours. Smoke takes part of the water only; a machine dries it on, the
        same day.
      </p>
      <p class="quiet small">
        Rain ends it early: weigh it, take it out, and load it into a machine. Whatever the hour, nothing is lost by that.
      </p>
      <div class="row"><ElButton @click="emit('act', 'unload')">End the smoke</ElButton></div>
    </template>
    <template v-else>
      <h3>Next look {{ format.moment(looked + HOUR, now) }}</h3>
      <p class="quiet">The first after an hour, then hourly: turn what lies at the back and the rim, take out what is done.</p>
      <p class="quiet small">
        One school never uses an oven, since it cooks; the other swears by it for thin pieces. Door ajar, fan on, nobody small about.
      </p>
    </template>
  </section>
</template>

<style scoped>
.way {
  display: grid;
  gap: 0.5rem;
}
</style>
