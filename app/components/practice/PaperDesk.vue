<script setup lang="ts">
import type { Assessment } from '#core/batch'
import { targetIn } from '#core/foods'
import type { Guess } from '#core/practice'
import type { Entry, EntryBody, EntryKind } from '#core/log'
import type { ActStep } from '~/components/frame/ActSteps.vue'
import type { LessonAnswer } from '#shared/contracts'

/** One lesson in play: the story's clock, what is seen, the same forms as real work, and one's own guess before Dulse's. */
const props = defineProps<{ answer: LessonAnswer; seed: number }>()
const { lesson, food } = props.answer
const format = useFormat()
const practice = usePracticeStore()
const run = usePaperRun(props.answer, props.seed)
const { view, entries, state, page, now, busy, asking, spoken, ending } = run
await run.begin()
const begun = ref(practice.open[lesson.key]?.seed === props.seed && practice.open[lesson.key]!.steps.length > 0)

const dialog = ref<EntryKind>()
const correcting = ref<Entry>()
const weighing = ref(false)
const backing = ref(false)
const cup = ref(false)
const trouble = ref('')
const time = ref<{ bedtime: boolean; turn: () => void; quarter: () => void; hour: () => void }>()
const target = targetIn(food, lesson.purpose, lesson.machine.way)
const { assessment } = useAssessment(entries as Ref<readonly Entry[]>, shallowRef(food), now)
const can = (deed: (typeof lesson.deeds)[number]) => lesson.deeds.includes(deed) && view.value?.cannot[deed] === undefined
const weighed = computed(
  () =>
    new Map(
      (state.value?.run?.trays ?? []).flatMap(tray => {
        const last = state.value!.run!.trayWeights.findLast(item => item.position === tray.position)
        return last ? [[tray.position, last.weightG] as const] : []
      }),
    ),
)

