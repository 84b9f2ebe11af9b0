<script setup lang="ts">
import { coolInside, dangerZoneOf } from '#core/batch'
import type { BatchState, EntryKind } from '#core/log'

/** The clock of what is perishable: how long it stood where things grow, and until when it may. */
const props = defineProps<{ state: BatchState; now: number }>()
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()
/** Less than this is on the way from one place to the next. */
const WORTH_H = 0.2
const zone = computed(() => {
  const found = dangerZoneOf(props.state, props.now)
  if (!found) return undefined
  const busy = !props.state.run || props.state.run.unloadedAt === undefined
  return found.over || found.counting || (busy && found.hours > WORTH_H) ? found : undefined
})
const cool = computed(() => {
  const found = props.state.run?.unloadedAt === undefined ? coolInside(props.state, props.now) : undefined
  return found && found.hours > 0.5 ? found : undefined
})
const coolWords = computed(() => {
  const { hours, wetC, limitH } = cool.value!
  const own = `Moist food is cooler than its air, about ${format.temperature(wetC)} while it is wet: by estimate it has been so for ${format.hours(hours)}.`
  return hours > limitH
    ? `${own} Over ${limitH} hours is more than food codes allow without control: hotter now, and next time loaded hot and spread thinner; meat is heated through first.`
    : own
})
const span = computed(() => `${format.temperature(4)} and ${format.temperature(zone.value!.hotC)}`)
const words = computed(() => {
  const { over, counting, until, setC, hours, unsaidH, limitH } = zone.value!
  if (over)
    return `Over two hours in all between ${span.value}: published guidance (USDA) is to discard it. Above ${format.temperature(32)} each hour counts twice.`
  if (hours >= limitH)
    return `For about ${format.hours(unsaidH)} nobody wrote where it stood: unless that was in the cold, it is over two hours between ${span.value}, and guidance (USDA) is to discard it. Log where it was kept.`
  const spent = `${format.hours(hours)} of two hours between ${span.value} are spent.`
  if (!counting) return `${spent} It stands still now.`
  const mend = setC === undefined ? 'in the cold, or hot' : `at ${format.temperature(zone.value!.hotC)} or more`
  return `${spent} By ${format.time(until!)} it must be ${mend}${setC === undefined ? '' : `: ${format.temperature(setC)} is too low while it is moist`}.`
})
</script>

<template>
  <section v-if="zone || cool" class="card" aria-label="Perishable" role="status">
    <h3>{{ zone?.over ? 'Too long in the warm' : 'Perishable' }}</h3>
    <p v-if="zone" :class="zone.over ? 'problem' : zone.counting ? 'caution' : 'quiet'">{{ words }}</p>
    <p v-if="cool && !zone?.over" :class="cool.hours > cool.limitH ? 'caution' : 'quiet small'">{{ coolWords }}</p>
    <div v-if="zone?.over && state.stage !== 'shelf'" class="row"><ElButton @click="emit('act', 'finish')">It is discarded</ElButton></div>
  </section>
</template>
