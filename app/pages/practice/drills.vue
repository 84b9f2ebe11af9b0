<script setup lang="ts">
import { DRILL_KINDS, isRight, offBy, type Drill, type DrillKind } from '#core/practice'
import { FEEL_QUESTIONS } from '#core/dryness'
import { fill } from '#core/errors'
import type { Food } from '#core/foods'

/** Short questions with an answer that can be worked out; the next is of the kind that one misses most. */
useHead({ title: 'Drills · Dulse' })
const practice = usePracticeStore()
const format = useFormat()
const NAMES: Record<DrillKind, string> = {
  dryFromBasket: 'Dry from a basket',
  waterBack: 'Water back',
  grade: 'Sieve and grade',
  spoons: 'Spoons',
  bestBy: 'Best by',
  whichIsDry: 'Which is dry?',
}
/** Foods that are asked about: a dozen of the reference, each from its page. */
const KEYS = ['carrot', 'beetroot', 'leek', 'parsnip', 'celeriac', 'onion', 'apple', 'pear', 'plum', 'jalapeno', 'zucchini', 'mint']
const shelf = useFoods()
const foods = shallowRef<Food[]>([])
const problem = ref('')
const { desk, end } = practiceWorker()
onBeforeUnmount(end)
const kind = ref<DrillKind | ''>('')
const current = shallowRef<Drill>()
const said = ref<number>()
const typed = ref<number>()
const round = ref(0)
const told = shallowRef<{ right: boolean; said: number }>()

onMounted(async () => {
  const pages = await Promise.all(KEYS.map(key => shelf.page(key).catch(() => undefined)))
  foods.value = pages.flatMap(page => (page ? [page.food] : []))
  if (foods.value.length === 0) problem.value = 'Drills need the foods of the reference, and the server is out of touch.'
  else await next()
})
/** The kind that was missed most often of late; each is asked now and then. */
function worst(): DrillKind {
  const share = (of: DrillKind) => {
    const last = practice.drills.filter(item => item.kind === of).slice(-6)
    return last.length === 0 ? -1 : last.filter(item => item.right).length / last.length
  }
  return Math.random() < 0.35
    ? DRILL_KINDS[Math.floor(Math.random() * DRILL_KINDS.length)]!
    : [...DRILL_KINDS].sort((a, b) => share(a) - share(b))[0]!
}
async function next() {
  told.value = undefined
  typed.value = undefined
  said.value = undefined
  current.value = await desk.drill(kind.value || worst(), foods.value, 1 + Math.floor(Math.random() * 1e9))
  round.value++
}
const units = {
  G: format.weight,
  C: format.temperature,
  Share: format.share,
  Ml: format.volume,
  Mm: format.length,
}
const worded = (text: string) => (current.value ? format.sentence(fill(text, current.value.figures, units)) : '')
const UNITS = { g: 'Weight', months: 'Months', spoons: 'Level tablespoons', choice: '' }
function answer() {
  const drill = current.value
  const value = drill?.unit === 'choice' ? said.value : typed.value
  if (!drill || value === undefined || told.value) return
  const right = isRight(drill, value)
  told.value = { right, said: value }
  practice.keepDrill({
    kind: drill.kind,
    at: Date.now(),
    right,
    off: drill.unit === 'choice' ? (right ? 0 : 1) : offBy(value, drill.answer),
  })
}
const feels = computed(() =>
  current.value?.feels?.map(({ form, answers }) =>
    FEEL_QUESTIONS[form].map(({ key, answers: offered }) => offered.find(item => item.key === answers[key])?.words).join('; '),
  ),
)
const choices = computed(() =>
  (current.value?.choices ?? []).map((words, i) => ({ value: i, words: words[0]!.toUpperCase() + words.slice(1), note: feels.value?.[i] })),
)
watch(kind, () => foods.value.length > 0 && void next())
</script>

<template>
  <div class="stack drills">
    <ChoiceField
      v-model="kind"
      label="Of which kind"
      :choices="[{ value: '' as const, words: 'What I miss' }, ...DRILL_KINDS.map(item => ({ value: item, words: NAMES[item] }))]"
    />
    <p v-if="problem" class="card problem">{{ problem }}</p>
    <section v-if="current" class="card stack" aria-label="The drill">
      <p class="quiet small">{{ NAMES[current.kind] }}</p>
      <h2 class="ask">{{ worded(current.ask) }}</h2>
      <form :key="round" class="form" novalidate @submit.prevent="answer">
        <ChoiceField v-if="current.unit === 'choice'" v-model="said" label="Your answer" hide-label :choices="choices" />
        <WeightField v-else-if="current.unit === 'g'" v-model="typed" label="Your answer" required autofocus />
        <NumberField v-else v-model="typed" :label="UNITS[current.unit]" :least="0" required />
        <div class="row">
          <ElButton v-if="!told" type="primary" native-type="submit">That is it</ElButton>
          <ElButton v-else type="primary" autofocus @click="next">Another</ElButton>
        </div>
      </form>
      <div role="status">
        <template v-if="told">
          <p :class="told.right ? 'yes' : 'no'">
            {{
              told.right ? 'Right.' : current.unit === 'choice' ? `No: it is the ${current.choices?.[current.answer]}.` : 'Not near enough.'
            }}
          </p>
          <p>{{ worded(current.why) }}</p>
          <p class="quiet small">{{ current.source }}</p>
        </template>
      </div>
    </section>
  </div>
</template>

<style scoped>
.drills {
  max-width: 760px;
}
.ask {
  font-size: 1.3rem;
  line-height: 1.35;
}
.yes {
  color: var(--kelp);
  font-weight: 700;
}
.no {
  color: var(--amber);
  font-weight: 700;
}
</style>
