<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { damperOf, foldBatch, grindsAgain, togetherOf, toGrindG, type CupShare, type PartAsked } from '#core/batch'
import type { BatchState, BodyOf, EntryBody } from '#core/log'
import { waterOf } from '#core/water'
import type { BatchAnswer, BatchSummary } from '#shared/contracts'
import type { Sent } from '~/data/parcel'

/** Dry food of several batches into the same cup: a batch of its own with their shares, which is ground then. */
const props = defineProps<{
  state: BatchState
  page: BatchAnswer
  write: (bodies: EntryBody[], more: { more: Sent[] }) => Promise<void>
  /** What follows, with the batch that they became: no event, since a batch that gave all of it is not at the mill any more. */
  together: (batchId: string) => Promise<void>
}>()
const format = useFormat()
const { answer } = useServer('batches', () => ({ query: { stage: 'grinding' as const } }))
const others = computed(() => (answer.value?.batches ?? []).filter(batch => batch.batchId !== props.page.batchId))

interface Other {
  number: number
  state: BatchState
  grams?: number
}
const chosen = ref(new Map<string, Other>())
const ownG = ref(toGrindG(props.state, false))
const problem = ref('')
const busy = ref(false)

async function choose({ batchId, number }: BatchSummary, on: boolean) {
  problem.value = ''
  if (!on) return void chosen.value.delete(batchId)
  try {
    const { entries, food } = await call('batch', { params: { batchId } })
    const state = foldBatch(entries, () => food)
    if (!state || grindsAgain(state)) problem.value = `Of batch ${number} no dry pieces are left: powders are mixed jar by jar.`
    else chosen.value.set(batchId, { number, state: markRaw(state), grams: toGrindG(state, false) })
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const waters = computed(() => [
  { number: props.page.number, water: waterOf(props.state).moisture },
  ...[...chosen.value.values()].map(({ number, state }) => ({ number, water: waterOf(state).moisture })),
])
/** Which of them is damper than the rest, and how that is known. */
const damper = computed(() => {
  const states = [props.state, ...[...chosen.value.values()].map(({ state }) => state)]
  const found = damperOf(
    waters.value.map(item => item.water),
    Math.min(...states.map(({ food }) => food.target.powder)),
  )
  if (!found) return undefined
  const { number, water } = waters.value[found.at]!
  return found.certain
    ? `Batch ${number} holds ${format.share(water.p10)} water at the least, more than the driest may: dry it on before it shares a cup.`
    : `Batch ${number} may hold ${format.share(water.p90)} water, more than the rest: weigh it, or feel a few pieces cold, before they share a cup.`
})

async function put() {
  const given = [{ batchId: props.page.batchId, number: props.page.number, state: props.state, grams: ownG.value }].concat(
    [...chosen.value].map(([batchId, { number, state, grams }]) => ({ batchId, number, state, grams })),
  )
  const unweighed = given.find(item => item.grams === undefined)
  if (unweighed) {
    problem.value = `Weigh what batch ${unweighed.number} gives.`
    return
  }
  const at = Date.now()
  const to = uuidv7()
  const shares = given.map(({ batchId, number, state, grams }): CupShare => {
    const asked: PartAsked = { batchId, number, grams: grams!, sdG: 0, form: 'pieces' }
    return { state, asked }
  })
  const whole = togetherOf(shares, at, props.state.purpose === 'pieces' ? 'powder' : props.state.purpose)
  const left = (grams: number): BodyOf<'split'> => ({ kind: 'split', weightG: grams, to, form: 'pieces', what: 'into one cup' })
  const send = (batchId: string, when: number, body: EntryBody) => ({ batchId, entry: { id: uuidv7(), at: when, body } }) as Sent
  busy.value = true
  problem.value = ''
  try {
    await props.write([left(ownG.value!)], {
      more: [
        ...given.slice(1).map(({ batchId, grams }) => send(batchId, at, left(grams!))),
        { begin: { id: to, entry: { id: uuidv7(), at: whole.at, body: whole.intake } } },
        ...whole.history.map(item => send(to, item.at, item.body)),
      ],
    })
    await props.together(to)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    problem.value = error.problems.map(item => item.message).join(' ')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <details v-if="others.length" class="card form">
    <summary>Others into the same cup</summary>
    <WeightField v-model="ownG" :label="`Of batch ${page.number}`" />
    <div v-for="batch in others" :key="batch.batchId">
      <ElCheckbox :model-value="chosen.has(batch.batchId)" size="large" @update:model-value="on => choose(batch, Boolean(on))"
        >Batch {{ batch.number }}: {{ batch.title }}</ElCheckbox
      >
      <WeightField v-if="chosen.has(batch.batchId)" v-model="chosen.get(batch.batchId)!.grams" :label="`Of batch ${batch.number}`" />
    </div>
    <p v-if="chosen.size > 0 && damper" class="caution">{{ damper }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="row">
      <ElButton :disabled="chosen.size === 0" :loading="busy" @click="put">Put them together</ElButton>
    </div>
    <p class="quiet small">They become a batch of their own with their shares; what is not put in stays where it is.</p>
  </details>
</template>
