<script setup lang="ts">
import { WAYS } from '#core/ways'
import { wayOf, type Food, type MethodCard, type Purpose } from '#core/foods'
import type { Forecast } from '#core/planning'
import type { MachineAnswer } from '#shared/contracts'

/** What a basket would take and give, before a knife is lifted. */
const props = defineProps<{
  forecast?: Forecast
  /** What is in the basket, as one food; and its card. */
  food?: Food
  card?: MethodCard
  purpose: Purpose
  machines: readonly MachineAnswer[]
  problem: string
  now: number
}>()
const machineId = defineModel<string>('machineId', { required: true })
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const machine = computed(() => props.machines.find(item => item.id === machineId.value))
const PRODUCT = { pieces: 'of dry pieces', flakes: 'of flakes', powder: 'of powder' }
const counted = (interval: { p10: number; p50: number; p90: number }, one: string, many?: string) =>
  interval.p10 === interval.p90 ? plural(interval.p50, one, many) : `${interval.p10} to ${interval.p90} ${many ?? `${one}s`}`
/** What stands on the trays: trimmed, and what else its card does to it. */
const prepared = computed(() => {
  const steps = (props.card?.steps ?? []).map(({ step }) => step)
  const done = [steps.includes('roast') && 'roasted', steps.includes('thicken') && 'thickened'].filter(Boolean)
  return done.length > 0 ? `trimmed and ${done.join(' and ')}` : 'trimmed'
})
/** Where the air of many rooms does not let it become that dry. */
const short = computed(() => {
  if (!props.forecast || props.forecast.reaches >= 0.9) return undefined
  const cases = Math.round(10 * props.forecast.reaches)
  return `${cases === 0 ? 'Hardly ever' : `In ${cases} of 10 cases`} it becomes dry enough for ${PURPOSE_WORDS[props.purpose]} so: ${WAYS[machine.value?.kind ?? 'dehydrator'].unheated ? 'it wants a last hour or so in a machine' : 'a drier room or a hotter last hour would bring it there'}.`
})
/** Where others stand in the machine. */
const taken = computed(() => {
  if (!props.forecast || props.forecast.free >= props.forecast.places) return undefined
  const { free, places, freeAt } = props.forecast
  const now = free === 0 ? 'No place is free now' : `${free} of ${places} places ${free === 1 ? 'is' : 'are'} free now`
  return `${now}; ${freeAt ? `the others about ${format.moment(freeAt, props.now)}` : 'when the others are, nobody knows yet'}.`
})
</script>

<template>
  <section class="card forecast" aria-label="Forecast" aria-live="polite">
    <h2>What it would take and give</h2>
    <ChoiceField
      v-if="machines.length > 1"
      v-model="machineId"
      label="In"
      :choices="machines.map(item => ({ value: item.id, words: item.name, note: plural(item.trays, 'tray') }))"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <template v-if="forecast && food">
      <dl>
        <div>
          <dt>Trays</dt>
          <dd>
            <strong>{{ counted(forecast.trays, 'tray') }}</strong><span class="quiet"
              >{{ forecast.loads.p90 > 1 ? counted(forecast.loads, 'load') : 'one load' }}, {{ format.weightRange(forecast.preparedG) }}
              {{ prepared }}</span
            ><span v-if="taken" class="taken">{{ taken }}</span>
          </dd>
        </div>
        <div>
          <dt>Time</dt>
          <dd>
            <strong>{{ format.range(forecast.hoursPerLoad, value => `${value.toFixed(0)}\u00A0h`) }} a load</strong
            ><span class="quiet"
              >started {{ forecast.free === 0 ? 'when there is room' : 'now' }} it ends
              {{ format.window(forecast.endsAt.p10, forecast.endsAt.p90, now) }}</span
            ><span v-if="short" class="caution">{{ short }}</span>
          </dd>
        </div>
        <div>
          <dt>Dry</dt>
          <dd>
            <strong>{{ format.weightRange(forecast.dryG) }}</strong><span class="quiet"
              >about {{ format.weight(forecast.dryG.p50)
              }}{{ purpose === 'pieces' ? `, ${format.vessels(forecast.productMl.p50)} as they lie` : '' }}</span
            >
          </dd>
        </div>
        <div v-if="purpose !== 'pieces'">
          <dt>{{ purpose === 'flakes' ? 'Flakes' : 'Powder' }}</dt>
          <dd>
            <strong>{{ format.weightRange(forecast.productG) }}</strong><span class="quiet"
              >about {{ format.weight(forecast.productG.p50) }} {{ PRODUCT[purpose] }}, {{ format.vessels(forecast.productMl.p50) }}</span
            >
          </dd>
        </div>
        <div>
          <dt>Jars</dt>
          <dd>
            <strong>{{ counted(forecast.jars, 'jar') }}</strong><span class="quiet">of {{ format.volume(settings.jarMl) }}</span>
          </dd>
        </div>
        <div>
          <dt>Power</dt>
          <dd>
            <strong>{{
              forecast.energyKWh.p90 < 0.05 ? 'none' : format.range(forecast.energyKWh, value => `${value.toFixed(1)}\u00A0kWh`)
            }}</strong>
          </dd>
        </div>
      </dl>
      <p class="quiet small">
        Ranges hold 8 of 10 cases.
        {{
          forecast.ownBatches > 0
            ? `From ${plural(forecast.ownBatches, 'batch', 'batches')} of your own and the reference`
            : 'From the reference; your own batches sharpen it'
        }}: {{ food.name.toLowerCase() }} has {{ format.share(food.rawMoisture.value.mean) }} water ({{ food.rawMoisture.source }}); hours
        are
        {{
          forecast.ownRuns > 0
            ? `the reference’s as ${plural(forecast.ownRuns, 'run')} of your own taught`
            : card && wayOf(card, machine?.kind).usualHours.source
        }}.
      </p>
    </template>
    <p v-else-if="!problem" class="quiet">
      Choose the food and give its weight: trays, hours, grams and jars stand here before a knife is lifted.
    </p>
  </section>
</template>

<style scoped>
.forecast {
  display: grid;
  gap: 0.8rem;
  position: sticky;
  top: 84px;
}
.taken {
  color: var(--amber);
  font-weight: 600;
  font-size: 0.94rem;
}
dl {
  margin: 0;
  display: grid;
}
dl > div {
  display: grid;
  grid-template-columns: 74px 1fr;
  gap: 0.7rem;
  padding: 0.55rem 0;
  border-top: 1px solid var(--rule);
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
  display: grid;
}
dd strong {
  font: 700 1.12rem var(--display);
}
@media (width <= 1000px) {
  .forecast {
    position: static;
  }
}
</style>
