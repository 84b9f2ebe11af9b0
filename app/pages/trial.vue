<script setup lang="ts">
import { differenceOf, wordsOfDifference } from '#core/colour'
import type { TrialAnswer } from '#shared/contracts'

/** Two batches side by side: done how, given what, and what the difference is. */
const route = useRoute()
const format = useFormat()
const { answer, problem } = useServer('trial', () => ({ query: { batches: String(route.query.batches ?? '') } }))
useHead({ title: 'Two batches side by side · Dulse' })
const { now } = useClock()
/** The newest measured colour of each, where both show the same thing. */
const colours = computed(() => {
  const [one, other] = answer.value?.sides ?? []
  for (const mine of one?.pictures ?? []) {
    const theirs = other?.pictures.find(item => item.colour && item.shows === mine.shows)
    if (mine.colour && theirs?.colour)
      return { one: mine.colour, other: theirs.colour, shows: mine.shows, difference: differenceOf(mine.colour, theirs.colour) }
  }
  return undefined
})
const pictured = computed(() => answer.value?.sides.some(side => side.pictures.length > 0))
type Side = TrialAnswer['sides'][number]
const share = (out?: number, into?: number) => (out !== undefined && into ? format.share(out / into) : '')
const ROWS: [string, (side: Side) => string][] = [
  ['Machine', side => side.method.machine ?? ''],
  ['Cut', side => `${side.method.cut}${side.method.thicknessMm ? `, ${format.length(side.method.thicknessMm)}` : ''}`],
  ['Heat', side => (side.method.setC === undefined || side.method.setC === null ? '' : format.temperature(side.method.setC))],
  ['Rest', side => (side.method.rested ? 'rested' : 'not rested')],
  ['Basket', side => format.weight(side.rawG)],
  ['On the trays', side => (side.loadedG === undefined ? '' : `${format.weight(side.loadedG)}, ${share(side.loadedG, side.rawG)}`)],
  ['Hours to dry', side => (side.hoursToDry ? format.range(side.hoursToDry, value => format.hours(value)) : '')],
  ['Dry', side => (side.dryG === undefined ? '' : `${format.weight(side.dryG)}, ${share(side.dryG, side.loadedG)}`)],
  [
    'Product',
    side => (side.productG === undefined ? '' : `${format.weight(side.productG)}, ${share(side.productG, side.rawG)} of the basket`),
  ],
  ['Hands', side => (side.handsMinutes === undefined ? '' : format.hours(side.handsMinutes / 60))],
  ['Colour', side => (side.colour === undefined ? 'not noted' : `${side.colour} of 5`)],
  ['Taste', side => (side.taste === undefined ? 'not noted' : `${side.taste} of 5`)],
]
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Two batches side by side</h1>
      <NuxtLink to="/compare">Choose others</NuxtLink>
    </header>
    <p v-if="problem" class="card problem">{{ problem }}</p>
    <template v-else-if="answer">
      <section class="card" aria-label="The difference">
        <h2>The difference</h2>
        <ul class="said">
          <li v-for="item in answer.differences" :key="item.what" :class="{ strong: item.clear }">{{ item.words }}</li>
        </ul>
        <p class="quiet small">
          Two single batches prove little; the same twice proves more. Colour and taste are noted with “For next time” on the batch.
        </p>
      </section>
      <section v-if="pictured" class="card" aria-label="Side by side in pictures">
        <h2>In pictures</h2>
        <p v-if="colours" class="row">
          <ColourSwatch :colour="colours.one" /><ColourSwatch :colour="colours.other" />
          <span
            >ΔE00 <strong>{{ colours.difference.toFixed(1) }}</strong> between {{ SHOWS_WORDS[colours.shows] }}:
            {{ wordsOfDifference(colours.difference) }}.</span
          >
        </p>
        <div class="sides">
          <div v-for="side in answer.sides" :key="side.batchId">
            <h3>Batch {{ side.number }}</h3>
            <PictureStrip v-if="side.pictures.length" :pictures="side.pictures" :now="now" />
            <p v-else class="quiet">No picture.</p>
          </div>
        </div>
      </section>
      <section class="card scroll">
        <table>
          <thead>
            <tr>
              <th />
              <th v-for="side in answer.sides" :key="side.batchId">
                <NuxtLink :to="`/batches/${side.batchId}`">Batch {{ side.number }}</NuxtLink
                ><br /><span class="quiet">{{ side.title }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="[name, words] in ROWS" :key="name">
              <th>{{ name }}</th>
              <td v-for="side in answer.sides" :key="side.batchId">{{ words(side) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 1.2rem;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
tbody th {
  text-align: left;
  color: var(--quiet);
  font: 400 1rem var(--text);
}
thead th {
  text-align: left;
}
td,
th {
  padding: 0.5rem 1rem 0.5rem 0;
  border-bottom: 1px solid var(--rule);
}
.said {
  margin: 0.4rem 0;
  padding-left: 1.2rem;
  display: grid;
  gap: 0.3rem;
}
</style>
