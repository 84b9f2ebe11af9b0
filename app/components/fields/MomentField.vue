<script setup lang="ts">
/** A day and time to come, by the household's clock. */
defineProps<{ label: string; problem?: string }>()
const model = defineModel<number | undefined>()
const id = useId()
const wall = useWallTime(model)
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElInput :id="id" v-model="wall" type="datetime-local" :aria-invalid="Boolean(problem)" />
    <p v-if="problem" class="problem">{{ problem }}</p>
  </div>
</template>
