<script setup lang="ts">
/** Practice: lessons on a rack on paper, drills, how sure one is, one's own runs once more. */
useHead({ title: 'Practice · Dulse' })
const TABS = [
  { to: '/practice', words: 'Lessons' },
  { to: '/practice/drills', words: 'Drills' },
  { to: '/practice/own', words: 'Your own runs' },
  { to: '/practice/sure', words: 'How sure you are' },
]
const route = useRoute()
const playing = computed(() => route.path.startsWith('/practice/play/') || route.path.startsWith('/practice/own/'))
</script>

<template>
  <div class="stack">
    <PaperBand />
    <header v-if="!playing" class="page-head">
      <h1>Practice</h1>
      <TabLinks :tabs="TABS" label="In practice" />
    </header>
    <NuxtPage />
  </div>
</template>
