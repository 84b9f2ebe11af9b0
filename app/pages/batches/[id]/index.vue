<script setup lang="ts">
import { uncapital } from '#core/text'
import { purposeFactor } from '#core/foods'
import { packableForms, withMates } from '#core/batch'
import { mapInterval } from '#core/stats'
import { hoursOf } from '#core/hours'
import { heatState, WAYS } from '#core/ways'
import { conflictsOf, HOLD_WORDS, type Entry, type EntryKind } from '#core/log'
import type { ActStep } from '~/components/frame/ActSteps.vue'
import type { Parcel } from '~/data/parcel'
import type { WeighInFlag } from '#core/kinetics'
import type { TryKnobs, TryLoad } from '#core/tries'

const route = useRoute()
const router = useRouter()
const batchId = String(route.params.id)
const { now, tick } = useClock()
const format = useFormat()
const { page, entries, food, waits, state, problem, ready, load, write } = useBatch(batchId)
const conflicting = computed(() => conflictsOf(page.value?.entries ?? []).length > 0)
const { assessment: alone, working } = useAssessment(entries, food, now)
/** With what shares its chamber: one cycle has one end. */
const assessment = computed(() => withMates(state.value, alone.value, page.value?.mates ?? []))
// The verdict stands before the chart is fetched and the log is drawn: it is what one came for.
const drawn = ref(false)
/** A slow phone is pressed before it has an idle moment; so long it may take, ms. */
const DRAWN_WITHIN_MS = 1500
const inAnIdleMoment = (act: () => void) =>
  'requestIdleCallback' in window ? window.requestIdleCallback(act, { timeout: DRAWN_WITHIN_MS }) : setTimeout(act)
whenever(assessment, () => requestAnimationFrame(() => inAnIdleMoment(() => (drawn.value = true))), { once: true })
const changes = useLessons(entries, food)
const trays = useTrays(entries, food)
const weighings = computed(() =>
  [...(state.value?.earlierRuns ?? []), ...(state.value?.run ? [state.value.run] : [])].flatMap(run => run.weighings),
)
const dialog = ref<{ kind: EntryKind; correcting?: Entry; step?: string; parcel?: Parcel }>()
const weighing = ref(false)
const voiding = ref<Entry>()

await ready()
useHead({ title: () => (state.value ? `${state.value.food.name}, batch ${page.value?.number} · Dulse` : 'Dulse') })

const title = computed(() => state.value && format.sentence(`${state.value.food.name}, ${uncapital(state.value.cutName)}`))
const underTitle = computed(() => {
  const s = state.value
  if (!s || !page.value) return ''
  const run = s.earlierRuns[0] ?? s.run
  return [
    `Batch ${page.value.number}`,
    s.intake.body.cultivar,
    s.intake.body.source.toLowerCase(),
    `came in ${format.day(s.intake.at)}`,
    `${format.weight(s.intake.body.weightG)} in${run ? `, ${format.weight(run.loadedG)} loaded on ${plural(run.positions.length, 'tray')}` : ''}`,
    `for ${PURPOSE_WORDS[s.purpose]}`,
  ]
    .filter(Boolean)
    .join(' · ')
})
const drying = computed(() => state.value?.stage === 'drying')
/** Hours of the card as it is cut, what it is meant for and what was chosen. */
const usual = computed(() => {
  const { card, food, purpose } = state.value!
  const { way } = card.ways[0]!
  const { low, high } = hoursOf({ ...state.value!, way })
  const crisp = purposeFactor(food, purpose, way) > 1
  return {
    low: Math.round(low),
    high: Math.round(high),
    why: crisp ? `, since ${PURPOSE_WORDS[purpose]} is dried on past pliable` : '',
  }
})
const machine = computed(() => page.value?.machines.find(item => item.id === state.value?.run?.machineId))
const heatLine = computed(() => {
  const run = state.value?.run
  if (!run || run.unloadedAt !== undefined) return ''
  const spent = format.hours(run.clock.hoursAt(now.value))
  const { way } = run.way
  if (!WAYS[way].plainHeat) return `${heatState(way, run.setC, format.temperature)} after ${spent}`
  return run.setC === null ? `heat off after ${spent}` : `${format.temperature(run.setC)}, ${spent} of heat`
})
/** "1–3, 5 (6 out)", as they stand now, or stood when they came out. */
const traysInWords = computed(() => {
  const run = state.value?.run
  if (!run) return ''
  const places = (trays: readonly number[]) => positions(trays.map(tray => run.places.placeAt(tray, Infinity)))
  const out = run.positions.filter(tray => !run.present.includes(tray))
  return `${places(run.present)}${out.length > 0 ? ` (${places(out)} out)` : ''}`
})
const flags = computed(() => {
  const map = new Map<string, WeighInFlag>()
  for (const flag of assessment.value?.estimate.flags ?? []) {
    for (const id of state.value?.run?.weighings[flag.index]?.entryIds ?? []) map.set(id, flag)
  }
  return map
})
const then = computed(() => {
  const s = state.value
  const estimate = assessment.value?.estimate
  if (!s || !estimate) return ''
  // What is lighter already gives no more than it weighs.
  const nowG = s.run?.weighings.at(-1)?.weightG ?? Infinity
  const dry = format.weightRange(mapInterval(estimate.targetWeightG, grams => Math.min(grams, nowG)))
  if (s.run?.way.partOnly) return 'Weigh it, take it out, and load it into a machine the same day: smoke takes part of the water only.'
  if (s.run && WAYS[s.run.way.way].underVacuum) return `Pack or grind it at once: about ${dry} dry, and it takes up water within minutes.`
  return s.purpose === 'pieces'
    ? `Rest 7 days, then pack about ${dry} of pieces.`
    : `Rest 7 days in a jar, then grind: about ${dry} dry, a little less as ${PURPOSE_WORDS[s.purpose]}.`
})

