<script setup lang="ts">
/** What was typed and not saved: it is kept until somebody says otherwise. */
defineProps<{ words?: string }>()
defineEmits<{ keep: []; throwAway: [] }>()
const first = ref<{ ref?: HTMLElement }>()
onMounted(() => first.value?.ref?.focus())
</script>

<template>
  <div class="caution unsaved" role="alertdialog" aria-label="Not saved">
    <p>{{ words ?? 'What you typed is not saved.' }}</p>
    <div class="row">
      <ElButton ref="first" @click="$emit('keep')">Go on with it</ElButton>
      <ElButton @click="$emit('throwAway')">Throw it away</ElButton>
    </div>
  </div>
</template>

<style scoped>
.unsaved {
  display: grid;
  gap: 0.5rem;
}
</style>
