<script setup lang="ts">
/**
 * The frame of every form in a dialog: the fields are checked, it is saved once however often the button is pressed, what is
 * wrong stands above the button, and it closes when all is written.
 */
const props = defineProps<{
  title: string
  width: string
  /** What stands on the button. */
  verb: string
  /** Writes it; what it gives back is what is missing or wrong, and the form stays. A refusal stays by itself. */
  save: () => Promise<string[] | undefined>
}>()
const emit = defineEmits<{ close: [] }>()

const open = ref(true)
const busy = ref(false)
const problems = ref<string[]>([])
/** What is wrong with the time, for the field that the form shows it in. */
const atProblem = ref<string>()
const checkFields = useFieldChecks()
/** Something was typed or chosen since it was opened. */
const touched = ref(false)
const { asking, beforeClose, throwAway } = useUnsaved(
  // While it saves, the way to what it began is its own.
  () => open.value && touched.value && !busy.value,
  () => (open.value = false),
)

async function submit() {
  if (busy.value || checkFields() !== undefined) return
  busy.value = true
  asking.value = false
  problems.value = []
  atProblem.value = undefined
  try {
    problems.value = (await props.save()) ?? []
    if (problems.value.length === 0) open.value = false
  } catch (error) {
    if (error instanceof Refused) {
      atProblem.value = error.problems.find(problem => problem.field === 'at')?.message
      problems.value = error.problems.filter(problem => problem.field !== 'at').map(problem => problem.message)
    } else if (!(error instanceof OutOfTouch)) throw error
    if (problems.value.length === 0 && !atProblem.value) problems.value = [error.message]
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ElDialog v-model="open" :title="title" :width="width" align-center :before-close="beforeClose" @closed="emit('close')">
    <form class="form" @submit.prevent="submit" @input="touched = true" @change="touched = true">
      <slot :at-problem="atProblem" />
      <div role="alert">
        <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
      </div>
      <UnsavedNote v-if="asking" @keep="asking = false" @throw-away="throwAway" />
      <div class="row save-bar">
        <ElButton type="primary" native-type="submit" :loading="busy">{{ verb }}</ElButton>
        <ElButton @click="open = false">Cancel</ElButton>
      </div>
    </form>
  </ElDialog>
</template>
