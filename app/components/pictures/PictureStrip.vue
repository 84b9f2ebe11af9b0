<script setup lang="ts">
import { capital } from '#core/text'
import type { PictureAnswer } from '#shared/contracts'

/** Pictures in a row, newest first; each opens large. */
const props = defineProps<{
  pictures: readonly (Pick<PictureAnswer, 'entryId' | 'picture' | 'at' | 'shows' | 'text' | 'colour'> & Partial<PictureAnswer>)[]
  now: number
  /** With the batch or the jar that each hangs on. */
  places?: boolean
}>()
const format = useFormat()
const url = usePictureUrl()
const opened = ref<string>()
const large = computed(() => props.pictures.find(item => item.entryId === opened.value))
const place = (item: Partial<PictureAnswer>) =>
  item.jarNumber !== undefined ? `jar ${item.jarNumber}` : item.batchNumber === undefined ? '' : `batch ${item.batchNumber}`
const wordsOf = (item: (typeof props.pictures)[number]) =>
  [SHOWS_WORDS[item.shows], props.places && place(item), format.date(item.at)].filter(Boolean).join(', ')
</script>

<template>
  <ul class="plain-list strip">
    <li v-for="item in pictures" :key="item.entryId">
      <button type="button" :aria-label="`Picture, ${wordsOf(item)}: open it large`" @click="opened = item.entryId">
        <img :src="url(item.picture)" alt="" loading="lazy" />
      </button>
      <p class="small">{{ capital(wordsOf(item)) }}</p>
      <ColourSwatch v-if="item.colour" class="small" :colour="item.colour" />
    </li>
  </ul>
  <ElDialog
    v-if="large"
    :model-value="true"
    :title="capital(wordsOf(large))"
    width="min(900px, 96vw)"
    align-center
    append-to-body
    @closed="opened = undefined"
    @update:model-value="opened = undefined"
  >
    <img class="large" :src="url(large.picture)" :alt="large.text ?? capital(wordsOf(large))" />
    <p v-if="large.text">{{ large.text }}</p>
    <p v-if="large.colour"><ColourSwatch :colour="large.colour" /></p>
    <p v-if="places && (large.jarId ?? large.batchId)">
      <NuxtLink :to="large.jarId ? `/jars/${large.jarId}` : `/batches/${large.batchId}`">{{ capital(place(large)) }}</NuxtLink>
    </p>
  </ElDialog>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 0.8rem;
}
button {
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  cursor: zoom-in;
  border-radius: 8px;
}
.strip img {
  display: block;
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 8px;
  background: var(--sunk);
}
.large {
  display: block;
  max-width: 100%;
  max-height: 70vh;
  margin: 0 auto;
  border-radius: 8px;
}
p {
  margin: 0.25rem 0 0;
}
</style>
