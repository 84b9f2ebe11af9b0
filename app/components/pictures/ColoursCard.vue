<script setup lang="ts">
import { differenceOf, wordsOfDifference, type Lab } from '#core/colour'
import { inForce, ofKind, type Entry } from '#core/log'

/** The pictures of a log, and its colour over the months, each against the first. */
const props = defineProps<{ entries: readonly Entry[]; now: number }>()
const format = useFormat()
const pictures = computed(() =>
  ofKind(inForce(props.entries), 'picture')
    .map(({ id, at, body }) => ({ entryId: id, at, ...body }))
    .sort((a, b) => b.at - a.at),
)
/** Measured colours of what is shown most, oldest first: pieces and powder are not held against each other. */
const measured = computed(() => {
  const coloured = pictures.value.flatMap(item => (item.colour ? [{ ...item, colour: item.colour as Lab }] : [])).reverse()
  const { shows } = coloured.at(-1) ?? {}
  return coloured.filter(item => item.shows === shows)
})
const faded = computed(() => {
  const [first] = measured.value
  const last = measured.value.at(-1)
  return first && last && first !== last ? differenceOf(first.colour, last.colour) : undefined
})
</script>

<template>
  <section v-if="pictures.length" class="card" aria-label="Pictures">
    <h2>Pictures</h2>
    <PictureStrip :pictures="pictures" :now="now" />
    <template v-if="measured.length > 1">
      <h3>Its colour</h3>
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Colour</th>
            <th scope="col">From the first (ΔE00)</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(item, i) in measured" :key="item.entryId">
            <td>{{ format.date(item.at) }}</td>
            <td><ColourSwatch :colour="item.colour" /></td>
            <td>{{ i === 0 ? '' : differenceOf(measured[0]!.colour, item.colour).toFixed(1) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="faded !== undefined" class="quiet small">
        From first to last {{ faded.toFixed(1) }}: {{ wordsOfDifference(faded) }}. Two pictures of the same powder in other light differ by
        about 2.
      </p>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 1rem 0 0.4rem;
}
</style>
