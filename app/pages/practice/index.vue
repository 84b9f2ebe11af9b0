<script setup lang="ts">
/** The lessons: what there is to judge, and how it went. */
const practice = usePracticeStore()
const { lessons, next, problem, ready, bring, lost, isOwn } = useLessonShelf()
await ready()
const format = useFormat()
const problems = ref<string[]>([])
const told = ref('')
const seedOf = (key: string) => practice.open[key]?.seed ?? newSeed()
const newSeed = () => 1 + Math.floor(Math.random() * 100_000)

/** A file that is chosen again after it was mended is another. */
const brought = ref(0)
async function takeFile(file: File) {
  problems.value = []
  told.value = ''
  try {
    const read = await bring(await file.text())
    told.value = `“${read.lesson.title}” is among the lessons now, in this browser.`
  } catch (error) {
    brought.value++
    problems.value =
      error instanceof Refused && error.problems.length > 0 ? error.problems.map(item => item.message) : [(error as Error).message]
  }
}
function wayOfIt(key: string): string {
  const last = practice.lastOf(key)
  if (practice.open[key] && practice.open[key].steps.at(-1)?.do !== 'stop') return 'begun'
  if (!last) return 'not played yet'
  const gap = last.best === undefined ? undefined : last.cost - last.best
  if (last.spoiledShare > 0.5) return 'lost last time'
  return gap === undefined ? 'played' : gap < 3 ? 'as good as the best' : `${gap.toFixed(0)} points behind the best`
}
const tone = (key: string) => {
  const last = practice.lastOf(key)
  return !last ? '' : last.spoiledShare > 0.5 ? 'danger' : last.best !== undefined && last.cost - last.best < 3 ? 'good' : 'attention'
}
function give(key: string, text: string) {
  const url = URL.createObjectURL(new Blob([text], { type: 'application/yaml' }))
  saveFile(`${key}.yaml`, url)
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
function drop(key: string) {
  practice.own = Object.fromEntries(Object.entries(practice.own).filter(([other]) => other !== key))
}
</script>

<template>
  <div class="stack">
    <p v-if="problem" class="card problem">{{ problem }}</p>
    <section v-if="next" class="card next">
      <div>
        <p class="quiet small">Next for you</p>
        <h2>{{ next.lesson.title }}</h2>
        <p>{{ format.sentence(next.lesson.story) }}</p>
      </div>
      <ElButton type="primary" class="go" @click="navigateTo(`/practice/play/${next.lesson.key}?kitchen=${seedOf(next.lesson.key)}`)"
        >Play it</ElButton
      >
    </section>
    <ul class="plain-list lessons">
      <li v-for="{ lesson, food } in lessons" :key="lesson.key" class="card lesson">
        <NuxtLink :to="`/practice/play/${lesson.key}?kitchen=${seedOf(lesson.key)}`" class="title">{{ lesson.title }}</NuxtLink>
        <p class="quiet small">
          {{ food.name }}, {{ format.weight(1000 * lesson.load.kg) }}, {{ lesson.machine.name
          }}{{ isOwn(lesson.key) ? ' · brought in' : '' }}
        </p>
        <p class="foot">
          <span class="tag" :class="tone(lesson.key)">{{ wayOfIt(lesson.key) }}</span>
          <button v-if="isOwn(lesson.key)" type="button" class="word-button" @click="drop(lesson.key)">Take it out</button>
        </p>
      </li>
    </ul>
    <section class="card stack">
      <h2>Lessons of your own</h2>
      <p>
        A lesson is a page of YAML: its story, its kitchen, what varies, and who plays it well. It is data alone and can run nothing. Take
        one that ships as a beginning, change it, and bring it back here; it is kept in this browser.
      </p>
      <FileDrop :key="brought" label="A lesson’s file" accept=".yaml,.yml" hint="YAML, one lesson a file" @chosen="takeFile" />
      <div role="status">
        <p v-if="told" class="good-words">{{ told }}</p>
      </div>
      <div role="alert">
        <p v-for="item in [...problems, ...(lost ? [lost] : [])]" :key="item" class="problem">{{ item }}</p>
      </div>
      <details>
        <summary>Take one as a file</summary>
        <div class="row">
          <ElButton v-for="{ lesson, text } in lessons" :key="lesson.key" @click="give(lesson.key, text)">{{ lesson.title }}</ElButton>
        </div>
      </details>
    </section>
  </div>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1rem;
  align-items: center;
}
.go {
  min-height: 54px;
  font-size: 1.1rem;
}
.lessons {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 0.8rem;
}
.lesson {
  display: grid;
  gap: 0.3rem;
  align-content: start;
}
.title {
  font: 700 1.08rem/1.25 var(--display);
  min-height: 44px;
  text-decoration: none;
}
.title:hover {
  text-decoration: underline;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.good-words {
  color: var(--kelp);
  font-weight: 650;
}
summary {
  min-height: 44px;
  align-content: center;
  cursor: pointer;
  font-weight: 650;
}
details .row {
  margin-top: 0.4rem;
}
details .el-button {
  margin: 0;
}
@media (width <= 760px) {
  .next {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