async function attempt(work: () => Promise<unknown>) {
  trouble.value = ''
  try {
    await work()
  } catch (error) {
    trouble.value = format.sentence((error as Error).message)
  }
}
const pass = (hours: number) => attempt(() => run.act({ do: 'wait', hours }))
const write = (bodies: readonly EntryBody[]) => attempt(() => run.write(bodies))
const runId = () => state.value!.run!.runId
/** Each tray with the one opposite: top and bottom change. */
const opposite = () => {
  const places = view.value!.present
  return places.flatMap((place, i) =>
    i < Math.floor(places.length / 2)
      ? [
          { from: place, to: places.at(-1 - i)! },
          { from: places.at(-1 - i)!, to: place },
        ]
      : [],
  )
}
/** The mill has run, and nobody wrote down what it gave. */
const unwritten = computed(() => view.value?.stage === 'powder' && state.value?.grinds.length === 0)
const steps = computed((): ActStep[] => {
  const all: (ActStep | false)[] = [
    can('weigh') && { words: 'Weigh', key: 'W', go: () => (weighing.value = true) },
    can('feel') && { words: 'Feel', key: 'F', go: () => (dialog.value = 'feel') },
    can('jarAir') && { words: 'Air in a closed jar', key: 'J', go: () => (dialog.value = 'jarAir') },
    can('look') && { words: 'Look at the jar', key: 'K', go: () => (dialog.value = 'look') },
    can('heat') && { words: 'Heat', key: 'H', go: () => (dialog.value = 'heat') },
    can('swap') &&
      view.value!.present.length > 1 && {
        words: 'Change places, top with bottom',
        go: () => write([{ kind: 'move', runId: runId(), trays: opposite() }]),
      },
    can('turn') && {
      words: 'Turn the sheets over',
      go: () =>
        write([{ kind: 'move', runId: runId(), trays: view.value!.present.map(place => ({ from: place, to: place, flipped: true })) }]),
    },
    can('move') && { words: `Into the ${lesson.second?.name ?? ''}`, go: () => attempt(run.moveOn) },
    can('takeOut') && { words: 'Take out', key: 'O', go: () => (dialog.value = 'unload') },
    can('rest') && { words: 'Rest in a jar', go: () => (dialog.value = 'rest') },
    can('back') && { words: 'Back into the machine', go: () => (backing.value = true) },
    (can('grind') || unwritten.value) && { words: 'Grind', go: () => (dialog.value = 'grind') },
    can('ovenDry') && !unwritten.value && { words: 'Dry the powder', go: () => (dialog.value = 'powderDry') },
    can('pack') && !unwritten.value && { words: 'Pack', go: () => pack() },
    can('waterBack') && { words: 'Water back', go: () => (cup.value = true) },
  ]
  return all.filter((step): step is ActStep => step !== false)
})
/** The mill and the jar want what the log calls the end of a rest. */
async function pack() {
  if (state.value?.stage === 'resting' && state.value.rest?.endedAt === undefined) await write([{ kind: 'restEnd' }])
  dialog.value = 'pack'
}
whenever(
  () => dialog.value === 'grind' && state.value?.stage === 'resting',
  () => void write([{ kind: 'restEnd' }]),
)
const mayStop = computed(() => view.value && !['cut', 'ended'].includes(view.value.stage))
async function say(guess: Guess) {
  const now = assessment.value
  await attempt(() => run.say(guess, now && dulseOf(now)))
}
const dulseOf = ({ estimate, finish }: Assessment): Guess => ({
  water: { low: estimate.moistureNow.p10, high: estimate.moistureNow.p90 },
  sure: estimate.probabilityDry,
  ...(Number.isFinite(finish.to) && {
    dryIn: { low: Math.max(0, (finish.from - now.value) / 3_600_000), high: Math.max(0, (finish.to - now.value) / 3_600_000) },
  }),
})
const nights = computed(() => lesson.deeds.includes('heat') && view.value?.stage === 'machine' && view.value.setC !== null)
const HOLD_C = 40
/** A key does what its button does, once the story has begun. */
const opens = (deed: (typeof lesson.deeds)[number], kind: EntryKind) => () => void (begun.value && can(deed) && (dialog.value = kind))
useKeys({
  w: () => void (begun.value && can('weigh') && (weighing.value = true)),
  f: opens('feel', 'feel'),
  j: opens('jarAir', 'jarAir'),
  k: opens('look', 'look'),
  h: opens('heat', 'heat'),
  o: opens('takeOut', 'unload'),
  p: () => begun.value && time.value?.turn(),
  ',': () => begun.value && time.value?.quarter(),
  '.': () => begun.value && time.value?.hour(),
})
const again = () => navigateTo(`/practice/play/${lesson.key}?kitchen=${1 + Math.floor(Math.random() * 100_000)}`)
const once = () => {
  practice.close(lesson.key)
  reloadNuxtApp({ path: `/practice/play/${lesson.key}?kitchen=${props.seed}`, force: true })
}
</script>

