<script setup lang="ts">
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine'
import type { FinishAxis } from '#core/planning'
import type { RackedTray } from '~/composables/useMachine'

/** A level of a rack: the tray that stands there, to be dragged to another, or a free place to drop one. */
const props = defineProps<{ place: number; tray?: RackedTray; axis: FinishAxis; now: number; chosen: boolean }>()
const emit = defineEmits<{ move: [from: number, to: number]; choose: [] }>()
const format = useFormat()
const row = ref<HTMLElement>()
const handle = ref<HTMLElement>()
const over = ref(false)
const dragged = ref(false)

let stop: (() => void) | undefined
watch(
  [row, handle, () => props.tray?.batchId],
  () => {
    stop?.()
    if (!row.value) return
    stop = combine(
      dropTargetForElements({
        element: row.value,
        canDrop: ({ source }) => source.data.place !== props.place,
        onDragEnter: () => {
          over.value = true
        },
        onDragLeave: () => {
          over.value = false
        },
        onDrop: ({ source }) => {
          over.value = false
          emit('move', Number(source.data.place), props.place)
        },
      }),
      ...(handle.value && props.tray
        ? [
            draggable({
              element: handle.value,
              getInitialData: () => ({ place: props.place }),
              onDragStart: () => {
                dragged.value = true
              },
              onDrop: () => {
                dragged.value = false
              },
            }),
          ]
        : []),
    )
  },
  { flush: 'post' },
)
onBeforeUnmount(() => stop?.())

const fill = computed(() => `${Math.max(2, (props.tray?.left ?? 0) * 100)}%`)
</script>

<template>
  <li ref="row" class="level" :class="{ over }">
    <span class="number">{{ place }}</span>
    <button
      v-if="tray"
      ref="handle"
      type="button"
      class="tray"
      :class="{ chosen, dragged }"
      :data-place="place"
      :aria-pressed="chosen"
      :aria-label="`Place ${place}: ${tray.food}, batch ${tray.number}, ${tray.byHours ? 'not weighed, about ' : ''}${format.share(tray.moisture)} water, must be ${format.share(tray.target)}`"
      @click="$emit('choose')"
    >
      <span class="water" :style="{ width: fill, background: rampColour(tray.left) }" />
      <span class="words" :style="{ marginLeft: tray.left < 0.25 ? fill : undefined }"
        >{{ tray.food }}<span v-if="tray.lastG !== undefined" class="weight">{{ format.weight(tray.lastG) }}</span></span
      >
      <span v-if="tray.flipAt !== undefined && tray.flipAt <= now" class="turn">turn over</span>
      <span class="figure"
        >{{ tray.byHours ? 'about ' : '' }}{{ format.share(tray.moisture) }}
        <span class="must">/ {{ format.share(tray.target) }}</span></span
      >
    </button>
    <slot v-else />
    <div class="axis" aria-hidden="true">
      <span
        v-if="tray && Number.isFinite(tray.finish.to)"
        class="window"
        :style="{ ...onAxis(axis, tray.finish), background: rampColour(tray.left) }"
      />
    </div>
    <span class="when small">{{
      !tray ? '' : Number.isFinite(tray.finish.to) ? format.finish(tray.finish.from, tray.finish.to, now) : 'no finish'
    }}</span>
  </li>
</template>

<style scoped>
.level {
  display: grid;
  grid-template-columns: 1.5rem minmax(0, 1.5fr) minmax(0, 1fr) 9.4rem;
  gap: 0.6rem;
  align-items: center;
  border-radius: 8px;
}
.must {
  font-weight: 400;
  color: var(--quiet);
}
.level.over {
  background: var(--dulse-wash);
  outline: 2px dashed var(--dulse);
}
.number {
  color: var(--quiet);
  text-align: right;
}
.tray {
  position: relative;
  display: flex;
  justify-content: space-between;
  align-items: center;
  width: 100%;
  height: 44px;
  padding: 0 0.7rem;
  border: 1px solid var(--rule);
  border-radius: 5px;
  font: inherit;
  font-weight: 650;
  color: var(--ink);
  background: var(--paper);
  overflow: hidden;
  cursor: grab;
}
.tray.chosen {
  border-color: var(--dulse);
  box-shadow: inset 0 0 0 2px var(--dulse);
}
.tray.dragged {
  opacity: 0.45;
}
.water {
  position: absolute;
  inset: 0 auto 0 0;
  opacity: 0.82;
}
.words,
.figure {
  position: relative;
  text-shadow:
    0 0 3px var(--paper),
    0 0 3px var(--paper),
    0 0 2px var(--paper);
}
.weight {
  font-weight: 400;
  margin-left: 0.5rem;
}
.axis {
  position: relative;
  height: 30px;
  border-left: 2px solid var(--quiet);
  background: var(--sunk);
  border-radius: 0 4px 4px 0;
}
.window {
  position: absolute;
  inset-block: 8px;
  border-radius: 3px;
}
.when {
  text-align: right;
}
@media (width <= 760px) {
  .level {
    grid-template-columns: 1.3rem minmax(0, 1fr) 8.2rem;
    gap: 0.4rem;
  }
  .axis {
    display: none;
  }
  .weight {
    display: none;
  }
}
</style>
