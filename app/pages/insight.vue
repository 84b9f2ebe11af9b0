<script setup lang="ts">
import type { InsightAnswer } from '#shared/contracts'

/** What one's own batches taught: what a basket gives, where powder goes, how windows did, and whether it was worth it. */
type Group = InsightAnswer['groups'][number]
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const by = ref<'food' | 'card' | 'purpose' | 'machine'>('food')
const days = ref<'' | '365' | '90'>('')
const { answer, problem: lost, ready, load } = useServer('insight', () => ({ query: { by: by.value, days: days.value || undefined } }))
const refused = ref('')
const problem = computed(() => refused.value || lost.value)
const open = ref('')
const prices = reactive<Record<string, string>>({})
useHead({ title: 'What it taught · Dulse' })
await ready()
const money = (value: number) => `${settings.value.money}\u00A0${value < 10 ? value.toFixed(2) : Math.round(value)}`
const percent = (value: number) => `${(100 * value).toFixed(100 * value < 10 ? 1 : 0)}\u00A0%`
const STEPS = [
  ['prep', 'Prepared, of the basket'],
  ['drying', 'Dry, of what was loaded'],
  ['grinding', 'Product, of the dry'],
  ['whole', 'Product, of the basket'],
] as const
const CAUSES = { dustG: 'dust', filmG: 'film in the cup', rejectsG: 'sieve rejects', cleaningG: 'cleaning', unknownG: 'not told' } as const
const lostOf = (group: { summary: Group['summary'] }) =>
  Object.entries(group.summary.lost)
    .filter(([, grams]) => grams > 0.4)
    .sort((a, b) => b[1] - a[1]) as [keyof typeof CAUSES, number][]
const windows = computed(() => answer.value?.all.windows)
function referenceOf(group: Group, step: (typeof STEPS)[number][0]): number | undefined {
  if (!group.reference) return undefined
  return step === 'whole' ? group.reference.prep * group.reference.drying * group.reference.grinding : group.reference[step]
}
/** Where the product of the basket stands against the reference, on a line from half to double. */
const place = (ratio: number) => `${Math.min(100, Math.max(0, 50 + 50 * Math.log2(ratio)))}%`

