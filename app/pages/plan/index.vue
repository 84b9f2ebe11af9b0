<script setup lang="ts">
import { isMild, ticketsOf, type PlannedRun, type Ticket } from '#core/plan'

/** The board: machines over the days and nights; by hand or by the planner, and what breaks. */
const desk = usePlanDesk()
const format = useFormat()
const { now } = useClock()
const chosen = ref<string>()
const trying = shallowRef<PlannedRun>()
const refused = ref('')
const problem = computed(() => desk.problem)
const basket = (id: string) => problem.value?.baskets.find(item => item.id === id)
const machine = (id: string) => problem.value?.machines.find(item => item.id === id)?.name ?? ''
const cut = (run: PlannedRun) =>
  basket(run.basketId)?.options.find(option => option.machineId === run.machineId && option.cardKey === run.cardKey)?.cut ?? ''
const batchOf = (basketId: string) => (basket(basketId)?.expected ? undefined : basketId.split('#')[0])

const lead = computed(() => {
  const worth = desk.worth!
  if (desk.runs.length === 0) return 'Nothing goes in'
  return `${format.weight(worth.savedG)} of fresh food, dry by ${format.day(worth.doneAt)}`
})
const sums = computed(() => {
  const worth = desk.worth!
  return [
    worth.lostG > 0 ? `${format.weight(worth.lostG)} spoils` : 'Nothing spoils',
    worth.wakings === 0 ? 'nobody is woken, in 8 of 10 cases' : `${plural(worth.wakings, 'end')} at night`,
    `${format.hours(worth.handsMinutes / 60)} of work`,
    `${worth.kWh.toFixed(1)} kWh, ${format.money(worth.money)}`,
  ].join(' · ')
})
/** How good it is, as far as that is known. */
const gap = computed(() => {
  const { found, looking, byHand } = desk
  if (byHand) return 'Changed by hand.'
  if (!found) return ''
  if (found.proven) return 'No other plan is better.'
  const at = found.gap === undefined ? '' : ` It is at most ${Math.max(0.1, 100 * found.gap).toFixed(1)} % from the best there can be.`
  return `${looking ? 'Looking for a better one.' : 'The best that was found.'}${at}`
})
const shownBreaches = computed(() => (trying.value ? desk.breachesIf(trying.value) : desk.breaches))
const hard = computed(() => desk.breaches.filter(breach => !isMild(breach)))
const kept = computed(() => desk.answer?.kept ?? [])
/** Of the runs that people work by, those that are still to come and stand otherwise here. */
const movedSince = computed(() =>
  kept.value.flatMap(({ run, actual }) => {
    const here = desk.runs.find(other => other.basketId === run.basketId)
    if (actual || !here || (here.machineId === run.machineId && Math.abs(here.startAt - run.startAt) < 45 * 60_000)) return []
    return [{ run, here }]
  }),
)
const isTaken = computed(
  () =>
    kept.value.length > 0 &&
    desk.runs.every(run => kept.value.some(item => item.run.basketId === run.basketId)) &&
    movedSince.value.length === 0,
)
async function take() {
  refused.value = ''
  try {
    await desk.take()
  } catch (error) {
    refused.value = error instanceof Refused ? error.problems.map(item => item.message).join(' ') : (error as Error).message
  }
}

/** The day's list: what hands do, in the order of time. */
const lane = ref('')
const tickets = computed(() => (problem.value ? ticketsOf(problem.value, desk.runs) : []))
const listed = computed(() => {
  const byDay = new Map<string, (Ticket & { run: PlannedRun })[]>()
  for (const ticket of tickets.value) {
    const run = desk.runs.find(item => item.basketId === ticket.basketId)!
    if (lane.value && run.machineId !== lane.value) continue
    const day = format.day(ticket.at)
    byDay.set(day, [...(byDay.get(day) ?? []), { ...ticket, run }])
  }
  return [...byDay]
})
/** The next days; the others on demand. */
const DAYS_SHOWN = 3
const allDays = ref(false)
const shownDays = computed(() => (allDays.value ? listed.value : listed.value.slice(0, DAYS_SHOWN)))
function ticketWords({ kind, run, minutes }: Ticket & { run: PlannedRun }): string {
  const places = plural(run.places, 'tray')
  switch (kind) {
    case 'prepare':
      return `${cut(run)}, ${format.hours(minutes / 60)}`
    case 'load':
      return `${places} of the ${machine(run.machineId)}`
    case 'takeOut':
      return `of the ${machine(run.machineId)}, in 8 of 10 cases`
    case 'finish':
      return `${format.hours(minutes / 60)}, rested by then`
    case 'chill':
      return 'it waits there until it is cut'
    case 'freeze':
      return 'so that it goes in solid'
    case 'smoke':
      return plural(run.places, 'tray')
    case 'rotate':
      return `in the ${machine(run.machineId)}`
  }
}
const APART = {
  late: (until: number) => `should have been on the heat by ${format.moment(until, now.value)}`,
  warm: () => 'stood too long in the warm',
  jars: () => 'comes from jars: nobody knows its hours',
}
function byKeys(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  if (event.target instanceof HTMLInputElement) return
  event.preventDefault()
  if (event.shiftKey) desk.redo()
  else desk.undo()
}
useEventListener('keydown', byKeys)
const files = computed(() => {
  const json = (value: unknown) => URL.createObjectURL(new Blob([JSON.stringify(value, undefined, 2)], { type: 'application/json' }))
  return {
    problem: () => saveFile('dulse-plan-problem.json', json(problem.value)),
    plan: () => saveFile('dulse-plan.json', json({ format: 'dulse-plan', form: 2, runs: desk.runs, lost: desk.found?.plan.lost ?? [] })),
  }
})
</script>

