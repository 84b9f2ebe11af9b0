<script setup lang="ts">
import { wetBasis } from '#core/mass'
import { proxy } from 'comlink'
import type { Best, Outcome } from '#core/practice'
import type { Ending } from '~/workers/practice.worker'

/** The end of a lesson: what it came to against the best there was to know, and what nobody sees in a kitchen. */
const props = defineProps<{ run: ReturnType<typeof usePaperRun>; seed: number; ending: Ending }>()
defineEmits<{ again: []; once: [] }>()
const { lesson, food } = props.run.answer
const format = useFormat()
const practice = usePracticeStore()
const { settings } = storeToRefs(useHouseholdStore())
const best = shallowRef<{ best: Best; here: Outcome; over: boolean }>()
const who = ref<'you' | 'taught' | 'habit'>('you')
const others = shallowRef<Partial<Record<'taught' | 'habit', Ending>>>({})
const shown = computed(() => (who.value === 'you' ? props.ending : others.value[who.value]) ?? props.ending)
const playedAt = Date.now()

// What was said is kept once for a kitchen: who plays it again knows it. The rest is kept anew with the best that is found.
const title = ref<HTMLElement>()
onMounted(() => {
  // Whoever ended it stands far down, at the button: the end begins at its title, for eyes and for ears.
  title.value?.focus({ preventScroll: true })
  window.scrollTo({ top: 0 })
  const of = `${lesson.key} ${props.seed}`
  if (!practice.said.some(item => item.of === of))
    practice.keepSaid(props.ending.said.map(({ guess, truths }, i) => ({ at: playedAt + i, of, guess, truths })))
  keep()
  void search()
})
const keep = () =>
  practice.keepPlayed({
    key: lesson.key,
    title: lesson.title,
    seed: props.seed,
    at: playedAt,
    cost: props.ending.outcome.cost,
    best: best.value?.here.cost,
    spoiledShare: props.ending.outcome.spoiledG / props.ending.outcome.wholeG,
  })
const { desk, end } = practiceWorker()
onBeforeUnmount(end)
async function search() {
  await desk.best(
    lesson,
    food,
    props.seed,
    proxy((found: Best, here: Outcome, over: boolean) => {
      best.value = { best: found, here, over }
      if (over) keep()
    }),
  )
}
watch(who, async name => {
  if (name === 'you' || others.value[name]) return
  const { desk: other, end: done } = practiceWorker()
  others.value = { ...others.value, [name]: await other.played(lesson, food, props.seed, name) }
  done()
})

const WHY: Record<Outcome['lost'][number], string> = {
  mould: 'mould',
  damp: 'too damp to keep',
  caked: 'caked',
  stuck: 'stuck to the cup',
  zone: 'warm and wet for too long',
  cup: 'too thin or too thick',
}
const held = (list: Ending['said'], of: 'guess' | 'dulse') => {
  const windows = list.flatMap(item => {
    const water = item[of]?.water
    return water ? [item.truths.water >= water.low && item.truths.water <= water.high] : []
  })
  return windows.length === 0 ? undefined : `${windows.filter(Boolean).length} of ${windows.length} held`
}
const rows = computed(() => {
  const you = shown.value.outcome
  const its = best.value?.here
  const row = (name: string, of: (outcome: Outcome) => string, note?: string) => ({ name, you: of(you), best: its && of(its), note })
  return [
    row(
      'Lost',
      outcome =>
        `${format.weight(Math.round(outcome.spoiledG))}${outcome.lost.length ? `, ${outcome.lost.map(item => WHY[item]).join(', ')}` : ''}`,
    ),
    row('Heat too long', outcome => (outcome.overH < 0.1 ? 'none' : format.hours(outcome.overH))),
    row('Looks', outcome => String(outcome.looks)),
    row('Woken', outcome => (outcome.woken === 0 ? 'never' : plural(outcome.woken, 'time'))),
    row('Power', outcome => `${outcome.kWh.toFixed(1)} kWh`),
    ...(you.dangerH > 0 ? [row('Warm and wet', outcome => format.hours(outcome.dangerH))] : []),
    row('Water at the end', outcome => format.share(outcome.moisture)),
    row('In points', outcome => outcome.cost.toFixed(0)),
  ]
})
const sizes = ['thin', 'middle', 'thick', 'thickest']
const tray = ref(0)
const size = ref(2)
const trays = computed(() => props.ending.frames[0]?.pieces.length ?? 0)
const sizeCount = computed(() => props.ending.frames[0]?.pieces[0]?.length ?? 0)
watch(sizeCount, count => (size.value = Math.min(size.value, count - 1)), { immediate: true })
const bestWords = computed(() => best.value && ruleWords(best.value.best.rule, lesson, settings.value.temperatureUnit))
const words = computed(() => {
  const last = shown.value.frames.findLast(frame => frame.pieces[tray.value]?.[size.value])
  const profile = last?.pieces[tray.value]?.[size.value]
  if (!profile) return 'Nothing was dried in this lesson.'
  const wet = (x: number) => format.share(wetBasis(x))
  const [outer, inner] = [wet(profile.at(-1)!), wet(profile[0]!)]
  return sizeCount.value === 1
    ? `At the end the layer on tray ${tray.value + 1} holds ${outer} at its top and ${inner} at its floor.`
    : `At the end the ${sizes[size.value]} piece of tray ${tray.value + 1} holds ${outer} at the skin and ${inner} in the core.`
})
</script>

