<script setup lang="ts">
import { formMade, grindsAgain, toGrindG, type GroundForm } from '#core/batch'
import { targetIn } from '#core/foods'
import type { BatchState, EntryBody } from '#core/log'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** The sum of a grinding: what went in, what came out. Its rounds have a page of their own. */
const props = defineProps<{ state: BatchState; page?: BatchAnswer; initial?: Extract<EntryBody, { kind: 'grind' }> }>()
const format = useFormat()
/** Pieces first; where none are left, the powder once more. */
const again = ref(props.initial?.again ?? grindsAgain(props.state))
const dryInG = ref(props.initial?.dryInG ?? toGrindG(props.state, again.value))
/** Coarse or fine: a part of a batch may become what the rest is not meant for. */
const usualMade = formMade({}, props.state.purpose)
const makes = ref<GroundForm>(props.initial?.makes ?? usualMade)
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
        makes: makes.value === usualMade ? undefined : makes.value,
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
    v-if="state.powderG > 0 && state.left.pieces"
    v-model="again"
    label="Into the cup"
    :choices="[
      { value: false, words: 'The other dry pieces' },
      { value: true, words: 'Powder, once more' },
    ]"
  />
  <ChoiceField
    v-model="makes"
    label="It becomes"
    :choices="[
      { value: 'powder', words: 'powder' },
      { value: 'flakes', words: 'flakes' },
    ]"
  />
  <p v-if="state.purpose === 'pieces' && !again" class="caution">
    Pieces are dry enough to keep at {{ format.share(targetIn(state.food, 'pieces', state.run?.way.way)) }} water; powder wants
    {{ format.share(targetIn(state.food, 'powder', state.run?.way.way)) }}, or it sticks and sets. Dry what you grind a little longer.
  </p>
  <div class="pair">
    <WeightField :key="String(again)" v-model="dryInG" :label="again ? 'Powder in' : 'Dry in'" required />
    <WeightField
      :key="milled"
      v-model="powderOutG"
      :label="makes === 'flakes' ? 'Flakes out' : 'Powder out'"
      :hint="lost"
      required
      autofocus
    />
  </div>
  <MillCleaned v-model="cleaned" />
  <TextField v-model="note" label="Note" optional />
</template>
