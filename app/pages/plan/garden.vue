<script setup lang="ts">
/** What the plan goes by beside baskets and machines: harvests, wishes, days, power and weather. */
useHead({ title: 'Harvests and days · Dulse' })
// The forms begin with what is known.
const { ready } = usePlanBook()
await ready()
</script>

<template>
  <div class="columns">
    <HarvestsCard />
    <WishesCard />
    <DaysCard />
    <PowerCard />
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 26rem), 1fr));
  gap: 1rem;
  align-items: start;
}
</style>
