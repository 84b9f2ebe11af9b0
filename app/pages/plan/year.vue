<script setup lang="ts">
import { wrap } from 'comlink'
import { FILLED, type YearMonth } from '#core/plan'
import type { PlanDesk } from '~/workers/plan.worker'

/** Twelve months: what comes in against the nights of the machines and the hours of hands; wishes counted back; what to buy. */
useHead({ title: 'The year · Dulse' })
const { answer, problem: lost, ready } = useServer('planYear')
await ready()
const format = useFormat()
const { now } = useClock()
const months = shallowRef<YearMonth[]>()
const refused = ref('')
let worker: Worker | undefined
watch(
  () => JSON.stringify(answer.value?.problem),
  async text => {
    worker?.terminate()
    if (!text) return
    const own = (worker = planWorker())
    try {
      const found = await wrap<PlanDesk>(own).year(JSON.parse(text) as NonNullable<typeof answer.value>['problem'])
      if (worker === own) months.value = found
    } catch (error) {
      if (worker === own) refused.value = (error as Error).message
    }
    own.terminate()
  },
  { immediate: true },
)
onBeforeUnmount(() => worker?.terminate())
const nameOf = (id: string) => answer.value?.problem.machines.find(machine => machine.id === id)?.name ?? ''
const used = computed(() =>
  (answer.value?.problem.machines ?? []).filter(machine =>
    months.value?.some(month => month.machines.some(item => item.id === machine.id && item.share > 0)),
  ),
)
const shareOf = (month: YearMonth, id: string) => month.machines.find(item => item.id === id)?.share ?? 0
const kg = (value: number) => format.weight(1000 * value)
const narrow = computed(() =>
  (months.value ?? []).flatMap((month, i) =>
    month.lostKg > 0.05
      ? [
          {
            at: answer.value!.months[i]!,
            lostKg: month.lostKg,
            by:
              month.narrow?.kind === 'machine'
                ? `A second ${nameOf(month.narrow.id)} would widen it most; the freezer or thinner cuts help too.`
                : month.narrow?.kind === 'hands'
                  ? 'More hours of work would widen it most; the freezer buys time.'
                  : 'No machine here dries it: only the freezer or a neighbour does.',
          },
        ]
      : [],
  ),
)
const expected = computed(() =>
  (months.value ?? []).map((month, i) => ({ month, at: answer.value!.months[i]! })).filter(({ month }) => month.kg > 0),
)
const monthWords = computed(() => {
  const write = new Intl.DateTimeFormat(useHouseholdStore().settings.locale, { month: 'short', year: '2-digit' })
  return (at: number) => write.format(at + 15 * 86_400_000)
})
</script>

