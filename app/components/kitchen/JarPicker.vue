<script setup lang="ts">
import type { KitchenJar } from '#shared/contracts'

/** One jar of many, found by a few letters. */
const props = defineProps<{ label: string; jars: readonly KitchenJar[]; hideLabel?: boolean }>()
const model = defineModel<string>()
const format = useFormat()
const id = useId()
const words = (jar: KitchenJar) =>
  `${jar.foodName}${jar.purpose === 'powder' ? '' : `, ${PURPOSE_WORDS[jar.purpose]}`} · jar ${jar.number}, ${format.weight(jar.leftG)}`
const chosen = computed(() => props.jars.find(jar => jar.jarId === model.value))
</script>

<template>
  <div class="field">
    <label :for="id" :class="{ 'visually-hidden': hideLabel }">{{ label }}</label>
    <ElSelect :id="id" v-model="model" filterable :aria-label="label" placeholder="Choose a jar">
      <template v-if="chosen" #prefix><span class="dot" :style="{ background: chosen.colour }" /></template>
      <ElOption v-for="jar in jars" :key="jar.jarId" :value="jar.jarId" :label="words(jar)"
        ><span class="dot" :style="{ background: jar.colour }" />{{ words(jar) }}</ElOption
      >
    </ElSelect>
  </div>
</template>

<style scoped>
.dot {
  display: inline-block;
  width: 0.85rem;
  height: 0.85rem;
  border-radius: 50%;
  margin-right: 0.6rem;
  vertical-align: -1px;
  flex: none;
}
</style>