/** What the button is called that sets the heat. */
const ahead = useTypeAhead()
/** What could not be done, said on the page until the next deed. */
const trouble = ref('')

async function act(kind: EntryKind, correcting?: Entry, step?: string) {
  const scale = kind === 'weigh' && !correcting
  trouble.value = ''
  if (scale) ahead.begin()
  try {
    await (scale ? import('~/components/batch/WeighDialog.vue') : import('~/components/batch/EntryDialog.vue'))
  } catch {
    // The server went away before the form was fetched: say so rather than do nothing.
    ahead.take()
    trouble.value = 'This form has not been fetched yet, and the server is out of touch. Try again when it is back.'
    return
  }
  if (scale) weighing.value = true
  else dialog.value = { kind, correcting, step }
}
function weighed() {
  weighing.value = false
  tick()
}
async function doVoid(reason: string) {
  const target = voiding.value
  trouble.value = ''
  voiding.value = undefined
  if (!target) return
  try {
    await write([{ kind: 'void', target: target.id, reason: reason || undefined }])
    if (target.body.kind === 'intake') await navigateTo('/batches')
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    trouble.value = error.message
  }
}

/** What was removed from the log stands in it again, at its own time. */
async function putBack(entry: Entry) {
  trouble.value = ''
  try {
    await write([entry.body], { at: entry.at })
    tick()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    trouble.value = error.message
  }
}

/** The log as it stands on the page of every stage. */
const log = computed(() => ({
  entries: entries.value,
  schools: page.value!.schools,
  waits: waits.value,
  flags: flags.value,
  weighings: weighings.value,
  changes: changes.value,
  now: now.value,
}))
const inLog = {
  correct: (entry: Entry) => act(entry.body.kind, entry),
  void: (entry: Entry) => (voiding.value = entry),
  restore: putBack,
}
/** What may be done outside the machine, beside what comes next. */
const others = computed((): ActStep[] => {
  const s = state.value!
  const shelved = s.stage === 'shelf'
  const beside = `/compare?food=${s.food.key}&card=${s.card.key}&batch=${batchId}`
  return [
    { words: 'Note', key: 'N', go: () => act('note') },
    { words: 'Picture', go: () => act('picture') },
    { words: 'Allergens', go: () => act('contains') },
    ...(s.run && !shelved ? [{ words: 'Air in a closed jar', key: 'J', go: () => act('jarAir') }] : []),
    ...(s.run?.unloadedAt !== undefined && !shelved ? [{ words: 'Heat it through', go: () => act('heatThrough') }] : []),
    ...(s.run ? [{ words: 'For next time', go: () => act('review') }] : []),
    ...(shelved ? [] : [{ words: s.hold ? 'Take it up again' : 'Keep it for now', go: () => act('hold') }]),
    ...(drying.value || shelved ? [] : [{ words: 'A part of it', go: () => act('split') }]),
    { words: 'Where it went', go: () => navigateTo(`/batches/${batchId}/flow`) },
    ...(s.run ? [{ words: 'Once more, on paper', go: () => navigateTo(`/practice/own/${batchId}`) }] : []),
    ...(s.run ? [{ words: 'Beside other runs', go: () => navigateTo(beside) }] : []),
    ...(s.jars.length ? [{ words: 'Every jar of it', go: () => navigateTo(`/batches/${batchId}/recall`) }] : []),
    { words: 'Card for the wall', href: `/api/batches/${batchId}/card.pdf` },
  ]
})

