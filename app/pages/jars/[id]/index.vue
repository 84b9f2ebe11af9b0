<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { allergenWords } from '#core/foods/allergens'
import { uncapital } from '#core/text'
import { heatFigures, heatWords } from '#core/blends'
import { freshnessOf, packageOf, strengthAfter, useMore, type Freshness } from '#core/keeping'
import { tablespoonsOf } from '#core/using'
import { conflictsOf, isOfJar, targetOf, type BodyOf, type Entry, type EntryBody, type EntryKind } from '#core/log'
import type { NewEntry, NewJarEntry } from '#shared/contracts'
import type { WriteOptions } from '~/composables/useBatch'
import type { ActStep } from '~/components/frame/ActSteps.vue'
import type { Parcel, Sent } from '~/data/parcel'
import { DAY } from '#core/time'

const route = useRoute()
const jarId = String(route.params.id)
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const outbox = useOutboxStore()
const { now } = useClock()
const { answer: jar, problem, ready, load } = useServer('jar', () => ({ params: { jarId } }))
const dialog = ref<{ kind: EntryKind; correcting?: Entry; parcel?: Parcel }>()
usePutRight((entry, parcel) => {
  dialog.value = { kind: entry.body.kind, parcel, correcting: entry }
})
const voiding = ref<Entry>()
/** The jar that was filled from this one just now. */
const filled = ref<string>()

await ready()
useHead({ title: () => (jar.value ? `Jar ${jar.value.number} · Dulse` : 'Dulse') })

const STATUS: Record<Freshness, { words: string; tone: string }> = {
  empty: { words: 'empty', tone: '' },
  spoiled: { words: 'spoiled: discard it', tone: 'danger' },
  damp: { words: 'damp, or it stood warm', tone: 'danger' },
  stale: { words: 'no smell left', tone: 'danger' },
  past: { words: 'past its best', tone: 'danger' },
  'use-first': { words: 'use first', tone: 'attention' },
  good: { words: 'at its best', tone: 'good' },
}
const status = computed(() => STATUS[freshnessOf(jar.value!, now.value)])
const SMELL = {
  strong: 'strong',
  weaker: 'weaker: use more',
  crushed: 'only when crushed',
  none: 'none: to the compost',
  rancid: 'rancid: discard it',
  musty: 'musty: discard it untasted',
} as Record<string, string>
const spoons = computed(
  () => `${format.range(tablespoonsOf(jar.value!.leftG, jar.value!.densityGMl), count => String(Math.round(count)))} level tablespoons`,
)
const months = computed(() => (now.value - jar.value!.oldestAt) / DAY / 30.44)
/** How strong it should be today, by this food's own half-life. */
const strongNow = computed(() => strengthAfter(months.value, jar.value!.strength.halfLife))
const strengthWords = computed(
  () =>
    `${format.range(strongNow.value, format.share)} of its strength should be left${strongNow.value.p50 < 0.8 ? `: about ${useMore(strongNow.value.p50).toFixed(1)} spoons for one of fresh` : ''}.`,
)

