<script setup lang="ts">
import { proxy, wrap } from 'comlink'
import { MORE_MINUTES, type PlanStep, type Variant } from '#core/plan'
import type { PlanDesk } from '~/workers/plan.worker'

/** The same baskets otherwise: with a second machine, thinner cuts, without nights, half of it frozen, more hands. */
useHead({ title: 'Plans side by side · Dulse' })
const desk = usePlanDesk()
const format = useFormat()
const EACH_MS = 900
/** Of what is filled most a second helps most. */
const runsIn = (id: string) => desk.runs.filter(run => run.machineId === id).length
const variants = computed((): { variant: Variant; words: string }[] => [
  { variant: { kind: 'as-is' }, words: 'As it is' },
  ...[...(desk.problem?.machines ?? [])]
    .filter(machine => runsIn(machine.id) > 0)
    .sort((a, b) => runsIn(b.id) - runsIn(a.id))
    .slice(0, 3)
    .map(machine => ({ variant: { kind: 'second-machine' as const, machineId: machine.id }, words: `A second ${machine.name}` })),
  { variant: { kind: 'thinnest' }, words: 'The quickest cuts' },
  { variant: { kind: 'no-nights' }, words: 'Machines off at night' },
  { variant: { kind: 'freeze-half' }, words: 'Half of it into the freezer' },
  { variant: { kind: 'more-hands' }, words: `${format.hours(MORE_MINUTES / 60)} more of work a day` },
])
const found = shallowRef<(PlanStep | undefined)[]>([])
let worker: Worker | undefined
const end = () => {
  worker?.terminate()
  worker = undefined
}
watch(
  () => (desk.looking ? '' : JSON.stringify(desk.problem)),
  async text => {
    end()
    found.value = []
    if (!text || desk.problem!.baskets.length === 0) return
    worker = planWorker()
    const own = worker
    const tell = proxy((i: number, step: PlanStep) => {
      if (worker !== own) return
      const next = [...found.value]
      next[i] = step
      found.value = next
    })
    await wrap<PlanDesk>(own).compare(
      JSON.parse(text) as NonNullable<typeof desk.problem>,
      variants.value.map(item => item.variant),
      EACH_MS,
      tell,
    )
    if (worker === own) end()
  },
  { immediate: true },
)
onBeforeUnmount(end)
const first = computed(() => found.value[0]?.worth)
const from = computed(() => desk.problem?.from ?? 0)
const rows = computed(() => variants.value.map(({ words, variant }, i) => ({ words, variant, worth: found.value[i]?.worth })))
/** The best figure of a column stands out, where it is better than as it is. */
const betters = (value: number | undefined, asIs: number | undefined, more = false) =>
  value !== undefined && asIs !== undefined && (more ? value > asIs + 1e-6 : value < asIs - 1e-6)
const days = (at: number) => ((at - from.value) / 86_400_000).toFixed(1)
</script>

<template>
  <section class="card" aria-label="Plans side by side">
    <h2>Side by side</h2>
    <p class="quiet">The same baskets, each planned for itself. What is better than as it is stands out.</p>
    <p v-if="desk.problem?.baskets.length === 0">No basket waits: there is nothing to compare.</p>
    <div v-else class="figures-wide" tabindex="0" role="group" aria-label="Table of plans">
      <table class="figures">
        <thead>
          <tr>
            <th scope="col">Plan</th>
            <th scope="col">Dried</th>
            <th scope="col">Spoils</th>
            <th scope="col">Ends at night</th>
            <th scope="col">Hands</th>
            <th scope="col">Power</th>
            <th scope="col">Costs</th>
            <th scope="col">Done in</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.words">
            <th scope="row">{{ row.words }}</th>
            <template v-if="row.worth">
              <td>{{ format.weight(row.worth.savedG) }}</td>
              <td :class="{ better: betters(row.worth.lostG, first?.lostG) }">
                {{ row.worth.lostG > 0 ? format.weight(row.worth.lostG) : 'nothing' }}
              </td>
              <td :class="{ better: betters(row.worth.wakings, first?.wakings) }">{{ row.worth.wakings }}</td>
              <td :class="{ better: betters(row.worth.handsMinutes, first?.handsMinutes) }">
                {{ format.hours(row.worth.handsMinutes / 60) }}
              </td>
              <td :class="{ better: betters(row.worth.kWh, first?.kWh) }">{{ row.worth.kWh.toFixed(1) }} kWh</td>
              <td :class="{ better: betters(row.worth.money, first?.money) }">{{ format.money(row.worth.money) }}</td>
              <td :class="{ better: betters(row.worth.doneAt, first?.doneAt) }">{{ days(row.worth.doneAt) }} days</td>
            </template>
            <td v-else colspan="7" class="quiet">planning</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
tbody th {
  font-weight: 650;
  white-space: normal;
}
.better {
  font-weight: 750;
  color: var(--kelp);
}
</style>
