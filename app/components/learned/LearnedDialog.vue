<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { EntryBody } from '#core/log'
import type { LearnedAnswer, RunBehind } from '#shared/contracts'

/** What was learned of one thing, and the runs that it comes from; one that was not like the others can be left out, with its reason. */
const props = defineProps<Pick<LearnedAnswer, 'kind'> & { of: string }>()
const emit = defineEmits<{ close: [] }>()
const format = useFormat()
const open = ref(true)
const { answer, problem, load } = useServer('learned', () => ({ query: { kind: props.kind, key: props.of } }))
const asked = ref<string>()
const reason = ref('')
const refused = ref('')
const busy = ref(false)
const words = computed(() => {
  const { effect, name } = answer.value ?? {}
  if (!effect || !name) return undefined
  return {
    machine: paceWords,
    food: (of: string, told: typeof effect) =>
      foodWords(of, told) ?? `${of} takes about as long as its card, from ${plural(told.runs, 'run')}.`,
    person: personWords,
  }[props.kind](name, effect)
})
const off = ({ hours }: RunBehind) => {
  const percent = Math.round(Math.abs(hours - 1) * 100)
  return percent === 0 ? 'as its card' : `${percent}\u00A0% ${hours > 1 ? 'longer' : 'less'}`
}
/** From half to double of the card's hours, the card in the middle. */
const place = (hours: number) => `${50 + 50 * Math.min(1, Math.max(-1, Math.log2(hours)))}%`
const counts = ({ counts: share }: RunBehind) =>
  share > 0.75 ? 'counts in full' : share > 0.4 ? 'counts by half' : share > 0.15 ? 'counts a little' : 'hardly counts'

async function log(batchId: string, body: EntryBody) {
  if (busy.value) return
  busy.value = true
  refused.value = ''
  try {
    await call('logOnBatch', { params: { batchId }, body: { id: uuidv7(), at: Date.now(), body: body as never } })
    asked.value = undefined
    reason.value = ''
    await load()
  } catch (error) {
    refused.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
function leaveOut(run: RunBehind) {
  if (reason.value.trim() === '') refused.value = 'Say why, such as: the door stood open.'
  else void log(run.batchId, { kind: 'leaveOut', reason: reason.value.trim() })
}
</script>

<template>
  <ElDialog
    v-model="open"
    :title="answer ? `What runs taught of ${answer.name}` : 'What runs taught'"
    width="720px"
    align-center
    append-to-body
    @closed="emit('close')"
  >
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-if="answer">
      <p v-if="words">{{ words }}</p>
      <p v-else class="quiet">No run of it counts yet: the cards’ hours stand.</p>
      <ol v-if="answer.runs.length" class="plain-list">
        <li v-for="run in answer.runs" :key="run.batchId" :class="{ out: run.leftOut }">
          <div class="run">
            <NuxtLink :to="`/batches/${run.batchId}`" @click="open = false">{{ run.number }} · {{ run.title }}</NuxtLink>
            <span class="quiet small">{{ format.date(run.loadedAt) }}{{ kind === 'machine' ? '' : `, ${run.machineName}` }}</span>
          </div>
          <div class="axis" aria-hidden="true">
            <span class="mark" :style="{ left: place(run.hours), opacity: 0.25 + 0.75 * run.counts }" />
          </div>
          <div class="small">
            {{ off(run) }}<span class="quiet">, {{ run.leftOut ? 'left out' : counts(run) }}</span>
          </div>
          <button
            v-if="run.leftOut"
            type="button"
            class="word-button"
            :disabled="busy"
            @click="log(run.batchId, { kind: 'void', target: run.leftOut.entryId, reason: 'it teaches again' })"
          >
            Count it again
          </button>
          <button
            v-else
            type="button"
            class="word-button"
            :aria-expanded="asked === run.batchId"
            @click="asked = asked === run.batchId ? undefined : run.batchId"
          >
            Leave out
          </button>
          <p v-if="run.leftOut" class="quiet small why">{{ format.sentence(run.leftOut.reason) }}</p>
          <form v-if="asked === run.batchId" class="why row" @submit.prevent="leaveOut(run)">
            <TextField v-model="reason" label="Why it is not like the others" hint="such as: the door stood open" />
            <ElButton native-type="submit" :loading="busy">Leave it out</ElButton>
          </form>
        </li>
      </ol>
      <div role="alert">
        <p v-if="refused" class="problem">{{ refused }}</p>
      </div>
      <p v-if="answer.runs.length" class="quiet small">
        Marks stand on a line from half to twice the card’s hours. Old runs, runs that were hardly weighed and those far off all others
        count less; one that is left out teaches nothing, of its hours, its solids or its yields.
      </p>
    </template>
  </ElDialog>
</template>

<style scoped>
ol {
  display: grid;
  gap: 0.2rem;
  margin: 0.6rem 0;
  max-height: min(56vh, 520px);
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 13.4rem auto;
  gap: 0 0.8rem;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.run {
  display: grid;
}
.out .run a {
  text-decoration: line-through;
}
.axis {
  position: relative;
  height: 20px;
  background:
    linear-gradient(var(--quiet), var(--quiet)) center / 1px 100% no-repeat,
    var(--sunk);
  border-radius: 4px;
}
.mark {
  position: absolute;
  inset-block: 2px;
  width: 3px;
  margin-left: -1.5px;
  background: var(--kelp);
  border-radius: 2px;
}
.why {
  grid-column: 1 / -1;
  padding-bottom: 0.5rem;
}
@media (width <= 600px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  ol {
    max-height: 64vh;
  }
  .axis {
    grid-column: 1 / -1;
  }
}
</style>
