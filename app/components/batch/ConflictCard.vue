<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { conflictsOf, type Entry, type EntryBody, type LogConflict } from '#core/log'
import type { Sent } from '~/data/parcel'

/** Two that were out of each other's reach logged what cannot both be: side by side, and settled by one press. */
const props = defineProps<{ entries: readonly Entry[]; place: { batchId: string } | { jarId: string }; now: number }>()
const emit = defineEmits<{ settled: [] }>()
const format = useFormat()
const outbox = useOutboxStore()
const conflicts = computed(() => conflictsOf(props.entries))
const busy = ref(false)
const refused = ref('')
const writers = computed(() => ({
  ...format,
  jarId: 'jarId' in props.place ? props.place.jarId : undefined,
  dayTime: (at: number) => format.moment(at, props.now),
}))

interface Side {
  words: string
  who: string
  at: number
  /** What is written where this side is right. */
  keep?: { body: EntryBody; at?: number; replaces?: string }[]
}
const whoOf = ({ writer }: Entry) => writer?.name ?? 'The computer of the house'
const sideOf = (entry: Entry, keep?: Side['keep']): Side => ({
  words: logWords(entry.body, writers.value),
  who: whoOf(entry),
  at: entry.at,
  keep,
})
const voiding = (entry: Entry, reason: string): { body: EntryBody } => ({ body: { kind: 'void', target: entry.id, reason } })

function sidesOf(conflict: LogConflict): { why: string; sides: Side[]; both?: [string, string] } {
  if (conflict.kind === 'weights') {
    const { first, second } = conflict
    return {
      why: 'Two weights of the same, at the same minute.',
      sides: [sideOf(first, [voiding(second, 'the other weight is right')]), sideOf(second, [voiding(first, 'the other weight is right')])],
      both: [first.id, second.id],
    }
  }
  const { late, against } = conflict
  const { said, replaces, because } = late.body
  const instead = against && [
    voiding(against, 'what came late is right'),
    voiding(late, 'taken after all'),
    { body: said as EntryBody, at: late.at, replaces },
  ]
  return {
    why: `What came late could not be taken as well: ${because}`,
    sides: [
      ...(against ? [sideOf(against, [voiding(late, 'the log is right')])] : []),
      { words: saidWords(said, writers.value), who: whoOf(late), at: late.at, keep: instead },
    ],
  }
}

async function write(written: NonNullable<Side['keep']>) {
  busy.value = true
  refused.value = ''
  try {
    const items = written.map(
      ({ body, at, replaces }) => ({ ...props.place, entry: { id: uuidv7(), at: at ?? Date.now(), replaces, body } }) as Sent,
    )
    await outbox.sendTogether(items, 'what was settled', 'batchId' in props.place ? props.place.batchId : props.place.jarId)
    emit('settled')
  } catch (error) {
    refused.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const bothStand = ([first, second]: [string, string]) =>
  write([{ body: { kind: 'settle', first, second, ...('jarId' in props.place ? { jarId: props.place.jarId } : {}) } }])
const leaveOut = (conflict: LogConflict) => conflict.kind === 'late' && write([voiding(conflict.late, 'left out')])
</script>

<template>
  <section v-if="conflicts.length" class="card conflict" aria-label="Say which is right">
    <h2>Say which is right</h2>
    <div v-for="(conflict, i) in conflicts" :key="i" class="stack">
      <p>{{ sidesOf(conflict).why }}</p>
      <div class="sides">
        <div v-for="(side, j) in sidesOf(conflict).sides" :key="j" class="side">
          <p class="quiet small">{{ side.who }}, {{ format.moment(side.at, now) }}</p>
          <p class="strong">{{ side.words }}</p>
          <ElButton v-if="side.keep" :disabled="busy" :aria-label="`This is right: ${side.words}, by ${side.who}`" @click="write(side.keep)"
            >This is right</ElButton
          >
        </div>
      </div>
      <div class="row">
        <ElButton v-if="sidesOf(conflict).both" text :disabled="busy" @click="bothStand(sidesOf(conflict).both!)">Both stand</ElButton>
        <ElButton v-else-if="conflict.kind === 'late' && !conflict.against" text :disabled="busy" @click="leaveOut(conflict)"
          >Leave it out</ElButton
        >
      </div>
    </div>
    <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
  </section>
</template>

<style scoped>
.conflict {
  background: var(--amber-wash);
  margin-bottom: 1rem;
}
.sides {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.8rem;
}
.side {
  background: var(--card);
  border-radius: 8px;
  padding: 0.8rem;
  display: grid;
  gap: 0.4rem;
  align-content: space-between;
  justify-items: start;
}
</style>
