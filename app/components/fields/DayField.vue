<script setup lang="ts">
/** A day, as the browser writes it. */
defineProps<{ label: string; problem?: string; hint?: string }>()
const model = defineModel<string>({ default: '' })
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElInput :id="id" v-model="model" type="date" :aria-invalid="Boolean(problem)" />
    <p v-if="problem || hint" :class="problem ? 'problem' : 'quiet small'">{{ problem ?? hint }}</p>
  </div>
</template>
