<script setup lang="ts" generic="Value extends string | number | boolean">
/** One of a few, all of them in sight; large enough for a wet thumb. Arrow keys move, as in any radio group. */
defineProps<{ label: string; choices: readonly { value: Value; words: string; note?: string }[]; problem?: string; hideLabel?: boolean }>()
const model = defineModel<Value>()
const name = useId()
/** A cut is chosen by its name, and that is of so many millimetres. */
const format = useFormat()
</script>

<template>
  <fieldset class="field choices">
    <legend :class="{ 'visually-hidden': hideLabel }">{{ label }}</legend>
    <div class="options">
      <label v-for="choice in choices" :key="String(choice.value)" class="option" :class="{ on: model === choice.value }">
        <input v-model="model" type="radio" :name="name" :value="choice.value" class="visually-hidden" />
        <span>{{ format.sentence(choice.words) }}</span>
        <span v-if="choice.note" class="small note">{{ format.sentence(choice.note) }}</span>
      </label>
    </div>
    <p v-if="problem" class="problem">{{ problem }}</p>
  </fieldset>
</template>

<style scoped>
.choices {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
.options {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.option {
  position: relative;
  display: grid;
  align-content: center;
  min-height: 46px;
  padding: 0.35rem 0.9rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  cursor: pointer;
  line-height: 1.25;
}
.option:hover {
  background: var(--sunk);
}
.option.on {
  border-color: var(--dulse);
  box-shadow: inset 0 0 0 1px var(--dulse);
  background: var(--dulse-wash);
  font-weight: 650;
}
.option:has(:focus-visible) {
  outline: 3px solid color-mix(in srgb, var(--brine) 75%, transparent);
  outline-offset: 2px;
}
.note {
  color: var(--quiet);
  font-weight: 400;
}
</style>