/** The load as it may be tried before it is loaded, or from what is believed of it now. */
const { settings } = storeToRefs(useHouseholdStore())
const takenTries = useTakenTries()
const tryLoad = computed((): TryLoad | undefined => {
  const s = state.value
  if (!s || !page.value) return undefined
  if (drying.value) return machine.value && tryOfRun(page.value.food, s, entries.value, machine.value, now.value, settings.value)
  return s.run || s.beganDry ? undefined : tryBeforeLoad(s, entries.value, page.value, now.value, settings.value)
})
const tryMachineId = computed(
  () => (drying.value ? machine.value?.id : (state.value?.intake.body.machineId ?? tryLoad.value?.machines[0]?.id)) ?? '',
)
/** One tap takes it over: the heat of a load that runs, the whole of one that is to be loaded. */
async function takeTry(knobs: TryKnobs) {
  trouble.value = ''
  if (!drying.value) {
    takenTries.take(batchId, knobs)
    return act('load')
  }
  try {
    await write([{ kind: 'heat', runId: state.value!.run!.runId, setC: knobs.setC }])
    tick()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    trouble.value = error.message
  }
}

/** The rack is where trays are moved. */
function openRack() {
  void navigateTo(`/machines/${state.value!.run!.machineId}`)
}

useKeys({
  w: () => {
    if (drying.value) void act('weigh')
  },
  f: () => {
    if (drying.value) void act('feel')
  },
  h: () => {
    if (drying.value) void act('heat')
  },
  a: () => {
    if (drying.value) void act('air')
  },
  j: () => {
    if (state.value?.run && state.value.stage !== 'shelf') void act('jarAir')
  },
  r: () => {
    if (drying.value) openRack()
  },
  n: () => {
    if (state.value) void act('note')
  },
})

/** Forms of the present stage that are fetched on their own. */
function stageForms(): Promise<unknown>[] {
  const stage = state.value?.stage
  return [
    ...(stage === 'drying' || stage === 'shelf' ? [] : [import('~/components/forms/LoadForm.vue')]),
    ...(stage === 'grinding' ? [import('~/components/forms/PackForm.vue')] : []),
  ]
}

// The forms are fetched while nothing else is to do: they open at once, and out of touch too.
onMounted(() => {
  const fetchForms = () => {
    void Promise.allSettled([
      import('~/components/batch/WeighDialog.vue'),
      import('~/components/batch/EntryDialog.vue'),
      import('~/components/batch/VoidDialog.vue'),
      ...stageForms(),
    ])
  }
  const patient = window.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 600))
  patient(fetchForms)
})

// From the banner: what was set aside is put right in its own form.
usePutRight((entry, parcel) => {
  dialog.value = { kind: entry.body.kind, parcel, correcting: entry }
})

// From the Log dialog or Now: open at once what was asked for.
const wanted = route.query.act
const place = Number(route.query.place) || undefined
if (typeof wanted === 'string' && state.value) {
  const fits: Record<string, boolean> = {
    prep: !state.value.run,
    load: !state.value.run,
    weigh: drying.value,
    feel: drying.value,
    heat: drying.value,
    air: drying.value,
    jarAir: Boolean(state.value.run),
    unload: drying.value,
    look: state.value.stage === 'resting' && state.value.rest?.startedAt !== undefined,
    hold: !drying.value && state.value.stage !== 'shelf',
    outlook: drying.value,
    rest: state.value.stage === 'resting',
    restEnd: state.value.stage === 'resting',
    grind: state.value.stage === 'grinding',
    pack: packableForms(state.value).length > 0,
  }
  onMounted(() => {
    if (wanted === 'rack') return openRack()
    if (fits[wanted]) void act(wanted as EntryKind)
    void router.replace({ query: {} })
  })
}
</script>

