<script setup lang="ts">
/** Over all that is practised: nobody is to take it for the logbook. */
defineProps<{ words?: string }>()
</script>

<template>
  <p class="band">
    <span>{{ words ?? 'On paper: nothing here enters your logbook' }}</span>
  </p>
</template>

<style scoped>
/* Always in sight: nobody is to take what stands under it for the logbook. */
.band {
  position: sticky;
  top: 70px;
  z-index: 12;
  margin: -1.1rem -1.5rem 0;
  padding: 0.25rem 1.5rem;
  background: repeating-linear-gradient(-45deg, color-mix(in oklab, var(--straw) 55%, var(--paper)) 0 14px, var(--paper) 14px 28px);
  border-bottom: 1px solid var(--rule);
}
.band span {
  display: inline-block;
  padding: 0.1rem 0.8rem;
  border-radius: 6px;
  background: var(--paper);
  font-weight: 700;
}
@media (width <= 760px) {
  .band {
    top: 58px;
    margin: -0.9rem -0.8rem 0;
    padding-inline: 0.8rem;
  }
}
@media (height <= 500px) {
  .band {
    position: static;
  }
}
</style>
