<script setup lang="ts">
import { USUAL_ROOM } from '#core/air/usual'
import type { Assessment } from '#core/batch'
import type { BatchState, EntryBody } from '#core/log'
import { cautionsAt } from '#core/safety'
import { HOLD_C, nightChoices, sleepAround, type NightChoice } from '#core/planning'
import type { MachineAnswer } from '#shared/contracts'
import { HOUR } from '#core/time'

/** If you go to bed: what the heat left on, held warm or switched off comes to by morning. */
const props = defineProps<{
  state: BatchState
  assessment: Assessment
  machine: MachineAnswer
  now: number
  /** Cautions that were accepted before, in whatever batch. */
  accepted: readonly string[]
  write: (bodies: readonly EntryBody[]) => Promise<unknown>
}>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
/** Before this many hours to bedtime it is too early to ask. */
const AHEAD_H = 8
/** A room that nobody measured: the middle of what kitchens are. */
const night = computed(() => {
  const { from, to } = sleepAround(props.now, settings.value)
  return { from: Math.max(from, props.now), to }
})
const soon = computed(() => night.value.from - props.now < AHEAD_H * HOUR)
const room = computed(() => props.state.run?.room ?? USUAL_ROOM)
const choices = computed(() =>
  soon.value ? nightChoices(props.state, props.assessment, room.value, night.value, props.machine.watts) : undefined,
)
const WORDS: Record<NightChoice['key'], string> = {
  leave: 'Leave it on',
  hold: `Hold at ${format.temperature(HOLD_C)}`,
  off: 'Switch it off',
}
/** A machine that runs while nobody looks: read once. */
const alone = computed(() =>
  choices.value?.some(({ key, barred }) => key === 'leave' && !barred)
    ? cautionsAt('dry', props.state.food, {
        way: props.state.run!.way.way,
        alone: true,
        accepted: new Set([...props.accepted, ...props.state.accepted]),
      }).cares
    : [],
)
const BARRED = computed(() => ({
  attended: `No: ${props.machine.name} is never left on while people sleep or are out.`,
  perishable: 'No: still wet, it would stand all night where things grow. Leave it on, hot enough, or put it in the cold.',
}))
function then(choice: NightChoice): string {
  const { dry, hoursLeft } = choice
  const chance = chanceOfDry(dry)
  if (dry >= 0.5) return chance
  return Number.isFinite(hoursLeft.p50) ? `${chance}; about ${format.hours(hoursLeft.p50)} more heat` : 'stays short of dry in this air'
}
</script>

<template>
  <section v-if="choices" class="card" aria-label="If you go to bed">
    <h3>If you go to bed</h3>
    <p class="quiet small">
      At {{ format.time(night.to) }} the {{ state.food.name.toLowerCase() }} would hold{{
        state.run?.room ? '' : ', in a room at 55 % humidity'
      }}:
    </p>
    <table>
      <tbody>
        <tr v-for="choice in choices" :key="choice.key">
          <th scope="row" :class="{ barred: choice.barred }">{{ WORDS[choice.key] }}</th>
          <td v-if="choice.barred" class="quiet small">{{ BARRED[choice.barred] }}</td>
          <td v-else>
            <strong>{{ format.range(choice.moisture, format.share) }}</strong> water<br /><span class="quiet small"
              >{{ then(choice) }} · {{ choice.kWh > 0 ? `${choice.kWh.toFixed(1)} kWh` : 'no power' }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div v-for="rule in alone" :key="rule.key" class="caution alone">
      <p>{{ format.sentence(rule.text) }}</p>
      <ElCheckbox :model-value="false" size="large" @update:model-value="void write([{ kind: 'caution', rule: rule.key }])"
        >I have read this</ElCheckbox
      >
    </div>
  </section>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 0.3rem;
}
th.barred {
  text-decoration: line-through;
  color: var(--quiet);
}
th {
  text-align: left;
  font-weight: 650;
  vertical-align: top;
  padding: 0.45rem 0.8rem 0.45rem 0;
}
td {
  padding: 0.45rem 0;
  line-height: 1.3;
}
tr + tr > * {
  border-top: 1px solid var(--rule);
}
</style>