<template>
  <div class="stack">
    <header>
      <h1 ref="title" tabindex="-1">{{ lesson.title }}</h1>
      <p class="quiet">
        {{ food.name }}, kitchen {{ seed }}. What nobody sees in a kitchen: one piece from skin to core, and what was done.
      </p>
    </header>
    <div class="desk">
      <section class="card stack inside" aria-label="The inside">
        <div class="row">
          <ChoiceField
            v-model="who"
            label="Who plays this kitchen"
            hide-label
            :choices="[
              { value: 'you', words: 'You' },
              { value: 'taught', words: 'As it teaches' },
              { value: 'habit', words: 'As it warns of' },
            ]"
          />
        </div>
        <p v-if="who !== 'you'" class="quiet">{{ format.sentence((who === 'taught' ? lesson.taught.words : lesson.habit.words) ?? '') }}</p>
        <template v-if="trays > 0 && shown.frames.length > 1">
          <div class="row pickers">
            <ChoiceField
              v-if="trays > 1"
              v-model="tray"
              label="Tray"
              :choices="Array.from({ length: trays }, (_, i) => ({ value: i, words: String(i + 1) }))"
            />
            <ChoiceField
              v-if="sizeCount > 1"
              v-model="size"
              label="Piece"
              :choices="sizes.slice(0, sizeCount).map((name, i) => ({ value: i, words: name }))"
            />
          </div>
          <LazyInsideChart :ending="shown" :tray="tray" :size="size" :begun-at="run.begunAt" :words="words" />
          <p>{{ words }}</p>
        </template>
      </section>
      <div class="stack">
        <section class="card" aria-label="Against the best there was to know">
          <h2>Against the best there was to know</h2>
          <table class="figures in-words">
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">What</span></th>
                <th scope="col">{{ who === 'you' ? 'you' : who === 'taught' ? 'as taught' : 'as warned' }}</th>
                <th scope="col">best</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.name">
                <th scope="row">{{ row.name }}</th>
                <td>
                  <strong>{{ row.you }}</strong>
                </td>
                <td>{{ row.best ?? '…' }}</td>
              </tr>
              <tr v-if="held(ending.said, 'guess')">
                <th scope="row">“How wet”</th>
                <td>
                  <strong>{{ held(ending.said, 'guess') }}</strong>
                </td>
                <td>{{ held(ending.said, 'dulse') ?? '' }} <span class="quiet">(Dulse)</span></td>
              </tr>
            </tbody>
          </table>
          <p class="quiet small" role="status">
            <template v-if="best"
              >{{ best.over ? 'Of' : 'So far of' }} {{ plural(best.best.tried, 'way') }} of playing, tried on other kitchens of this lesson,
              the best: {{ bestWords }}. It knows no more than you could, and plays for all such kitchens: some hours too long cost little,
              a damp jar much.</template
            >
            <template v-else>Ways of playing are being tried on other kitchens of this lesson.</template>
          </p>
        </section>
        <section class="card stack">
          <h2>What it teaches</h2>
          <p>{{ format.sentence(lesson.teaches) }}</p>
          <p>{{ format.sentence(lesson.ending) }}</p>
          <p class="quiet small">{{ lesson.source }}</p>
        </section>
        <div class="row">
          <ElButton type="primary" @click="$emit('again')">Again, another kitchen</ElButton>
          <ElButton @click="$emit('once')">The same kitchen once more</ElButton>
          <NuxtLink to="/practice" class="el-button el-button--large">All lessons</NuxtLink>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(300px, 1fr);
  gap: 1rem;
  align-items: start;
}
.pickers {
  align-items: end;
}
.row .el-button {
  margin: 0;
}
@media (width <= 980px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
