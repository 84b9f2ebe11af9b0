<script setup lang="ts">
/** Trays by their place in the machine, top to bottom; those that cannot be chosen are struck through. */
const props = defineProps<{ label: string; trays: readonly number[]; free?: readonly number[] }>()
const model = defineModel<number[]>({ required: true })
const can = (position: number) => props.free?.includes(position) ?? true
function turn(position: number) {
  model.value = model.value.includes(position)
    ? model.value.filter(item => item !== position)
    : [...model.value, position].sort((a, b) => a - b)
}
</script>

<template>
  <fieldset class="field trays">
    <legend>{{ label }}</legend>
    <div class="row">
      <button
        v-for="position in trays"
        :key="position"
        type="button"
        class="tray"
        :class="{ on: model.includes(position) }"
        :aria-pressed="model.includes(position)"
        :aria-label="`Tray ${position}`"
        :disabled="!can(position)"
        :title="can(position) ? undefined : 'taken'"
        @click="turn(position)"
      >
        {{ position }}
      </button>
    </div>
    <slot />
  </fieldset>
</template>

<style scoped>
.trays {
  border: 0;
  padding: 0;
  margin: 0;
}
.tray {
  width: 48px;
  height: 46px;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  font-weight: 650;
  cursor: pointer;
}
.tray.on {
  border-color: var(--dulse);
  box-shadow: inset 0 0 0 1px var(--dulse);
  background: var(--dulse-wash);
}
.tray:disabled {
  color: var(--quiet);
  background: var(--sunk);
  cursor: not-allowed;
  text-decoration: line-through;
}
</style>
