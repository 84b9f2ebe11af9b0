<script setup lang="ts">
import { withStanding, type Entry } from '#core/batch'
import type { WeighInFlag } from '#core/kinetics'

const props = defineProps<{ entries: readonly Entry[], waits: ReadonlySet<string>, flags: ReadonlyMap<string, WeighInFlag>, now: number }>()
defineEmits<{ correct: [entry: Entry], void: [entry: Entry] }>()
const format = useFormat()

/** Newest first. A correction stands in the place of what it corrects, with the old figure beside it. */
const lines = computed(() => {
  const all = withStanding(props.entries)
  const older = new Map(all.filter(item => item.state === 'corrected').map(item => [item.by!, item.entry]))
  const voids = new Map(all.filter(item => item.state === 'voided').map(item => [item.entry.id, all.find(other => other.entry.id === item.by)?.entry]))
  return all
    .filter(item => item.state !== 'corrected' && item.entry.body.kind !== 'void')
    .map(({ entry, state }) => ({ entry, voided: state === 'voided', before: older.get(entry.id), reason: voids.get(entry.id)?.body }))
    .sort((a, b) => b.entry.at - a.entry.at || b.entry.seq - a.entry.seq)
})
const shownMost = ref(12)
</script>

<template>
  <section class="card" aria-label="Log">
    <h2>Log</h2>
    <ol class="plain-list lines">
      <li v-for="line in lines.slice(0, shownMost)" :key="line.entry.id" :class="{ voided: line.voided }">
        <time :datetime="new Date(line.entry.at).toISOString()">{{ format.moment(line.entry.at, now) }}</time>
        <div>
          <span class="what">{{ logWords(line.entry.body, format) }}</span>
          <span v-if="line.before" class="quiet small"> corrected; was: {{ logWords(line.before.body, format) }}{{ line.before.at !== line.entry.at ? `, ${format.moment(line.before.at, now)}` : '' }}</span>
          <span v-if="line.voided" class="tag">voided{{ line.reason?.kind === 'void' && line.reason.reason ? `: ${line.reason.reason}` : '' }}</span>
          <span v-if="waits.has(line.entry.id)" class="tag attention">waits to be sent</span>
          <p v-if="flags.get(line.entry.id)" class="flag small">{{ flags.get(line.entry.id)!.message }}</p>
        </div>
        <div v-if="!line.voided && !waits.has(line.entry.id)" class="acts">
          <button type="button" :aria-label="`Correct: ${logWords(line.entry.body, format)}`" @click="$emit('correct', line.entry)"><Icon name="tabler:pencil" size="18" /></button>
          <button type="button" :aria-label="`Void: ${logWords(line.entry.body, format)}`" @click="$emit('void', line.entry)"><Icon name="tabler:eraser" size="18" /></button>
        </div>
      </li>
    </ol>
    <ElButton v-if="lines.length > shownMost" text @click="shownMost = Infinity">All {{ lines.length }} entries</ElButton>
  </section>
</template>

<style scoped>
.lines { margin-top: 0.4rem; }
li { display: grid; grid-template-columns: 5.6rem 1fr auto; gap: 0.7rem; align-items: baseline; padding: 0.3rem 0; border-top: 1px solid var(--rule); }
li:first-child { border: 0; }
time { font-weight: 700; font-size: 0.95rem; }
.voided .what { text-decoration: line-through; color: var(--quiet); }
.flag { color: var(--amber); font-weight: 600; }
.acts { display: flex; }
.acts button { width: 40px; height: 40px; border: 0; background: none; color: var(--quiet); border-radius: 8px; cursor: pointer; display: grid; place-items: center; }
.acts button:hover { background: var(--sunk); color: var(--ink); }
.acts button::first-letter { text-transform: uppercase; }
</style>
