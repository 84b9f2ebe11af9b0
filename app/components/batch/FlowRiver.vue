<script setup lang="ts">
import type { Flow, FlowArrow } from '#core/flow'
import { HOLD_WORDS } from '#core/log'
import type { FlowAnswer } from '#shared/contracts'

/**
 * One batch as a stream from basket to jar, as wide as what is there: whatever leaves goes off to the right, and what comes in from the
 * left. Water is hatched, jars are dark, so that it reads in grey as well.
 */
const props = defineProps<{ batch: FlowAnswer['batches'][number]; all: FlowAnswer['batches']; by: 'weight' | 'solids' }>()
const format = useFormat()
const flow = computed<Flow>(() => props.batch.flow)
const WIDE = 96
const HIGH = 62
const SIDE = 150
/** Thinner than this nothing is seen. */
const THIN = 1.5
const amount = (item: { weightG: number; solidsG: number }) => (props.by === 'weight' ? item.weightG : item.solidsG)
const left = (arrow: FlowArrow) => (props.by === 'weight' ? arrow.leftG : arrow.leftSolidsG)
const whole = computed(() => Math.max(amount(flow.value.basket), ...flow.value.arrows.map(left), 1e-9))
const wide = (grams: number) => (grams > 0 ? Math.max(THIN, (WIDE * grams) / whole.value) : 0)
const numberOf = {
  batch: (id: string) => props.all.find(item => item.batchId === id)?.number,
  jar: (id: string) => props.all.flatMap(item => item.jars).find(jar => jar.jarId === id)?.number,
}
const WATER: readonly string[] = ['water', 'dried', 'powder dried']
const share = (grams: number) => format.share(Math.abs(grams) / amount(flow.value.basket))
const rows = computed(() =>
  flow.value.arrows
    // By its solids water is nothing.
    .filter(arrow => Math.abs(amount(arrow)) > 0.05 || arrow.kind === 'dried')
    .map(arrow => {
      const before = wide(left(arrow) + amount(arrow))
      const after = wide(Math.max(0, left(arrow)))
      const out = wide(Math.abs(amount(arrow)))
      const joins = amount(arrow) < 0
      const x = 8
      const y = HIGH - 22
      // The stream keeps its left bank; what leaves bends off from its right one.
      const stream = joins
        ? `M${x},0 H${x + before} V${y} L${x + after},${HIGH} H${x} Z`
        : `M${x},0 H${x + before} L${x + after},${HIGH} H${x} Z`
      const from = x + Math.max(after, before - out)
      const branch =
        joins || amount(arrow) <= 0
          ? ''
          : `M${from},6 H${from + out} C${from + out},${y - out / 2} ${SIDE - 14},${y - out / 2} ${SIDE - 8},${y - out / 2} V${y + out / 2} C${from},${y + out / 2} ${from},${y / 2} ${from},6 Z`
      const link =
        arrow.kind === 'jar' && arrow.jarId
          ? `/jars/${arrow.jarId}`
          : arrow.kind === 'part' && arrow.batchId
            ? `/batches/${arrow.batchId}`
            : ''
      return {
        arrow,
        stream,
        branch,
        link,
        look: arrow.kind === 'jar' ? 'jar' : WATER.includes(arrow.kind) ? 'water' : arrow.kind === 'part' ? 'part' : 'lost',
        words: arrowWords(arrow, numberOf),
        about: arrow.weighed ? '' : 'about ',
        then: left(arrow),
      }
    }),
)
const places = { machine: 'in the machine', rest: 'in jars at rest', unsaid: '', ...HOLD_WORDS }
const doubt = computed(() => {
  const { solidsG, sdG } = flow.value.doubt
  const offBy = Math.abs(solidsG)
  const than = solidsG > 0 ? 'less' : 'more'
  const believedG = flow.value.basket.solidsG + solidsG
  const odd = offBy > 2 * sdG
  const known = flow.value.arrows.some(({ kind, weighed }) => kind === 'dried' && weighed)
  const differs = Math.round((100 * offBy) / believedG) < 1 ? 'as much' : `${format.share(offBy / believedG)} ${than}`
  return {
    odd,
    // Before anything was weighed dry the two are one belief.
    words:
      !known && !odd
        ? ''
        : `By what is known of the food its ${format.weight(flow.value.basket.weightG)} held about ${format.weight(believedG)} of solids; what became of it holds ${differs}. ${
            odd
              ? 'That is more than baskets differ by: look for a weight that is wrong, or food that nobody wrote down.'
              : `Baskets differ by about ${format.share(sdG / believedG)}.`
          }`,
  }
})
</script>

