<script setup lang="ts">
import { capital } from '#core/text'
import { InputError } from '#core/errors'
import { colourOf, patchOf, type Lab } from '#core/colour'

/** The colour of a picture's food, by a white card that lies beside it: a tap on each. */
const props = defineProps<{ url: string }>()
const emit = defineEmits<{ close: []; measured: [colour: Lab] }>()
const open = ref(true)
const SPOTS = ['food', 'card'] as const
type Spot = (typeof SPOTS)[number]
const WORDS = { food: 'the food', card: 'the white card' } as const
const turn = ref<Spot>('food')
const spots = reactive<Partial<Record<Spot, { x: number; y: number }>>>({})
const canvas = ref<HTMLCanvasElement>()
const image = shallowRef<HTMLImageElement>()
const problem = ref('')
/** Half of the side of a spot, as a share of the picture's shorter side. */
const SPOT = 0.02

onMounted(async () => {
  try {
    const picture = new Image()
    picture.src = props.url
    await picture.decode()
    const sheet = canvas.value!
    sheet.width = picture.naturalWidth
    sheet.height = picture.naturalHeight
    sheet.getContext('2d', { willReadFrequently: true })!.drawImage(picture, 0, 0)
    image.value = picture
  } catch {
    problem.value = 'The picture could not be read. It may be in a copy or a backup of this logbook.'
  }
})

function place(event: MouseEvent) {
  const box = canvas.value!.getBoundingClientRect()
  put(turn.value, (event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height)
  if (turn.value === 'food' && !spots.card) turn.value = 'card'
}
function put(spot: Spot, x: number, y: number) {
  spots[spot] = { x: Math.min(1, Math.max(0, x)), y: Math.min(1, Math.max(0, y)) }
}
const STEPS: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }
function move(event: KeyboardEvent) {
  const step = STEPS[event.key]
  if (!step) return
  event.preventDefault()
  const from = spots[turn.value] ?? { x: 0.5, y: 0.5 }
  const far = event.shiftKey ? 0.05 : 0.01
  put(turn.value, from.x + step[0] * far, from.y + step[1] * far)
}
function read({ x, y }: { x: number; y: number }) {
  const sheet = canvas.value!
  const half = Math.max(2, Math.round(SPOT * Math.min(sheet.width, sheet.height)))
  const left = Math.min(Math.max(0, Math.round(x * sheet.width) - half), Math.max(0, sheet.width - 2 * half))
  const top = Math.min(Math.max(0, Math.round(y * sheet.height) - half), Math.max(0, sheet.height - 2 * half))
  return patchOf(sheet.getContext('2d')!.getImageData(left, top, 2 * half, 2 * half).data)
}
const result = computed((): { colour: Lab } | { wrong: string } | undefined => {
  if (!spots.food || !spots.card || !image.value) return undefined
  try {
    return { colour: colourOf(read(spots.food), read(spots.card)) }
  } catch (error) {
    if (error instanceof InputError) return { wrong: error.problems.map(item => item.message).join(' ') }
    throw error
  }
})
function keep() {
  if (!result.value || !('colour' in result.value)) return
  emit('measured', result.value.colour)
  open.value = false
}
</script>

<template>
  <ElDialog v-model="open" title="Measure the colour" width="640px" align-center append-to-body @closed="emit('close')">
    <div class="stack">
      <p class="quiet">
        A white card lies beside the food, in the same light. Tap the food, then the card; or move each with the arrow keys.
      </p>
      <ChoiceField v-model="turn" label="Place" :choices="SPOTS.map(spot => ({ value: spot, words: capital(WORDS[spot]) }))" />
      <div class="sheet" :class="{ missing: !image }">
        <canvas
          ref="canvas"
          tabindex="0"
          role="application"
          :aria-label="`The picture. Arrow keys place ${WORDS[turn]}; with Shift in larger steps.`"
          @click="place"
          @keydown="move"
        />
        <template v-for="spot in SPOTS" :key="spot">
          <span
            v-if="spots[spot]"
            class="mark"
            :class="{ on: spot === turn }"
            :style="{ left: `${spots[spot]!.x * 100}%`, top: `${spots[spot]!.y * 100}%` }"
            >{{ spot === 'food' ? 'food' : 'card' }}</span
          >
        </template>
      </div>
      <div role="status">
        <p v-if="problem" class="problem">{{ problem }}</p>
        <p v-else-if="result && 'wrong' in result" class="problem">{{ result.wrong }}</p>
        <p v-else-if="result" class="row"><ColourSwatch :colour="result.colour" /><span class="quiet">CIELAB, by the card</span></p>
      </div>
      <div class="row">
        <ElButton type="primary" :disabled="!result || 'wrong' in result" @click="keep">Keep this colour</ElButton>
        <ElButton @click="open = false">Cancel</ElButton>
      </div>
    </div>
  </ElDialog>
</template>

<style scoped>
.sheet {
  position: relative;
  justify-self: start;
  max-width: 100%;
}
.sheet.missing {
  min-height: 200px;
}
canvas {
  display: block;
  max-width: 100%;
  max-height: 52vh;
  border-radius: 8px;
  cursor: crosshair;
  touch-action: manipulation;
}
canvas:focus-visible {
  outline: 3px solid var(--dulse);
  outline-offset: 2px;
}
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
  padding: 0 0.35rem;
  border-radius: 4px;
  border: 2px solid #fff;
  background: rgb(0 0 0 / 72%);
  color: #fff;
  font-size: 0.8rem;
  pointer-events: none;
}
.mark.on {
  border-color: #ffd24a;
}
</style>
