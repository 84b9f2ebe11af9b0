<script setup lang="ts">
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { disableNativeDragPreview } from '@atlaskit/pragmatic-drag-and-drop/element/disable-native-drag-preview'
import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine'
import { sleepAround, startOfDay } from '#core/planning'
import { handsByDay, isMild, ticketsOf, type PlannedRun } from '#core/plan'
import { HOUR, MINUTE } from '#core/time'

/**
 * Machines as lanes over days and nights, hands above them; a run is a bar whose end fades over its window. A run is dragged along its lane
 * or into another, or moved by the arrow keys; what it would break is said meanwhile.
 */
const props = defineProps<{ now: number }>()
const chosen = defineModel<string>('chosen')
/** A run as it would stand, while it is dragged. */
const trying = defineModel<PlannedRun>('trying')
const desk = usePlanDesk()
const format = useFormat()
const problem = computed(() => desk.problem!)

const STEP = 30 * MINUTE
const HOUR_PX = 11
const ROW_PX = 44
const TICKET_PX = 28
const EMPTY_PX = 42
/** From the last full hour to the end of the last run, two days at least. */
const from = computed(() => Math.floor(problem.value.from / HOUR) * HOUR)
const until = computed(() => Math.max(from.value + 76 * HOUR, ...desk.runs.map(run => run.ends.p90)) + 14 * HOUR)
const px = (instant: number) => ((Math.min(until.value, Math.max(from.value, instant)) - from.value) / HOUR) * HOUR_PX
const span = (a: number, b: number) => ({ left: `${px(a)}px`, width: `${Math.max(0, px(b) - px(a))}px` })
const wide = computed(() => `${px(until.value)}px`)

const nights = computed(() => {
  const found: { from: number; to: number }[] = []
  for (let instant = from.value; instant < until.value;) {
    const night = sleepAround(instant, problem.value.household)
    if (night.from < until.value) found.push(night)
    instant = night.to + 1
  }
  return found
})
const days = computed(() => {
  const found: number[] = []
  for (let i = 0; ; i++) {
    const day = startOfDay(from.value, problem.value.household.timeZone, i)
    if (day >= until.value) return found
    found.push(day)
  }
})
const basket = (id: string) => problem.value.baskets.find(item => item.id === id)
const colour = (id: string) => desk.answer?.colours[basket(id)?.foodKey ?? ''] ?? '#8a8a8a'

const { settings } = storeToRefs(useHouseholdStore())
/** "18", or "6 pm" where the clock has twelve hours. */
const hourWords = (hour: number) => (settings.value.clockHours === 12 ? `${hour % 12 || 12} ${hour < 12 ? 'am' : 'pm'}` : String(hour))
/** Bars that overlap stand below one another. */
function rowsOf<Bar extends { from: number; to: number }>(bars: readonly Bar[]): (Bar & { row: number })[] {
  const ends: number[] = []
  return [...bars]
    .sort((a, b) => a.from - b.from)
    .map(bar => {
      let row = ends.findIndex(end => end <= bar.from)
      if (row < 0) row = ends.length
      ends[row] = bar.to
      return { ...bar, row }
    })
}
const lanes = computed(() =>
  problem.value.machines
    .map(machine => {
      const bars = rowsOf([
        ...machine.busy
          .filter(item => !item.closed && item.to > from.value)
          .map(item => ({ from: item.from, to: item.to, places: item.places, run: undefined })),
        ...desk.runs
          .filter(run => run.machineId === machine.id)
          .map(run => ({ from: run.startAt, to: run.ends.p90, places: run.places, run })),
      ])
      return {
        machine,
        bars,
        closed: machine.busy.filter(item => item.closed && item.to > from.value),
        height: bars.length === 0 ? EMPTY_PX : Math.max(...bars.map(bar => bar.row + 1)) * ROW_PX + 8,
      }
    })
    // What nothing goes into comes last.
    .sort((a, b) => Number(a.bars.length === 0) - Number(b.bars.length === 0)),
)
const tickets = computed(() => ticketsOf(problem.value, desk.runs))
/** What takes minutes, as wide as its words: the lane of hands. */
const LETTER = 0.62 * HOUR
const work = computed(() =>
  rowsOf(
    tickets.value
      .filter(ticket => ticket.minutes > 0 && ticket.at < until.value)
      .map(ticket => {
        const words = `${TICKETS[ticket.kind]} ${(basket(ticket.basketId)?.title ?? '').toLowerCase()}`
        return {
          ...ticket,
          words,
          from: ticket.at,
          to: Math.max(ticket.at + ticket.minutes * MINUTE, ticket.at + words.length * LETTER + HOUR),
        }
      }),
  ),
)
const today = computed(() => handsByDay(problem.value, tickets.value))
const away = computed(() => problem.value.away.filter(gap => gap.to > from.value && gap.from < until.value))
/** What breaks a rule; what is merely not as one would like it is said below. */
const wrongs = computed(() => new Set(desk.breaches.filter(breach => !isMild(breach)).map(breach => breach.basketId)))

