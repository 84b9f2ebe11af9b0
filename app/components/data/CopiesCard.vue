<script setup lang="ts">
import type { Copy, CopyLoss } from '#shared/api'
import { DAY } from '#core/time'

/** Copies that Dulse makes by itself: how old, where, and put back after a look at what that would lose. */
const format = useFormat()
const { now } = useClock()
const { answer, problem, load } = useServer('copies')
const copies = computed(() => answer.value?.copies ?? [])
const asked = ref<{ copy: Copy; loss: CopyLoss }>()
const busy = ref(false)
const told = ref('')
const refused = ref('')

const age = ({ madeAt }: Copy) => {
  const days = Math.floor((now.value - madeAt) / DAY)
  return days < 1 ? 'today' : plural(days, 'day') + ' old'
}
async function work(what: () => Promise<string>) {
  busy.value = true
  told.value = ''
  refused.value = ''
  try {
    told.value = await what()
    await load()
  } catch (error) {
    refused.value =
      error instanceof Refused ? error.message : 'No copy was made: the server did not answer, or its disk is full or damaged.'
  } finally {
    busy.value = false
  }
}
const copyNow = () =>
  work(async () => {
    const copy = await call('makeCopy')
    return `Copied: ${copy.name}, and looked through to its last page.`
  })
const ask = (copy: Copy) =>
  work(async () => {
    asked.value = { copy, loss: await call('copyLoss', { params: { name: copy.name } }) }
    return ''
  })
const putBack = () =>
  work(async () => {
    const { batches, entries, aside } = await call('restoreCopy', { params: { name: asked.value!.copy.name } })
    asked.value = undefined
    return `Put back: ${plural(batches, 'batch', 'batches')}, ${plural(entries, 'entry', 'entries')}. What stood there is kept as ${aside}.`
  })
</script>

<template>
  <section class="stack" aria-label="Copies">
    <div class="row between">
      <h3>Copies by itself</h3>
      <ElButton :loading="busy" @click="copyNow">Copy now</ElButton>
    </div>
    <p class="quiet small">
      One for each day on which something was written, looked through to its last page; seven days, five weeks and twelve months are kept,
      {{ answer?.apart ? 'in the folder that DULSE_COPIES names' : 'beside the logbook; set DULSE_COPIES to a folder on another disk' }}.
    </p>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-if="answer && copies.length === 0" class="quiet">None yet: the first is made within the half hour of what is written first.</p>
    <ul class="plain-list">
      <li v-for="copy in copies.slice(0, 6)" :key="copy.name" class="row between line">
        <span
          ><strong>{{ copy.name.slice(8, 18) }}</strong>
          <span class="quiet">{{ age(copy) }}, {{ (copy.bytes / 1e6).toFixed(1) }} MB</span></span
        ><ElButton :aria-label="`Put the copy of ${copy.name.slice(8, 18)} back`" @click="ask(copy)">Put it back</ElButton>
      </li>
    </ul>
    <div v-if="asked" class="caution" role="alertdialog" aria-label="What would be lost">
      <div class="stack">
        <p v-if="asked.loss.entries === 0">Nothing was written since this copy: nothing would be lost.</p>
        <p v-else>
          <strong>{{ plural(asked.loss.entries, 'entry', 'entries') }}</strong> in {{ plural(asked.loss.batches, 'batch', 'batches') }} were
          written since{{ asked.loss.lastAt ? `, after ${format.moment(asked.loss.lastAt, now)}` : '' }}: they would be gone from the pages.
          The logbook as it is now is kept beside it.
        </p>
        <div class="row">
          <ElButton type="primary" :loading="busy" @click="putBack">Put the copy of {{ asked.copy.name.slice(8, 18) }} back</ElButton
          ><ElButton @click="asked = undefined">Cancel</ElButton>
        </div>
      </div>
    </div>
    <p v-if="told" role="status">{{ told }}</p>
    <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
  </section>
</template>

<style scoped>
.line {
  border-top: 1px solid var(--rule);
  padding: 0.3rem 0;
}
</style>
