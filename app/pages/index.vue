<script setup lang="ts">
import type { RackAnswer, TodoAnswer } from '#shared/contracts'
import { dueAt, groupOf, type TodoGroup } from '#core/planning'
import { DAY, MINUTE } from '#core/time'

const { now } = useClock()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { answer, problem, ready, load } = useServer('now')
useHead({ title: 'Now · Dulse' })

await ready()
// Time alone moves what is due.
useIntervalFn(load, MINUTE)

const night = computed(() => isEvening(now.value))
function isEvening(at: number): boolean {
  const hour = Number(new Intl.DateTimeFormat('en-GB', { hour: '2-digit', hour12: false, timeZone: settings.value.timeZone }).format(at))
  return hour >= 17 || hour < 4
}
const GROUPS = computed<{ key: TodoGroup; name: string }[]>(() => [
  { key: 'late', name: 'Late' },
  { key: 'today', name: night.value ? 'Tonight' : 'Today' },
  { key: 'sleep', name: 'While you sleep' },
  { key: 'later', name: 'Tomorrow and after' },
])
/** Batches in a machine with something to be done before they are dry. */
const leading = computed(
  () =>
    new Set(
      (answer.value?.todos ?? [])
        .filter(todo => ['weigh', 'test', 'takeOut', 'round', 'heat'].includes(todo.kind))
        .map(todo => todo.batchId),
    ),
)
const dryOf = (todo: TodoAnswer) =>
  leading.value.has(todo.batchId) && ['weigh', 'test', 'round'].includes(todo.kind)
    ? answer.value?.todos.find(other => other.kind === 'dry' && other.batchId === todo.batchId)
    : undefined
const grouped = computed(() => {
  const lists: Record<TodoGroup, TodoAnswer[]> = { late: [], today: [], sleep: [], later: [] }
  for (const todo of answer.value?.todos ?? []) {
    // One row a batch: what is to be done says when it will be dry.
    if (todo.kind === 'dry' && leading.value.has(todo.batchId)) continue
    lists[groupOf(todo, now.value, settings.value)].push(todo)
  }
  // By the hour that stands before them.
  for (const list of Object.values(lists)) list.sort((a, b) => dueAt(a, now.value) - dueAt(b, now.value))
  return lists
})
/** What stands in the lists of today: as many as the heading says. */
const handsOn = computed(() => [...old.value, ...late.value, ...grouped.value.today])
/** Late by more than two days: folded into one line, to be done or cleared with a reason. */
const OLD = 2 * DAY
const isOld = (todo: TodoAnswer) => (todo.to ?? todo.from) < now.value - OLD
const old = computed(() => grouped.value.late.filter(isOld))
const late = computed(() => grouped.value.late.filter(todo => !isOld(todo)))
const shownLists = computed(() => ({ ...grouped.value, late: late.value }))
/** What is due now or next, late first. */
const firstNow = computed(() => late.value[0] ?? grouped.value.today[0])
const headline = computed(() => {
  const count = handsOn.value.length
  if (count === 0) return 'Nothing to do now'
  return `${countWord(count)} ${count === 1 ? 'thing' : 'things'} ${night.value ? 'before bed' : 'today'}`
})
// One free machine stands in full; several stand in a list.
const taken = (rack: RackAnswer) => rack.trays.some(tray => tray.batchId)
const running = computed(() => (answer.value?.racks ?? []).filter(rack => taken(rack) || (answer.value?.racks.length ?? 0) < 3))
const idle = computed(() => (answer.value?.racks ?? []).filter(rack => !running.value.includes(rack)))
const isEmpty = computed(() => answer.value && answer.value.todos.length === 0 && answer.value.stages.every(stage => stage.count === 0))
</script>

