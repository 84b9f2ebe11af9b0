<script setup lang="ts">
import { doubtOfWeight, type Assessment } from '#core/batch'
import type { BatchState, EntryBody } from '#core/log'
import { tareOf } from '#core/machines'
import { formatWeight, parseWeight } from '#core/units'
import type { BatchAnswer } from '#shared/contracts'

/** Number, Enter, next tray: each Enter is written at once. */
const props = defineProps<{
  state: BatchState
  page: BatchAnswer
  assessment?: Assessment
  write: (bodies: readonly EntryBody[], options: { at?: number }) => Promise<void>
  /** What was typed while the dialog opened. */
  takeTyped: () => string
}>()
const emit = defineEmits<{ close: [] }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const open = ref(true)
const run = computed(() => props.state.run!)
const machine = computed(() => props.page.machines.find(item => item.id === run.value.machineId))

/** What lies on the scale: the whole load (0), or one tray. */
const what = ref(0)
const typed = ref('')
const withTray = ref(localStorage.getItem('dulse.withTray') === 'yes')
const done = ref<Record<number, number>>({})
const problem = ref('')
/** A weight far from the curve: asked about once, kept if it is entered again. */
const question = ref<{ typed: string; words: string }>()
const told = ref('')
watch(typed, now => {
  if (question.value && question.value.typed !== now) question.value = undefined
})
const busy = ref(false)
/** It was weighed earlier, at an instant; now where nothing is said. */
const at = ref<number>()
const input = ref<{ focus: () => void; blur: () => void }>()
function weighNext(tray: number) {
  what.value = tray
  input.value?.focus()
}
watch(withTray, value => localStorage.setItem('dulse.withTray', value ? 'yes' : 'no'))

/** Where a tray stands now: that is what is written on it for whoever weighs. */
const placeOf = (tray: number) => run.value.places.placeAt(tray, Infinity)
const present = computed(() => [...run.value.present].sort((a, b) => placeOf(a) - placeOf(b)))
const trays = computed(() => [
  { position: 0, words: 'All' },
  ...present.value.map(position => ({ position, words: `Tray ${placeOf(position)}` })),
])
if (run.value.traysWeighed) what.value = present.value[0]!
const tareG = computed(() =>
  withTray.value && machine.value ? tareOf(machine.value, what.value === 0 ? run.value.present : [what.value]) : 0,
)
const parsed = computed(() => (typed.value.trim() === '' ? undefined : parseWeight(typed.value, settings.value.weightUnit)))
const netG = computed(() => (parsed.value?.value === undefined ? undefined : Math.round((parsed.value.value - tareG.value) * 10) / 10))
const lastG = computed(() => {
  if (what.value === 0) return run.value.weighings.at(-1)?.weightG ?? run.value.loadedG
  return run.value.trays.find(tray => tray.position === what.value)?.weightG
})
const shown = computed(() => {
  if (parsed.value?.problem) return parsed.value.problem
  if (netG.value === undefined)
    return lastG.value === undefined
      ? '\u00A0'
      : what.value === 0
        ? `last ${format.weight(lastG.value)}`
        : `loaded ${format.weight(lastG.value)}`
  if (tareG.value > 0) return `${formatWeight(netG.value, settings.value.weightUnit)} of food`
  return formatWeight(netG.value, settings.value.weightUnit)
})

/** A connected scale types for the hand: once asked, or at Enter with nothing typed; Enter again writes it. */
const scale = useScale(run.value.machineId)
/** On paper what is asked for is put on the scale: that costs half a minute with the door open. */
const paper = usePaper()
let onScale: Promise<void> | undefined
const weighOnPaper = () => (onScale ??= putOnScale().finally(() => (onScale = undefined)))
async function putOnScale() {
  problem.value = ''
  try {
    const grams = await paper!.weigh(what.value === 0 ? 0 : placeOf(what.value))
    typed.value = formatWeight(grams + tareG.value, settings.value.weightUnit).replaceAll('\u00A0', ' ')
  } catch (error) {
    problem.value = (error as Error).message
  }
  input.value?.focus()
}
function takeScale() {
  if (scale.value) typed.value = formatWeight(scale.value.grams, settings.value.weightUnit).replaceAll('\u00A0', ' ')
  input.value?.focus()
}

