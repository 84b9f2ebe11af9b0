<script setup lang="ts">
import type { PictureSubject } from '#core/log'
import type { TakenPicture } from '~/composables/usePictures'

/** Pictures to go with what is logged: from the camera where there is one, or chosen. */
const props = withDefaults(defineProps<{ shows: PictureSubject; most?: number }>(), { most: 4 })
const taken = defineModel<TakenPicture[]>({ required: true })
const input = ref<HTMLInputElement>()
const busy = ref(false)
const problems = ref<string[]>([])
const measured = ref<TakenPicture>()

async function take(files: FileList | null) {
  busy.value = true
  problems.value = []
  try {
    for (const file of [...(files ?? [])].slice(0, props.most - taken.value.length)) {
      const picture = await takenFrom(file, props.shows)
      if (typeof picture === 'string') problems.value.push(picture)
      else if (!taken.value.some(other => other.name === picture.name)) taken.value = [...taken.value, picture]
    }
  } finally {
    busy.value = false
    if (input.value) input.value.value = ''
  }
}
function drop(picture: TakenPicture) {
  URL.revokeObjectURL(picture.url)
  taken.value = taken.value.filter(other => other !== picture)
}
</script>

<template>
  <div class="pictures">
    <ul v-if="taken.length" class="plain-list taken">
      <li v-for="(picture, i) in taken" :key="picture.name">
        <img :src="picture.url" :alt="`Picture ${i + 1}, not logged yet`" />
        <div class="row">
          <ColourSwatch v-if="picture.colour" :colour="picture.colour" />
          <button type="button" class="word-button" @click="measured = picture">
            {{ picture.colour ? 'Measure again' : 'Measure the colour' }}
          </button>
          <button type="button" class="drop" :aria-label="`Leave picture ${i + 1} out`" @click="drop(picture)"><IconX :size="20" /></button>
        </div>
      </li>
    </ul>
    <label v-if="taken.length < most" class="add" :class="{ busy }">
      <IconCamera :size="20" aria-hidden="true" />
      <span>{{ busy ? 'Making it small' : taken.length ? 'Another picture' : 'Add a picture' }}</span>
      <input ref="input" type="file" accept="image/*" :multiple="most > 1" class="away" @change="take(input!.files)" />
    </label>
    <div role="alert">
      <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
    </div>
    <LazyColourDialog
      v-if="measured"
      :url="measured.url"
      @close="measured = undefined"
      @measured="colour => (taken = taken.map(other => (other === measured ? { ...other, colour } : other)))"
    />
  </div>
</template>

<style scoped>
.pictures {
  display: grid;
  gap: 0.5rem;
}
.taken {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
}
.taken img {
  display: block;
  height: 110px;
  max-width: 100%;
  border-radius: 8px;
}
.add {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  justify-self: start;
  min-height: 44px;
  padding: 0 0.9rem;
  border: 1px dashed var(--edge, var(--quiet));
  border-radius: 10px;
  color: var(--dulse-ink);
  font-weight: 650;
  cursor: pointer;
}
.add:focus-within {
  outline: 3px solid var(--dulse);
  outline-offset: 2px;
}
.away {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.drop {
  min-width: 44px;
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--quiet);
  cursor: pointer;
}
</style>
