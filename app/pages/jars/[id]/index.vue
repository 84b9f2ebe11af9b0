<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { freshnessOf, packageOf, type Freshness } from '#core/keeping'
import { tablespoonsOf } from '#core/using'
import type { Entry, EntryBody, EntryKind } from '#core/batch'
import type { JarAnswer, NewEntry } from '#shared/contracts'

const route = useRoute()
const jarId = String(route.params.id)
const format = useFormat()
const outbox = useOutboxStore()
const { now } = useClock()
const jar = shallowRef<JarAnswer>()
const problem = ref('')
const dialog = ref<{ kind: EntryKind, correcting?: Entry }>()
const voiding = ref<Entry>()

async function load() {
  try {
    jar.value = await callServer<JarAnswer>(`/api/jars/${jarId}`)
  }
  catch (error) {
    problem.value = (error as Error).message
  }
}
await load()
void useStagesStore().refresh()
useHead({ title: () => jar.value ? `Jar ${jar.value.number} · Dulse` : 'Dulse' })

const name = computed(() => jar.value?.foodName ?? '')
const STATUS: Record<Freshness, { words: string, tone: string }> = {
  'empty': { words: 'empty', tone: '' }, 'stale': { words: 'no smell left', tone: 'danger' }, 'past': { words: 'past its best', tone: 'danger' },
  'use-first': { words: 'use first', tone: 'attention' }, 'good': { words: 'at its best', tone: 'good' },
}
const status = computed(() => STATUS[freshnessOf(jar.value!, now.value)])
const SMELL = { strong: 'strong', weaker: 'weaker: use more', crushed: 'only when crushed', none: 'none: to the compost' } as Record<string, string>
const spoons = computed(() => `${format.range(tablespoonsOf(jar.value!.leftG, jar.value!.densityGMl), count => String(Math.round(count)))} level tablespoons`)

async function write(bodies: readonly EntryBody[], options: { at?: number, replaces?: string } = {}) {
  for (const body of bodies) {
    const entry = { id: uuidv7(), at: options.at ?? Date.now(), replaces: options.replaces, body } as NewEntry
    await outbox.send({ path: `/api/batches/${jar.value!.batchId}/entries`, body: entry, batchId: jar.value!.batchId, words: `jar ${jar.value!.number}` })
  }
  await load()
}
async function doVoid(reason: string) {
  const target = voiding.value
  voiding.value = undefined
  if (!target) return
  try {
    await write([{ kind: 'void', target: target.id, reason: reason || undefined }])
    if (target.body.kind === 'pack') await navigateTo(`/batches/${jar.value!.batchId}`)
  }
  catch (error) {
    if (!(error instanceof Refused)) throw error
    ElMessage({ type: 'error', message: error.message, duration: 8000, showClose: true })
  }
}
</script>

