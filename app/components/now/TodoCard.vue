<script setup lang="ts">
import type { TodoAnswer } from '#shared/contracts'
import type { TodoGroup, TodoKind } from '#core/planning'
import { capital } from '#core/text'

const props = defineProps<{ todo: TodoAnswer; now: number; group: TodoGroup; first: boolean; dry?: TodoAnswer }>()
const format = useFormat()

/** The verb on the button, and the form that it opens on the batch's page. */
const ACTS: Record<TodoKind, { words: string; act: string }> = {
  prepare: { words: 'Log a step', act: 'prep' },
  load: { words: 'Load', act: 'load' },
  lower: { words: 'Lower it', act: 'heat' },
  rotate: { words: 'Open the rack', act: 'rack' },
  heat: { words: 'Heat on', act: 'heat' },
  weigh: { words: 'Weigh', act: 'weigh' },
  test: { words: 'Feel', act: 'feel' },
  takeOut: { words: 'Take out', act: 'unload' },
  dry: { words: 'Open', act: '' },
  rest: { words: 'Begin the rest', act: 'rest' },
  look: { words: 'Look', act: '' },
  redry: { words: 'Open', act: '' },
  grind: { words: 'Open', act: '' },
  pack: { words: 'Pack', act: 'pack' },
  discard: { words: 'Open', act: '' },
  held: { words: 'Go on', act: 'hold' },
  danger: { words: 'Where it is', act: 'hold' },
  bringIn: { words: 'Bring in', act: 'heat' },
  takeOutside: { words: 'Out again', act: 'heat' },
  turn: { words: 'Open the rack', act: 'rack' },
  flip: { words: 'Open', act: '' },
  endSmoke: { words: 'Take out', act: 'unload' },
  round: { words: 'Weigh', act: 'weigh' },
  lookJar: { words: 'Open', act: '' },
  settle: { words: 'Settle it', act: '' },
}
const act = computed(() => ACTS[props.todo.kind])
const dryWords = computed(() =>
  props.dry?.to === undefined ? 'When it will be dry is not known.' : capital(format.finish(props.dry.from, props.dry.to, props.now)),
)
const when = computed(() => {
  const { from, to, kind } = props.todo
  if (kind === 'dry' && to !== undefined)
    return from <= props.now ? `by ${format.moment(to, props.now)}` : format.window(from, to, props.now)
  if (kind === 'prepare' && to !== undefined) return `by ${format.moment(to, props.now)}`
  if (from <= props.now && to !== undefined && to > props.now) return `by ${format.moment(to, props.now)}`
  return `${props.group === 'late' ? 'since ' : ''}${format.moment(from, props.now)}`
})
</script>

<template>
  <li class="todo" :class="group">
    <span class="when">{{ when }}</span>
    <div class="what">
      <h3>{{ todo.title }}</h3>
      <p class="strong small">{{ todo.batchTitle }} · batch {{ todo.batchNumber }}</p>
      <p v-if="dry" class="small">{{ dryWords }}</p>
      <p class="quiet small">{{ todo.why }}</p>
    </div>
    <ElButton
      :type="first ? 'primary' : undefined"
      :aria-label="`${act.words}: ${todo.batchTitle}, batch ${todo.batchNumber}`"
      @click="navigateTo(`/batches/${todo.batchId}${act.act ? `?act=${act.act}` : ''}`)"
      >{{ act.words }}</ElButton
    >
  </li>
</template>

<style scoped>
.todo {
  display: grid;
  grid-template-columns: 92px 1fr auto;
  gap: 1rem;
  align-items: center;
  padding: 0.8rem 1rem;
  border-top: 1px solid var(--rule);
}
.todo:first-child {
  border-top: 0;
}
.when {
  text-align: right;
  font-weight: 700;
  color: var(--quiet);
  font-size: 0.97rem;
}
.late {
  background: var(--amber-wash);
}
.late .when {
  color: var(--amber);
}
.what h3 {
  font-size: 1.1rem;
}
@media (width <= 760px) {
  .todo {
    grid-template-columns: 1fr auto;
    gap: 0.3rem 0.7rem;
    padding: 0.75rem 0.85rem;
  }
  .when {
    grid-column: 1 / -1;
    text-align: left;
  }
}
</style>
