<script setup lang="ts">
import { withStanding, type Entry, type LoggedEntry, type Weighing } from '#core/log'
import type { WeighInFlag } from '#core/kinetics'
import type { SchoolQuestion } from '#core/foods'
import type { WayKey } from '#core/ways'

const props = defineProps<{
  title?: string
  /** The jar whose log it is. */
  jarId?: string
  /** The way that the batch is dried, for its own words. */
  way?: WayKey
  entries: readonly Entry[]
  /** Questions of its food, for the words of what was chosen. */
  schools?: readonly SchoolQuestion[]
  now: number
  /** Entries that have not arrived at the server yet. */
  waits?: ReadonlySet<string>
  flags?: ReadonlyMap<string, WeighInFlag>
  /** Weighings of the load: trays weighed one after the other stand on one line. */
  weighings?: readonly Weighing[]
  /** To be read only: nothing is put right from here. */
  closed?: boolean
  /** What an entry changed, in words, by its id. */
  changes?: ReadonlyMap<string, string>
}>()
defineEmits<{ correct: [entry: Entry]; void: [entry: Entry]; restore: [entry: Entry] }>()
const format = useFormat()
const pictureUrl = usePictureUrl()
/** What a picture was taken with, in words. */
function withWhat(body: Entry['body']): string {
  const about = body.kind === 'picture' && props.entries.find(entry => entry.id === body.about)
  return about ? `, with: ${logWords(about.body, writers.value)}` : ''
}
// The cautions' words are fetched only where one was accepted.
const rules = shallowRef<typeof import('#core/safety')>()
watch(
  () => props.entries.some(entry => entry.body.kind === 'caution'),
  async any => {
    if (any) rules.value = await import('#core/safety').catch(() => undefined)
  },
  { immediate: true },
)
const writers = computed(() => ({
  ...format,
  caution: (rule: string) => rules.value?.safetyRule(rule)?.text,
  school: (question: string, key: string) => {
    const asked = props.schools?.find(item => item.key === question)
    const school = asked?.schools.find(item => item.key === key)
    return asked && school && `${asked.ask} ${school.name}`
  },
  way: props.way,
  jarId: props.jarId,
  dayTime: (at: number) => format.moment(at, props.now),
}))

interface Line {
  entry: Entry
  state: LoggedEntry['state']
  before?: Entry
  reason?: string
}
interface Group {
  key: string
  lines: Line[]
  weighing?: Weighing
}

/** Newest first. A correction stands in the place of what it corrects, with the old figure beside it. */
const lines = computed<Line[]>(() => {
  const all = withStanding(props.entries)
  const byId = new Map(all.map(item => [item.entry.id, item]))
  const older = new Map(all.filter(item => item.state === 'corrected').map(item => [item.by!, item.entry]))
  return all
    .filter(item => item.state !== 'corrected' && item.entry.body.kind !== 'void')
    .map(({ entry, state, by }): Line => {
      const end = state === 'voided' ? byId.get(by!)?.entry.body : undefined
      return { entry, state, before: older.get(entry.id), reason: end?.kind === 'void' ? end.reason : undefined }
    })
    .sort((a, b) => b.entry.at - a.entry.at || b.entry.seq - a.entry.seq)
})
const groups = computed<Group[]>(() => {
  const roundOf = new Map(
    (props.weighings ?? [])
      .filter(weighing => weighing.entryIds.length > 1)
      .flatMap(weighing => weighing.entryIds.map(id => [id, weighing] as const)),
  )
  const found = new Map<string, Group>()
  for (const line of lines.value) {
    const weighing = roundOf.get(line.entry.id)
    const key = weighing?.entryIds[0] ?? line.entry.id
    const group = found.get(key)
    if (group) group.lines.push(line)
    else found.set(key, { key, weighing, lines: [line] })
  }
  return [...found.values()]
})
const shownMost = ref(12)
const open = ref(new Set<string>())
function turn(key: string) {
  open.value = new Set(open.value.has(key) ? [...open.value].filter(item => item !== key) : [...open.value, key])
}
const together = ({ positions: trays, weightG, extraSdG }: Weighing) =>
  `trays ${positions(trays)} weighed, ${extraSdG === undefined ? format.weight(weightG) : `the load about ${format.weight(weightG)}`}`
/** What has no form: it is voided and logged anew. */
/** What made a thing of its own cannot be written a second time. */
const KEPT_APART: readonly string[] = ['intake', 'load', 'pack', 'split', 'pour', 'settle', 'unsettled']
const UNCORRECTED: readonly string[] = ['move', 'tick', 'unsettled', 'settle']
const changeOf = (group: Group) => group.lines.map(line => props.changes?.get(line.entry.id)).find(Boolean)
</script>