<template>
  <div class="stack">
    <p v-if="lost || refused" class="card problem" role="alert">{{ lost || refused }}</p>
    <section v-if="answer && answer.problem.lines.length === 0" class="card stack">
      <h2>Nothing is expected yet</h2>
      <p>With the harvest calendar the year shows which month has too few machine nights or hours of work, and what to buy before it.</p>
      <div class="row"><ElButton type="primary" @click="navigateTo('/plan/garden')">What the garden will bring</ElButton></div>
    </section>
    <template v-else-if="answer && months">
      <section class="card stack" aria-label="Months">
        <h2>{{ narrow.length === 0 ? 'Every month is wide enough' : `${plural(narrow.length, 'month')} too narrow` }}</h2>
        <p v-for="month in narrow" :key="month.at" class="caution">
          <strong>{{ monthWords(month.at) }}: {{ kg(month.lostKg) }} find no night.</strong> {{ month.by }}
        </p>
        <div class="figures-wide" tabindex="0" role="group" aria-label="Table of months">
          <table class="figures">
            <thead>
              <tr>
                <th scope="col">Month</th>
                <th scope="col">Comes in</th>
                <th v-for="machine in used" :key="machine.id" scope="col">{{ machine.name }}</th>
                <th scope="col">Hands</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ month, at } in expected" :key="at">
                <th scope="row">{{ monthWords(at) }}</th>
                <td>{{ kg(month.kg) }}</td>
                <td v-for="machine in used" :key="machine.id">
                  <span v-if="shareOf(month, machine.id) > 0.005" class="fill"
                    ><span class="bar"><span :style="{ width: `${Math.min(100, 100 * shareOf(month, machine.id))}%` }" /></span
                    >{{ Math.round(100 * shareOf(month, machine.id)) }} %</span
                  >
                </td>
                <td>
                  <span v-if="month.handsMinutes > 0" class="fill"
                    ><span class="bar"><span :style="{ width: `${Math.min(100, 100 * month.handsShare)}%` }" /></span
                    >{{ format.hours(month.handsMinutes / 60) }}</span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="expected.length < months.length" class="quiet small">In the other months nothing is expected.</p>
        <p class="quiet small">
          Of a machine’s places on all its nights; more than {{ Math.round(100 * FILLED) }} % is not counted on, since loads do not fit one
          another and machines are cleaned.
        </p>
      </section>
      <section v-if="answer.wishes.length > 0" class="card" aria-label="Wishes counted back">
        <h2>Wishes counted back</h2>
        <ul class="plain-list">
          <li v-for="wish in answer.wishes" :key="wish.id" class="list-line">
            <span
              ><strong>{{ wish.title }}</strong> {{ format.weight(wish.grams) }} {{ PURPOSE_WORDS[wish.purpose] }} by
              {{ format.date(wish.by - 1) }}:
              <template v-if="wish.missingG === 0">it stands on the shelf.</template>
              <template v-else-if="wish.impossible === 'no-machine'">no machine here dries it.</template>
              <template v-else>
                {{ format.weight(wish.missingG) }} to make, from about {{ kg(wish.needsKg!) }};
                {{
                  wish.comingKg! >= wish.needsKg!
                    ? `the calendar brings ${kg(wish.comingKg!)}`
                    : wish.comingKg! > 0
                      ? `the calendar brings only ${kg(wish.comingKg!)}`
                      : 'no harvest of it is expected: it would be bought'
                }}.
                <strong v-if="wish.impossible === 'no-time'">It cannot be done by then any more.</strong>
                <template v-else
                  >In the {{ wish.machineName }}, {{ plural(wish.loads!, 'load') }}, begun by
                  {{ format.moment(wish.loadBy!, now) }}.</template
                >
              </template></span
            >
          </li>
        </ul>
      </section>
      <section class="card" aria-label="To buy">
        <h2>To buy</h2>
        <ul class="plain-list">
          <li v-for="line in answer.lines" :key="line.id" class="list-line">
            <span
              ><strong>{{ line.title }}</strong> {{ format.weight(1000 * line.lowKg) }} to {{ format.weight(1000 * line.highKg) }} come in,
              for {{ format.weight(line.productG) }} {{ PURPOSE_WORDS[line.purpose] }}: {{ plural(line.jars, 'jar') }}</span
            >
          </li>
        </ul>
        <p>
          In all {{ plural(answer.shopping.jars, 'jar') }} of {{ format.volume(answer.shopping.jarMl) }} with as many lids;
          {{ plural(answer.shopping.sachets, 'oxygen absorber')
          }}{{ answer.shopping.sachetCc ? ` of ${answer.shopping.sachetCc} cc` : '' }}, or as many sachets of silica gel,
          {{ format.weight(Math.max(1, Math.ceil(answer.shopping.silicaG))) }} each for the air of a jar (never both in one jar).
        </p>
      </section>
    </template>
    <p v-else-if="answer" class="card quiet" aria-busy="true">Counting.</p>
  </div>
</template>

<style scoped>
.fill {
  display: grid;
  grid-template-columns: 5rem auto;
  gap: 0.5rem;
  align-items: center;
}
.bar {
  height: 12px;
  border-radius: 3px;
  background: var(--sunk);
  overflow: hidden;
}
.bar > span {
  display: block;
  height: 100%;
  background: var(--kelp);
}
</style>
