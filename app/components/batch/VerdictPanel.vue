<script setup lang="ts">
import { unusualOf, type Assessment, type Unusual } from '#core/batch'
import { targetIn } from '#core/foods'
import type { BatchState } from '#core/log'
import { driesFor, finishingOf, reachOf, targetOfRun } from '#core/water'
import { WAYS } from '#core/ways'
import { HOUR } from '#core/time'

const props = defineProps<{ state: BatchState; assessment: Assessment; now: number }>()
const format = useFormat()
const verdict = computed(() => props.assessment.verdict)
const tone = computed(() =>
  verdict.value.discard
    ? 'danger'
    : ({ 'keep-drying': 'attention', 'cool-and-check': 'attention', rest: 'good', grind: 'good', seal: 'good' } as const)[
        verdict.value.level
      ],
)
const NAMES = { weight: 'Weight', feel: 'Feel', jarAir: 'Air in a jar', rest: 'Rest' }
const TONES = { dry: 'good', unsure: 'attention', wet: 'attention', nothing: 'none' }
const how = ref(false)
const finish = computed(() => {
  const { run } = props.state
  if (!run || run.unloadedAt !== undefined) return undefined
  const { from, middle, to } = props.assessment.finish
  const { plainHeat, nightsCount } = WAYS[run.way.way]
  if (run.setC === null && nightsCount) return 'The heat is off: there is no finish until it is on again.'
  const finishing = plainHeat ? undefined : finishingOf(props.state, reachOf(props.state, run).lowest.p50)
  const mend = finishing ? `${finishWords(finishing, format)} would finish what is nearly there` : 'a drier day would do it, or a room'
  if (!Number.isFinite(from))
    return plainHeat ? 'This heat cannot bring it to the target.' : `This air cannot bring it to the target: ${mend}.`
  if (!Number.isFinite(middle))
    return plainHeat
      ? 'In this heat and air it may never come to the target: a hotter or drier finish would be needed.'
      : `In this air it may never come to the target: ${mend}.`
  if (!Number.isFinite(to))
    return `Dry around ${format.moment(middle, props.now)}, or not at all ${plainHeat ? 'at this heat' : `in this air: ${mend}`}.`
  if (to < props.now) return `Likely dry since ${format.window(from, to, props.now)}: test it.`
  if (from <= props.now && props.assessment.estimate.probabilityDry < 0.05) return `Dry by ${format.moment(to, props.now)}, 9 in 10.`
  return from <= props.now
    ? `Dry by ${format.moment(to, props.now)}, 9 in 10; it may be already.`
    : `Dry ${format.window(from, to, props.now)}, 8 in 10.`
})
const usual = computed(() => {
  const own = props.state.run?.usualHours
  const { value, source } = props.state.card.usualHours
  return own
    ? `the usual ${Math.round(own.low)} to ${Math.round(own.high)} hours of this machine (the reference’s ${value.low} to ${value.high}, moved by ${own.runs > 0 ? plural(own.runs, 'run of your own', 'runs of your own') : 'what was known of it at loading'})`
    : `the usual ${value.low} to ${value.high} hours (${source})`
})
/** As a friend would say it who has seen it before: what is unusual, and what would settle why. */
const remarks = computed(() => unusualOf(props.state, props.assessment, props.now).map(remarkOn))
function remarkOn(unusual: Unusual): string {
  switch (unusual.kind) {
    case 'tookBack': {
      const { moistureNow } = props.assessment.estimate
      const isOff = props.state.run!.setC === null
      const more = Number.isFinite(unusual.hoursMore)
        ? `; about ${format.hours(unusual.hoursMore)} more at ${format.temperature(unusual.atC)}${isOff ? ' once the heat is on again' : ''}`
        : ''
      const told = unusual.weighed ? '' : ' A weight now would tell.'
      return `It ${isOff ? 'has taken' : 'took'} back about ${format.weight(Math.round(unusual.grams))} while the heat was off; ${format.share(moistureNow.p50)} water now${more}.${told}`
    }
    case 'startOff':
      return 'The weight at loading does not go with the weights since: was a tray’s own weight counted in, or food added? Correct the loading, and the figures follow.'
    case 'lateStart':
      return `It has lost more than it can have in the hours since it was logged. Did it go in some ${format.hours(unusual.hours)} earlier? Correct the time of the loading and of the heat; until then both are reckoned with.`
    case 'slow':
      return `This load runs at about ${speedWords(unusual.speed)} the usual speed. A thicker cut, crowded trays, a damp room or a heat below its dial would do that: measure a piece, and the air among the trays, to tell which.`
    case 'quick':
      return `This load runs ${unusual.speed.toFixed(1)} times as fast as usual: thinner than its card, more air, or less on the trays.`
  }
}
const speedWords = (speed: number) =>
  speed < 0.38 ? 'a third of' : speed < 0.45 ? 'two fifths of' : speed < 0.58 ? 'half' : speed < 0.7 ? 'two thirds of' : 'three quarters of'