async function setPrice(group: Group) {
  const typed = (prices[group.key] ?? '').trim().replace(',', '.')
  const value = typed === '' ? null : Number(typed)
  if (value !== null && !(value > 0)) {
    refused.value = `“${prices[group.key]}” is not a price.`
    return
  }
  try {
    refused.value = ''
    await call('wish', { body: { foodKey: group.key, shopPerKg: value === null ? null : format.priceFrom(value) } })
    await load()
  } catch (error) {
    refused.value = (error as Error).message
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>What it taught</h1>
      <div class="row">
        <ChoiceField
          v-model="by"
          label="By"
          hide-label
          :choices="[
            { value: 'food', words: 'By food' },
            { value: 'card', words: 'By cut' },
            { value: 'purpose', words: 'By form' },
            { value: 'machine', words: 'By machine' },
          ]"
        /><ChoiceField
          v-model="days"
          label="Since"
          hide-label
          :choices="[
            { value: '', words: 'All' },
            { value: '365', words: 'A year' },
            { value: '90', words: '90 days' },
          ]"
        />
      </div>
    </header>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="answer && answer.all.batches === 0" class="card">
      <h2>Nothing finished yet</h2>
      <p>Once a batch stands in jars, its yields, its losses and its cost stand here beside the reference.</p>
    </div>
    <template v-else-if="answer">
      <section class="card sums" aria-label="All together">
        <div>
          <strong>{{ answer.all.batches }}</strong><span class="quiet"
            >{{ answer.all.batches === 1 ? 'batch' : 'batches' }}, {{ format.weight(answer.all.rawG) }} of baskets</span
          >
        </div>
        <div>
          <strong>{{ format.weight(answer.all.productG) }}</strong><span class="quiet"
            >in jars, {{ percent(answer.all.productG / answer.all.rawG) }}</span
          >
        </div>
        <div>
          <strong>{{ answer.all.kWh.toFixed(0) }}&nbsp;kWh</strong
          ><span class="quiet">{{ money(answer.all.kWh * settings.kwhPrice) }} of power</span>
        </div>
        <div>
          <strong>{{ format.hours(answer.all.handsMinutes / 60) }}</strong><span class="quiet">of work, estimated</span>
        </div>
        <div v-if="windows && windows.runs">
          <strong>{{ windows.held }} of {{ windows.runs }}</strong
          ><span class="quiet"
            >windows said halfway held; the middle off by {{ percent(windows.medianError ?? 0) }}. Eight in ten are meant to.</span
          >
        </div>
      </section>
      <section v-if="answer.learning.length" class="card" aria-label="What it learned">
        <h2>How well hours are told</h2>
        <p class="quiet small">
          At loading, before anything is weighed, against what it took: the middle of eight runs each. Both lines should fall, and “off by”
          stay below “said within”.
        </p>
        <LazyLearningChart :points="answer.learning" />
      </section>
      <div class="charts">
        <section v-if="answer.told.length" class="card" aria-label="Said and taken">
          <h2>Said, and taken</h2>
          <LazyToldChart :told="answer.told" />
        </section>
        <section v-if="answer.yields.length" class="card" aria-label="Yields over time">
          <h2>What baskets gave</h2>
          <LazyYieldChart :yields="answer.yields" />
        </section>
      </div>
      <section class="card scroll" aria-label="Group by group">
        <table class="ruled">
          <thead>
            <tr>
              <th>{{ { food: 'Food', card: 'Cut', purpose: 'Form', machine: 'Machine' }[by] }}</th>
              <th class="n">Batches</th>
              <th class="n">Gave, of the basket</th>
              <th v-if="by === 'food' || by === 'card'">Against the reference</th>
              <th class="n">Lost at the grinder</th>
              <th class="n">Power</th>
              <th class="n">Own cost a kg</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <template v-for="group in answer.groups" :key="group.key">
              <tr>
                <td>
                  <strong>{{ by === 'purpose' ? PURPOSE_WORDS[group.key as 'powder'] : group.name }}</strong>
                </td>
                <td class="n">{{ group.summary.batches }}</td>
                <td class="n">{{ group.summary.steps.whole ? percent(group.summary.steps.whole.middle) : '' }}</td>
                <td v-if="by === 'food' || by === 'card'">
                  <span
                    v-if="group.summary.steps.whole && group.reference"
                    class="scale"
                    role="img"
                    :aria-label="`${percent(group.summary.steps.whole.middle / referenceOf(group, 'whole')!)} of the reference`"
                    ><i class="mid" /><i
                      class="dot"
                      :style="{ left: place(group.summary.steps.whole.middle / referenceOf(group, 'whole')!) }"
                  /></span>
                  <span class="small">{{
                    group.summary.steps.whole && group.reference
                      ? `${group.summary.steps.whole.middle >= referenceOf(group, 'whole')! ? '+' : '−'}${Math.abs(Math.round(100 * (group.summary.steps.whole.middle / referenceOf(group, 'whole')! - 1)))}\u00A0%`
                      : ''
                  }}</span>
                </td>
                <td class="n">{{ lostOf(group).length ? format.weight(lostOf(group).reduce((sum, [, grams]) => sum + grams, 0)) : '' }}</td>
                <td class="n">{{ group.summary.kWh < 0.05 ? 'none' : `${group.summary.kWh.toFixed(1)}\u00A0kWh` }}</td>
                <td class="n">{{ group.worth ? money(group.worth.ownPerKg) : '' }}</td>
                <td>
                  <button
                    type="button"
                    class="turn"
                    :aria-expanded="open === group.key"
                    @click="open = open === group.key ? '' : group.key"
                  >
                    {{ open === group.key ? 'Less' : 'More' }}
                  </button>
                </td>
              </tr>
              <tr v-if="open === group.key" class="more">
                <td :colspan="by === 'food' || by === 'card' ? 8 : 7">
                  <div class="detail">
                    <table class="ruled steps">
                      <thead>
                        <tr>
                          <th>Step</th>
                          <th class="n">Own middle</th>
                          <th class="n">Own range</th>
                          <th class="n">Reference</th>
                        </tr>
                      </thead>
                      <tbody>
                        <tr v-for="[step, words] in STEPS" :key="step">
                          <td>{{ words }}</td>
                          <td class="n">{{ group.summary.steps[step] ? percent(group.summary.steps[step]!.middle) : 'not weighed' }}</td>
                          <td class="n quiet">
                            {{ group.summary.steps[step]?.spread ? format.range(group.summary.steps[step]!.spread!, percent) : '' }}
                          </td>
                          <td class="n quiet">{{ referenceOf(group, step) === undefined ? '' : percent(referenceOf(group, step)!) }}</td>
                        </tr>
                      </tbody>
                    </table>
                    <div>
                      <p v-if="lostOf(group).length">
                        <strong>Where powder went:</strong>
                        {{
                          lostOf(group)
                            .map(([cause, grams]) => `${format.weight(grams)} ${CAUSES[cause]}`)
                            .join(', ')
                        }}.
                      </p>
                      <p v-if="group.summary.windows.runs">
                        <strong>Windows:</strong> {{ group.summary.windows.held }} of {{ group.summary.windows.runs }} held, the middle off
                        by {{ percent(group.summary.windows.medianError ?? 0) }}.
                      </p>
                      <template v-if="group.worth">
                        <p>
                          <strong>A {{ format.each() }} cost</strong> {{ money(format.priceOf(group.worth.basketPerKg)) }} of baskets{{
                            group.summary.priced < group.summary.batches
                              ? ` (${group.summary.priced} of ${group.summary.batches} had a price)`
                              : ''
                          }}, {{ money(format.priceOf(group.worth.powerPerKg)) }} of power and
                          {{ format.hours(format.priceOf(group.worth.minutesPerKg) / 60) }} of work{{
                            settings.hourWorth ? `, ${money(format.priceOf(group.worth.handsPerKg))}` : ''
                          }}.
                        </p>
                        <p v-if="group.worth.shopPerKg">
                          <strong>{{
                            group.worth.saved! >= 0
                              ? `It saved ${money(group.worth.saved!)}`
                              : `The shop would have been ${money(-group.worth.saved!)} cheaper`
                          }}</strong>
                          against {{ money(format.priceOf(group.worth.shopPerKg)) }} a {{ format.each() }} in the shop{{
                            settings.hourWorth ? '' : ', with the work counted as pleasure'
                          }}.
                        </p>
                        <form v-if="by === 'food'" class="row" @submit.prevent="setPrice(group)">
                          <label class="quiet" :for="`shop-${group.key}`">The shop asks a {{ format.each() }}</label
                          ><input
                            :id="`shop-${group.key}`"
                            v-model="prices[group.key]"
                            class="price"
                            inputmode="decimal"
                            :placeholder="group.worth.shopPerKg ? format.priceOf(group.worth.shopPerKg).toFixed(2) : settings.money"
                          /><ElButton native-type="submit">Compare</ElButton>
                        </form>
                      </template>
                    </div>
                  </div>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
        <p class="quiet small">
          Power is rated power times the share of the time that a heater draws; work is in minutes of common practice for each step. The
          price of a kWh and the worth of an hour are set in the <NuxtLink to="/workshop/household">set-up</NuxtLink>.
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 2.2rem;
}
.sums > div {
  display: grid;
  align-content: start;
  max-width: 260px;
}
.sums strong {
  font: 700 1.5rem var(--display);
}
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 1rem;
}
.scroll {
  overflow-x: auto;
}
.scale {
  position: relative;
  display: inline-block;
  width: 110px;
  height: 14px;
  border-radius: 7px;
  background: var(--sunk);
  vertical-align: -2px;
}
.scale i {
  position: absolute;
  top: 0;
}
.scale .mid {
  left: 50%;
  width: 2px;
  height: 14px;
  background: var(--quiet);
}
.scale .dot {
  width: 14px;
  height: 14px;
  margin-left: -7px;
  border-radius: 50%;
  background: var(--husk);
}
.turn {
  min-height: 44px;
  border: 0;
  background: none;
  text-decoration: underline;
  font-weight: 650;
  color: var(--quiet);
  cursor: pointer;
}
.more > td {
  background: var(--sunk);
  padding: 0.8rem;
}
.detail {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1.4rem;
}
.detail p {
  margin: 0 0 0.5rem;
}
.price {
  width: 6rem;
  min-height: 44px;
  padding: 0 0.6rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
@media (width <= 860px) {
  .detail {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
