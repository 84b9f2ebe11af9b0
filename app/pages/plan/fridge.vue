<script setup lang="ts">
import { ticketsOf, type Ticket } from '#core/plan'

/** The plan for the fridge door: days, times, boxes to tick. Made for paper. */
useHead({ title: 'For the fridge door · Dulse' })
const desk = usePlanDesk()
const format = useFormat()
const { now } = useClock()
const title = (id: string) => desk.problem?.baskets.find(basket => basket.id === id)?.title ?? ''
const runOf = (id: string) => desk.runs.find(run => run.basketId === id)
const machine = (id: string) => desk.problem?.machines.find(item => item.id === runOf(id)?.machineId)?.name ?? ''
const days = computed(() => {
  const byDay = new Map<string, Ticket[]>()
  for (const ticket of desk.problem ? ticketsOf(desk.problem, desk.runs) : []) {
    const day = format.day(ticket.at)
    byDay.set(day, [...(byDay.get(day) ?? []), ticket])
  }
  return [...byDay]
})
const when = ({ at, to, kind }: Ticket) =>
  to === undefined ? format.time(at) : kind === 'chill' ? `by ${format.time(to)}` : `${format.time(at)} to ${format.moment(to, at)}`
const print = () => window.print()
</script>

<template>
  <div class="stack fridge">
    <div class="row no-print">
      <ElButton type="primary" @click="print">Print</ElButton>
      <ElButton tag="a" href="/api/calendar.ics">As a calendar</ElButton>
      <ElButton @click="navigateTo('/plan')">Back to the board</ElButton>
    </div>
    <p v-if="days.length === 0" class="card">There is nothing to do by a plan.</p>
    <section v-for="[day, list] in days" :key="day" class="day">
      <h2>{{ day }}</h2>
      <table>
        <tbody>
          <tr v-for="ticket in list" :key="`${ticket.kind}${ticket.basketId}`">
            <td class="box" aria-hidden="true">☐</td>
            <td class="when">{{ when(ticket) }}</td>
            <td>
              <strong>{{ title(ticket.basketId) }}</strong>, {{ TICKETS[ticket.kind]
              }}{{
                ticket.kind === 'load' ? `: ${plural(runOf(ticket.basketId)?.places ?? 0, 'tray')} of the ${machine(ticket.basketId)}` : ''
              }}{{ ticket.kind === 'takeOut' ? ` of the ${machine(ticket.basketId)}` : ''
              }}{{ ticket.minutes >= 10 ? `, ${format.hours(ticket.minutes / 60)}` : '' }}
            </td>
            <td class="line" aria-hidden="true" />
          </tr>
        </tbody>
      </table>
    </section>
    <p class="quiet small">
      Times of taking out hold in 8 of 10 cases: look at the machine, not at the clock. Written {{ format.date(now) }},
      {{ format.time(now) }}.
    </p>
  </div>
</template>

<style scoped>
.day {
  break-inside: avoid;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  padding: 0.4rem 0.6rem;
  border-bottom: 1px solid var(--rule);
  vertical-align: baseline;
}
.box {
  width: 2rem;
  font-size: 1.2rem;
}
.when {
  width: 13rem;
  font-variant-numeric: tabular-nums;
}
.line {
  width: 20%;
}
@media print {
  .no-print {
    display: none;
  }
}
@media (width <= 760px) {
  .when {
    width: 7rem;
  }
  .line {
    display: none;
  }
}
</style>
