<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { startOfDay } from '#core/planning'
import type { FormReading } from '~/composables/useBatch'
import { usualDuskMinute } from '#core/sun'
import { MINUTE } from '#core/time'

/** The weather as the person sees it: no service is asked. */
const props = defineProps<{ state: BatchState; initial?: Extract<EntryBody, { kind: 'outlook' }> }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const run = props.state.run!
const known = props.initial ?? run.outlook
const dusk = ref(format.clock(known ? known.duskMinute : usualDuskMinute(Date.now(), settings.value)))
const rain = ref<number | undefined>(known?.rainAt)
const day = ref<'none' | 'today' | 'tomorrow'>(known?.rainAt === undefined ? 'none' : 'today')
const rainTime = ref(format.clock(15 * 60))
function read(): FormReading {
  const duskMinute = minuteOfDay(dusk.value)
  if (duskMinute === undefined) return { problem: `Say when it comes in at dusk, such as ${format.clock(18 * 60 + 30)}.` }
  const minute = minuteOfDay(rainTime.value)
  if (day.value !== 'none' && minute === undefined) return { problem: `Say when rain is expected, such as ${format.clock(15 * 60)}.` }
  const rainAt =
    day.value === 'none' ? undefined : startOfDay(Date.now(), settings.value.timeZone, day.value === 'today' ? 0 : 1) + minute! * MINUTE
  rain.value = rainAt
  const duskAt = startOfDay(Date.now(), settings.value.timeZone, 0) + duskMinute * MINUTE
  return { bodies: [{ kind: 'outlook', runId: run.runId, duskMinute, duskAt, rainAt }] }
}
defineExpose({ read })
</script>

<template>
  <TextField v-model="dusk" label="In at dusk" hint="every day until you say otherwise" />
  <ChoiceField
    v-model="day"
    label="Rain"
    :choices="[
      { value: 'none', words: 'None expected' },
      { value: 'today', words: 'Today' },
      { value: 'tomorrow', words: 'Tomorrow' },
    ]"
  />
  <TextField v-if="day !== 'none'" v-model="rainTime" label="At" />
</template>