const words = (run: PlannedRun) =>
  [
    `${basket(run.basketId)?.title ?? ''}: ${plural(run.places, 'tray')}`,
    `in ${format.moment(run.startAt, props.now)}`,
    `out ${format.window(run.ends.p10, run.ends.p90, props.now)}`,
    ...(desk.isPinned(run.basketId) ? ['pinned'] : []),
    ...(wrongs.value.has(run.basketId) ? ['something breaks'] : []),
  ].join(', ')

/** By keys: half an hour, half a day with Shift; into the machine above or below that it may go into. */
function byKey(event: KeyboardEvent, run: PlannedRun) {
  const sideways = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  const across = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
  if (event.key.toLowerCase() === 'p' && !event.ctrlKey && !event.metaKey) desk.togglePin(run)
  else if (sideways !== 0) move(run, { machineId: run.machineId, startAt: run.startAt + sideways * (event.shiftKey ? 12 * HOUR : STEP) })
  else if (across !== 0) {
    const machines = problem.value.machines.filter(machine => basket(run.basketId)?.options.some(option => option.machineId === machine.id))
    const next = machines[machines.findIndex(machine => machine.id === run.machineId) + across]
    if (next) move(run, { machineId: next.id, startAt: run.startAt })
  } else return
  event.preventDefault()
  event.stopPropagation()
}
function move(run: PlannedRun, to: { machineId: string; startAt: number }) {
  const moved = desk.moved(run, to)
  if (!moved || moved.startAt < from.value) return
  chosen.value = run.basketId
  desk.put(moved)
}
/** A run that comes to stand elsewhere, by hand or by a better plan, keeps the keys. */
let held: string | undefined
onBeforeUpdate(() => {
  const at = document.activeElement
  held = at instanceof HTMLElement && board.value?.contains(at) ? at.dataset.basket : undefined
})
onUpdated(() => {
  if (held) board.value?.querySelector<HTMLElement>(`[data-basket="${CSS.escape(held)}"]`)?.focus()
})

// Dragging: bars are taken by hand, lanes take them.
const board = ref<HTMLElement>()
/** Where in the bar it was taken, px. */
let grip = 0
let stop: (() => void)[] = []
const release = () => {
  for (const end of stop) end()
  stop = []
}
const runOf = (id: unknown) => desk.runs.find(run => run.basketId === id)
function whereOver(lane: HTMLElement, clientX: number, run: PlannedRun): PlannedRun | undefined {
  const left = clientX - grip - lane.getBoundingClientRect().left
  const startAt = Math.max(from.value, Math.round((from.value + (left / HOUR_PX) * HOUR) / STEP) * STEP)
  return desk.moved(run, { machineId: lane.dataset.machine!, startAt })
}
watch(
  [board, lanes],
  () => {
    // What is dragged stays where it is until it is let go: a shadow of it goes along.
    if (trying.value) return
    release()
    if (!board.value) return
    for (const element of board.value.querySelectorAll<HTMLElement>('[data-basket]'))
      stop.push(
        draggable({
          element,
          getInitialData: () => ({ basketId: element.dataset.basket }),
          onGenerateDragPreview: ({ nativeSetDragImage, location }) => {
            // The bar itself moves.
            disableNativeDragPreview({ nativeSetDragImage })
            grip = location.current.input.clientX - element.getBoundingClientRect().left
          },
          onDragStart: () => {
            chosen.value = element.dataset.basket
          },
        }),
      )
    for (const lane of board.value.querySelectorAll<HTMLElement>('[data-machine]'))
      stop.push(
        combine(
          dropTargetForElements({
            element: lane,
            canDrop: ({ source }) => runOf(source.data.basketId) !== undefined,
            onDrag: ({ source, location }) => {
              trying.value = whereOver(lane, location.current.input.clientX, runOf(source.data.basketId)!)
            },
            onDragLeave: () => {
              trying.value = undefined
            },
            onDrop: ({ source, location }) => {
              const moved = whereOver(lane, location.current.input.clientX, runOf(source.data.basketId)!)
              trying.value = undefined
              if (moved) desk.put(moved)
            },
          }),
        ),
      )
  },
  { flush: 'post' },
)
onBeforeUnmount(release)
</script>

