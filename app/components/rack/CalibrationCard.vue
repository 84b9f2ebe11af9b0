<script setup lang="ts">
import { Z_90 } from '#core/stats'
import { formatDegrees } from '#core/units'
import type { MachineAnswer, MachinePageAnswer } from '#shared/contracts'

/** What the machine's own runs say of it: its pace, its dial, and how evenly its places dry. */
const props = defineProps<{ machine: MachineAnswer; calibration?: MachinePageAnswer['calibration'] }>()
const shown = ref(false)
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const dial = computed(() => {
  const seen = props.machine.thermostat
  if (!seen)
    return 'Its dial has not been compared with a thermometer: log one with Air, among the trays, half an hour after the heat is set.'
  const unit = settings.value.temperatureUnit
  const degrees = (kelvin: number) => formatDegrees(Math.abs(kelvin), unit, 1)
  const times = plural(seen.count, 'measurement')
  if (Math.abs(seen.offC) < Z_90 * seen.sd) return `Its dial reads true as far as ${times} can say (within ${degrees(Z_90 * seen.sd)}).`
  return `It runs ${degrees(seen.offC)} ${seen.offC < 0 ? 'cooler' : 'hotter'} than its dial says, by ${times}. Its hours are told by that.`
})
/** Percent against the middle, on an axis of a fixed width. */
const WIDEST = 0.3
const places = computed(() => {
  const seen = new Map((props.machine.evenness ?? []).map(item => [item.place, item]))
  return Array.from({ length: props.machine.trays }, (_, i) => ({ place: i + 1, item: seen.get(i + 1) }))
})
const at = (pace: number) => `${50 + 50 * Math.min(1, Math.max(-1, (pace - 1) / WIDEST))}%`
const words = (pace: number) => {
  const percent = Math.round((pace - 1) * 100)
  return percent === 0 ? 'as the middle' : `${Math.abs(percent)} % ${percent > 0 ? 'faster' : 'slower'}`
}
</script>

<template>
  <section class="card" aria-label="Calibration">
    <h2>What its runs say</h2>
    <p v-if="machine.pace">
      {{ paceWords(machine.name, machine.pace) }}
      <button type="button" class="word-button" @click="shown = true">The runs behind it</button>
    </p>
    <template v-else>
      <p class="quiet">No finished run yet: the cards’ hours stand.</p>
      <template v-if="calibration?.foods.length">
        <h3>A first run that teaches most</h3>
        <p>
          Weighed five times on its way, one run says as much of this machine as {{ plural(calibration.worth, 'ordinary one') }}. Take a
          food whose card is sure of its hours, in one layer on all trays:
        </p>
        <ul class="foods">
          <li v-for="food in calibration.foods" :key="food.foodKey">
            <NuxtLink :to="`/intake?food=${food.foodKey}`">{{ food.name }}, {{ food.cut.toLowerCase() }}</NuxtLink>
            <span class="quiet small"
              >{{ Math.round(food.low) }} to {{ Math.round(food.high) }} h: weigh after about
              {{ calibration.shares.map(share => format.hours(share * Math.sqrt(food.low * food.high))).join(', ') }}</span
            >
          </li>
        </ul>
      </template>
    </template>
    <p class="dial">{{ dial }}</p>
    <template v-if="machine.evenness?.length">
      <h3>Evenness by place</h3>
      <ol class="plain-list">
        <li v-for="{ place, item } in places" :key="place">
          <span class="quiet">{{ place }}</span>
          <div class="axis" aria-hidden="true">
            <template v-if="item"
              ><span class="range" :style="{ left: at(item.low), width: `calc(${at(item.high)} - ${at(item.low)})` }" /><span
                class="mark"
                :style="{ left: at(item.pace) }"
            /></template>
          </div>
          <span class="small">{{ item ? words(item.pace) : 'not seen' }}</span>
        </li>
      </ol>
      <p class="quiet small">
        From trays weighed one by one that stayed in their place; bars are 8 in 10. Few trays are drawn toward the middle.
      </p>
    </template>
    <p v-else class="quiet">Weigh trays one by one in a run or two, and it will say which places dry faster.</p>
    <p v-if="machine.thermostat" class="quiet small">
      {{ format.temperature(machine.lowC) }} to {{ format.temperature(machine.highC) }} on the dial.
    </p>
    <LazyLearnedDialog v-if="shown" kind="machine" :of="machine.id" @close="shown = false" />
  </section>
</template>

<style scoped>
.foods {
  display: grid;
  gap: 0.4rem;
  margin: 0.4rem 0 0;
  padding-left: 1.1rem;
}
.foods li {
  display: list-item;
  min-height: 0;
}
.foods span {
  display: block;
}
.dial {
  margin-top: 0.4rem;
}
h3 {
  margin-top: 0.9rem;
}
ol {
  display: grid;
  gap: 3px;
  margin: 0.4rem 0;
}
ol li {
  display: grid;
  grid-template-columns: 1.2rem 1fr 7.4rem;
  gap: 0.6rem;
  align-items: center;
  min-height: 26px;
}
.axis {
  position: relative;
  height: 20px;
  background:
    linear-gradient(var(--quiet), var(--quiet)) center / 1px 100% no-repeat,
    var(--sunk);
  border-radius: 4px;
}
.range {
  position: absolute;
  inset-block: 6px;
  background: color-mix(in srgb, var(--kelp) 45%, transparent);
  border-radius: 3px;
}
.mark {
  position: absolute;
  inset-block: 2px;
  width: 3px;
  margin-left: -1.5px;
  background: var(--kelp);
  border-radius: 2px;
}
</style>
