<script setup lang="ts">
/** A secret that can be looked at while it is typed, and pasted into. */
defineProps<{ label: string; hint?: string; problem?: string; autocomplete: 'current-password' | 'new-password' | 'off' }>()
const model = defineModel<string>({ default: '' })
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElInput
      :id="id"
      v-model="model"
      type="password"
      show-password
      :autocomplete="autocomplete"
      autocapitalize="none"
      spellcheck="false"
      :aria-invalid="Boolean(problem)"
      :aria-describedby="problem || hint ? `${id}-note` : undefined"
    />
    <p v-if="problem || hint" :id="`${id}-note`" :class="problem ? 'problem' : 'quiet small'">{{ problem ?? hint }}</p>
  </div>
</template>
