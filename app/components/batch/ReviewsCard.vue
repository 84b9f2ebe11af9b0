<script setup lang="ts">
import { AGAIN_WORDS } from '~/utils/logWords'
import type { ReviewAnswer } from '#shared/contracts'

/** What was noted for next time, now that it is next time. */
defineProps<{ reviews: readonly ReviewAnswer[] }>()
const format = useFormat()
</script>

<template>
  <section class="card" aria-label="From earlier times">
    <h2>From earlier times</h2>
    <ul class="plain-list">
      <li v-for="review in reviews" :key="review.jar?.jarId ?? review.batchId">
        <span class="tag" :class="{ good: review.again === 'yes', attention: review.again === 'changed', danger: review.again === 'no' }">{{
          AGAIN_WORDS[review.again]
        }}</span>
        <strong v-if="review.text">{{ review.text }}</strong>
        <NuxtLink :to="review.jar ? `/jars/${review.jar.jarId}` : `/batches/${review.batchId}`" class="quiet small"
          >{{ review.jar ? `Jar ${review.jar.number}` : `Batch ${review.number}` }}, {{ format.month(review.at) }}</NuxtLink
        ><span v-if="review.taste || review.colour" class="quiet small"
          >{{ review.colour ? ` · colour ${review.colour}` : '' }}{{ review.taste ? ` · taste ${review.taste}` : '' }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  padding: 0.5rem 0;
  border-top: 1px solid var(--rule);
}
li:first-child {
  border: 0;
}
</style>
