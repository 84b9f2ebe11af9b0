<script setup lang="ts">
import { holdLimit, spentAt, waitingAs } from '#core/batch'
import { HOLD_PLACES, HOLD_WORDS, type BatchState, type EntryBody, type HoldPlace } from '#core/log'
import type { FormReading } from '~/composables/useBatch'
import { DAY, HOUR } from '#core/time'

/** Work stops: where the food waits, and how long it may. */
type Hold = Extract<EntryBody, { kind: 'hold' }>
const props = defineProps<{ state: BatchState; initial?: Hold }>()
const format = useFormat()
const waiting = waitingAs(props.state)
const spentH = spentAt(props.state, Date.now())
const place = ref<HoldPlace | 'back'>(props.initial ? (props.initial.place ?? 'back') : props.state.hold ? 'back' : 'refrigerator')
const hot = ref(false)
const limit = (where: HoldPlace) => holdLimit(where, waiting, props.state.food, { roomC: hot.value ? 35 : undefined, spentH })
const words = (ms: number) => (ms < DAY ? format.hours(ms / HOUR) : plural(Math.round(ms / DAY), 'day'))
const read = (): FormReading => ({
  bodies: [
    { kind: 'hold', place: place.value === 'back' ? null : place.value, roomC: hot.value && place.value === 'counter' ? 35 : undefined },
  ],
})
defineExpose({ read })
</script>

<template>
  <ChoiceField
    v-model="place"
    label="Kept"
    :choices="[
      ...HOLD_PLACES.map(value => ({ value, words: HOLD_WORDS[value], note: `at most ${words(limit(value))}` })),
      ...(state.hold || initial ? [{ value: 'back' as const, words: 'taken up again' }] : []),
    ]"
  />
  <ElCheckbox v-if="place === 'counter' && waiting !== 'dry'" v-model="hot" size="large"
    >The room is above {{ format.temperature(32) }}</ElCheckbox
  >
  <p class="quiet">
    {{
      waiting === 'dry'
        ? 'In doubt and without time: cold it keeps, and is dried on later.'
        : waiting === 'cut'
          ? 'Cut or cooked, it goes cold within two hours.'
          : state.food.traits.includes('perishable')
            ? 'It spoils in the warm: cold within two hours in all.'
            : 'Uncut it waits as fresh food does.'
    }}
    You are reminded before its time is over.
  </p>
</template>
