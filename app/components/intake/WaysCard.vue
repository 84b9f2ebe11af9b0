<script setup lang="ts">
import type { Purpose } from '#core/foods'
import type { Alternative } from '#core/planning'

/** The same basket in every machine and cut: thicker in one load, thinner in two, and when to start. */
const props = defineProps<{
  /** The basket, as the forecast is asked. */
  question: {
    foodKey: string
    cardKey: string
    purpose: Purpose
    weightG: number
    machineId: string
    mix?: string
    weightSdG?: number
    weighed?: 'uncooked' | 'cooked'
  }
  now: number
}>()
const emit = defineEmits<{ choose: [row: Alternative] }>()
const format = useFormat()
const all = ref(false)
const { answer, problem } = useServer('forecastWays', () => {
  return { query: props.question }
})
const rows = computed(() => answer.value ?? [])
const MOST = 6
const shown = computed(() => {
  if (all.value || rows.value.length <= MOST) return rows.value
  const first = rows.value.slice(0, MOST)
  const asked = rows.value.find(row => row.asked)
  return asked && !first.includes(asked) ? [...first.slice(0, MOST - 1), asked] : first
})
const hours = (row: Alternative) =>
  !row.nightsCount
    ? `${format.range(row.hoursPerLoad, value => `${value.toFixed(0)}\u00A0h`)} of sun`
    : row.hoursPerLoad.p50 > 72
      ? `${Math.round(row.hoursPerLoad.p10 / 24)} to ${Math.round(row.hoursPerLoad.p90 / 24)} days`
      : format.range(row.hoursPerLoad, value => `${value.toFixed(0)}\u00A0h`)
</script>

<template>
  <section v-if="rows.length > 1" class="card" aria-label="Other ways of going about it">
    <h2>Thicker, thinner, elsewhere</h2>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th>Cut and machine</th>
            <th class="n">Loads</th>
            <th class="n">Each</th>
            <th>Begun now, dry</th>
            <th>Start for a waking end</th>
            <th class="n">Power</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in shown" :key="row.machineId + row.cardKey" :class="{ on: row.asked }">
            <td>
              <strong>{{ row.cardName }}</strong><br /><span class="quiet small"
                >{{ row.machineName }}, {{ plural(row.trays.p50, 'tray')
                }}{{ row.free < row.places ? `, ${row.free} of ${row.places} free` : '' }}</span
              >
            </td>
            <td class="n" data-name="Loads">{{ row.loads.p10 === row.loads.p90 ? row.loads.p50 : `${row.loads.p10}–${row.loads.p90}` }}</td>
            <td class="n" data-name="Each">
              {{ hours(row)
              }}<span v-if="row.reaches < 0.9" class="quiet small"><br />dry enough in {{ Math.round(10 * row.reaches) }} of 10</span>
            </td>
            <td data-name="Begun now, dry">{{ format.moment(row.endsAt.p50, now) }}</td>
            <td data-name="Start">
              <template v-if="row.awake > 0">
                {{ row.startAt - now < 600_000 ? 'now' : format.moment(row.startAt, now) }}
                <span class="quiet small">{{ Math.round(row.awake * 10) }} in 10</span></template
              ><span v-else class="quiet small">not in one waking day</span>
            </td>
            <td class="n" data-name="Power">{{ row.energyKWh.p50 < 0.05 ? 'none' : `${row.energyKWh.p50.toFixed(1)}\u00A0kWh` }}</td>
            <td>
              <button
                v-if="!row.asked"
                type="button"
                class="link"
                :aria-label="`Take ${row.cardName} in the ${row.machineName}`"
                @click="emit('choose', row)"
              >
                Use this</button
              ><span v-else class="quiet small">chosen</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button v-if="rows.length > shown.length" type="button" class="link" @click="all = true">All {{ rows.length }} ways</button>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
/* On a phone each way is a card of lines. */
@media (width <= 560px) {
  thead {
    display: none;
  }
  tbody tr {
    display: grid;
    grid-template-columns: auto auto;
    gap: 0.1rem 0.8rem;
    padding: 0.5rem 0;
    border-bottom: 1px solid var(--rule);
  }
  tbody td.n,
  tbody td {
    border: 0;
    padding: 0.1rem 0;
    text-align: left;
  }
  tbody td:first-child,
  tbody td:last-child {
    grid-column: 1 / -1;
  }
  tbody td[data-name]::before {
    content: attr(data-name) ': ';
    color: var(--quiet);
    font-size: 0.88rem;
  }
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 0.5rem;
}
th {
  text-align: left;
  color: var(--quiet);
  font: 650 0.9rem var(--text);
}
td,
th {
  padding: 0.4rem 0.7rem 0.4rem 0;
  border-bottom: 1px solid var(--rule);
  line-height: 1.25;
}
th.n,
td.n {
  text-align: right;
}
tr.on {
  background: var(--dulse-wash);
}
.link {
  border: 0;
  background: none;
  min-height: 44px;
  color: var(--dulse-ink);
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  white-space: nowrap;
}
</style>
