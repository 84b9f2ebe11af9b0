<script setup lang="ts">
import { foodSearch } from '#core/foods/search'

/** A food of the reference or of one's own, found by any of its names. */
defineProps<{ label: string; problem?: string }>()
const model = defineModel<string>({ default: '' })
const id = useId()
const foods = useFoods()
void foods.load()
const search = computed(() => foodSearch(foods.list))
const looked = ref('')
/** A list of all is slow to open, and nobody reads it. */
const SHOWN = 40
const options = computed(() => search.value(looked.value).slice(0, SHOWN))
const chosen = computed(() => foods.list.find(item => item.key === model.value))
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElSelect
      :id="id"
      v-model="model"
      filterable
      default-first-option
      :filter-method="(words: string) => (looked = words)"
      placeholder="Choose"
      :aria-label="label"
      @visible-change="looked = ''"
    >
      <ElOption v-for="item in options" :key="item.key" :value="item.key" :label="item.name" />
      <ElOption v-if="chosen && !options.some(item => item.key === model)" :value="chosen.key" :label="chosen.name" />
      <template #empty
        ><p class="nothing">Nothing is called “{{ looked }}” here.</p></template
      >
    </ElSelect>
    <p v-if="problem" class="problem">{{ problem }}</p>
  </div>
</template>

<style scoped>
.nothing {
  padding: 0.8rem;
}
</style>