<template>
  <div v-if="problem" class="card">
    <h1>No such batch</h1>
    <p>{{ problem }}</p>
    <p><NuxtLink to="/batches">All batches</NuxtLink></p>
  </div>
  <div v-else-if="state && page" class="stack">
    <LazyConflictCard v-if="conflicting" :entries="page.entries" :place="{ batchId: page.batchId }" :now="now" @settled="load" />
    <header class="page-head head">
      <div>
        <h1>{{ title }}</h1>
        <p class="quiet">{{ underTitle }} <NuxtLink :to="`/intake?like=${batchId}`">Same again</NuxtLink></p>
        <p v-if="page.family.length" class="quiet">
          <template v-for="(member, i) in page.family" :key="member.batchId"
            >{{ i > 0 ? (member.of ? ' · ' : ' and ') : '' }}{{ member.of ? 'Part' : i > 0 ? '' : 'Part of' }}
            <NuxtLink :to="`/batches/${member.batchId}`">batch {{ member.number }}</NuxtLink
            >{{ member.of ? `, ${format.weight(member.weightG)}${member.hold ? ` ${HOLD_WORDS[member.hold.place]}` : ''}` : '' }}</template
          >
        </p>
      </div>
      <StepLine :state="state" />
    </header>

    <p v-if="state.hold" class="caution">
      Kept {{ HOLD_WORDS[state.hold.place] }} since {{ format.moment(state.hold.since, now) }}, no longer than
      {{ format.moment(state.hold.until, now) }}. <button type="button" class="again" @click="act('hold')">Take it up again</button>
    </p>
    <div role="alert" class="trouble">
      <p v-if="trouble" class="card problem">{{ trouble }}</p>
    </div>

    <template v-if="drying && state.run">
      <div class="desk drying">
        <WeightTape v-if="assessment" class="weights" :run="state.run" :assessment="assessment" :now="now" />
        <div v-else class="card weights tape-room" />
        <WhenNear v-if="assessment && drawn" class="curve" height="520px">
          <LazyDryingCurve
            :run="state.run"
            :assessment="assessment"
            :entries="entries"
            :name="`${state.food.name}, batch ${page.number}`"
            :now="now"
          />
        </WhenNear>
        <div v-else class="card curve curve-room" aria-busy="true"><p class="quiet">Fitting the curve.</p></div>
        <LazyRoundsCard
          v-if="WAYS[state.run.way.way].underVacuum"
          class="trays"
          :state="state"
          :machine="machine"
          :mates="page?.mates ?? []"
          :assessment="assessment"
          :now="now"
          @act="kind => act(kind)"
        />
        <TraysCard v-else-if="trays.length" class="trays" :state="state" :trays="trays" :now="now" />
        <WhenNear v-if="drawn" class="log" height="200px" :within="2500">
          <LogList v-bind="log" :way="state.run.way.way" v-on="inLog" />
        </WhenNear>
        <LazyTryIt
          v-if="drawn && tryLoad"
          class="what-if"
          :load="tryLoad"
          :machine-id="tryMachineId"
          :card-key="state.card.key"
          :room="state.run.room"
          :start-at="now"
          take-words="Set this heat"
          @take="takeTry"
        />
        <div class="side">
          <VerdictPanel v-if="assessment" class="leads" :state="state" :assessment="assessment" :now="now" :class="{ working }">
            <NextStep :state="state" :assessment="assessment" :batch-id="batchId" @act="kind => act(kind)" @rack="openRack" />
            <p class="quiet small">{{ machine?.name }}, trays {{ traysInWords }} · {{ heatLine }}</p>
          </VerdictPanel>
          <section v-else class="card leads" aria-label="Verdict">
            <NextStep :state="state" :batch-id="batchId" @act="kind => act(kind)" @rack="openRack" />
          </section>
          <LazyWayCard
            v-if="WAYS[state.run.way.way].doorAjar || WAYS[state.run.way.way].smokes"
            :state="state"
            :now="now"
            @act="kind => act(kind)"
          />
          <LazyOutdoorCard v-if="WAYS[state.run.way.way].unheated" :state="state" :now="now" @act="kind => act(kind)" />
          <LazyDangerCard v-if="drawn" :state="state" :now="now" @act="kind => act(kind)" />
          <LazyFlipCard
            v-if="drawn && state.card.feelForm === 'sheet'"
            :state="state"
            :now="now"
            :write="bodies => write(bodies).then(tick)"
          />
          <AirCard
            v-if="drawn && !WAYS[state.run.way.way].underVacuum"
            :state="state"
            :assessment="assessment"
            :now="now"
            @act="act('air')"
          />
          <NightCard
            v-if="drawn && assessment && machine && (WAYS[state.run.way.way].mayRunOvernight || WAYS[state.run.way.way].attended)"
            :state="state"
            :assessment="assessment"
            :machine="machine"
            :now="now"
            :accepted="page.accepted"
            :write="bodies => write(bodies).then(tick)"
          />
          <section v-if="then" class="card">
            <h3>Then</h3>
            <p class="quiet">{{ then }}</p>
          </section>
        </div>
      </div>
    </template>

    <div v-else class="desk" :class="{ resting: state.stage === 'resting' }">
      <div class="stack">
        <LazyNextCard :state="state" :batch-id="batchId" :now="now" :assessment="assessment" :others="others" @act="kind => act(kind)" />
        <LazyRestCard
          v-if="state.stage === 'resting' && state.rest?.startedAt !== undefined"
          :state="state"
          :now="now"
          :write="bodies => write(bodies).then(tick)"
          @act="kind => act(kind)"
        />
        <LazyDangerCard v-if="!state.run" :state="state" :now="now" @act="kind => act(kind)" />
        <LazyPrepPlan
          v-if="!state.run && !state.beganDry"
          :state="state"
          :batch-id="batchId"
          :now="now"
          @act="(kind, step) => act(kind, undefined, step)"
        />
        <LazyTryIt
          v-if="tryLoad"
          :load="tryLoad"
          :machine-id="tryMachineId"
          :card-key="state.card.key"
          :room="page.lastAir && { celsius: page.lastAir.roomC, humidity: page.lastAir.roomHumidity }"
          :start-at="now"
          take-words="Load it so"
          @take="takeTry"
        />
        <LazyBatchSum v-if="state.run" :state="state" :page="page" />
        <LogList v-bind="log" v-on="inLog" />
      </div>
      <div class="stack">
        <VerdictPanel v-if="assessment && state.stage === 'resting'" :state="state" :assessment="assessment" :now="now" />
        <LazyColoursCard v-if="entries.some(entry => entry.body.kind === 'picture')" :entries="entries" :now="now" />
        <LazyReviewsCard v-if="!state.run && page.reviews.length" :reviews="page.reviews" />
        <section v-if="!state.run && !state.beganDry" class="card">
          <h3>{{ format.sentence(state.card.name) }}</h3>
          <p class="quiet">{{ format.temperature(state.card.temperatureC) }}. {{ format.sentence(state.card.temperatureReason) }}</p>
          <p class="quiet">Usually {{ usual.low }} to {{ usual.high }} hours{{ usual.why }} ({{ state.card.usualHours.source }}).</p>
          <p class="quiet">{{ format.sentence(state.card.spread) }}</p>
          <p><NuxtLink :to="`/reference/${state.food.key}`">The whole card, and the other schools</NuxtLink></p>
        </section>
        <LazySchoolsCard
          v-if="state.stage !== 'shelf'"
          :state="state"
          :questions="page.schools"
          :write="bodies => write(bodies).then(tick)"
        />
      </div>
    </div>

    <LazyWeighDialog
      v-if="weighing && state.run"
      :state="state"
      :page="page"
      :assessment="assessment"
      :write="write"
      :take-typed="ahead.take"
      @close="weighed"
    />
    <LazyEntryDialog
      v-if="dialog"
      :kind="dialog.kind"
      :correcting="dialog.correcting"
      :state="state"
      :page="page"
      :write="write"
      :place="place"
      :step="dialog.step"
      :parcel="dialog.parcel"
      @close="dialog = undefined"
      @saved="tick"
    />
    <LazyVoidDialog v-if="voiding" :entry="voiding" @close="voiding = undefined" @confirm="doVoid" />
  </div>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
}
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 392px);
  gap: 1rem;
  align-items: start;
}
.drying {
  grid-template: 'weights weights' auto 'curve side' auto 'trays side' auto 'what-if side' auto 'log side' 1fr / minmax(0, 1fr) minmax(
      300px,
      392px
    );
}
.weights {
  grid-area: weights;
}
.curve {
  grid-area: curve;
}
.trays {
  grid-area: trays;
}
.log {
  grid-area: log;
}
.what-if {
  grid-area: what-if;
}
.side {
  grid-area: side;
  display: grid;
  gap: 1rem;
  align-content: start;
}
.again {
  border: 0;
  background: none;
  min-height: 32px;
  text-decoration: underline;
  font-weight: 650;
  cursor: pointer;
}
.trouble:empty {
  display: none;
}
.tape-room {
  height: 142px;
}
.curve-room {
  height: 520px;
}
.working {
  opacity: 0.8;
}
@media (width <= 980px) {
  .head {
    grid-template-columns: minmax(0, 1fr);
  }
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  /* The verdict and its step lead; what they rest on follows. */
  .drying {
    display: flex;
    flex-direction: column;
    align-items: stretch;
  }
  .side {
    display: contents;
  }
  .side > * {
    order: 2;
  }
  .side > .leads {
    order: 0;
  }
  .weights {
    order: 1;
  }
  .trays {
    order: 3;
  }
  .curve {
    order: 4;
  }
  .what-if {
    order: 5;
  }
  .log {
    order: 6;
  }
}
</style>