/** A number that stands there is a weight: done means that it is written too, if it is one. */
async function finish() {
  if (typed.value.trim() !== '') await enter()
  if (typed.value.trim() === '' && !problem.value) open.value = false
}
const { asking, beforeClose, throwAway } = useUnsaved(
  () => open.value && typed.value.trim() !== '',
  () => (open.value = false),
)

async function opened() {
  input.value?.focus()
  for (const key of props.takeTyped()) {
    if (key === '\n') await enter()
    else typed.value += key
  }
}

function press(key: string) {
  typed.value = key === '⌫' ? typed.value.slice(0, -1) : typed.value + key
  input.value?.focus()
}

function doubtOf(grams: number, position: number): string | undefined {
  const estimate = props.assessment?.estimate
  const asked = estimate && doubtOfWeight(run.value, estimate, grams, Date.now(), position === 0 ? undefined : position)
  if (!asked) return undefined
  return `The curve expects ${format.weightRange(asked.expectedG)} by now; this is ${format.weight(Math.abs(asked.offG))} ${asked.offG > 0 ? 'above' : 'below'}. A slip, or right? Enter again keeps it.`
}

/** Quick hands are at the next tray while this one is being written, or still on the scale: their Enter waits its turn. */
let queued = false
async function enter() {
  if (busy.value || onScale) {
    if (queued) return
    queued = true
    await (onScale ?? until(busy).toBe(false))
    queued = false
    if (!open.value) return
  }
  problem.value = ''
  if (typed.value.trim() === '' && paper) return weighOnPaper()
  if (typed.value.trim() === '' && scale.value) return takeScale()
  if (netG.value === undefined) {
    problem.value = parsed.value?.problem ?? 'Type what the scale shows.'
    return
  }
  if (netG.value <= 0) {
    problem.value = 'The tray alone weighs more than this. Is the tray on the scale at all?'
    return
  }
  const grams = netG.value
  const entered = typed.value
  const position = what.value
  const asked = question.value?.typed
  busy.value = true
  // What is typed from here on is the next weight.
  typed.value = ''
  // Quick hands come before the estimate that questions a slip; without one after a while the weight is taken as it is.
  if (!paper) await until(() => props.assessment).toBeTruthy({ timeout: 5000 })
  // On paper Dulse keeps still until one has said what one believes.
  const doubt = paper ? undefined : doubtOf(grams, position)
  if (doubt && asked !== entered) {
    typed.value = entered
    question.value = { typed: entered, words: doubt }
    busy.value = false
    return
  }
  question.value = undefined
  try {
    await props.write(
      [position === 0 ? { kind: 'weigh', totalG: grams } : { kind: 'weigh', trays: [{ position: placeOf(position), weightG: grams }] }],
      { at: at.value },
    )
    done.value = { ...done.value, [position]: grams }
    told.value = `${position === 0 ? 'The load' : `Tray ${placeOf(position)}`}: ${format.weight(grams)} is logged.`
    const next =
      position === 0 ? undefined : present.value.find(item => placeOf(item) > placeOf(position) && done.value[item] === undefined)
    if (next === undefined) open.value = false
    else what.value = next
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    problem.value = error.message
    typed.value ||= entered
  } finally {
    busy.value = false
    if (open.value) input.value?.focus()
    // A dialog that is closing leaves the next key to the page.
    else input.value?.blur()
  }
}
</script>