<template>
  <div ref="board" class="board" role="group" aria-label="Machines over the days">
    <div class="inner" :style="{ width: `calc(8.5rem + ${wide})` }">
      <div class="head" :style="{ width: wide }">
        <span v-for="day in days" :key="day" class="day" :style="{ left: `${px(day)}px` }">{{ format.day(Math.max(day, from)) }}</span>
        <template v-for="day in days" :key="`h${day}`">
          <span v-for="hour in [6, 12, 18]" :key="hour" class="hour" :style="{ left: `${px(day + hour * HOUR)}px` }">{{
            day + hour * HOUR > from ? hourWords(hour) : ''
          }}</span>
        </template>
      </div>
      <div class="lane">
        <p class="name">
          <strong>Hands</strong
          ><span class="quiet small">{{
            today[0]
              ? `${today[0].minutes > 0 ? format.hours(today[0].minutes / 60) : 'none'} of ${format.hours(today[0].of / 60)} today`
              : ''
          }}</span>
        </p>
        <div class="track hands" :style="{ height: `${Math.max(1, ...work.map(item => item.row + 1)) * TICKET_PX + 8}px` }">
          <span v-for="night in nights" :key="night.from" class="night" :style="span(night.from, night.to)" />
          <span v-for="gap in away" :key="gap.from" class="away" :style="span(gap.from, gap.to)"><span>away</span></span>
          <span class="now" :style="{ left: `${px(now)}px` }" />
          <span
            v-for="item in work"
            :key="`${item.kind}${item.basketId}`"
            class="ticket"
            :class="{ on: chosen === item.basketId }"
            :style="{ left: `${px(item.at)}px`, top: `${item.row * TICKET_PX + 4}px` }"
            :title="`${item.words}, ${format.moment(item.at, now)}, ${format.hours(item.minutes / 60)}`"
            >{{ item.words }}</span
          >
        </div>
      </div>
      <div v-for="lane in lanes" :key="lane.machine.id" class="lane">
        <p class="name">
          <strong>{{ lane.machine.name }}</strong><span class="quiet small"
            >{{ plural(lane.machine.places, 'place') }}{{ lane.machine.outdoors ? ', sun' : '' }}</span
          >
        </p>
        <div class="track" :data-machine="lane.machine.id" :style="{ minHeight: `${lane.height}px` }">
          <span v-for="night in nights" :key="night.from" class="night" :style="span(night.from, night.to)" />
          <span
            v-for="gap in lane.closed"
            :key="gap.from"
            class="away"
            :style="span(gap.from, gap.to)"
            :title="`Wanted for something else ${format.window(gap.from, gap.to, now)}`"
          />
          <span class="now" :style="{ left: `${px(now)}px` }" />
          <template v-for="(bar, i) in lane.bars" :key="bar.run?.basketId ?? `busy${i}`">
            <span
              v-if="!bar.run"
              class="bar busy"
              :style="{ ...span(bar.from, bar.to), top: `${bar.row * ROW_PX + 4}px` }"
              :title="`${bar.places} taken until ${format.moment(bar.to, now)}`"
              >{{ bar.places }} taken</span
            >
            <button
              v-else
              type="button"
              class="bar run"
              :class="{
                on: chosen === bar.run.basketId,
                wrong: wrongs.has(bar.run.basketId),
                pinned: desk.isPinned(bar.run.basketId),
                guess: basket(bar.run.basketId)?.expected,
              }"
              :data-basket="bar.run.basketId"
              :aria-pressed="chosen === bar.run.basketId"
              :aria-label="words(bar.run)"
              :title="words(bar.run)"
              :style="{
                ...span(bar.from, bar.to),
                top: `${bar.row * ROW_PX + 4}px`,
                '--food': colour(bar.run.basketId),
                '--sure': `${((100 * (bar.run.ends.p10 - bar.from)) / (bar.to - bar.from)).toFixed(0)}%`,
              }"
              @click="chosen = bar.run.basketId"
              @keydown="byKey($event, bar.run)"
            >
              <span class="count">{{ bar.places }}</span>{{ basket(bar.run.basketId)?.title }}
            </button>
          </template>
          <span
            v-if="trying?.machineId === lane.machine.id"
            class="bar shadow"
            :class="{ wrong: desk.breachesIf(trying).some(breach => !isMild(breach)) }"
            :style="{ ...span(trying.startAt, trying.ends.p90), top: '4px' }"
            >{{ format.moment(trying.startAt, now) }}</span
          >
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.board {
  overflow-x: auto;
  border: 1px solid var(--rule);
  border-radius: 10px;
}
.head {
  position: relative;
  height: 2.5rem;
  margin-left: 8.5rem;
}
.day,
.hour {
  position: absolute;
  white-space: nowrap;
}
.day {
  font-weight: 700;
  font-size: 0.9rem;
  padding-left: 0.2rem;
  background: var(--card);
  z-index: 1;
}
.hour {
  top: 1.25rem;
  font-size: 0.78rem;
  color: var(--quiet);
  transform: translateX(-50%);
}
.lane {
  display: grid;
  grid-template-columns: 8.5rem auto;
  border-top: 1px solid var(--rule);
}
.name {
  display: grid;
  align-content: center;
  padding: 0.2rem 0.5rem;
  position: sticky;
  left: 0;
  z-index: 2;
  background: var(--card);
  border-right: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
.track {
  position: relative;
  overflow: hidden;
}
.night {
  position: absolute;
  inset-block: 0;
  background: color-mix(in srgb, var(--ink) 12%, transparent);
}
.away {
  position: absolute;
  inset-block: 0;
  display: grid;
  place-items: center;
  color: var(--quiet);
  font-size: 0.85rem;
  background: repeating-linear-gradient(135deg, color-mix(in srgb, var(--ink) 16%, transparent) 0 4px, transparent 4px 10px);
}
.away > span {
  background: var(--card);
  padding: 0 0.3rem;
  border-radius: 4px;
}
.now {
  position: absolute;
  inset-block: 0;
  border-left: 2px solid var(--dulse);
}
.bar {
  position: absolute;
  height: 38px;
  border-radius: 7px;
  padding: 0 0.4rem;
  font-size: 0.88rem;
  line-height: 36px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.busy {
  border: 1px dashed var(--quiet);
  color: var(--quiet);
}
.run {
  color: var(--ink);
  border: 1px solid color-mix(in srgb, var(--food) 70%, var(--ink));
  border-left-width: 6px;
  border-left-color: var(--food);
  background: linear-gradient(
    to right,
    color-mix(in srgb, var(--food) 32%, var(--card)) var(--sure),
    color-mix(in srgb, var(--food) 5%, var(--card))
  );
  cursor: grab;
  font-weight: 650;
}
.run.guess {
  border-style: dashed;
  border-left-style: solid;
}
.run.on {
  box-shadow: inset 0 0 0 2px var(--ink);
}
.run.wrong {
  border-color: var(--danger, #b3261e);
  outline: 2px solid var(--danger, #b3261e);
  outline-offset: -2px;
}
.shadow {
  border: 2px dashed var(--ink);
  background: color-mix(in srgb, var(--card) 70%, transparent);
  font-weight: 700;
  pointer-events: none;
}
.shadow.wrong {
  border-color: var(--danger, #b3261e);
}
.run.pinned::after {
  content: '';
  position: absolute;
  top: 4px;
  right: 5px;
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--ink);
}
.count {
  display: inline-grid;
  place-items: center;
  min-width: 1.4rem;
  height: 1.4rem;
  line-height: 1;
  margin-right: 0.35rem;
  border-radius: 5px;
  background: var(--card);
  border: 1px solid var(--rule);
}
.ticket {
  position: absolute;
  height: 24px;
  line-height: 22px;
  padding: 0 0.4rem;
  font-size: 0.8rem;
  white-space: nowrap;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--card);
}
.ticket.on {
  border-color: var(--ink);
  font-weight: 700;
}
</style>
