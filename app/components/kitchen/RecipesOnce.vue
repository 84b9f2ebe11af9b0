<script setup lang="ts">
import type { PastRecipe } from '#shared/contracts'

/** Recipes as they stood before they were changed or removed; each can be taken back. */
const store = useKitchen()
const format = useFormat()
const { now } = useClock()
const past = ref<PastRecipe[]>()
const problem = ref('')

async function load() {
  try {
    past.value = await call('pastRecipes')
  } catch (error) {
    problem.value = error instanceof OutOfTouch ? 'What they were is kept by the server, and it is out of touch.' : (error as Error).message
  }
}
// What was changed elsewhere on the page is past as well.
watch(() => store.answer?.recipes, load, { immediate: true })

/** It stands again as it did; what stands now goes among the past. */
async function takeBack({ recipe: { version: _, ...recipe } }: PastRecipe) {
  problem.value = ''
  const version = store.answer?.recipes.find(item => item.id === recipe.id)?.version
  try {
    await call('saveRecipe', { body: { ...recipe, ...(version && { version }) } })
    await store.load()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const countOf = ({ recipe }: PastRecipe) =>
  recipe.kind === 'blend' ? plural(recipe.parts.length, 'part') : plural(recipe.powders.length, 'powder')
</script>

<template>
  <details v-if="past?.length || problem" class="card once">
    <summary>Changed or removed: {{ past?.length ?? 0 }}</summary>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ul class="plain-list">
      <li v-for="item in past" :key="`${item.recipe.id}/${item.recipe.version}`" class="row between">
        <span
          ><strong>{{ item.recipe.name }}</strong>
          <span class="quiet"
            >{{ countOf(item) }}, {{ item.removed ? 'removed' : 'as it was until' }} {{ format.moment(item.until, now) }}</span
          ></span
        >
        <ElButton
          :aria-label="`Take back ${item.recipe.name}, ${item.removed ? 'removed' : 'until'} ${format.moment(item.until, now)}`"
          @click="takeBack(item)"
          >Take it back</ElButton
        >
      </li>
    </ul>
  </details>
</template>

<style scoped>
.once summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
  color: var(--quiet);
  font-weight: 650;
}
.once li {
  padding: 0.4rem 0;
  border-top: 1px solid var(--rule);
}
</style>