/** What the next weighing would buy: the first one that narrows the window by a third, or the best there is. */
const nextWords = computed(() => {
  const { run } = props.state
  const {
    estimate,
    finish: { from, to },
  } = props.assessment
  if (!run || run.unloadedAt !== undefined || run.setC === null || !Number.isFinite(to)) return undefined
  const ahead = estimate.nextWeighings.filter(item => run.clock.instantAt(item.hours) > props.now)
  const best = ahead.find(item => item.shrinksTo < 0.67) ?? ahead.at(-1)
  if (!best || best.shrinksTo > 0.9) return undefined
  const width = (to - from) / HOUR
  return `A weight at about ${format.moment(run.clock.instantAt(best.hours), props.now)} would narrow this from ${format.hours(width)} to about ${format.hours(width * best.shrinksTo)}.`
})
</script>

<template>
  <section class="card verdict" aria-label="Verdict">
    <div role="status">
      <p class="quiet small">Verdict</p>
      <h2 class="headline" :class="tone">{{ verdict.headline }}</h2>
      <p>{{ verdict.reason }}</p>
    </div>
    <p v-if="finish && !verdict.discard" class="finish">{{ finish }}</p>
    <slot />
    <p v-for="remark in remarks" :key="remark" class="caution">{{ remark }}</p>
    <p v-if="nextWords && !verdict.discard" class="quiet small">{{ nextWords }}</p>
    <p v-if="verdict.disagreement" class="caution">{{ verdict.disagreement }}</p>
    <dl>
      <div v-for="witness in verdict.witnesses" :key="witness.name" class="witness">
        <dt>{{ NAMES[witness.name] }}</dt>
        <dd>
          <span class="says" :class="TONES[witness.says]">{{ witness.headline }}</span>
          <span class="quiet small">{{ witness.detail }}</span>
        </dd>
      </div>
    </dl>
    <button type="button" class="how" :aria-expanded="how" @click="how = !how">{{ how ? 'Less' : 'How this is worked out' }}</button>
    <div v-if="how" class="small stack">
      <p>
        Solids do not leave, so the weight tells the water: {{ format.weightRange(assessment.estimate.solidsG) }} of solids, from
        {{ state.food.name.toLowerCase() }} with {{ format.share(state.food.rawMoisture.value.mean) }} water ({{
          state.food.rawMoisture.source
        }}) and from the weighings themselves.
      </p>
      <p>
        A drying curve is fitted to the weighings, starting from {{ usual }}. Ranges hold 8 of 10 cases. Target
        {{ format.share(state.run ? targetOfRun(state, state.run) : targetIn(state.food, state.purpose)) }} water for
        {{ driesFor(state, state.run) === state.purpose ? PURPOSE_WORDS[state.purpose] : 'the first of two grindings' }} ({{
          state.food.targetSource
        }}).
      </p>
      <p>By hand: {{ state.food.drynessTest.value }} ({{ state.food.drynessTest.source }})</p>
    </div>
  </section>
</template>

<style scoped>
.verdict {
  display: grid;
  gap: 0.7rem;
  align-content: start;
}
.headline {
  font-size: 1.6rem;
  margin: 0.1rem 0 0.35rem;
}
.headline.attention {
  color: var(--amber);
}
.headline.good {
  color: var(--kelp);
}
.headline.danger {
  color: var(--brick);
}
.finish {
  font-weight: 700;
}
dl {
  margin: 0;
  display: grid;
}
.witness {
  display: grid;
  grid-template-columns: 74px 1fr;
  gap: 0.6rem;
  padding: 0.65rem 0;
  border-top: 1px solid var(--rule);
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
  display: grid;
  gap: 0.1rem;
}
.says {
  font-weight: 700;
}
.says.good {
  color: var(--kelp);
}
.says.attention {
  color: var(--amber);
}
.says.none {
  color: var(--quiet);
}
.how {
  justify-self: start;
  border: 0;
  background: none;
  padding: 0.5rem 0;
  min-height: 44px;
  color: var(--dulse-ink);
  font-weight: 650;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
</style>