/** Whose log an entry goes into: what stands in the jar's own log goes there, its packing belongs to the batch. */
function sentOf(body: EntryBody, entry: NewJarEntry, replaces?: string): Sent {
  const found = jar.value!.entries.find(item => item.id === targetOf({ body, replaces }))
  // Of several batches that were packed here each has its own log.
  if (found?.batchId) return { batchId: found.batchId, entry: entry as unknown as NewEntry }
  const meant = found?.body ?? body
  if (meant.kind === 'fill' || (meant.kind === 'pour' && meant.jarId !== jarId)) return { jarId: meant.jarId, entry }
  return isOfJar(meant.kind) || meant.kind === 'review' || meant.kind === 'picture' || meant.kind === 'contains'
    ? { jarId, entry }
    : { batchId: jar.value!.batchId!, entry: entry as unknown as NewEntry }
}
async function write(bodies: readonly EntryBody[], { at = Date.now(), replaces, files = [], taken = [] }: WriteOptions = {}) {
  const items = bodies.map(body =>
    sentOf(body, { id: uuidv7(), at, replaces: body.kind === 'caution' ? undefined : replaces, body } as NewJarEntry, replaces),
  )
  const pictures = pictureBodies(taken, takenWith(items), jarId).map((body): Sent => ({ jarId, entry: { id: uuidv7(), at, body } }))
  await outbox.sendTogether([...items, ...pictures], `jar ${jar.value!.number}`, jarId, [...files, ...taken].map(plainFile))
  filled.value = bodies.find((body): body is BodyOf<'fill'> => body.kind === 'fill' && body.jarId !== jarId)?.jarId ?? filled.value
  await load()
}
async function doVoid(reason: string) {
  const target = voiding.value
  voiding.value = undefined
  if (!target) return
  try {
    const { batchId } = jar.value!
    await write([{ kind: 'void', target: target.id, reason: reason || undefined }])
    if (problem.value) await navigateTo(batchId ? `/batches/${batchId}` : '/shelf')
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    ElMessage({ type: 'error', message: error.message, duration: 8000, showClose: true })
  }
}
/** A blend is used as it is; a chili is dosed by heat. */
const inKitchen = computed(() => (!jar.value!.cardKey ? '/kitchen/blend' : '/kitchen'))
const steps = computed((): { first: ActStep; likely: ActStep[]; others: ActStep[] } => {
  const { leftG, purpose, cardKey } = jar.value!
  const form = (words: string, kind: EntryKind): ActStep => ({ words, go: () => (dialog.value = { kind }) })
  const kitchen = { words: 'In the kitchen', go: () => navigateTo({ path: inKitchen.value, query: { jar: jarId } }) }
  const full = leftG > 0
  return {
    first: { ...form('Take some', 'take'), disabled: !full },
    likely: full ? [form('Look', 'lookJar'), form('Smell test', 'smell'), kitchen] : [form('Smell test', 'smell')],
    others: [
      form('Picture', 'picture'),
      ...(full ? [form('Allergens', 'contains')] : []),
      ...(full
        ? [
            form('Split', 'fill'),
            form('Top up', 'pour'),
            ...(purpose === 'pieces' ? [] : [form('Weigh a spoon', 'measure')]),
            ...(cardKey ? [{ words: purpose === 'powder' ? 'Dry or grind again' : 'Grind it', go: () => (again.value = true) }] : []),
            form('Move it', 'moveJar'),
            form('Discard it', 'discard'),
          ]
        : []),
      form('For next time', 'review'),
      { words: 'Label', go: () => navigateTo(`/jars/${jarId}/label`) },
    ],
  }
})
/** Pieces to be ground, or powder to be dried and ground once more: a batch of its own, begun from this jar. */
const again = ref(false)
</script>

