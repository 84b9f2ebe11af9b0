<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import type { MachinePageAnswer, NewBatch } from '#shared/contracts'

/**
 * A tray that goes in after the others. It has a drying clock of its own, so it becomes a batch of its
 * own: food, cut and purpose are taken from the one that it is more of.
 */
const props = defineProps<{ page: MachinePageAnswer; place: number }>()
const emit = defineEmits<{ close: []; saved: [] }>()
const outbox = useOutboxStore()
const batches = computed(() => props.page.run?.batches ?? [])
const of = ref(batches.value[0]?.batchId)
const weightG = ref<number>()

async function save() {
  if (weightG.value === undefined) return ['Weigh what lies on the tray: without this weight nobody knows later how dry it is.']
  const batch = batches.value.find(item => item.batchId === of.value)
  const state = batch && foldBatch(batch.entries, () => batch.food)
  if (!batch || !state) return ['Nothing dries in this machine any more: load it instead.']
  const batchId = uuidv7()
  const at = Date.now()
  const { foodKey, cultivar, source, purpose, cardKey } = state.intake.body
  const intake: NewBatch = {
    id: batchId,
    entry: {
      id: uuidv7(),
      at,
      body: {
        kind: 'intake',
        foodKey,
        cultivar,
        source,
        purpose,
        cardKey,
        weightG: weightG.value,
        condition: `late tray, more of batch ${batch.number}`,
      },
    },
  }
  const cut: Extract<EntryBody, { kind: 'prep' }> = {
    kind: 'prep',
    step: 'cut',
    effect: 'none',
    cutName: state.cutName,
    thicknessMm: state.thicknessMm,
    by: state.cutBy,
  }
  const load: Extract<EntryBody, { kind: 'load' }> = {
    kind: 'load',
    runId: props.page.run!.runId,
    machineId: props.page.machine.id,
    positions: [props.place],
    totalG: weightG.value,
  }
  await outbox.sendTogether(
    [{ begin: intake }, { batchId, entry: { id: uuidv7(), at, body: cut } }, { batchId, entry: { id: uuidv7(), at, body: load } }],
    'a late tray',
  )
  emit('saved')
}
</script>

<template>
  <FormFrame :title="`A late tray at place ${place}`" width="520px" verb="Put it in" :save="save" @close="emit('close')">
    <ChoiceField
      v-model="of"
      label="More of"
      :choices="batches.map(batch => ({ value: batch.batchId, words: batch.title, note: `batch ${batch.number}` }))"
    />
    <WeightField v-model="weightG" label="On the tray, food only" required autofocus />
    <p class="quiet">
      It is dried by a clock of its own from now, as a batch with a number of its own. Wet food beside nearly dry food gives its moisture to
      the air of both: put it above or behind.
    </p>
    <p class="quiet small">Another food? <NuxtLink to="/intake">Take the basket in</NuxtLink>, then load it into this machine.</p>
  </FormFrame>
</template>
