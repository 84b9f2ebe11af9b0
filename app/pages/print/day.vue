<script setup lang="ts">
import { dueAt } from '#core/planning'
import { DAY } from '#core/time'

/** What needs hands today and tomorrow, for a clipboard: boxes to tick, and room for what was weighed. */
useHead({ title: 'The day on paper · Dulse' })
const format = useFormat()
const { now } = useClock()
const { answer, problem, ready } = useServer('now')
await ready()
const AHEAD = 1.5 * DAY
const days = computed(() => {
  const byDay = new Map<string, { at: number; todo: NonNullable<typeof answer.value>['todos'][number] }[]>()
  const all = (answer.value?.todos ?? [])
    .map(todo => ({ todo, at: dueAt(todo, now.value) }))
    .filter(({ at }) => at < now.value + AHEAD)
    .sort((a, b) => a.at - b.at)
  for (const item of all) {
    const day = item.at < now.value - DAY ? 'Late' : format.day(item.at)
    byDay.set(day, [...(byDay.get(day) ?? []), item])
  }
  return [...byDay]
})
</script>

<template>
  <div class="stack paper">
    <PaperHead title="What there is to do" :back="{ to: '/', words: 'Back to Now' }" />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="days.length === 0">There is nothing to do before tomorrow night.</p>
    <section v-for="[day, list] in days" :key="day">
      <h2>{{ day }}</h2>
      <table class="paper-lines">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Done</span></th>
            <th scope="col">When</th>
            <th scope="col">What</th>
            <th scope="col">Batch</th>
            <th scope="col">Time, weight, what was seen</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ todo } in list" :key="`${todo.batchId}${todo.kind}`">
            <td class="box" aria-hidden="true">☐</td>
            <td class="when">
              {{ todo.to === undefined ? format.time(todo.from) : `${format.time(todo.from)} to ${format.moment(todo.to, todo.from)}` }}
            </td>
            <td>
              <strong>{{ todo.title }}</strong>
              <div class="small">{{ todo.why }}</div>
            </td>
            <td>{{ todo.batchNumber }}</td>
            <td class="line" />
          </tr>
        </tbody>
      </table>
    </section>
    <p class="small quiet">
      Weights come in by the batch’s page under “Sheet to write on”, line by line in this order. Windows hold in 8 of 10 cases.
    </p>
  </div>
</template>
