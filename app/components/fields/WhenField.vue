<script setup lang="ts">
import { MINUTE } from '#core/time'

/** When it happened: now, unless somebody says otherwise. Wall times are those of the household's clock. */
const props = defineProps<{ problem?: string }>()
const model = defineModel<number | undefined>()
const format = useFormat()
/** On paper the story's clock says when. */
const paper = usePaper()
const id = useId()
const wall = useWallTime(model)
const earlier = (minutes: number) => {
  model.value = Date.now() - minutes * MINUTE
}
const inFuture = computed(() => model.value !== undefined && model.value > Date.now() + 5 * MINUTE)
</script>

<template>
  <div v-if="!paper" class="field when">
    <div v-if="model === undefined" class="row">
      <span class="quiet">When: now.</span>
      <ElButton class="earlier" text @click="earlier(15)">It was earlier</ElButton>
      <p v-if="props.problem" class="problem">{{ props.problem }}</p>
    </div>
    <template v-else>
      <label :for="id">When</label>
      <div class="row">
        <LazyWhenPicker :id="id" v-model="wall" :label="`When, ${format.moment(model, Date.now())}`" />
        <ElButton text @click="model = undefined">Now</ElButton>
      </div>
      <p v-if="props.problem || inFuture" class="problem">
        {{ props.problem ?? 'This is in the future. Give the time when it happened.' }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.earlier {
  padding: 0 0.4rem;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
