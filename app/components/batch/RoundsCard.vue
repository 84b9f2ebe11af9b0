<script setup lang="ts">
import { freezeCycleOf, hoursUntilMorning } from '#core/planning'
import { constantTrays, type Assessment, type CycleMate } from '#core/batch'
import type { BatchState, EntryKind } from '#core/log'
import type { MachineAnswer } from '#shared/contracts'

/** The rounds of extra drying in a freeze dryer: every tray weighed, two hours more, weighed again. */
const props = defineProps<{
  state: BatchState
  machine?: MachineAnswer
  mates: readonly CycleMate[]
  assessment?: Assessment
  now: number
}>()
const { settings } = storeToRefs(useHouseholdStore())
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()
const run = computed(() => props.state.run!)
const rounds = computed(() =>
  constantTrays(run.value)
    .map(round => ({
      ...round,
      place: run.value.places.placeAt(round.position, Infinity),
      frozen: run.value.frozen.includes(round.position),
    }))
    .sort((a, b) => a.place - b.place),
)
const settled = computed(() => rounds.value.filter(round => round.test?.constant).length)
const cycle = computed(
  () =>
    props.machine &&
    freezeCycleOf(props.state, props.machine, {
      loadG: run.value.loadedG,
      trays: run.value.positions.length,
      frozen: run.value.frozen.length === run.value.positions.length,
      besideG: props.mates.reduce((sum, mate) => sum + mate.waterG, 0),
    }),
)
const morning = computed(
  () =>
    props.assessment &&
    props.machine &&
    run.value.setC !== null &&
    hoursUntilMorning(props.assessment.finish, props.machine.watts, settings.value),
)
</script>

<template>
  <section class="card" aria-label="Rounds of extra drying">
    <div class="row between">
      <h2>Constant weight, tray by tray</h2>
      <span class="tag" :class="{ good: settled === rounds.length }">{{ settled }} of {{ rounds.length }} done</span>
    </div>
    <p v-if="cycle" class="quiet small">
      {{ format.weight(cycle.waterG) }} of water: {{ format.hours(cycle.freezeH) }} to freeze, about {{ format.hours(cycle.vacuumH) }} under
      vacuum, {{ format.hours(cycle.finalH) }} final dry; {{ cycle.sublimationKWh.toFixed(1) }} kWh is what the ice takes alone.{{
        cycle.ice ? ` ${Math.round(cycle.ice.share * 100)} % of the ice it holds${mates.length ? ', with what stands beside it' : ''}.` : ''
      }}
    </p>
    <p v-if="mates.length" class="small">
      One chamber, one cycle: {{ mates.map(mate => `${mate.name.toLowerCase()} (batch ${mate.number})`).join(', ') }}
      {{ mates.length === 1 ? 'stands' : 'stand' }} in it too. Open it for all at once; it is done when the last of it is.
    </p>
    <p v-if="cycle?.ice?.over" class="caution">More ice than the coil holds: take a part out before the cycle begins.</p>
    <p v-if="run.cycle.endsAt !== undefined" class="small">
      By its display it {{ run.cycle.endsAt > now ? 'is through' : 'was through' }} {{ format.moment(run.cycle.endsAt, now) }}.
    </p>
    <p v-if="run.cycle.addedH" class="small">
      {{ format.hours(run.cycle.addedH) }} were added to the cycle, so that it holds: what is dry under vacuum stays so.
    </p>
    <p v-if="morning" class="small">
      It may well end while you sleep. {{ plural(morning.hours, 'hour') }} more on the machine take it to
      {{ format.moment(morning.at, now) }}, for about {{ morning.kWh.toFixed(1) }} kWh: what is under vacuum loses nothing by waiting, what
      stands after its end takes water back.
      <button type="button" class="word-button" @click="emit('act', 'cycleHours')">Log hours added</button>
    </p>
    <table class="ruled">
      <thead>
        <tr>
          <th>Tray</th>
          <th>Went in</th>
          <th class="n">Last</th>
          <th class="n">Lost since</th>
          <th>Says</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="round in rounds" :key="round.position">
          <td>
            <strong>{{ round.place }}</strong>
          </td>
          <td>{{ round.frozen ? 'frozen' : 'unfrozen' }}</td>
          <td class="n">{{ round.lastG === undefined ? '' : format.weight(round.lastG) }}</td>
          <td class="n">
            {{ round.test ? `${format.weight(Math.max(0, round.test.lossG))} in ${round.test.spanH.toFixed(1)}\u00A0h` : '' }}
          </td>
          <td>
            {{
              round.test?.constant
                ? 'done: no loss beyond the scale'
                : round.weighings === 0
                  ? 'not weighed'
                  : round.test
                    ? 'still loses'
                    : 'two hours more, then again'
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <div class="row">
      <ElButton type="primary" @click="emit('act', 'weigh')">Weigh the trays</ElButton
      ><ElButton v-if="run.unloadedAt === undefined" @click="emit('act', 'cycleShows')">What the machine shows</ElButton>
    </div>
    <p class="quiet small">
      “Complete” is the machine’s opinion. In grams, not ounces: they are finer. A tray that feels cool, or has a cold spot, still holds
      ice.
    </p>
  </section>
</template>

<style scoped>
.card {
  display: grid;
  gap: 0.6rem;
  overflow-x: auto;
}
</style>