<template>
  <section class="card" :aria-label="title ?? 'Log'">
    <h2>{{ title ?? 'Log' }}</h2>
    <ol class="plain-list lines">
      <li v-for="group in groups.slice(0, shownMost)" :key="group.key">
        <div v-if="group.weighing" class="line">
          <time>{{ format.moment(group.weighing.at, now) }}</time>
          <div>
            <span>{{ together(group.weighing) }}</span><span v-if="changeOf(group)" class="change"> {{ changeOf(group) }}</span>
          </div>
          <button type="button" class="turn" :aria-expanded="open.has(group.key)" @click="turn(group.key)">
            {{ open.has(group.key) ? 'Less' : 'Each' }}
          </button>
        </div>
        <template v-if="!group.weighing || open.has(group.key)">
          <div
            v-for="{ entry, state, before, reason } in group.lines"
            :key="entry.id"
            class="line"
            :class="{ voided: state === 'voided', inner: group.weighing }"
          >
            <time :datetime="new Date(entry.at).toISOString()">{{ format.moment(entry.at, now) }}</time>
            <div>
              <a v-if="entry.body.kind === 'picture'" class="thumb" :href="pictureUrl(entry.body.picture)" target="_blank"
                ><img :src="pictureUrl(entry.body.picture)" :alt="`Open the picture: ${SHOWS_WORDS[entry.body.shows]}`" loading="lazy"
              /></a>
              <span class="what">{{ logWords(entry.body, writers) }}{{ withWhat(entry.body) }}</span>
              <ColourSwatch v-if="entry.body.kind === 'picture' && entry.body.colour" class="small" :colour="entry.body.colour" />
              <span v-if="!group.weighing && changeOf(group)" class="change"> {{ changeOf(group) }}</span>
              <span v-if="entry.writer" class="quiet small writer">{{ entry.writer.name }}</span>
              <span v-if="before" class="quiet small">
                corrected; was: {{ logWords(before.body, writers)
                }}{{ before.at !== entry.at ? `, ${format.moment(before.at, now)}` : '' }}</span
              >
              <span v-if="state === 'voided'" class="tag">removed from the log{{ reason ? `: ${reason}` : '' }}</span>
              <button
                v-if="!closed && state === 'voided' && !KEPT_APART.includes(entry.body.kind)"
                type="button"
                class="back"
                @click="$emit('restore', entry)"
              >
                Put it back
              </button>
              <span v-if="waits?.has(entry.id)" class="tag attention">waits to be sent</span>
            </div>
            <div v-if="!closed && state !== 'voided' && !waits?.has(entry.id)" class="acts">
              <button
                v-if="!UNCORRECTED.includes(entry.body.kind)"
                type="button"
                :aria-label="`Correct: ${logWords(entry.body, writers)}`"
                @click="$emit('correct', entry)"
              >
                <IconPencil :size="18" />
              </button>
              <button type="button" :aria-label="`Remove from the log: ${logWords(entry.body, writers)}`" @click="$emit('void', entry)">
                <IconEraser :size="18" />
              </button>
            </div>
          </div>
        </template>
        <p v-if="flags?.get(group.key)" class="flag small">{{ format.told(flags.get(group.key)!) }}</p>
      </li>
    </ol>
    <button v-if="groups.length > shownMost" type="button" class="turn all" @click="shownMost = Infinity">
      All {{ groups.length }} lines
    </button>
  </section>
</template>

<style scoped>
.lines {
  margin-top: 0.4rem;
}
li {
  border-top: 1px solid var(--rule);
}
li:first-child {
  border: 0;
}
.line {
  display: grid;
  grid-template-columns: 5.6rem 1fr auto;
  gap: 0.7rem;
  align-items: center;
  min-height: 44px;
  padding: 0.15rem 0;
}
time {
  font-weight: 700;
  font-size: 0.95rem;
}
.inner {
  margin-left: 1.2rem;
  border-top: 1px dotted var(--rule);
}
.inner time {
  font-weight: 400;
}
.voided .what {
  text-decoration: line-through;
  color: var(--quiet);
}

.thumb {
  float: left;
  margin-right: 0.7rem;
}
.thumb img {
  display: block;
  height: 56px;
  max-width: 96px;
  object-fit: cover;
  border-radius: 6px;
}
.change {
  color: var(--quiet);
  white-space: nowrap;
  margin-left: 0.35rem;
}
.change::before {
  content: '→ ';
}
.writer {
  margin-left: 0.5rem;
}
.flag {
  color: var(--amber);
  font-weight: 600;
  padding: 0 0 0.5rem 6.3rem;
}
.acts {
  display: flex;
  gap: 0.75rem;
}
.back {
  border: 0;
  background: none;
  min-height: 44px;
  padding: 0 0.4rem;
  color: var(--dulse-ink);
  text-decoration: underline;
  cursor: pointer;
}
.acts button,
.turn {
  min-width: 44px;
  height: 44px;
  border: 0;
  background: none;
  color: var(--quiet);
  border-radius: 8px;
  cursor: pointer;
  display: grid;
  place-items: center;
}
.turn {
  padding: 0 0.7rem;
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.all {
  padding: 0;
  margin-top: 0.4rem;
}
.acts button:hover,
.turn:hover {
  background: var(--sunk);
  color: var(--ink);
}
@media (width <= 760px) {
  .line {
    grid-template-columns: 4.2rem 1fr auto;
    gap: 0.4rem;
  }
  .flag {
    padding-left: 4.6rem;
  }
  .change {
    white-space: normal;
  }
}
</style>