<template>
  <div v-if="problem && !jar" class="card"><h1>No such jar</h1><p>{{ problem }}</p><p><NuxtLink to="/shelf">To the shelf</NuxtLink></p></div>
  <div v-else-if="jar" class="jar-page">
    <section class="card stack">
      <header class="row top">
        <JarGlass :jar="jar" :height="132" />
        <div>
          <p class="quiet">Jar {{ jar.number }}</p>
          <h1>{{ name }}, {{ PURPOSE_WORDS[jar.purpose] }}</h1>
          <p class="row tags"><span class="tag" :class="status.tone">{{ status.words }}</span><span class="tag">{{ jar.allergens.length ? `contains ${jar.allergens.join(', ')}` : 'no known allergens' }}</span><span v-if="jar.raw" class="tag danger">raw: cook it through</span></p>
        </div>
      </header>
      <dl class="facts">
        <dt>Left</dt><dd><strong>{{ format.weight(jar.leftG) }}</strong> of {{ format.weight(jar.netG) }}<template v-if="jar.purpose === 'powder' && jar.leftG > 0">, {{ spoons }}</template></dd>
        <template v-if="jar.portion"><dt>Gives back</dt><dd><strong>{{ format.weight(jar.portion.dryG) }}</strong> is {{ Math.round(jar.portion.ml) }} mL of what was spread</dd></template>
        <dt>Packed</dt><dd>{{ format.date(jar.packedAt) }}, {{ (packageOf(jar.packageKey)?.name ?? '').toLowerCase() }}<template v-if="jar.sizeMl">, {{ jar.sizeMl }} mL</template></dd>
        <dt>Stands</dt><dd>{{ jar.place }}</dd>
        <dt>Best by</dt><dd><strong>{{ format.month(jar.bestFrom) }} to {{ format.month(jar.bestTo) }}</strong>. {{ jar.bestBy.reason }} <span class="quiet">({{ jar.bestBy.source }}; quality, not safety)</span></dd>
        <template v-if="jar.smell"><dt>Smell</dt><dd>{{ SMELL[jar.smell] }}</dd></template>
      </dl>
      <div class="row">
        <ElButton type="primary" :disabled="jar.leftG <= 0" @click="dialog = { kind: 'take' }">Take some</ElButton>
        <ElButton @click="dialog = { kind: 'smell' }">Smell test</ElButton>
        <template v-if="jar.leftG > 0"><ElButton @click="dialog = { kind: 'moveJar' }">Move it</ElButton><ElButton @click="dialog = { kind: 'discard' }">Discard it</ElButton></template>
        <ElButton @click="navigateTo(`/jars/${jarId}/label`)">Label</ElButton>
      </div>
    </section>
    <div class="stack">
      <section v-if="jar.damp" class="card" aria-label="Its months">
        <h2>Its months</h2>
        <p class="quiet">{{ dampWords(jar.damp) }} At a pantry of 55 % humidity, closed; every opening counts more.</p>
        <LazyDampChart :damp="jar.damp" :packed-at="jar.packedAt" :now="now" />
      </section>
      <section class="card">
        <h2>Where it came from</h2>
        <ol class="plain-list pedigree">
          <li><strong>{{ format.weight(jar.pedigree.rawG) }}</strong> {{ name.toLowerCase() }}{{ jar.pedigree.cultivar ? ` “${jar.pedigree.cultivar}”` : '' }}, {{ jar.pedigree.source.toLowerCase() }}, {{ format.date(jar.pedigree.receivedAt) }}</li>
          <li v-if="jar.pedigree.loadedG"><strong>{{ format.weight(jar.pedigree.loadedG) }}</strong> on the trays, {{ jar.batchTitle.split(', ').slice(1).join(', ') }}</li>
          <li v-if="jar.pedigree.dryG"><strong>{{ format.weight(jar.pedigree.dryG) }}</strong> dry<template v-if="jar.pedigree.dryHours"> after {{ format.hours(jar.pedigree.dryHours) }} of heat</template></li>
          <li>{{ jar.pedigree.restDays === undefined ? 'not rested' : `rested ${plural(jar.pedigree.restDays, 'day')}` }}<template v-if="jar.pedigree.powderG">, ground to <strong>{{ format.weight(jar.pedigree.powderG) }}</strong></template></li>
          <li>packed in {{ plural(jar.pedigree.jars, 'jar') }}</li>
        </ol>
        <NuxtLink :to="`/batches/${jar.batchId}`" class="more">Batch {{ jar.batchNumber }}</NuxtLink>
      </section>
      <LogList title="This jar’s log" :entries="jar.entries" :now="now" @correct="entry => dialog = { kind: entry.body.kind, correcting: entry }" @void="entry => voiding = entry" />
    </div>
    <LazyJarEntryDialog v-if="dialog" :kind="dialog.kind" :correcting="dialog.correcting" :jar="jar" :write="write" @close="dialog = undefined" />
    <LazyVoidDialog v-if="voiding" :entry="voiding" @close="voiding = undefined" @confirm="doVoid" />
  </div>
</template>

<style scoped>
.jar-page { display: grid; grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr); gap: 1rem; align-items: start; }
.top { flex-wrap: nowrap; gap: 1.2rem; }
.tags { margin-top: 0.5rem; }
.facts { display: grid; grid-template-columns: 92px 1fr; gap: 0.5rem 1rem; margin: 0; }
dt { color: var(--quiet); } dd { margin: 0; }
.pedigree { display: grid; gap: 0.45rem; margin: 0.6rem 0; border-left: 4px solid var(--ochre); padding-left: 0.9rem; }
.more { color: var(--dulse-ink); font-weight: 650; display: inline-block; padding: 0.6rem 0; }
@media (width <= 860px) { .jar-page { grid-template-columns: minmax(0, 1fr); } .facts { grid-template-columns: 72px 1fr; } }
</style>
