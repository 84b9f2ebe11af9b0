<script setup lang="ts">
/** A file, chosen or dropped. */
defineProps<{ name?: string; label: string; hint: string; accept: string }>()
const emit = defineEmits<{ chosen: [file: File] }>()
const over = ref(false)
function take(file: File | undefined) {
  over.value = false
  if (file) emit('chosen', file)
}
</script>

<template>
  <label
    class="card drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="(event: DragEvent) => take(event.dataTransfer?.files[0])"
  >
    <input
      type="file"
      :accept="accept"
      class="visually-hidden"
      :aria-label="label"
      @change="(event: Event) => take((event.target as HTMLInputElement).files?.[0])"
    />
    <strong>{{ name ?? 'Choose a file, or drop it here' }}</strong>
    <span class="quiet small">{{ name ? 'Choose another to begin again.' : hint }}</span>
  </label>
</template>

<style scoped>
.drop {
  display: grid;
  justify-items: center;
  gap: 0.3rem;
  padding: 1.5rem;
  border-style: dashed;
  text-align: center;
  cursor: pointer;
}
.drop.over {
  border-color: var(--dulse);
  background: var(--dulse-wash);
}
.drop:focus-within {
  outline: 3px solid color-mix(in srgb, var(--brine) 75%, transparent);
  outline-offset: 2px;
}
</style>