<template>
  <div v-if="problem && !jar" class="card">
    <h1>No such jar</h1>
    <p>{{ problem }}</p>
    <p><NuxtLink to="/shelf">To the shelf</NuxtLink></p>
  </div>
  <div v-else-if="jar" class="jar-page">
    <div class="stack">
      <section class="card stack">
        <header class="row top">
          <JarGlass :jar="jar" :height="132" />
          <div>
            <p class="quiet">Jar {{ jar.number }}</p>
            <h1>{{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose] }}</h1>
            <p class="row tags">
              <span class="tag" :class="status.tone">{{ status.words }}</span><span class="tag">{{
                jar.allergens.length ? uncapital(allergenWords(jar.allergens).replace(/\.$/, '')) : 'no known allergens'
              }}</span
              ><span v-if="jar.warm" class="tag danger">too long in the warm: discard it</span
              ><span v-for="words in jar.told.label" :key="words" class="tag danger">{{ words }}</span
              ><span v-if="jar.inOil" class="tag danger">in oil: keep cold</span>
            </p>
          </div>
        </header>
        <LazyConflictCard v-if="conflictsOf(jar.entries).length" :entries="jar.entries" :place="{ jarId }" :now="now" @settled="load" />
        <p v-if="filled" class="note" role="status">
          A new jar was filled. <NuxtLink :to="`/jars/${filled}`">Open it</NuxtLink>, or
          <NuxtLink :to="`/labels?jars=${filled}`">print its label</NuxtLink>.
        </p>
        <dl class="facts">
          <dt>Left</dt>
          <dd>
            <strong>{{ format.weight(jar.leftG) }}</strong> of {{ format.weight(jar.netG)
            }}<template v-if="jar.purpose === 'powder' && jar.leftG > 0"
              >, {{ spoons }}<span v-if="jar.measured" class="quiet">, as weighed</span></template
            >
          </dd>
          <template v-if="jar.portion"
            ><dt>Gives back</dt>
            <dd>
              <strong>{{ format.weight(jar.portion.dryG) }}</strong> is {{ format.volume(jar.portion.ml) }} of what was spread
            </dd></template
          >
          <dt>Packed</dt>
          <dd>
            {{ format.date(jar.packedAt) }}, {{ (packageOf(jar.packageKey)?.name ?? '').toLowerCase()
            }}<template v-if="jar.sizeMl">, {{ format.volume(jar.sizeMl) }}</template
            ><template v-if="jar.baskets > 1">; oldest part {{ format.date(jar.oldestAt) }}</template>
          </dd>
          <dt>Stands</dt>
          <dd>{{ jar.place }}</dd>
          <dt>Water</dt>
          <dd>
            {{ jar.seen ? 'at least about ' : '' }}{{ format.share(jar.moisture) }}, in balance with air of
            {{ Math.round(jar.activity * 100) }}&nbsp;%{{ jar.seen ? ', by what was seen in it' : ''
            }}<template v-if="jar.mixed.starchG + jar.mixed.saltG > 0.05"
              >;
              {{
                [
                  jar.mixed.starchG > 0.05 ? `${format.weight(jar.mixed.starchG)} starch` : '',
                  jar.mixed.saltG > 0.05 ? `${format.weight(jar.mixed.saltG)} salt` : '',
                ]
                  .filter(Boolean)
                  .join(' and ')
              }}
              in it</template
            >
          </dd>
          <dt>Best by</dt>
          <dd>
            <strong>{{
              format.month(jar.bestFrom) === format.month(jar.bestTo)
                ? format.month(jar.bestTo)
                : `${format.month(jar.bestFrom)} to ${format.month(jar.bestTo)}`
            }}</strong>. {{ jar.bestBy.reason }} <span class="quiet">({{ jar.bestBy.source }}; quality, not safety)</span>
          </dd>
          <template v-if="jar.heat && jar.heat.high > 100"
            ><dt>Heat</dt>
            <dd>
              <strong>{{ heatWords(jar.heat) }}</strong>, {{ heatFigures(jar.heat) }} Scoville units
            </dd></template
          >
          <template v-if="jar.saltShare >= 0.005"
            ><dt>Salt</dt>
            <dd>{{ format.share(jar.saltShare) }} by weight</dd></template
          >
          <template v-if="jar.smell"
            ><dt>Smell</dt>
            <dd>
              {{ SMELL[jar.smell] }}<span v-if="jar.smeltAt" class="quiet">, {{ format.date(jar.smeltAt) }}</span>
            </dd></template
          >
        </dl>
        <ul v-if="jar.told.use.length" class="caution told">
          <li v-for="text in jar.told.use" :key="text">{{ format.sentence(text) }}</li>
        </ul>
        <ActSteps v-bind="steps" />
      </section>
      <section class="card" aria-label="Where it came from">
        <h2>Where it came from</h2>
        <div v-for="packet in jar.packets" :key="packet.jarId" class="basket">
          <p v-if="jar.pedigree.length + jar.packets.length > 1" class="quiet small">{{ format.weight(packet.leftG) }} of what is in it</p>
          <p>
            <strong>{{ format.weight(packet.netG) }}</strong> {{ packet.name.toLowerCase() }},
            {{ packet.source ? packet.source.toLowerCase() : 'not of your own drying' }}, {{ format.date(packet.at)
            }}{{ packet.price === undefined ? '' : `, ${format.money(packet.price)}` }}
          </p>
          <NuxtLink v-if="packet.jarId !== jarId" :to="`/jars/${packet.jarId}`" class="more">Jar {{ packet.number }}</NuxtLink>
          <NuxtLink :to="`/jars/${packet.jarId}/recall`" class="more">Every jar of this packet</NuxtLink>
        </div>
        <div v-for="basket in jar.pedigree" :key="basket.batchId" class="basket">
          <p v-if="jar.pedigree.length + jar.packets.length > 1" class="quiet small">{{ format.weight(basket.leftG) }} of what is in it</p>
          <ol class="plain-list pedigree">
            <li>
              <strong>{{ format.weight(basket.rawG) }}</strong>
              {{ jar.pedigree.length + jar.packets.length > 1 ? basket.title.split(', ')[0]!.toLowerCase() : jar.foodName.toLowerCase()
              }}{{ basket.cultivar ? ` “${basket.cultivar}”` : '' }}, {{ basket.source.toLowerCase() }},
              {{ format.date(basket.receivedAt) }}
            </li>
            <li v-if="basket.loadedG">
              <strong>{{ format.weight(basket.loadedG) }}</strong> on the trays, {{ basket.title.split(', ').slice(1).join(', ') }}
            </li>
            <li v-if="basket.dryG">
              <strong>{{ format.weight(basket.dryG) }}</strong> dry<template v-if="basket.dryHours">
                after {{ format.hours(basket.dryHours) }} of heat</template
              >
            </li>
            <li>
              {{ basket.restDays === undefined ? 'not rested' : `rested ${plural(basket.restDays, 'day')}`
              }}<template v-if="basket.powderG"
                >, ground to <strong>{{ format.weight(basket.powderG) }}</strong></template
              >
            </li>
            <li>packed in {{ plural(basket.jars, 'jar') }}</li>
          </ol>
          <NuxtLink :to="`/batches/${basket.batchId}`" class="more">Batch {{ basket.number }}</NuxtLink>
          <NuxtLink :to="`/batches/${basket.batchId}/recall`" class="more">Every jar of this basket</NuxtLink>
        </div>
      </section>
    </div>
    <div class="stack">
      <section v-if="jar.damp" class="card" aria-label="Its months">
        <h2>Its months</h2>
        <p class="quiet">
          {{ jar.seen === 'clumps' ? 'It clumps already: damp got in, or it stood warm.' : dampWords(jar.damp) }} At a pantry of
          {{ format.share(settings.pantryHumidity) }} humidity, closed; every opening counts more.
        </p>
        <WhenNear height="220px">
          <LazyDampChart :damp="jar.damp" :strength="jar.strength" :filled-at="jar.filledAt" :oldest-at="jar.oldestAt" :now="now" />
        </WhenNear>
        <p class="quiet">
          {{ strengthWords }} Half is gone in {{ format.range(jar.strength.halfLife, value => value.toFixed(value < 10 ? 1 : 0)) }} months,
          {{
            jar.strength.tests
              ? `by ${plural(jar.strength.tests, 'smell test')} of this food here`
              : 'by the usual months; smell tests make it your own'
          }}.
        </p>
      </section>
      <LogList
        title="This jar’s log"
        :jar-id="jarId"
        :entries="jar.entries"
        :now="now"
        @correct="entry => (dialog = { kind: entry.body.kind, correcting: entry })"
        @void="entry => (voiding = entry)"
      />
    </div>
    <LazyColoursCard v-if="jar.entries.some(entry => entry.body.kind === 'picture')" class="wide" :entries="jar.entries" :now="now" />
    <LazyJarEntryDialog
      v-if="dialog"
      :kind="dialog.kind"
      :correcting="dialog.correcting"
      :parcel="dialog.parcel"
      :jar="jar"
      :write="write"
      @close="dialog = undefined"
      @changed="load"
    />
    <LazyAgainDialog v-if="again" :jar="jar" @close="again = false" />
    <LazyVoidDialog v-if="voiding" :entry="voiding" @close="voiding = undefined" @confirm="doVoid" />
  </div>
</template>

<style scoped>
.jar-page {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.top {
  flex-wrap: nowrap;
  gap: 1.2rem;
}
.told {
  margin: 0;
  padding-left: 1.1rem;
}
.tags {
  margin-top: 0.5rem;
}
.facts {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 0.5rem 1rem;
  margin: 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
.note {
  background: var(--sunk);
  border-radius: 8px;
  padding: 0.6rem 0.9rem;
  margin: 0;
}
.basket + .basket {
  border-top: 1px solid var(--rule);
  padding-top: 0.7rem;
  margin-top: 0.5rem;
}
.pedigree {
  display: grid;
  gap: 0.45rem;
  margin: 0.6rem 0;
  border-left: 4px solid var(--ochre);
  padding-left: 0.9rem;
}
.more {
  color: var(--dulse-ink);
  font-weight: 650;
  display: inline-block;
  padding: 0.7rem 1rem 0.7rem 0;
}
@media (width <= 860px) {
  .jar-page {
    grid-template-columns: minmax(0, 1fr);
  }
  .facts {
    grid-template-columns: 72px 1fr;
  }
}
</style>
