<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/batch'
import { GLASS, grindBelowC, lidRestS, planGrinding } from '#core/grinding'
import { looseGMl } from '#core/keeping'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

const props = defineProps<{ state: BatchState, page?: BatchAnswer, initial?: Extract<EntryBody, { kind: 'grind' }> }>()
const format = useFormat()
const already = props.state.grinds.reduce((sum, entry) => sum + entry.body.dryInG, 0)
const dryInG = ref<number | undefined>(props.initial?.dryInG ?? (already === 0 && props.state.dryG !== undefined ? Math.round(props.state.dryG) : undefined))
const powderOutG = ref<number | undefined>(props.initial?.powderOutG)
const note = ref(props.initial?.note ?? '')
const cautions = ref<{ problem: () => string | undefined, bodies: () => EntryBody[] }>()
const accepted = new Set([...props.page?.accepted ?? [], ...props.state.accepted])
// The cup at hand: the same one every time, so the browser remembers it.
const kept = JSON.parse(localStorage.getItem('dulse.cup') ?? '{}') as { ml?: number, watts?: number }
const cupMl = ref<number | undefined>(kept.ml ?? 250)
const watts = ref<number | undefined>(kept.watts ?? 150)
watch([cupMl, watts], ([ml, power]) => localStorage.setItem('dulse.cup', JSON.stringify({ ml, watts: power })))
const ROOM_C = 22
const CUP_CM = 8
const MOST_C = 45
const glass = GLASS[props.state.food.isotherm]
const stickyC = grindBelowC(glass, props.state.food.target[props.state.purpose])
const hot = props.state.food.traits.includes('hot')
/** Rounds, bursts and rests for this cup; undefined while something is missing, or where it sticks even cold. */
const plan = computed(() => dryInG.value && cupMl.value && watts.value && stickyC > ROOM_C + 2
  ? planGrinding({ dryG: dryInG.value, looseGMl: looseGMl(props.state.food.powderDensity.value.mean, 'pieces'), cupMl: cupMl.value, watts: watts.value, startC: ROOM_C, mostC: Math.min(MOST_C, stickyC) })
  : undefined)
const lidWords = computed(() => {
  const seconds = lidRestS(CUP_CM, hot)
  return seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} min`
})
const lost = computed(() => dryInG.value && powderOutG.value !== undefined && powderOutG.value <= dryInG.value ? `${format.weight(dryInG.value - powderOutG.value)} dust and sieve` : undefined)

function read(): FormReading {
  if (dryInG.value === undefined) return { problem: 'Weigh what goes into the cup.' }
  if (powderOutG.value === undefined) return { problem: 'Weigh what came out of the cup.' }
  const unread = cautions.value?.problem()
  if (unread) return { problem: unread }
  return { bodies: [...cautions.value?.bodies() ?? [], { kind: 'grind', dryInG: dryInG.value, powderOutG: powderOutG.value, note: note.value.trim() || undefined }] }
}
defineExpose({ read })
</script>

<template>
  <CautionList ref="cautions" step="grind" :food="state.food" :accepted="accepted" />
  <p class="quiet">Pulse first, then short runs: a long one heats the cup, and warm powder sticks.</p>
  <div class="pair">
    <WeightField v-model="dryInG" label="Dry in" required />
    <WeightField v-model="powderOutG" :label="state.purpose === 'flakes' ? 'Flakes out' : 'Powder out'" :hint="lost" required autofocus />
  </div>
  <details v-if="!initial" class="plan">
    <summary>{{ plan ? `${plural(plan.rounds, 'round')} of about ${format.weight(plan.gramsPerRound)}, bursts of ${plan.burstS} s, lid shut ${lidWords} after` : 'The cup' }}</summary>
    <div class="pair"><NumberField v-model="cupMl" label="Cup, mL" bare :least="20" :most="5000" :decimals="0" /><NumberField v-model="watts" label="Power, W" bare :least="20" :most="3000" :decimals="0" /></div>
    <p v-if="plan" class="small">A round: {{ plural(plan.burstsPerRound, 'burst') }} of {{ plan.burstS }} s with {{ plan.restS }} s between, about {{ format.hours(plan.minutes / 60) }} in all. Warmer than {{ format.temperature(Math.min(MOST_C, stickyC)) }} it would stick; fill the cup two thirds, or seed it with powder. Fine dust hangs in the cup for {{ lidWords }}.</p>
    <p v-else-if="stickyC <= ROOM_C + 2" class="caution">Sweet or sour as it is, it sticks at {{ format.temperature(stickyC) }} already: chill pieces and cup in the freezer, dry it further, or take it as flakes.</p>
  </details>
  <TextField v-model="note" label="Note" optional />
</template>

<style scoped>
.plan summary { cursor: pointer; min-height: 44px; align-content: center; font-weight: 650; } .plan .pair { margin: 0.3rem 0 0.6rem; }
</style>
