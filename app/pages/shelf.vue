<script setup lang="ts">
import type { JarSummary, ShelfAnswer } from '#shared/contracts'
import { freshnessOf, type Freshness } from '#core/keeping'

const format = useFormat()
const { now } = useClock()
const answer = shallowRef<ShelfAnswer>()
const problem = ref('')
const order = ref<'place' | 'food' | 'age'>('place')
useHead({ title: 'Shelf · Dulse' })
try {
  answer.value = await callServer<ShelfAnswer>('/api/shelf')
}
catch (error) {
  problem.value = (error as Error).message
}
void useStagesStore().refresh()

const boards = computed(() => {
  const jars = answer.value?.jars ?? []
  if (order.value === 'age') return [{ name: 'Soonest first', jars: [...jars].sort((a, b) => a.bestFrom - b.bestFrom) }]
  const key = (jar: JarSummary) => order.value === 'place' ? jar.place : jar.foodName
  const names = [...new Set(jars.map(key))].sort((a, b) => a.localeCompare(b))
  return names.map(name => ({ name, jars: jars.filter(jar => key(jar) === name) }))
})
/** What stands on the jar's shoulder, if anything. */
const MARKS: Partial<Record<Freshness, { words: string, tone: string }>> = {
  'stale': { words: 'stale', tone: 'danger' }, 'past': { words: 'past', tone: 'danger' }, 'use-first': { words: 'use', tone: 'attention' },
}
const mark = (jar: JarSummary) => MARKS[freshnessOf(jar, now.value)]
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>{{ answer ? `${plural(answer.count, 'jar')}, ${format.weight(answer.totalG)}` : 'Shelf' }}</h1>
      <ChoiceField v-model="order" label="Order" hide-label :choices="[{ value: 'place', words: 'By place' }, { value: 'food', words: 'By food' }, { value: 'age', words: 'Use first' }]" />
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div v-if="answer && answer.count === 0" class="card empty">
      <h2>The shelf is empty</h2>
      <p>Jars stand here once a batch is packed, with what is left in each and how long it keeps.</p>
      <ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton>
    </div>
    <section v-for="board in boards" :key="board.name" class="board" :aria-label="board.name">
      <h2>{{ board.name }} <span class="quiet small">{{ plural(board.jars.length, 'jar') }}</span></h2>
      <ul class="plain-list jars">
        <li v-for="jar in board.jars" :key="jar.jarId">
          <NuxtLink :to="`/jars/${jar.jarId}`" class="jar">
            <span v-if="mark(jar)" class="tag on-jar" :class="mark(jar)!.tone">{{ mark(jar)!.words }}</span>
            <JarGlass :jar="jar" />
            <strong>{{ jar.foodName }}{{ jar.purpose === 'powder' ? '' : `, ${PURPOSE_WORDS[jar.purpose]}` }}</strong>
            <span class="quiet small">{{ format.weight(jar.leftG) }} · {{ format.month(jar.bestFrom) }}</span>
          </NuxtLink>
        </li>
      </ul>
    </section>
    <p v-if="answer && answer.count > answer.jars.length" class="quiet">The first {{ answer.jars.length }} of {{ answer.count }} jars. Find the others by their food or number with Ctrl K.</p>
  </div>
</template>

<style scoped>
.board { border-bottom: 2px solid var(--glass); padding-bottom: 0.3rem; }
.board h2 { font-size: 1.02rem; color: var(--quiet); margin-bottom: 0.5rem; }
.jars { display: grid; grid-template-columns: repeat(auto-fill, minmax(126px, 1fr)); gap: 0.6rem 0.2rem; align-items: start; }
.jar { position: relative; display: grid; justify-items: center; text-align: center; text-decoration: none; padding: 0.4rem 0.2rem; border-radius: 10px; line-height: 1.25; }
.jar:hover { background: var(--sunk); }
.on-jar { position: absolute; top: 0.2rem; right: calc(50% - 52px); z-index: 1; }
.empty { display: grid; gap: 0.8rem; justify-items: start; max-width: 560px; }
</style>
