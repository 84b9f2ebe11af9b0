<script setup lang="ts">
const props = defineProps<{ error: { statusCode?: number; message?: string } }>()
const missing = computed(() => props.error.statusCode === 404)
</script>

<template>
  <NuxtLayout>
    <section class="card error">
      <h1>{{ missing ? 'There is no such page' : 'This page broke' }}</h1>
      <p v-if="!missing">
        What you logged is kept; what was typed and not sent waits in this browser. <span class="quiet">{{ error.message }}</span>
      </p>
      <p><a href="/">To Now</a></p>
    </section>
  </NuxtLayout>
</template>

<style scoped>
.error {
  max-width: 560px;
  margin: 12vh auto;
  display: grid;
  gap: 1rem;
}
</style>
