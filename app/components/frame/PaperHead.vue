<script setup lang="ts">
/** Above a page that is made for paper: how to print it, and where it comes back. Not printed itself. */
defineProps<{ title: string; back: { to: string; words: string }; more?: { to: string; words: string } }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { now } = useClock()
const print = () => window.print()
</script>

<template>
  <div class="paper-head">
    <div class="row no-print">
      <ElButton type="primary" @click="print">Print</ElButton>
      <ElButton v-if="more" @click="navigateTo(more.to)">{{ more.words }}</ElButton>
      <ElButton @click="navigateTo(back.to)">{{ back.words }}</ElButton>
    </div>
    <h1>{{ title }}</h1>
    <p class="quiet">{{ settings.name }}, {{ format.date(now) }}, {{ format.time(now) }}</p>
  </div>
</template>

<style scoped>
.paper-head {
  display: grid;
  gap: 0.4rem;
}
</style>
