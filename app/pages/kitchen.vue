<script setup lang="ts">
/** The kitchen: what a jar becomes. */
const store = useKitchen()
useHead({ title: 'Kitchen · Dulse' })
await store.ready()
const TABS = [
  { to: '/kitchen', words: 'Water back' },
  { to: '/kitchen/flour', words: 'Flour' },
  { to: '/kitchen/fresh', words: 'Fresh and strength' },
  { to: '/kitchen/blend', words: 'Blends' },
  { to: '/kitchen/recipes', words: 'Recipes' },
]
const route = useRoute()
// On a phone the row of tabs is wider than the page.
const tabs = ref<HTMLElement>()
watch(
  () => [route.path, tabs.value],
  () => {
    void nextTick(() => tabs.value?.querySelector('[aria-current]')?.scrollIntoView({ inline: 'center', block: 'nearest' }))
  },
  { immediate: true },
)
const isHere = (to: string) => (to === '/kitchen' ? route.path === to : route.path.startsWith(to))
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Kitchen</h1>
      <nav ref="tabs" class="tabs" aria-label="In the kitchen">
        <NuxtLink
          v-for="tab in TABS"
          :key="tab.to"
          :to="{ path: tab.to, query: route.query.jar ? { jar: route.query.jar } : {} }"
          class="tab"
          :class="{ on: isHere(tab.to) }"
          :aria-current="isHere(tab.to) ? 'page' : undefined"
          >{{ tab.words }}</NuxtLink
        >
      </nav>
    </header>
    <p v-if="store.problem" class="card problem">{{ store.problem }}</p>
    <div v-else-if="store.jars.length === 0" class="card empty">
      <h2>Nothing to cook with yet</h2>
      <p>Here powders get their water back, replace flour and fresh food, and become blends, by what is in your own jars.</p>
      <div class="row">
        <ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton
        ><ElButton @click="navigateTo('/shelf?bought=1')">Put in what was bought</ElButton>
      </div>
    </div>
    <NuxtPage v-else />
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem;
}
.tab {
  padding: 0.65rem 0.9rem;
  text-decoration: none;
  font-weight: 650;
  color: var(--quiet);
  border-bottom: 3px solid transparent;
}
.tab:hover {
  color: var(--ink);
}
.tab.on {
  color: var(--dulse-ink);
  border-bottom-color: var(--dulse);
}
@media (width <= 760px) {
  .tabs {
    flex-wrap: nowrap;
    overflow-x: auto;
    max-width: calc(100vw - 1.6rem);
  }
  .tab {
    padding: 0.65rem 0.7rem;
    white-space: nowrap;
  }
}
.empty {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  max-width: 620px;
}
</style>
