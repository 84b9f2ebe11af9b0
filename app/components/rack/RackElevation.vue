<script setup lang="ts">
import type { TrayMove } from '#core/log'
import type { RackedTray } from '~/composables/useMachine'
import { finishAxis } from '#core/planning'

/**
 * A machine from the front, where trays are moved: by drag and drop, by the buttons under the chosen
 * tray, or by keys on it. Two trays change places; a free place is just taken.
 */
const props = defineProps<{ places: number; trays: readonly RackedTray[]; now: number; busy: boolean }>()
const emit = defineEmits<{ move: [trays: TrayMove[]]; takeOut: [tray: RackedTray]; weigh: [tray: RackedTray]; add: [place: number] }>()
const format = useFormat()
const chosen = ref<number>()
const list = ref<HTMLElement>()
const byPlace = computed(() => new Map(props.trays.map(tray => [tray.place, tray])))
const axis = computed(() =>
  finishAxis(
    props.trays.map(tray => tray.finish),
    props.now,
    2,
  ),
)
const chosenTray = computed(() => (chosen.value === undefined ? undefined : byPlace.value.get(chosen.value)))
watch(chosenTray, tray => {
  if (!tray) chosen.value = undefined
})

/** Two trays change places, or one takes a free place; the chosen one stays chosen where it went. */
function move(from: number, to: number) {
  if (props.busy || from === to || to < 1 || to > props.places || !byPlace.value.has(from)) return
  emit(
    'move',
    byPlace.value.has(to)
      ? [
          { from, to },
          { from: to, to: from },
        ]
      : [{ from, to }],
  )
  if (chosen.value === from) chosen.value = to
}
const stay = (more: { turned?: boolean; flipped?: boolean }) => {
  if (chosen.value !== undefined && !props.busy) emit('move', [{ from: chosen.value, to: chosen.value, ...more }])
}
function focusOn(place: number) {
  list.value?.querySelector<HTMLElement>(`[data-place="${place}"]`)?.focus()
}
/** Place of a tray that was moved by keys: the focus goes after it once it is drawn there. */
const follow = ref<number>()
watch(
  () => props.trays,
  async () => {
    const place = follow.value
    if (place === undefined || !byPlace.value.has(place)) return
    follow.value = undefined
    await nextTick()
    focusOn(place)
  },
)
function press(event: KeyboardEvent, place: number) {
  const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
  if (step !== 0) {
    event.preventDefault()
    if (event.shiftKey || event.altKey) {
      chosen.value = place
      follow.value = place + step
      move(place, place + step)
    } else {
      const next = [...byPlace.value.keys()].filter(other => (other - place) * step > 0).sort((a, b) => (a - b) * step)[0]
      if (next !== undefined) focusOn(next)
    }
    return
  }
  const tray = byPlace.value.get(place)
  if (!tray || event.ctrlKey || event.metaKey) return
  const act: Record<string, () => void> = {
    t: () => stay({ turned: true }),
    o: () => stay({ flipped: true }),
    x: () => emit('takeOut', tray),
    w: () => emit('weigh', tray),
  }
  const found = act[event.key.toLowerCase()]
  if (!found) return
  event.preventDefault()
  event.stopPropagation()
  chosen.value = place
  found()
}
</script>

<template>
  <div>
    <ol ref="list" class="plain-list rack" aria-label="Places, top to bottom">
      <RackPlace
        v-for="place in places"
        :key="place"
        :place="place"
        :tray="byPlace.get(place)"
        :axis="axis"
        :now="now"
        :chosen="chosen === place"
        @move="move"
        @choose="chosen = chosen === place ? undefined : place"
        @keydown="(event: KeyboardEvent) => press(event, place)"
      >
        <button type="button" class="free" :aria-label="`Place ${place} is free: add a late tray`" @click="$emit('add', place)">
          free<span class="add">Add a late tray</span>
        </button>
      </RackPlace>
    </ol>
    <p v-if="trays.length" class="scale small quiet" aria-hidden="true">
      <span>now</span><span>{{ format.moment(now + axis.span, now) }}</span>
    </p>
    <div v-if="chosenTray" class="acts row" role="group" :aria-label="`Tray at place ${chosenTray.place}`">
      <strong>{{ chosenTray.food }} at {{ chosenTray.place }}</strong>
      <ElButton :disabled="chosenTray.place === 1 || busy" @click="move(chosenTray.place, chosenTray.place - 1)">Up</ElButton>
      <ElButton :disabled="chosenTray.place === places || busy" @click="move(chosenTray.place, chosenTray.place + 1)">Down</ElButton>
      <ElButton :disabled="busy" @click="stay({ turned: true })">Turn end for end <kbd class="key">T</kbd></ElButton>
      <ElButton :disabled="busy" @click="stay({ flipped: true })">Turn food over <kbd class="key">O</kbd></ElButton>
      <ElButton @click="$emit('weigh', chosenTray)">Weigh <kbd class="key">W</kbd></ElButton>
      <ElButton @click="$emit('takeOut', chosenTray)">Take out <kbd class="key">X</kbd></ElButton>
      <NuxtLink :to="`/batches/${chosenTray.batchId}`">Batch {{ chosenTray.number }}</NuxtLink>
      <div class="to" role="group" aria-label="To place">
        <span class="quiet">To place</span>
        <button
          v-for="place in places"
          :key="place"
          type="button"
          :disabled="place === chosenTray.place || busy"
          :aria-label="byPlace.has(place) ? `Swap with ${place}` : `To ${place}, free`"
          :class="{ dashed: !byPlace.has(place) }"
          @click="move(chosenTray.place, place)"
        >
          {{ place }}
        </button>
      </div>
    </div>
    <p v-else class="quiet small hint">
      Drag a tray to another place, or press it for what can be done with it.<span class="keys">
        Keys on a tray: Shift and ↑ ↓ move it, T turns it, O turns its food over, W weighs, X takes it out.</span
      >
    </p>
  </div>
</template>

<style scoped>
.rack {
  display: grid;
  gap: 5px;
}
.scale {
  display: grid;
  grid-template-columns: 1fr 1fr;
  margin: 0.2rem 0 0 auto;
  padding-right: 10rem;
  width: calc(40% + 4.6rem);
}
.scale span + span {
  text-align: right;
}
.free {
  height: 44px;
  width: 100%;
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 0.7rem;
  border: 1px dashed var(--rule);
  border-radius: 5px;
  background: none;
  color: var(--quiet);
  font: inherit;
  cursor: pointer;
}
.add {
  font-weight: 650;
  opacity: 0;
}
.free:hover .add,
.free:focus-visible .add {
  opacity: 1;
}
.acts {
  margin-top: 0.8rem;
  padding-top: 0.8rem;
  border-top: 1px solid var(--rule);
  align-items: center;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.acts :deep(.el-button) {
  margin: 0;
}
.to {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  align-items: center;
  width: 100%;
}
.to span {
  margin-right: 0.3rem;
}
.to button {
  width: 46px;
  height: 44px;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  font-weight: 650;
  cursor: pointer;
}
.to button:disabled {
  color: var(--quiet);
  background: var(--sunk);
  cursor: not-allowed;
}
.to .dashed {
  border-style: dashed;
}
.hint {
  margin-top: 0.7rem;
}
@media (hover: none), (width <= 760px) {
  .keys {
    display: none;
  }
  .add {
    opacity: 1;
  }
}
@media (width <= 760px) {
  .scale {
    display: none;
  }
}
</style>
