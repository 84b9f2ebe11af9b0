<script setup lang="ts">
import { spoonedG, volumeOf } from '#core/using'
import type { KitchenJar } from '#shared/contracts'

/** Whether this jar's spoon was ever weighed; if not, it is weighed here, once. */
const props = defineProps<{ jar: KitchenJar }>()
const store = useKitchen()
const format = useFormat()
const open = ref(false)
const grams = ref<number>()
const problem = ref('')
const { settings } = storeToRefs(useHouseholdStore())
const ml = computed(() => volumeOf(1, 'tablespoon', settings.value.measures))
async function keep() {
  if (grams.value === undefined) {
    problem.value = 'Weigh a level tablespoon, without the spoon.'
    return
  }
  try {
    await store.log(props.jar, { kind: 'measure', jarId: props.jar.jarId, ml: ml.value, weightG: grams.value })
    open.value = false
    problem.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div class="spoon">
    <p class="quiet small">
      {{
        jar.measured
          ? `A level tablespoon of this jar weighs ${format.weight(spoonedG(jar, ml))}, as weighed.`
          : `Nobody has weighed a spoon of this jar: ${format.range(jar.densityGMl, format.density)} is usual, so spoons are near and weights are right.`
      }}
      <button v-if="!open" type="button" class="link" @click="open = true">
        {{ jar.measured ? 'Weigh it again' : 'Weigh a level spoon' }}
      </button>
    </p>
    <form v-if="open" class="row" @submit.prevent="keep">
      <WeightField v-model="grams" label="A level tablespoon holds" required autofocus /><ElButton native-type="submit">Keep it</ElButton>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.link {
  min-height: 44px;
  border: 0;
  background: none;
  padding: 0.5rem 0;
  font-weight: 650;
  color: var(--dulse-ink);
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
</style>
