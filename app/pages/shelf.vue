<script setup lang="ts">
import type { ShelfJar } from '#shared/contracts'

const format = useFormat()
const { now } = useClock()
const { answer, problem, ready, load } = useServer('shelf')
const order = ref<'place' | 'food' | 'age' | 'stock'>('place')
const words = ref('')
const bought = ref(useRoute().query.bought !== undefined)
useHead({ title: 'Shelf · Dulse' })
await ready()

const nameOf = (jar: ShelfJar) => jar.name ?? answer.value?.foods[jar.foodKey]?.name ?? jar.foodKey
const wanted = computed(() => {
  const parts = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const jars = answer.value?.jars ?? []
  return parts.length === 0
    ? jars
    : jars.filter(jar =>
        parts.every(part => `${nameOf(jar)} ${PURPOSE_WORDS[jar.purpose]} ${jar.place} #${jar.number}`.toLowerCase().includes(part)),
      )
})
const boards = computed(() => {
  const jars = wanted.value
  if (order.value === 'age') return [{ name: 'Soonest first', jars: [...jars].sort((a, b) => a.bestFrom - b.bestFrom) }]
  const key = (jar: ShelfJar) => (order.value === 'place' ? jar.place : nameOf(jar))
  const byName = new Map<string, ShelfJar[]>()
  for (const jar of jars) {
    const there = byName.get(key(jar))
    if (there) there.push(jar)
    else byName.set(key(jar), [jar])
  }
  return [...byName].sort(([a], [b]) => a.localeCompare(b)).map(([name, list]) => ({ name, jars: list }))
})
const low = computed(() => (answer.value?.stock ?? []).filter(item => item.low))
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>{{ answer ? `${plural(answer.count, 'jar')}, ${format.weight(answer.totalG)}` : 'Shelf' }}</h1>
      <div class="row">
        <ElButton @click="bought = true">Put in what was bought</ElButton><NuxtLink to="/labels" class="go">Labels</NuxtLink
        ><NuxtLink to="/print/shelf" class="go">List on paper</NuxtLink><NuxtLink to="/insight" class="go">What it taught</NuxtLink>
      </div>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div v-if="answer && answer.count === 0" class="card empty">
      <h2>The shelf is empty</h2>
      <p>Jars stand here once a batch is packed, with what is left in each and how long it keeps.</p>
      <ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton>
    </div>
    <template v-else-if="answer">
      <div class="bar">
        <ChoiceField
          v-model="order"
          label="Order"
          hide-label
          :choices="[
            { value: 'place', words: 'By place' },
            { value: 'food', words: 'By food' },
            { value: 'age', words: 'Use first' },
            { value: 'stock', words: 'What there is' },
          ]"
        />
        <ElInput
          v-if="order !== 'stock'"
          v-model="words"
          class="filter"
          aria-label="Only jars with these words"
          placeholder="Food, place or #number"
          clearable
        />
      </div>
      <p v-if="low.length && order !== 'stock'" class="low">
        Running low:
        <template v-for="(item, i) in low.slice(0, 6)" :key="item.foodKey"
          >{{ i ? ', ' : '' }}<strong>{{ item.foodName.toLowerCase() }}</strong> {{ format.weight(item.leftG) }}</template
        >{{ low.length > 6 ? ` and ${low.length - 6} more` : '' }}.
      </p>
      <LazyStockTable v-if="order === 'stock'" :stock="answer.stock" :months="answer.usedByMonth" @changed="load" />
      <JarBoards v-else :boards="boards" :foods="answer.foods" :now="now" />
      <p v-if="order !== 'stock' && wanted.length === 0" class="quiet">No jar has these words.</p>
    </template>
    <LazyStockDialog v-if="bought" @close="bought = false" @saved="jarId => navigateTo(`/jars/${jarId}`)" />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
}
.filter {
  width: min(260px, 100%);
}
.go {
  color: var(--dulse-ink);
  font-weight: 650;
  padding: 0.7rem 0.4rem;
}
.low {
  margin: 0;
  padding: 0.6rem 0.9rem;
  border-radius: 8px;
  background: var(--amber-wash);
}
.empty {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  max-width: 560px;
}
</style>
