<script setup lang="ts">
defineProps<{ label: string; hint?: string; problem?: string; optional?: boolean; placeholder?: string; rows?: number }>()
const model = defineModel<string>({ default: '' })
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}<span v-if="optional" class="quiet"> (if you like)</span></label>
    <ElInput
      :id="id"
      v-model="model"
      :type="rows ? 'textarea' : 'text'"
      :rows="rows"
      :placeholder="placeholder"
      autocomplete="off"
      :aria-invalid="Boolean(problem)"
    />
    <p v-if="problem || hint" :class="problem ? 'problem' : 'quiet small'">{{ problem ?? hint }}</p>
  </div>
</template>