<template>
  <div class="stack">
    <section v-if="desk.answer && problem?.baskets.length === 0" class="card stack">
      <h2>No basket waits</h2>
      <p>
        What came in and is in no machine yet is planned here, and what the garden will bring: what to cut when, and where it goes, so that
        nothing spoils and nobody is woken.
      </p>
      <div class="row">
        <ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton>
        <ElButton @click="navigateTo('/plan/garden')">What the garden will bring</ElButton>
      </div>
    </section>
    <template v-else-if="problem && desk.found">
      <section class="card stack" aria-label="The plan">
        <div class="top">
          <div>
            <h2>{{ lead }}</h2>
            <p class="quiet">{{ sums }}</p>
            <p class="quiet small" role="status">{{ gap }}</p>
          </div>
          <div class="row">
            <ElButton v-if="desk.looking" @click="desk.stop">That will do</ElButton>
            <ElButton class="wide" :disabled="!desk.canUndo" @click="desk.undo">Undo</ElButton>
            <ElButton class="wide" :disabled="!desk.canRedo" @click="desk.redo">Redo</ElButton>
            <ElButton v-if="isTaken" @click="navigateTo('/plan/fridge')">For the fridge door</ElButton>
            <strong v-if="isTaken">You work by this plan</strong>
            <ElButton v-else type="primary" :disabled="hard.length > 0 || desk.runs.length === 0" @click="take">Work by this plan</ElButton>
          </div>
        </div>
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
        <p v-for="item in desk.found.plan.lost" :key="item.basketId" class="caution">
          <span
            ><strong>{{ basket(item.basketId)?.title }}, {{ format.weight(item.weightG) }}, finds no place:</strong>
            {{ WHY_LOST[item.why] }}. {{ SAVED_BY[item.why] }}</span
          >
        </p>
        <PlanBoard v-model:chosen="chosen" v-model:trying="trying" class="wide" :now="now" />
        <section
          v-if="shownBreaches.length > 0"
          class="breaks"
          :aria-label="trying ? 'What this would break' : 'What breaks'"
          aria-live="polite"
        >
          <h3>{{ trying ? 'There it would break this' : hard.length > 0 ? 'What breaks' : 'What it does not do' }}</h3>
          <ul>
            <li v-for="(breach, i) in shownBreaches" :key="i">
              <strong>{{ basket(breach.basketId)?.title }}:</strong> {{ breachWords(breach, problem, format, now) }}
            </li>
          </ul>
        </section>
        <div v-if="desk.byHand || desk.pins > 0" class="row">
          <ElButton v-if="desk.byHand" type="primary" plain @click="desk.planAround">Plan the rest around it</ElButton>
          <ElButton @click="desk.planAnew">Put all back</ElButton>
          <span class="quiet small">{{ plural(desk.pins, 'run') }} pinned</span>
        </div>
        <p class="quiet small wide">
          Drag a run along its machine or into another; or choose it and use the arrow keys, P to pin it, Ctrl Z to undo. A dashed run is of
          a harvest that is still to come.
        </p>
      </section>
      <section v-if="movedSince.length > 0" class="card" aria-label="Since you took the plan">
        <h2>Since you took the plan</h2>
        <ul class="plain-list">
          <li v-for="{ run, here } in movedSince" :key="run.basketId" class="list-line">
            <span
              ><strong>{{ run.title }}</strong> {{ format.moment(run.startAt, now) }}, {{ run.machineName }}: now better
              {{ format.moment(here.startAt, now) }}, {{ machine(here.machineId) }}.</span
            >
          </li>
        </ul>
      </section>
      <ShelfAhead :runs="desk.runs" :problem="problem" :shelf="desk.answer?.shelf ?? []" :colours="desk.answer?.colours ?? {}" :now="now" />
      <section class="card stack" aria-label="By the day">
        <div class="row between">
          <h2>By the day</h2>
          <label class="row"
            >Machine
            <select v-model="lane" class="lane">
              <option value="">all</option>
              <option v-for="item in problem.machines" :key="item.id" :value="item.id">{{ item.name }}</option>
            </select></label
          >
        </div>
        <div v-for="[day, list] in shownDays" :key="day">
          <h3>{{ day }}</h3>
          <ul class="plain-list">
            <li v-for="item in list" :key="`${item.kind}${item.basketId}`" class="list-line" :class="{ on: chosen === item.basketId }">
              <span class="at">{{
                item.to === undefined
                  ? format.time(item.at)
                  : item.kind === 'chill'
                    ? `by ${format.moment(item.to, now)}`
                    : format.window(item.at, item.to, item.at)
              }}</span>
              <span class="doing"
                ><strong>{{ basket(item.basketId)?.title }}</strong
                >, {{ TICKETS[item.kind] }}: <span class="quiet">{{ ticketWords(item) }}</span></span
              >
              <ElButton
                v-if="batchOf(item.basketId) && item.kind === 'prepare'"
                :aria-label="`Open: ${basket(item.basketId)?.title}`"
                @click="navigateTo(`/batches/${batchOf(item.basketId)}`)"
                >Open</ElButton
              >
            </li>
          </ul>
        </div>
        <ElButton v-if="listed.length > DAYS_SHOWN && !allDays" @click="allDays = true">{{
          plural(listed.length - DAYS_SHOWN, 'more day')
        }}</ElButton>
      </section>
      <section v-if="kept.length > 0" class="card" aria-label="The plan that you work by">
        <div class="row between">
          <h2>The plan that you work by</h2>
          <ElButton @click="desk.drop">Work by no plan</ElButton>
        </div>
        <ul class="plain-list">
          <li v-for="{ run, actual } in kept" :key="run.basketId" class="list-line">
            <span
              ><strong>{{ run.title }}</strong> {{ format.moment(run.startAt, now) }}, {{ run.machineName
              }}<template v-if="actual"
                >; it went in {{ format.moment(actual.loadedAt, now)
                }}{{ actual.machineId === run.machineId ? '' : `, ${actual.machineName}` }}</template
              >.</span
            >
          </li>
        </ul>
      </section>
      <p class="row quiet small">
        {{ desk.answer?.weather ? `Weather: ${desk.answer.weather.source}.` : 'Nobody foretold the sun: any day may be fair or not.' }}
        <ElButton link class="word" @click="files.problem">The problem as JSON</ElButton>
        <ElButton link class="word" @click="files.plan">The plan as JSON</ElButton>
      </p>
    </template>
    <p v-else-if="desk.answer && !desk.refused" class="card quiet" aria-busy="true">Planning.</p>
    <section v-if="desk.answer?.apart.length" class="card" aria-label="Not planned">
      <h2>Not planned</h2>
      <ul class="plain-list">
        <li v-for="item in desk.answer.apart" :key="item.batchId" class="list-line">
          <span
            ><strong>{{ item.title }}</strong> {{ APART[item.why](item.until) }}.</span
          ><ElButton :aria-label="`Open: ${item.title}`" @click="navigateTo(`/batches/${item.batchId}`)">Open</ElButton>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.8rem;
}
.top > :first-child {
  flex: 1 1 22rem;
}
.breaks {
  border-left: 4px solid var(--dulse);
  padding-left: 0.8rem;
}
.breaks ul {
  margin: 0.2rem 0 0;
  padding-left: 1.1rem;
}
.lane {
  min-height: 44px;
  padding: 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
.at {
  min-width: 8.5rem;
  font-variant-numeric: tabular-nums;
}
.doing {
  flex: 1;
}
.on {
  background: var(--sunk);
  border-radius: 8px;
}
@media (width <= 760px) {
  .wide {
    display: none;
  }
  .list-line {
    flex-wrap: wrap;
  }
  .at {
    min-width: 100%;
    font-weight: 650;
  }
}
.word {
  min-height: 44px;
}
</style>
