<script setup lang="ts">
import { capital } from '#core/text'
import { inForce, PICTURE_SUBJECTS, type BatchState, type EntryBody, type PictureSubject } from '#core/log'
import type { BatchAnswer, JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'
import type { TakenPicture } from '~/composables/usePictures'

/** A photograph, or what was said of one. */
const props = defineProps<{
  initial?: Extract<EntryBody, { kind: 'picture' }>
  state?: BatchState
  page?: BatchAnswer
  jar?: JarAnswer
}>()
const format = useFormat()
const { now } = useClock()
const shows = ref<PictureSubject>(
  props.initial?.shows ?? (props.jar ? (props.jar.purpose === 'powder' ? 'powder' : 'jar') : props.state?.run ? 'pieces' : 'food'),
)
const text = ref(props.initial?.text ?? '')
const colour = ref(props.initial?.colour)
/** The line of the log that it was taken with. */
const about = ref(props.initial?.about ?? '')
const LINES_OFFERED = 15
const lines = computed(() =>
  inForce(props.page?.entries ?? props.jar?.entries ?? [])
    .filter(({ body: { kind } }) => kind !== 'picture' && kind !== 'caution' && kind !== 'void')
    .sort((a, b) => b.at - a.at)
    .slice(0, LINES_OFFERED)
    .map(({ id, at, body }) => ({
      id,
      words: `${format.moment(at, now.value)}, ${logWords(body, { ...format, jarId: props.jar?.jarId })}`,
    })),
)
const taken = ref<TakenPicture[]>([])
const measuring = ref(false)
const url = usePictureUrl()

function read(): FormReading {
  const said = text.value.trim() || undefined
  if (props.initial)
    return { bodies: [{ ...props.initial, shows: shows.value, text: said, colour: colour.value, about: about.value || undefined }] }
  if (taken.value.length === 0) return { problem: 'Take or choose a picture.' }
  return {
    bodies: pictureBodies(taken.value, about.value || undefined, props.jar?.jarId).map(body => ({
      ...body,
      shows: shows.value,
      text: said,
    })),
    files: taken.value,
  }
}
defineExpose({ read })
</script>

<template>
  <ChoiceField v-model="shows" label="It shows" :choices="PICTURE_SUBJECTS.map(value => ({ value, words: capital(SHOWS_WORDS[value]) }))" />
  <PictureField v-if="!initial" v-model="taken" :shows="shows" />
  <template v-else>
    <img class="shown" :src="url(initial.picture)" alt="The picture" />
    <div class="row">
      <ColourSwatch v-if="colour" :colour="colour" />
      <button type="button" class="word-button" @click="measuring = true">{{ colour ? 'Measure again' : 'Measure the colour' }}</button>
    </div>
    <LazyColourDialog v-if="measuring" :url="url(initial.picture)" @close="measuring = false" @measured="found => (colour = found)" />
  </template>
  <div class="field">
    <label for="picture-about">Taken with</label>
    <ElSelect id="picture-about" v-model="about" aria-label="Taken with">
      <ElOption value="" label="nothing in particular" />
      <ElOption v-for="line in lines" :key="line.id" :value="line.id" :label="line.words" />
    </ElSelect>
  </div>
  <TextField v-model="text" label="Words to it" optional />
</template>

<style scoped>
.shown {
  max-height: 40vh;
  max-width: 100%;
  justify-self: start;
  border-radius: 8px;
}
</style>