<template>
  <div v-if="isEmpty" class="card empty">
    <h1>Nothing is drying yet</h1>
    <p>This page will say what there is to do and when: weigh a tray, look at a jar, grind a batch. It begins with a basket.</p>
    <ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton>
    <p class="quiet small">Trays, power and the household’s units and nights are set in the <NuxtLink to="/workshop">set-up</NuxtLink>.</p>
  </div>
  <div v-else class="now">
    <div>
      <header class="page-head">
        <h1>{{ headline }}</h1>
        <p class="quiet">
          {{ format.day(now) }}, {{ format.time(now) }} · {{ settings.name }} · <NuxtLink to="/print/day">On paper</NuxtLink>
        </p>
      </header>
      <p v-if="problem" class="problem">{{ problem }} These are the figures of the last visit.</p>
      <ul v-if="answer?.unsettledJars.length" class="plain-list card" aria-label="To be settled">
        <li v-for="jar in answer.unsettledJars" :key="jar.jarId" class="row between">
          <span
            ><strong>Jar {{ jar.number }}: say which is right.</strong> {{ jar.writer ?? 'A device' }} logged out of reach what the log
            could not take as well.</span
          ><ElButton :aria-label="`Settle it: jar ${jar.number}`" @click="navigateTo(`/jars/${jar.jarId}`)">Settle it</ElButton>
        </li>
      </ul>
      <template v-for="group in GROUPS" :key="group.key">
        <OldTodos v-if="group.key === 'late' && old.length > 0" :todos="old" :now="now" @cleared="load" />
        <section v-if="shownLists[group.key].length" :aria-label="group.name">
          <h2 class="group">{{ group.name }}</h2>
          <ul class="plain-list list">
            <TodoCard
              v-for="todo in shownLists[group.key]"
              :key="todo.batchId + todo.kind"
              :todo="todo"
              :now="now"
              :group="group.key"
              :first="todo === firstNow"
              :dry="dryOf(todo)"
            />
          </ul>
        </section>
      </template>
      <p v-if="answer && answer.todoCount > answer.todos.length" class="quiet">
        The first {{ answer.todos.length }} of {{ answer.todoCount }}.
      </p>
    </div>
    <aside class="stack" aria-label="Machines and jars">
      <RackCard v-for="rack in running" :key="rack.machine.id" :rack="rack" :now="now" />
      <section v-if="idle.length" class="card" aria-label="Free machines">
        <h2>Free</h2>
        <ul class="plain-list idle">
          <li v-for="rack in idle" :key="rack.machine.id">
            <NuxtLink :to="`/machines/${rack.machine.id}`">{{ rack.machine.name }}</NuxtLink><span class="quiet small">{{
              plural(rack.machine.trays, 'tray')
            }}</span>
          </li>
        </ul>
      </section>
      <section v-if="answer?.useFirst.length" class="card" aria-label="Use first">
        <h2>Use first</h2>
        <ul class="plain-list">
          <li v-for="jar in answer.useFirst" :key="jar.jarId" class="jar">
            <NuxtLink :to="`/jars/${jar.jarId}`"
              ><JarGlass :jar="jar" :height="44" /><span
                ><strong>{{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose] }}</strong
                ><br /><span class="quiet small"
                  >{{ format.weight(jar.leftG) }} left · best before {{ format.month(jar.bestFrom) }}</span
                ></span
              ></NuxtLink
            >
          </li>
        </ul>
      </section>
    </aside>
  </div>
</template>

<style scoped>
.now {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 412px);
  gap: 1.4rem;
  align-items: start;
}
.group {
  font: 650 0.95rem var(--display);
  color: var(--quiet);
  margin: 0.9rem 0 0.4rem 0.1rem;
}
.list {
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 10px;
  overflow: hidden;
}
.empty {
  max-width: 620px;
  margin: 6vh auto;
  display: grid;
  gap: 1rem;
  justify-items: start;
  padding: 2rem;
}
.jar a {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  padding: 0.45rem 0;
  text-decoration: none;
  line-height: 1.25;
  min-height: 54px;
}
.idle li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
}
.idle li + li {
  border-top: 1px solid var(--rule);
}
.jar + .jar {
  border-top: 1px solid var(--rule);
}
@media (width <= 980px) {
  .now {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (width <= 760px) {
  .idle a {
    padding: 0.75rem 0;
    display: inline-block;
  }
}
</style>
