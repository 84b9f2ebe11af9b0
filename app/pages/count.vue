<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { countOfJar } from '#core/jars/count'
import { parseWeight } from '#core/units'
import type { Sent } from '~/data/parcel'

/** What was counted on the shelf, typed in in the order of the paper; what is missing is logged as taken. */
useHead({ title: 'Count the shelf · Dulse' })
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const outbox = useOutboxStore()
const { answer, problem, ready, load } = useServer('shelf')
await ready()
const places = computed(() => byPlace(answer.value?.jars ?? []))
const typed = ref<Record<string, string>>({})
const wrong = ref<Record<string, string>>({})
const told = ref('')
const busy = ref(false)

interface Line {
  jarId: string
  number: number
  gone: number
}
async function save() {
  if (busy.value) return
  told.value = ''
  wrong.value = {}
  const lines: Line[] = []
  for (const jar of places.value.flatMap(place => place.jars)) {
    const text = (typed.value[jar.jarId] ?? '').trim()
    if (text === '') continue
    const nothing = /^0(?:[.,]0+)?\s*(?:g|oz|kg|lb)?$/i.test(text)
    const { value, problem: words } = nothing ? { value: 0, problem: undefined } : parseWeight(text, settings.value.weightUnit)
    if (words !== undefined || value === undefined) wrong.value[jar.jarId] = words ?? 'This is not a weight.'
    else {
      const counted = countOfJar(value, jar.leftG)
      if (counted.is === 'more')
        wrong.value[jar.jarId] =
          `The log has ${format.weight(jar.leftG)} only. What was poured in, or taken by mistake, is put right on the jar.`
      else if (counted.is === 'missing') lines.push({ jarId: jar.jarId, number: jar.number, gone: counted.goneG })
    }
  }
  if (Object.keys(wrong.value).length > 0) {
    told.value = 'Nothing was logged yet: put these right first.'
    return
  }
  busy.value = true
  try {
    const at = Date.now()
    for (const { jarId, number, gone } of lines) {
      const item: Sent = { jarId, entry: { id: uuidv7(), at, body: { kind: 'take', jarId, weightG: gone, use: 'missing when counted' } } }
      try {
        await outbox.send(item, `jar ${number} as counted`)
        typed.value[jarId] = ''
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        wrong.value[jarId] = error.message
      }
    }
    await load()
    const failed = Object.keys(wrong.value).length
    told.value = `${plural(lines.length - failed, 'jar')} put right${failed ? `, ${failed} not` : ''}. Jars that were as the log says stay as they are.`
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Count the shelf</h1>
      <NuxtLink to="/print/shelf">The list on paper</NuxtLink>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <form class="stack" @submit.prevent="save">
      <p class="quiet">In the order of the list on paper. What is left without a figure was not counted; 0 is an empty jar.</p>
      <section v-for="{ place, jars } in places" :key="place" class="card">
        <h2>{{ place }}</h2>
        <div v-for="jar in jars" :key="jar.jarId" class="counted">
          <label :for="`count-${jar.jarId}`"
            ><strong>{{ jar.number }}</strong> {{ jar.name ?? answer?.foods[jar.foodKey]?.name }}, {{ PURPOSE_WORDS[jar.purpose] }}</label
          >
          <span class="quiet">{{ format.weight(jar.leftG) }}</span>
          <div>
            <input
              :id="`count-${jar.jarId}`"
              v-model="typed[jar.jarId]"
              inputmode="decimal"
              :aria-invalid="Boolean(wrong[jar.jarId])"
              :placeholder="settings.weightUnit"
            />
            <p v-if="wrong[jar.jarId]" class="problem small">{{ wrong[jar.jarId] }}</p>
          </div>
        </div>
      </section>
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="busy">Log what was counted</ElButton><span role="status">{{ told }}</span>
      </div>
    </form>
  </div>
</template>

<style scoped>
.counted {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 6rem minmax(9rem, 14rem);
  gap: 0.8rem;
  align-items: center;
  padding: 0.3rem 0;
  border-top: 1px solid var(--rule);
}
input {
  min-height: 44px;
  width: 100%;
  padding: 0 0.6rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
@media (width <= 760px) {
  .counted {
    grid-template-columns: minmax(0, 1fr) auto 6.5rem;
    gap: 0.4rem;
  }
}
</style>
