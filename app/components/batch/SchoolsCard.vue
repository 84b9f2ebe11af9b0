<script setup lang="ts">
import { effectsOfChoices, type School, type SchoolQuestion } from '#core/foods'
import type { BatchState, EntryBody } from '#core/log'
import { capital } from '#core/text'

/** The questions on which practitioners disagree, as they stand for this batch; another answer is one press, and the log keeps it. */
const props = defineProps<{
  state: BatchState
  questions: readonly SchoolQuestion[]
  write: (bodies: readonly EntryBody[]) => Promise<unknown>
}>()
const format = useFormat()
const open = ref('')
const busy = ref(false)
const problem = ref('')
const chosenOf = ({ key, schools }: SchoolQuestion) => schools.find(school => school.key === props.state.choices[key])
const asked = computed(() => props.questions.filter(({ schools }) => schools.length > 1))
const departs = computed(() => asked.value.filter(question => chosenOf(question) && chosenOf(question) !== question.schools[0]))

const times = (factor: number) => `${Math.abs(Math.round(100 * (factor - 1)))} % ${factor > 1 ? 'longer' : 'shorter'}`
/** What a school changes in the figures. */
function changes({ key }: School, { key: question }: SchoolQuestion): string {
  const { hours, trim, recovery, restDays, months, packages } = effectsOfChoices(props.state.food, { [question]: key })
  const said = [
    hours !== 1 && `drying ${times(hours)}`,
    trim > 0 && `${Math.round(100 * trim)} % more of the basket comes off`,
    trim < 0 && 'nothing comes off',
    recovery !== 1 && `powder ${recovery > 1 ? 'and what is in it' : 'less'} by ${Math.abs(Math.round(1000 * (recovery - 1)) / 10)} %`,
    restDays !== undefined && (restDays === 0 ? 'no rest' : `a rest of ${restDays} days`),
    months && `kept ${Math.round(months.low)} to ${Math.round(months.high)} months${packages ? ' in foil' : ''}`,
  ].filter(Boolean)
  return said.length > 0 ? `${capital(said.join(', '))}.` : ''
}
async function choose(question: SchoolQuestion, school: School) {
  if (busy.value || (chosenOf(question) ?? question.schools[0]) === school) return
  busy.value = true
  problem.value = ''
  try {
    await props.write([{ kind: 'choose', question: question.key, school: school.key }])
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="card" aria-label="How it is done">
    <h3>How it is done</h3>
    <p class="quiet small">
      {{
        departs.length === 0 ? 'By the defaults.' : `${capital(countWord(departs.length))} of ${asked.length} otherwise than by default.`
      }}
      Practitioners disagree here; what is chosen is reckoned with.
    </p>
    <ul class="plain-list">
      <li v-for="question in asked" :key="question.key">
        <button type="button" class="line" :aria-expanded="open === question.key" @click="open = open === question.key ? '' : question.key">
          <span class="ask">{{ question.ask }}</span>
          <span :class="departs.includes(question) ? 'own' : 'quiet'">{{
            format.sentence((chosenOf(question) ?? question.schools[0]!).name)
          }}</span>
        </button>
        <div v-if="open === question.key" class="schools">
          <button
            v-for="(school, i) in question.schools"
            :key="school.key"
            type="button"
            class="school"
            :class="{ on: (chosenOf(question) ?? question.schools[0]) === school }"
            :aria-pressed="(chosenOf(question) ?? question.schools[0]) === school"
            :disabled="busy"
            @click="choose(question, school)"
          >
            <strong>{{ format.sentence(school.name) }}</strong><span v-if="i === 0" class="tag good">the default</span>
            <span class="small">{{ format.sentence(capital(school.reason.replace(/^The default[^:]*: /, ''))) }}</span>
            <span v-if="changes(school, question)" class="small change">{{ changes(school, question) }}</span>
          </button>
        </div>
      </li>
    </ul>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
ul {
  margin-top: 0.5rem;
}
li {
  border-top: 1px solid var(--rule);
}
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0.1rem 1rem;
  width: 100%;
  min-height: 44px;
  align-items: center;
  padding: 0.3rem 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.line:hover .ask {
  color: var(--dulse-ink);
}
.ask {
  font-weight: 650;
}
.own {
  color: var(--dulse-ink);
  font-weight: 650;
}
.schools {
  display: grid;
  gap: 0.5rem;
  padding: 0.2rem 0 0.8rem;
}
.school {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.15rem 0.6rem;
  align-items: center;
  justify-items: start;
  padding: 0.55rem 0.8rem;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--card);
  text-align: left;
  cursor: pointer;
}
.school.on {
  border-color: var(--dulse);
  box-shadow: inset 0 0 0 1px var(--dulse);
}
.school > .small {
  grid-column: 1 / -1;
}
.change {
  color: var(--dulse-ink);
}
</style>
