<script setup lang="ts">
/** Pages of a place, side by side. */
const props = defineProps<{ tabs: readonly { to: string; words: string }[]; label: string; query?: Record<string, string> }>()
const route = useRoute()
// On a phone the row of tabs is wider than the page.
const row = ref<HTMLElement>()
watch(
  () => [route.path, row.value],
  () => {
    void nextTick(() => row.value?.querySelector('[aria-current]')?.scrollIntoView({ inline: 'center', block: 'nearest' }))
  },
  { immediate: true },
)
/** The first is the place itself. */
const isHere = (to: string) => (to === props.tabs[0]!.to ? route.path === to : route.path.startsWith(to))
</script>

<template>
  <nav ref="row" class="tabs" :aria-label="label">
    <NuxtLink
      v-for="tab in tabs"
      :key="tab.to"
      :to="{ path: tab.to, query }"
      class="tab"
      :class="{ on: isHere(tab.to) }"
      :aria-current="isHere(tab.to) ? 'page' : undefined"
      >{{ tab.words }}</NuxtLink
    >
  </nav>
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
</style>
