<script setup lang="ts">
import { capital } from '#core/text'
import { PICTURE_SUBJECTS, type BatchState, type EntryBody, type PictureSubject } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'
import type { TakenPicture } from '~/composables/usePictures'

/** A photograph, or what was said of one. */
const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'picture' }>; state?: BatchState; jar?: JarAnswer }>()
const shows = ref<PictureSubject>(
  props.initial?.shows ?? (props.jar ? (props.jar.purpose === 'powder' ? 'powder' : 'jar') : props.state?.run ? 'pieces' : 'food'),
)
const text = ref(props.initial?.text ?? '')
const colour = ref(props.initial?.colour)
const taken = ref<TakenPicture[]>([])
const measuring = ref(false)
const url = usePictureUrl()

function read(): FormReading {
  const said = text.value.trim() || undefined
  if (props.initial) return { bodies: [{ ...props.initial, shows: shows.value, text: said, colour: colour.value }] }
  if (taken.value.length === 0) return { problem: 'Take or choose a picture.' }
  return {
    bodies: pictureBodies(taken.value, undefined, props.jar?.jarId).map(body => ({ ...body, shows: shows.value, text: said })),
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
