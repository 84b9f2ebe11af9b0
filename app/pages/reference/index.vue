<script setup lang="ts">
import { foodSearch } from '#core/foods/search'
import type { FoodSummary } from '#shared/contracts'

/** The library: every food, found by any of its names. */
const route = useRoute()
const store = useFoods()
const format = useFormat()
useHead({ title: 'Reference · Dulse' })
// Addresses of older links.
if (typeof route.query.food === 'string') await navigateTo(`/reference/${route.query.food}`, { replace: true })
await store.load()
const words = ref('')
const group = ref('')
const search = computed(() => foodSearch(store.list))
const found = computed(() =>
  search
    .value(words.value)
    .filter(
      food => group.value === '' || (group.value === 'own' ? food.own || food.cards.some(card => card.own) : food.group === group.value),
    ),
)
const groups = computed(() => {
  const seen = new Map<string, { key: string; name: string; count: number }>()
  for (const food of store.list) {
    const item = seen.get(food.group)
    if (item) item.count++
    else seen.set(food.group, { key: food.group, name: food.groupName, count: 1 })
  }
  return [...seen.values()].sort((a, b) => a.name.localeCompare(b.name, 'en'))
})
const ownCount = computed(() => store.list.filter(food => food.own || food.cards.some(card => card.own)).length)
/** What the name does not show: the other name that was looked for, or how hot it is. */
const beside = (food: FoodSummary) =>
  [
    food.otherNames.slice(0, 3).join(', '),
    food.heatUnits && food.heatUnits.high > 100
      ? `${food.heatUnits.low.toLocaleString('en-GB')} to ${food.heatUnits.high.toLocaleString('en-GB')} SHU`
      : undefined,
  ]
    .filter(Boolean)
    .join(' · ')

const file = ref<HTMLInputElement>()
const importing = ref('')
const problems = ref<string[]>([])
async function takeFile(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  problems.value = []
  importing.value = ''
  try {
    const answer = await sendFoodFile(await chosen.text())
    importing.value = `${plural(answer.foods, 'food')} and ${plural(answer.cards, 'card')} taken in${answer.replaced ? `, ${answer.replaced} of them in place of older ones` : ''}.`
    await store.load(true)
  } catch (error) {
    problems.value = error instanceof Refused ? error.problems.map(problem => problem.message) : [(error as Error).message]
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Reference</h1>
      <div class="row">
        <ElButton @click="navigateTo('/reference/schools')">Schools side by side</ElButton>
        <ElButton @click="navigateTo('/reference/own')">A food of your own</ElButton>
      </div>
    </header>
    <p v-if="store.problem" class="problem" role="alert">{{ store.problem }}</p>
    <ElInput
      v-model="words"
      class="look"
      aria-label="Look for a food"
      placeholder="Courgette, chipotle, aubergin, herbs"
      clearable
      autofocus
    />
    <div class="row groups" role="group" aria-label="Families">
      <button type="button" class="chip" :class="{ on: group === '' }" :aria-pressed="group === ''" @click="group = ''">
        All {{ store.list.length }}
      </button>
      <button
        v-if="ownCount"
        type="button"
        class="chip"
        :class="{ on: group === 'own' }"
        :aria-pressed="group === 'own'"
        @click="group = 'own'"
      >
        Your own {{ ownCount }}
      </button>
      <button
        v-for="item in groups"
        :key="item.key"
        type="button"
        class="chip"
        :class="{ on: group === item.key }"
        :aria-pressed="group === item.key"
        @click="group = item.key"
      >
        {{ item.name }} {{ item.count }}
      </button>
    </div>
    <p class="visually-hidden" aria-live="polite">{{ plural(found.length, 'food') }}</p>
    <ul v-if="found.length" class="plain-list foods">
      <li v-for="food in found" :key="food.key">
        <NuxtLink :to="`/reference/${food.key}`" class="food">
          <span class="dot" :style="{ background: food.colour }" aria-hidden="true" />
          <span class="name"
            ><strong>{{ food.name }}</strong
            ><span v-if="food.own" class="tag">yours</span><span class="quiet small">{{ beside(food) }}</span></span
          >
          <span class="water small"
            ><b>{{ format.share(food.water.mean) }}</b> water</span
          >
        </NuxtLink>
      </li>
    </ul>
    <div v-else class="card">
      <p>
        Nothing fits “{{ words }}”. <NuxtLink to="/reference/own">Write it down as a food of your own</NuxtLink>, copied from the nearest
        one.
      </p>
    </div>
    <section class="card stack" aria-label="Foods as a file">
      <h2>Foods as a file</h2>
      <p class="quiet">Foods and cards of your own are kept in a file that people can read (YAML), to edit elsewhere or hand on.</p>
      <div class="row">
        <a class="plain-button" href="/api/foods/export" download>Save yours</a><ElButton @click="file?.click()">Take a file in</ElButton
        ><input
          ref="file"
          type="file"
          accept=".yaml,.yml,.json"
          class="visually-hidden"
          aria-label="File of foods"
          tabindex="-1"
          @change="takeFile"
        />
      </div>
      <p v-if="importing" role="status">{{ importing }}</p>
      <div v-if="problems.length" role="alert">
        <p class="problem">Nothing was taken in:</p>
        <ul class="problems">
          <li v-for="problem in problems" :key="problem">{{ problem }}</li>
        </ul>
      </div>
    </section>
  </div>
</template>

<style scoped>
.look {
  max-width: 560px;
}
.groups {
  gap: 0.35rem;
}
.chip {
  border: 1px solid var(--rule);
  background: var(--card);
  border-radius: 99px;
  min-height: 36px;
  padding: 0 0.8rem;
  font-size: 0.9rem;
  cursor: pointer;
}
.chip.on {
  border-color: var(--dulse);
  color: var(--dulse-ink);
  font-weight: 650;
}
.foods {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: var(--card);
  overflow: hidden;
}
.foods li {
  border-bottom: 1px solid var(--rule);
}
.food {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 0.8rem;
  min-height: 58px;
  padding: 0.4rem 0.9rem;
  text-decoration: none;
  line-height: 1.25;
}
.food:hover {
  background: var(--sunk);
}
.name {
  display: grid;
}
.name .tag {
  justify-self: start;
}
.dot {
  width: 1.1rem;
  height: 1.1rem;
  border-radius: 5px;
  border: 1px solid color-mix(in srgb, var(--ink) 25%, transparent);
}
.water {
  color: var(--quiet);
  white-space: nowrap;
}
.water b {
  color: var(--ink);
}
.problems {
  margin: 0.3rem 0 0;
  padding-left: 1.2rem;
  color: var(--brick);
}
.plain-button {
  display: inline-grid;
  place-items: center;
  min-height: 44px;
  padding: 0 1rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  font-weight: 650;
  text-decoration: none;
}
.plain-button:hover {
  background: var(--sunk);
}
@media (width <= 760px) {
  .chip {
    min-height: 44px;
  }
  .foods {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
