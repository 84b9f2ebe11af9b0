<script setup lang="ts">
import { rangeText, spreadText, type CardWay, type MethodCard } from '#core/foods'
import { WAYS } from '#core/ways'
import { FEEL_QUESTIONS } from '#core/dryness'
import { ISOTHERMS } from '#core/sorption'

/** All that is known of a food, each figure with its source. */
const route = useRoute()
const format = useFormat()
const store = useFoods()
const { answer: page, problem, ready, load } = useServer('food', () => ({ params: { foodKey: String(route.params.food) } }))
const { answer: ownHours } = useServer('foodHours', () => ({ params: { foodKey: String(route.params.food) } }))
const { answer: pictures } = useServer('foodPictures', () => ({ params: { foodKey: String(route.params.food) } }))
const { now } = useClock()
const behind = ref(false)
const shown = ref<string>()
await ready()
shown.value = page.value?.food.cards[0]?.key
useHead({ title: () => `${page.value?.food.name ?? 'Reference'} · Dulse` })
const food = computed(() => page.value?.food)
const card = computed<MethodCard | undefined>(() => food.value?.cards.find(item => item.key === shown.value) ?? food.value?.cards[0])
const months = (window: { low: number; high: number }) => `${rangeText(window)} months`
const days = (value: number) => (value < 1 ? 'hours' : plural(Math.round(value), 'day'))
/** Hours as people say them: days where they are days. */
function hoursOf({
  way,
  usualHours: {
    value: { low, high },
  },
}: CardWay): string {
  const { toldInDays, nightsCount, words } = WAYS[way]
  const hours = `${rangeText({ low, high })} h`
  if (!toldInDays || high <= toldInDays.beyondHours) return hours
  const inDays = (value: number) => Math.round(value / toldInDays.hoursADay)
  const days = `${rangeText({ low: Math.max(1, inDays(low)), high: Math.max(2, inDays(high)) })} days`
  return nightsCount ? days : `${days}, ${hours} ${words.hours}`
}
const SEVERITY = {
  stop: { words: 'stops', tag: 'danger' },
  care: { words: 'to accept', tag: 'attention' },
  note: { words: 'to know', tag: '' },
}
/** Hours of the cut in one's own machines, where runs or a measured dial moved them. */
const inMachines = computed(() =>
  (ownHours.value?.machines ?? []).flatMap(({ machineId, name, cards }) => {
    const hours = card.value && cards[card.value.key]
    return hours ? [{ machineId, name, hours }] : []
  }),
)
const taughtFood = computed(() => inMachines.value.find(item => item.hours.food)?.hours.food)
/** What own lots of this cut gave dry, beside the reference. */
const ownDry = computed(() => {
  const own = page.value?.ownLots?.cards.find(item => item.cardKey === card.value?.key)
  if (!own) return undefined
  const percent = Math.round((own.dry.p50 - 1) * 100)
  return `${percent === 0 ? 'as much dry as' : `${Math.abs(percent)}\u00A0% ${percent > 0 ? 'more' : 'less'} dry than`} the reference says, as ${format.sentence(card.value!.name).toLowerCase()}, from ${plural(own.lots, 'own lot')}`
})
const removing = ref('')
async function remove(cardKey?: string) {
  removing.value = ''
  try {
    await call('removeFood', { params: { foodKey: food.value!.key }, query: { card: cardKey } })
    await store.load(true)
    if (cardKey) await load()
    else await navigateTo('/reference')
  } catch (error) {
    removing.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="problem" class="card">
    <h1>No such food</h1>
    <p>{{ problem }}</p>
    <p><NuxtLink to="/reference">All foods</NuxtLink></p>
  </div>
  <article v-else-if="page && food && card" class="stack">
    <header class="page-head">
      <div>
        <p class="small"><NuxtLink to="/reference">Reference</NuxtLink> · {{ food.groupName }}</p>
        <h1>
          <span class="dot" :style="{ background: food.powderColour }" aria-hidden="true" />{{ food.name }}
          <span v-if="food.own" class="tag">yours</span>
        </h1>
        <p v-if="food.otherNames.length" class="quiet">{{ food.otherNames.join(', ') }}</p>
      </div>
      <div class="row">
        <ElButton type="primary" @click="navigateTo(`/intake?food=${food.key}`)">A basket came in</ElButton>
        <ElButton @click="navigateTo(`/reference/own?from=${food.key}${food.own ? '&edit=1' : ''}`)">{{
          food.own ? 'Change it' : 'Copy as your own'
        }}</ElButton>
        <ElButton @click="navigateTo(`/reference/own?card=${food.key}`)">Own card</ElButton>
      </div>
    </header>
    <p v-if="removing" class="problem" role="alert">{{ removing }}</p>
    <section class="card stack" aria-label="Method cards">
      <div class="row between">
        <h2>Method cards</h2>
        <span class="quiet small">ranges hold 8 of 10 cases</span>
      </div>
      <ChoiceField
        v-if="food.cards.length > 1"
        v-model="shown"
        label="Cut"
        hide-label
        :choices="food.cards.map(item => ({ value: item.key, words: item.name, note: item.own ? 'yours' : undefined }))"
      />
      <h3 :class="{ 'visually-hidden': food.cards.length > 1 }">{{ format.sentence(card.name) }}</h3>
      <div class="method">
        <div>
          <h4>Before the tray</h4>
          <ol class="steps">
            <li v-for="(step, i) in card.steps" :key="i">
              <strong>{{ PREP_WORDS[step.step] }}.</strong> {{ format.sentence(step.words) }}
              <span v-if="step.minutes" class="tag">{{
                step.minutes < 120 ? `${step.minutes} min` : format.hours(step.minutes / 60)
              }}</span><span v-if="step.school" class="quiet small"> one school; see below</span>
            </li>
            <li>
              <strong>Lay out.</strong> {{ format.sentence(card.spread) }}
              <span class="quiet">{{ format.sentence(`About ${spreadText(card.trayLoadKgM2)} kg on a square metre.`) }}</span>
            </li>
          </ol>
          <h4>Dry is</h4>
          <p>
            {{ format.sentence(food.drynessTest.value) }} <span class="quiet small">({{ food.drynessTest.source }})</span>
          </p>
          <ul class="checks">
            <li v-for="question in FEEL_QUESTIONS[card.feelForm]" :key="question.key">
              {{ question.ask }}
              {{
                question.answers
                  .filter(answer => answer.vote === 'dry')
                  .map(answer => answer.words)
                  .join(' or ')
              }}.
            </li>
          </ul>
        </div>
        <div class="scroll">
          <h4>Ways of drying it</h4>
          <table>
            <thead>
              <tr>
                <th>Way</th>
                <th>Set</th>
                <th>Usual time</th>
              </tr>
            </thead>
            <tbody>
              <template v-for="(way, i) in card.ways" :key="way.way">
                <tr>
                  <td>
                    <strong>{{ WAYS[way.way].name }}</strong><span v-if="i === 0" class="quiet small"> the default</span>
                  </td>
                  <td>{{ WAYS[way.way].unheated ? 'about ' : '' }}{{ format.temperature(way.temperatureC) }}</td>
                  <td>{{ hoursOf(way) }}{{ way.partOnly ? ', then a machine' : '' }}</td>
                </tr>
                <tr class="why">
                  <td colspan="3" class="quiet small">{{ format.sentence(way.temperatureReason) }} ({{ way.usualHours.source }})</td>
                </tr>
              </template>
            </tbody>
          </table>
          <template v-if="inMachines.length">
            <h4>In your machines</h4>
            <table>
              <tbody>
                <tr v-for="{ machineId, name, hours } in inMachines" :key="machineId">
                  <th scope="row">
                    <NuxtLink :to="`/machines/${machineId}`">{{ name }}</NuxtLink>
                  </th>
                  <td>{{ Math.round(hours.low) }} to {{ Math.round(hours.high) }} h</td>
                  <td class="quiet">
                    {{
                      hours.by === 'runs'
                        ? `from ${plural(hours.runs, 'own run')}`
                        : hours.by === 'dial'
                          ? 'by its dial as measured'
                          : 'its card'
                    }}
                  </td>
                </tr>
              </tbody>
            </table>
            <p v-if="taughtFood">
              {{
                foodWords(food.name, taughtFood) ?? `${food.name} takes about as long as its card, from ${plural(taughtFood.runs, 'run')}.`
              }}
              <button type="button" class="word-button" @click="behind = true">The runs behind it</button>
            </p>
          </template>
          <p v-if="card.own" class="row"><ElButton @click="remove(card.key)">Take this card away</ElButton></p>
        </div>
      </div>
    </section>
    <section class="card" aria-label="Figures">
      <h2>Figures</h2>
      <dl>
        <dt>Water</dt>
        <dd>
          {{ spreadText({ mean: food.rawMoisture.value.mean * 100, sd: food.rawMoisture.value.sd * 100 }) }} % of the raw edible part
          <span class="quiet small">({{ food.rawMoisture.source }})</span>
          <template v-if="page.ownLots?.water">
            <br />yours: {{ spreadText({ mean: page.ownLots.water.mean * 100, sd: page.ownLots.water.sd * 100 }) }} %, from
            {{ plural(page.ownLots.water.lots, 'lot') }}; the next one is reckoned with so
          </template>
        </dd>
        <template v-if="ownDry">
          <dt>A basket gives</dt>
          <dd>{{ ownDry }}</dd>
        </template>
        <dt>Trimmed off</dt>
        <dd>
          {{
            spreadText({ mean: (card.trimShare ?? food.trimShare).value.mean * 100, sd: (card.trimShare ?? food.trimShare).value.sd * 100 })
          }}
          % of the basket, so {{ format.share(1 - (card.trimShare ?? food.trimShare).value.mean) }} is dried
          <span class="quiet small">({{ food.trimShare.source }})</span>
        </dd>
        <dt>Waits</dt>
        <dd>
          about {{ days(food.freshDays.value) }} in the cold <span class="quiet small">({{ food.freshDays.source }})</span>
        </dd>
        <dt v-if="food.blanch">Blanch</dt>
        <dd v-if="food.blanch">
          {{
            [
              food.blanch.value.steam && `steam ${food.blanch.value.steam} min`,
              food.blanch.value.water && `water ${food.blanch.value.water} min`,
            ]
              .filter(Boolean)
              .join(', ')
          }}
          {{ format.sentence(food.blanch.value.words ?? '') }} <span class="quiet small">({{ food.blanch.source }})</span>
        </dd>
        <dt>Dry to</dt>
        <dd>
          {{ format.share(food.target.pieces) }} water for pieces, {{ format.share(food.target.flakes) }} for flakes,
          {{ format.share(food.target.powder) }} for fine powder <span class="quiet small">({{ food.targetSource }})</span>
        </dd>
        <dt>Powder</dt>
        <dd>
          {{ format.density(food.powderDensity.value.mean) }}, spooned <span class="quiet small">({{ food.powderDensity.source }})</span>
          <template v-if="page.ownLots?.density">
            <br />yours: {{ format.density(food.powderDensity.value.mean * page.ownLots.density.factor.p50) }}, from
            {{ plural(page.ownLots.density.lots, 'weighed spoon') }}
          </template>
        </dd>
        <dt>Keeps</dt>
        <dd>
          pieces {{ months(food.keepsMonths.pieces) }}, flakes {{ months(food.keepsMonths.flakes) }}, powder
          {{ months(food.keepsMonths.powder) }} at {{ format.temperature(20) }} in a lined screw jar.
          {{ format.sentence(food.keepsReason) }}
          <span class="quiet small">({{ food.keepsSource }})</span>
        </dd>
        <dt v-if="food.heatUnits">Heat</dt>
        <dd v-if="food.heatUnits">
          {{ food.heatUnits.value.low.toLocaleString('en-GB') }} to {{ food.heatUnits.value.high.toLocaleString('en-GB') }} Scoville units,
          dried <span class="quiet small">({{ food.heatUnits.source }})</span>
        </dd>
        <dt>Holds water like</dt>
        <dd>
          {{ ISOTHERMS[food.isotherm].name.toLowerCase() }} <span class="quiet small">({{ ISOTHERMS[food.isotherm].source }})</span>
        </dd>
        <dt>Allergens</dt>
        <dd>{{ food.allergens.length ? food.allergens.join(', ') : 'none known' }}</dd>
      </dl>
    </section>
    <section v-if="page.schools.length" class="card stack" aria-label="Schools">
      <h2>Where practitioners disagree</h2>
      <SchoolTable v-for="question in page.schools" :key="question.key" :question="question" />
    </section>
    <section v-if="page.cautions.length || food.cautions.length" class="card" aria-label="Cautions">
      <h2>Cautions</h2>
      <ul class="plain-list cautions">
        <li v-for="caution in food.cautions" :key="caution.text">
          <span class="tag">to know</span><span>{{ format.sentence(caution.text) }}</span>
        </li>
        <li v-for="rule in page.cautions" :key="rule.key">
          <span class="tag" :class="SEVERITY[rule.severity].tag">{{ SEVERITY[rule.severity].words }}</span><span
            >{{ format.sentence(rule.text) }} <template v-if="rule.wayOut">{{ format.sentence(rule.wayOut) }}</template>
            <span class="quiet small">({{ rule.authority }})</span></span
          >
        </li>
      </ul>
      <p class="quiet small">The usual cautions of the trade; your local food-safety authority and the machine’s manual come first.</p>
    </section>
    <section v-if="pictures?.length" class="card" aria-label="Your pictures">
      <h2>Your pictures</h2>
      <PictureStrip :pictures="pictures" :now="now" places />
    </section>
    <section v-if="page.pickings.length" class="card" aria-label="What came in">
      <h2>What came in</h2>
      <ul class="plain-list">
        <li v-for="row in page.pickings" :key="`${row.year}${row.plant}${row.cultivar}`" class="picking">
          <strong>{{ row.year }}</strong>
          {{ [row.plant, row.cultivar && `“${row.cultivar}”`].filter(Boolean).join(', ') || 'no plant named' }}:
          {{ format.weight(row.weightG) }} in {{ plural(row.baskets, 'basket') }}, last {{ format.day(row.lastAt) }}
        </li>
      </ul>
    </section>
    <p v-if="food.own"><ElButton @click="remove()">Take this food away</ElButton></p>
    <LazyLearnedDialog v-if="behind" kind="food" :of="food.key" @close="behind = false" />
  </article>
</template>

<style scoped>
.dot {
  display: inline-block;
  width: 1.1rem;
  height: 1.1rem;
  border-radius: 5px;
  margin-right: 0.6rem;
  border: 1px solid color-mix(in srgb, var(--ink) 25%, transparent);
}
.method {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 1.4rem;
  align-items: start;
}
h4 {
  font: 650 0.95rem var(--display);
  color: var(--quiet);
  margin: 0 0 0.3rem;
}
p + h4,
ol + h4 {
  margin-top: 0.9rem;
}
.steps {
  margin: 0;
  padding-left: 1.2rem;
  display: grid;
  gap: 0.35rem;
}
.checks {
  margin: 0.3rem 0 0;
  padding-left: 1.2rem;
}
dl {
  display: grid;
  grid-template-columns: 140px 1fr;
  gap: 0.5rem 1rem;
  margin: 0.6rem 0 0;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  color: var(--quiet);
  font: 650 0.9rem var(--text);
  padding: 0.2rem 0.8rem 0.2rem 0;
}
td {
  padding: 0.45rem 0.8rem 0.1rem 0;
  vertical-align: top;
}
tbody tr:not(.why) td {
  border-top: 1px solid var(--rule);
}
.why td {
  padding: 0 0.8rem 0.45rem 0;
}
.cautions {
  display: grid;
  gap: 0.5rem;
  margin: 0.6rem 0;
}
.cautions li {
  display: grid;
  grid-template-columns: 88px 1fr;
  gap: 0.7rem;
  align-items: start;
}
.cautions .tag {
  text-align: center;
}
.picking {
  padding: 0.35rem 0;
  border-top: 1px solid var(--rule);
}
@media (width <= 900px) {
  .method {
    grid-template-columns: minmax(0, 1fr);
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.1rem;
  }
  dd {
    margin-bottom: 0.5rem;
  }
  .cautions li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.1rem;
  }
  .cautions .tag {
    justify-self: start;
  }
}
</style>
