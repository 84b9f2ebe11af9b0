<script setup lang="ts">
import { grindsAgain, toGrindG } from '#core/batch'
import type { BatchState, EntryBody } from '#core/log'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** The sum of a grinding: what went in, what came out. Its rounds have a page of their own. */
const props = defineProps<{ state: BatchState; page?: BatchAnswer; initial?: Extract<EntryBody, { kind: 'grind' }> }>()
const format = useFormat()
/** Pieces first; where none are left, the powder once more. */
const again = ref(props.initial?.again ?? grindsAgain(props.state))
const dryInG = ref(props.initial?.dryInG ?? toGrindG(props.state, again.value))
watch(again, powder => (dryInG.value = toGrindG(props.state, powder)))
const paper = usePaper()
// A form that was closed after the mill had run finds its powder again.
const found = paper?.powderG.value !== undefined
const powderOutG = ref<number | undefined>(props.initial?.powderOutG ?? paper?.powderG.value)
/** How often the mill on paper gave something: the field is drawn anew with it. */
const milled = ref(0)
function takeMilled({ powderG }: { powderG: number }) {
  powderOutG.value = powderG
  milled.value++
}
/** Another food's dust is an allergen's way into this one: only a wash ends that. */
const cleaned = ref<'washed' | 'brushed' | undefined>(props.initial?.cleaned)
const note = ref(props.initial?.note ?? '')
const cautions = ref<{ problem: () => string | undefined; bodies: () => EntryBody[] }>()
const accepted = new Set([...(props.page?.accepted ?? []), ...props.state.accepted])
const wentInG = computed(() => dryInG.value && dryInG.value + (props.initial?.seed?.weightG ?? 0))
const lost = computed(() =>
  wentInG.value && powderOutG.value !== undefined && powderOutG.value <= wentInG.value
    ? `${format.weight(wentInG.value - powderOutG.value)} dust and sieve`
    : undefined,
)

function read(): FormReading {
  if (dryInG.value === undefined) return { problem: 'Weigh what goes into the cup.' }
  if (powderOutG.value === undefined) return { problem: 'Weigh what came out of the cup.' }
  const unread = cautions.value?.problem()
  if (unread) return { problem: unread }
  // A correction keeps the rounds where they still add up.
  const kept = props.initial?.dryInG === dryInG.value ? props.initial : props.initial && { ...props.initial, rounds: undefined }
  return {
    bodies: [
      ...(cautions.value?.bodies() ?? []),
      {
        ...kept,
        kind: 'grind',
        dryInG: dryInG.value,
        powderOutG: powderOutG.value,
        again: again.value || undefined,
        cleaned: cleaned.value,
        note: note.value.trim() || undefined,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <CautionList ref="cautions" step="grind" :food="state.food" :accepted="accepted" />
  <PaperMill v-if="paper && !initial && !found" :paper="paper" @ground="takeMilled" />
  <p class="quiet">Pulse first, then short runs: a long one heats the cup, and warm powder sticks.</p>
  <ChoiceField
    v-if="state.powderG > 0 && state.piecesLeftG"
    v-model="again"
    label="Into the cup"
    :choices="[
      { value: false, words: 'The other dry pieces' },
      { value: true, words: 'Powder, once more' },
    ]"
  />
  <div class="pair">
    <WeightField :key="String(again)" v-model="dryInG" :label="again ? 'Powder in' : 'Dry in'" required />
    <WeightField
      :key="milled"
      v-model="powderOutG"
      :label="state.purpose === 'flakes' ? 'Flakes out' : 'Powder out'"
      :hint="lost"
      required
      autofocus
    />
  </div>
  <MillCleaned v-model="cleaned" />
  <TextField v-model="note" label="Note" optional />
</template>
