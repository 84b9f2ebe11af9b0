<script setup lang="ts">
import { isPoorOutdoors, OUTDOORS } from '#core/planning'
import { WAYS } from '#core/ways'
import type { BatchState, EntryKind } from '#core/log'

/** Day and night outdoors: in at dusk and before rain, out when the dew is off. */
const props = defineProps<{ state: BatchState; now: number }>()
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const sunHours = computed(() => run.value.clock.hoursAt(props.now))
const sunny = computed(() => WAYS[run.value.way.way].outdoors)
const poor = computed(() => run.value.room && isPoorOutdoors(run.value.room))
</script>

<template>
  <section class="card outdoor" :aria-label="sunny ? 'Outdoors' : 'In the air'">
    <h3>{{ run.setC === null ? (sunny ? 'Indoors, covered' : 'Taken down') : sunny ? 'Out in the sun' : 'Hanging' }}</h3>
    <p class="quiet">{{ format.hours(sunHours) }} {{ sunny ? 'of sun so far; hours indoors do not count' : 'in the air so far' }}.</p>
    <p v-if="sunny && run.outlook">
      In at {{ format.clock(run.outlook.duskMinute)
      }}<template v-if="run.outlook.rainAt">; rain expected {{ format.moment(run.outlook.rainAt, now) }}</template
      >.
    </p>
    <p v-if="sunny && poor" class="caution">
      Extension guidance wants {{ format.temperature(OUTDOORS.leastC) }} and above and under
      {{ format.share(OUTDOORS.mostHumidity) }} humidity outdoors. Below that, finish in a machine.
    </p>
    <p class="quiet small">
      Covered against insects; turn once a day. Afterwards {{ format.temperature(-18) }} for 48 hours, or {{ format.temperature(71) }} for
      30 minutes in a thin layer, kills what flew in. {{ sunny ? 'Half an hour in a machine at' : 'An hour in a machine at' }}
      {{ format.temperature(60) }} gives the last crisp.
    </p>
    <div class="row">
      <ElButton @click="emit('act', 'heat')">{{
        run.setC === null ? (sunny ? 'Put it out' : 'Hang it') : sunny ? 'Bring it in' : 'Take it down'
      }}</ElButton><ElButton v-if="sunny" @click="emit('act', 'outlook')">Dusk and rain</ElButton>
    </div>
  </section>
</template>

<style scoped>
.outdoor {
  display: grid;
  gap: 0.5rem;
}
</style>