<template>
  <EndingCard v-if="ending" :run="run" :seed="seed" :ending="ending" @again="again" @once="once" />
  <div v-else-if="view" class="stack">
    <header>
      <h1>{{ lesson.title }}</h1>
      <p class="quiet">
        {{ food.name }}, {{ format.weight(1000 * lesson.load.kg) }} on {{ plural(lesson.load.trays, 'tray') }}, for
        {{ PURPOSE_WORDS[lesson.purpose] }} · kitchen {{ seed }}
      </p>
    </header>
    <section v-if="!begun || view.stage === 'cut'" class="card story">
      <p>{{ format.sentence(lesson.story) }}</p>
      <p class="quiet small">
        You sleep from {{ format.clock(60 * lesson.sleep.from) }} to {{ format.clock(60 * lesson.sleep.to) }}. Looking costs half a minute
        with the door open, and getting up costs your night. At the end you see what nobody sees in a kitchen.
      </p>
      <div v-if="view.stage === 'cut'" class="row">
        <ElButton
          v-for="cut in lesson.cuts"
          :key="cut.key"
          type="primary"
          @click="attempt(() => run.act({ do: 'cut', key: cut.key })).then(() => (begun = true))"
          >{{ cut.words }}</ElButton
        >
      </div>
      <div v-else class="row">
        <ElButton type="primary" class="begin" @click="begun = true">Begin, at {{ format.time(now) }}</ElButton
        ><NuxtLink to="/practice" class="el-button el-button--large">All lessons</NuxtLink>
      </div>
    </section>
    <div v-else class="desk">
      <div class="stack">
        <PaperTime ref="time" class="clock-card" :view="view" :now="now" :sleep="lesson.sleep" :busy="busy" :pass="pass" />
        <section v-if="time?.bedtime && nights" class="card stack asked" aria-label="Bedtime">
          <h2>Bedtime: what about the heat?</h2>
          <div class="row">
            <ElButton @click="pass(0.5)">Leave it on</ElButton>
            <ElButton
              v-if="view.machine.lowC <= HOLD_C"
              @click="write([{ kind: 'heat', runId: runId(), setC: HOLD_C }]).then(() => pass(0.5))"
              >Hold at {{ format.temperature(HOLD_C) }}</ElButton
            >
            <ElButton @click="write([{ kind: 'heat', runId: runId(), setC: null }]).then(() => pass(0.5))">Switch it off</ElButton>
          </div>
        </section>
        <section class="card stack deeds" aria-label="What you can do">
          <h2>What will you do?</h2>
          <ActSteps :likely="steps" />
          <div class="row between">
            <ElButton v-if="mayStop" type="primary" @click="attempt(run.stop)">I am done: show what it came to</ElButton>
          </div>
          <div role="alert">
            <p v-if="trouble" class="problem">{{ trouble }}</p>
          </div>
        </section>
        <LogList
          :entries="entries"
          :now="now"
          title="The paper log"
          @correct="entry => ((correcting = entry), (dialog = entry.body.kind))"
          @void="entry => write([{ kind: 'void', target: entry.id }])"
        />
      </div>
      <div class="stack">
        <PaperRack class="seen" :answer="answer" :view="view" :weighed="weighed" />
        <GuessCard
          v-if="asking"
          class="asked"
          :drying="view.stage === 'machine'"
          :target="target"
          :busy="busy"
          @say="say"
          @skip="((asking = false), (spoken = true))"
        />
        <VerdictPanel v-else-if="spoken && assessment && state" class="asked" :state="state" :assessment="assessment" :now="now" />
        <section v-else class="card">
          <h3>Dulse keeps still</h3>
          <p class="quiet">Weigh, feel or look; say what you believe; then it says what it makes of the same.</p>
        </section>
      </div>
    </div>
    <LazyWeighDialog
      v-if="weighing && state?.run"
      :state="state"
      :page="page"
      :assessment="assessment"
      :write="run.write"
      :take-typed="() => ''"
      @close="weighing = false"
    />
    <LazyEntryDialog
      v-if="dialog"
      :kind="dialog"
      :state="state"
      :page="page"
      :write="run.write"
      :correcting="correcting"
      @close="((dialog = undefined), (correcting = undefined))"
    />
    <BackDialog v-if="backing" :machine="view.machine" :go="run.goBack" @close="backing = false" />
    <CupDialog
      v-if="cup"
      :loaded-g="view.trayWeightsG.reduce((sum, grams) => sum + grams, 0)"
      :pour="grams => run.act({ do: 'waterBack', grams })"
      @close="cup = false"
    />
  </div>
</template>

<style scoped>
.story {
  display: grid;
  gap: 0.9rem;
  max-width: 70ch;
  font-size: 1.08rem;
}
.begin {
  min-height: 54px;
  font-size: 1.1rem;
}
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(300px, 1fr);
  gap: 1rem;
  align-items: start;
}
@media (width <= 900px) {
  /* The clock leads, then what one is asked, what one can do, and what one sees. */
  .desk {
    display: flex;
    flex-direction: column;
    align-items: stretch;
  }
  .desk > .stack {
    display: contents;
  }
  .desk > .stack > * {
    order: 4;
  }
  .desk > .stack > .clock-card {
    order: 0;
  }
  .desk > .stack > .asked {
    order: 1;
  }
  .desk > .stack > .deeds {
    order: 2;
  }
  .desk > .stack > .seen {
    order: 3;
  }
}
</style>
