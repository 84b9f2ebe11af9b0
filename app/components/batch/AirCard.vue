<script setup lang="ts">
import { hotSpellOf, type Assessment } from '#core/batch'
import type { BatchState } from '#core/log'
import { finishingOf, reachOf } from '#core/water'
import { WAYS } from '#core/ways'

/** The room's air, and how dry it lets this run become. */
const props = defineProps<{ state: BatchState; assessment?: Assessment; now: number }>()
defineEmits<{ act: [] }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const reach = computed(() => (run.value.room && run.value.setC !== null ? reachOf(props.state, run.value) : undefined))
const mend = computed(() => {
  const { unheated } = WAYS[run.value.way.way]
  const finishing = unheated && reach.value ? finishingOf(props.state, reach.value.lowest.p50) : undefined
  if (finishing) return `finish it, ${finishWords(finishing, format)}`
  return unheated ? 'wait for a drier day' : 'dry the room’s air or raise the heat for the last hours'
})
const hot = computed(() => props.assessment && hotSpellOf(props.state, props.assessment))
const off = computed(() => (run.value.chamberC !== undefined && run.value.setC !== null ? run.value.chamberC - run.value.setC : undefined))
</script>

<template>
  <section class="card air" aria-label="Air">
    <div class="row between">
      <h3>Air</h3>
      <button type="button" class="link" @click="$emit('act')">{{ run.room ? 'Measure again' : 'Log the room’s air' }}</button>
    </div>
    <p v-if="!run.room" class="quiet">Not measured. In a damp kitchen a load stops short of dry whatever the clock says.</p>
    <template v-else>
      <p class="quiet">Room {{ format.temperature(run.room.celsius) }}, {{ Math.round(run.room.humidity * 100) }} % humidity.</p>
      <p v-if="reach && reach.verdict !== 'can'" class="caution">
        In this air {{ format.temperature(run.chamberC ?? run.setC!) }}
        {{
          reach.verdict === 'cannot'
            ? `cannot get below ${format.share(reach.lowest.p10)}`
            : `may not get below ${format.share(reach.lowest.p90)}`
        }}
        water, and {{ PURPOSE_WORDS[state.purpose] }} needs {{ format.share(reach.target) }}: {{ mend }}.
      </p>
      <p v-else-if="reach">
        It can be dried down to about <strong>{{ format.share(reach.lowest.p50) }}</strong> water
        <span class="quiet">({{ format.range(reach.lowest, format.share) }})</span>.
      </p>
    </template>
    <p v-if="hot" class="caution">
      {{
        hot.lowerBy > now
          ? `Lower the heat by ${format.moment(hot.lowerBy, now)}`
          : `At ${format.temperature(hot.celsius)} since ${format.moment(hot.since, now)}: lower the heat to ${format.temperature(state.card.temperatureC)} now`
      }}. Longer this hot, the outside hardens over a wet core: it feels dry and softens in the jar.
    </p>
    <p v-if="off !== undefined && Math.abs(off) >= 1" class="quiet">
      Measured in the machine: {{ format.temperature(run.chamberC!) }}, set {{ format.temperature(run.setC!) }}. The clock counts what was
      measured.
    </p>
  </section>
</template>

<style scoped>
.air {
  display: grid;
  gap: 0.4rem;
}
.link {
  border: 0;
  background: none;
  min-height: 44px;
  margin: -0.7rem 0;
  color: var(--dulse-ink);
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
</style>