<template>
  <ElDialog v-model="open" title="Weigh" width="420px" align-center :before-close="beforeClose" @opened="opened" @closed="emit('close')">
    <form class="form" @submit.prevent="enter">
      <div class="trays" role="radiogroup" aria-label="On the scale">
        <button
          v-for="tray in trays"
          :key="tray.position"
          type="button"
          role="radio"
          :aria-checked="what === tray.position"
          class="tray"
          :class="{ on: what === tray.position, done: done[tray.position] !== undefined }"
          @click="weighNext(tray.position)"
        >
          {{ tray.words }}<span v-if="done[tray.position] !== undefined" class="small"> {{ format.weight(done[tray.position]!) }}</span>
        </button>
      </div>
      <div class="display">
        <ElInput
          ref="input"
          v-model="typed"
          class="typed"
          inputmode="none"
          autocomplete="off"
          :aria-label="what === 0 ? 'Weight of the whole load' : `Weight of tray ${placeOf(what)}`"
          aria-describedby="weigh-reads"
        />
        <span id="weigh-reads" class="quiet" aria-live="polite">{{ shown }}</span>
      </div>
      <button v-if="paper" type="button" class="scale" @click="weighOnPaper">
        Put it on the scale<span class="take">Half a minute, door open</span>
      </button>
      <button v-else-if="scale" type="button" class="scale" @click="takeScale">
        The scale shows <strong>{{ format.weight(scale.grams) }}</strong>{{ scale.steady ? ', steady' : ''
        }}<span class="take">Use this weight</span>
      </button>
      <div class="pad">
        <button
          v-for="key in ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0', '⌫']"
          :key="key"
          type="button"
          class="pad-key"
          tabindex="-1"
          :aria-label="key === '⌫' ? 'Delete' : key"
          @click="press(key)"
        >
          {{ key }}
        </button>
      </div>
      <ElCheckbox v-if="machine && tareOf(machine, run.present) > 0" v-model="withTray" class="tare"
        >Tray on the scale ({{ format.weight(tareOf(machine, what === 0 ? run.present : [what])) }} is taken off)</ElCheckbox
      >
      <WhenField v-model="at" />
      <div role="status">
        <p v-if="question" class="caution">{{ question.words }}</p>
      </div>
      <div role="alert">
        <p v-if="problem" class="problem">{{ problem }}</p>
      </div>
      <p class="visually-hidden" aria-live="polite">{{ told }}</p>
      <UnsavedNote v-if="asking" :words="`${typed} is typed and not saved.`" @keep="asking = false" @throw-away="throwAway" />
      <div class="row save-bar">
        <ElButton type="primary" native-type="submit" class="enter" :loading="busy">Enter</ElButton>
        <ElButton @click="finish">Done</ElButton>
      </div>
    </form>
  </ElDialog>
</template>

<style scoped>
.trays {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.tray {
  min-height: 44px;
  padding: 0 0.75rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  cursor: pointer;
}
.tray.on {
  border-color: var(--dulse);
  box-shadow: inset 0 0 0 1px var(--dulse);
  background: var(--dulse-wash);
  font-weight: 700;
}
.tray.done {
  color: var(--kelp);
}
.display {
  display: grid;
  gap: 0.2rem;
}
.typed :deep(.el-input__inner) {
  height: 58px;
  font: 700 2rem var(--display);
  text-align: right;
}
.display span {
  text-align: right;
}
.scale {
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
  min-height: 48px;
  padding: 0.6rem 0.9rem;
  border: 1px dashed var(--quiet);
  border-radius: 8px;
  background: var(--kelp-wash);
  cursor: pointer;
}
.take {
  margin-left: auto;
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.pad {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.4rem;
}
.pad-key {
  min-height: 54px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--sunk);
  font: 650 1.35rem var(--display);
  cursor: pointer;
}
.pad-key:active {
  background: var(--rule);
}
.tare {
  height: 44px;
  white-space: normal;
}
.enter {
  flex: 1;
}
</style>
