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
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Kitchen</h1>
      <TabLinks :tabs="TABS" label="In the kitchen" :query="typeof route.query.jar === 'string' ? { jar: route.query.jar } : {}" />
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
.empty {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  max-width: 620px;
}
</style>