<template>
  <section class="card river" :aria-label="`Batch ${batch.number}`">
    <h2>
      <NuxtLink :to="`/batches/${batch.batchId}`">Batch {{ batch.number }}</NuxtLink
      >: {{ format.sentence(batch.title) }}
    </h2>
    <ol class="plain-list">
      <li class="reach first">
        <svg :width="SIDE" height="26" :viewBox="`0 0 ${SIDE} 26`" preserveAspectRatio="none" aria-hidden="true">
          <rect x="8" y="0" :width="wide(amount(flow.basket))" height="26" class="stream" />
        </svg>
        <p>
          <strong>{{ batch.of ? 'Taken apart' : 'Came in' }}, {{ format.weight(flow.basket.weightG) }}</strong>
          <span class="quiet">{{ format.weight(flow.basket.solidsG) }} of it solids</span>
        </p>
      </li>
      <li v-for="(row, i) in rows" :key="i" class="reach">
        <svg :width="SIDE" :height="HIGH" :viewBox="`0 0 ${SIDE} ${HIGH}`" preserveAspectRatio="none" aria-hidden="true">
          <defs>
            <pattern :id="`hatch-${batch.number}`" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width="5" height="5" class="hatch-ground" />
              <rect width="2" height="5" class="hatch-line" />
            </pattern>
          </defs>
          <path :d="row.branch" :class="row.look" :fill="row.look === 'water' ? `url(#hatch-${batch.number})` : undefined" />
          <path :d="row.stream" class="stream" />
        </svg>
        <p>
          <span
            ><NuxtLink v-if="row.link" :to="row.link"
              ><strong>{{ row.words }}</strong></NuxtLink
            ><strong v-else>{{ row.words }}</strong
            >{{ row.arrow.what ? `, ${row.arrow.what}` : '' }}</span
          >
          <span
            >{{ amount(row.arrow) < 0 ? '+' : '' }}{{ row.about }}{{ format.weight(Math.abs(amount(row.arrow)))
            }}<span class="quiet"
              >, {{ share(amount(row.arrow)) }}{{ row.then >= 0.5 ? ` · ${format.weight(row.then)} goes on` : '' }}</span
            ></span
          >
        </p>
      </li>
    </ol>
    <div class="now">
      <h3>{{ flow.open.length ? 'There now' : 'Nothing is open' }}</h3>
      <p v-for="lot in flow.open" :key="lot.form">
        <strong>{{ format.weightRange(lot.weightG) }}</strong> {{ LOT_WORDS[lot.form]
        }}{{ places[lot.place] ? `, ${places[lot.place]}` : '' }}
      </p>
      <p v-if="doubt.words" class="small" :class="doubt.odd ? 'caution' : 'quiet'">{{ doubt.words }}</p>
    </div>
  </section>
</template>

<style scoped>
.river {
  break-inside: avoid;
}
.reach {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.8rem;
  align-items: stretch;
}
/* One stream from row to row, however tall the words make them. */
.reach svg {
  display: block;
  height: 100%;
  min-height: 26px;
}
.reach p {
  margin: 0;
  display: grid;
  align-content: end;
  min-height: 58px;
  padding-bottom: 0.25rem;
  border-bottom: 1px solid var(--rule);
}
.first p {
  min-height: 0;
}
.stream {
  fill: var(--ochre);
}
.lost {
  fill: var(--glass);
}
.part {
  fill: var(--kelp);
}
.jar {
  fill: var(--dulse);
}
.hatch-ground {
  fill: var(--card);
}
.hatch-line {
  fill: var(--brine);
}
.now {
  margin-top: 0.8rem;
}
.now p {
  margin: 0.2rem 0;
}
</style>
