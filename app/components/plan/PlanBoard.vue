<script setup lang="ts">
import { sleepAround, startOfDay } from '#core/planning'
import type { Plan, PlannedRun, PlanProblem } from '#core/plan'
import { DAY, HOUR } from '#core/time'

/** Machines as lanes over days and nights; a run is a bar whose end fades over its window. */
const props = defineProps<{ problem: PlanProblem; plan: Plan; now: number }>()
const chosen = defineModel<string>('chosen')
const format = useFormat()

/** From the last full hour to the end of the last run, two days at least. */
const from = computed(() => Math.floor(props.problem.from / HOUR) * HOUR)
const until = computed(() => Math.max(from.value + 2 * DAY, ...props.plan.runs.map(run => run.ends.p90)) + 3 * HOUR)
const at = (instant: number) =>
  `${((100 * (Math.min(until.value, Math.max(from.value, instant)) - from.value)) / (until.value - from.value)).toFixed(2)}%`
const width = (a: number, b: number) =>
  `${((100 * (Math.min(until.value, b) - Math.max(from.value, a))) / (until.value - from.value)).toFixed(2)}%`
const nights = computed(() => {
  const found: { from: number; to: number }[] = []
  for (let instant = from.value; instant < until.value;) {
    const night = sleepAround(instant, props.problem.household)
    if (night.from < until.value) found.push(night)
    instant = night.to + 1
  }
  return found
})
const days = computed(() => {
  const found: number[] = []
  for (let i = 0; ; i++) {
    const day = startOfDay(from.value, props.problem.household.timeZone, i)
    if (day >= until.value) return found
    found.push(day)
  }
})
const basket = (id: string) => props.problem.baskets.find(item => item.id === id)!
const lanes = computed(() =>
  props.problem.machines.map(machine => ({
    machine,
    bars: rowsOf([
      ...machine.busy.filter(item => item.to > from.value).map(item => ({ ...item, run: undefined })),
      ...props.plan.runs
        .filter(run => run.machineId === machine.id)
        .map(run => ({ from: run.startAt, to: run.ends.p90, places: run.places, run })),
    ]),
  })),
)
/** Bars that overlap stand below one another: what is there, then what is planned. */
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
const ROW_PX = 46
const words = (run: PlannedRun) =>
  `${basket(run.basketId).title}: ${run.places} ${run.places === 1 ? 'tray' : 'trays'}, in ${format.moment(run.startAt, props.now)}, out ${format.window(run.ends.p10, run.ends.p90, props.now)}`
</script>

<template>
  <div class="board" role="group" aria-label="Machines over the days">
    <div class="head">
      <span v-for="day in days" :key="day" class="day" :style="{ left: at(day) }">{{ format.day(Math.max(day, from)) }}</span>
    </div>
    <div v-for="lane in lanes" :key="lane.machine.id" class="lane">
      <p class="name">
        <strong>{{ lane.machine.name }}</strong><span class="quiet small"
          >{{ lane.machine.places }} {{ lane.machine.places === 1 ? 'place' : 'places' }}</span
        >
      </p>
      <div class="track" :style="{ height: `${Math.max(1, ...lane.bars.map(bar => bar.row + 1)) * ROW_PX + 8}px` }">
        <span
          v-for="night in nights"
          :key="night.from"
          class="night"
          :style="{ left: at(night.from), width: width(night.from, night.to) }"
        />
        <span class="now" :style="{ left: at(now) }" />
        <template v-for="(bar, i) in lane.bars" :key="i">
          <span
            v-if="!bar.run"
            class="bar busy"
            :style="{ left: at(bar.from), width: width(bar.from, bar.to), top: `${bar.row * ROW_PX + 4}px` }"
            :title="`${bar.places} taken until ${format.moment(bar.to, now)}`"
            >{{ bar.places }} taken</span
          >
          <button
            v-else
            type="button"
            class="bar run"
            :class="{ on: chosen === bar.run.basketId }"
            :aria-pressed="chosen === bar.run.basketId"
            :aria-label="words(bar.run)"
            :title="words(bar.run)"
            :style="{
              left: at(bar.from),
              width: width(bar.from, bar.to),
              top: `${bar.row * ROW_PX + 4}px`,
              '--sure': `${((100 * (bar.run.ends.p10 - bar.from)) / (bar.to - bar.from)).toFixed(0)}%`,
            }"
            @click="chosen = bar.run.basketId"
          >
            <span class="count">{{ bar.places }}</span>{{ basket(bar.run.basketId).title }}
          </button>
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.board {
  overflow-x: auto;
}
.head {
  position: relative;
  height: 1.6rem;
  margin-left: 9rem;
  min-width: 30rem;
}
.day {
  position: absolute;
  font-weight: 700;
  font-size: 0.9rem;
  white-space: nowrap;
}
.lane {
  display: grid;
  grid-template-columns: 9rem minmax(30rem, 1fr);
  border-top: 1px solid var(--rule);
}
.name {
  display: grid;
  align-content: center;
  padding-right: 0.6rem;
}
.track {
  position: relative;
  overflow: hidden;
  min-height: 54px;
}
.night {
  position: absolute;
  inset-block: 0;
  background: color-mix(in srgb, var(--ink) 13%, transparent);
}
.now {
  position: absolute;
  inset-block: 0;
  border-left: 2px solid var(--dulse);
}
.bar {
  position: absolute;
  height: 40px;
  border-radius: 8px;
  padding: 0 0.5rem;
  font-size: 0.9rem;
  line-height: 40px;
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
  border: 1px solid var(--kelp);
  color: var(--ink);
  background: linear-gradient(to right, var(--kelp-wash) var(--sure), color-mix(in srgb, var(--kelp-wash) 20%, var(--card)));
  cursor: pointer;
  font-weight: 650;
}
.run.on {
  box-shadow: inset 0 0 0 2px var(--kelp);
}
.count {
  display: inline-grid;
  place-items: center;
  min-width: 1.5rem;
  height: 1.5rem;
  line-height: 1;
  margin-right: 0.4rem;
  border-radius: 5px;
  background: var(--card);
  border: 1px solid var(--rule);
}
@media (width <= 760px) {
  .board {
    display: none;
  }
}
</style>
