<script setup lang="ts">
import type { LabelTemplateAnswer, ShelfJar } from '#shared/contracts'
import { DAY } from '#core/time'

/** Labels of many jars on one sheet: which jars, which paper, from which place on. */
const route = useRoute()
const format = useFormat()
const { now } = useClock()
useHead({ title: 'Labels · Dulse' })
const jars = shallowRef<(ShelfJar & { foodName: string })[]>([])
const templates = shallowRef<LabelTemplateAnswer[]>([])
const problem = ref('')
const templateKey = ref(localStorage.getItem('dulse.label') ?? 'a4-24')
const skip = ref(0)
const copies = ref<number | undefined>(1)
const cut = ref(false)
const words = ref('')
const chosen = ref(new Set<string>(typeof route.query.jars === 'string' ? route.query.jars.split(',') : []))
const svg = ref('')
const NEW_DAYS = 14
try {
  const [shelf, all] = await Promise.all([call('shelf'), call('labelTemplates')])
  jars.value = shelf.jars.map(jar => ({ ...jar, foodName: jar.name ?? shelf.foods[jar.foodKey]!.name })).sort((a, b) => b.number - a.number)
  templates.value = all
  if (chosen.value.size === 0)
    chosen.value = new Set(jars.value.filter(jar => jar.packedAt > now.value - NEW_DAYS * DAY).map(jar => jar.jarId))
} catch (error) {
  problem.value = (error as Error).message
}
const template = computed(() => templates.value.find(item => item.key === templateKey.value) ?? templates.value[0])
const places = computed(() => (template.value?.sheet ? template.value.sheet.columns * template.value.sheet.rows : 1))
const wanted = computed(() => jars.value.filter(jar => chosen.value.has(jar.jarId)))
const count = computed(() => wanted.value.length * (copies.value ?? 1))
const sheets = computed(() => Math.ceil((count.value + skip.value) / places.value))
const SHOWN = 120
const shown = computed(() => {
  const parts = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return jars.value
    .filter(jar => parts.every(part => `${jar.foodName} ${jar.place} #${jar.number}`.toLowerCase().includes(part)))
    .slice(0, SHOWN)
})
const address = computed(
  () =>
    `/api/labels/sheet.pdf?${new URLSearchParams({ jars: wanted.value.map(jar => jar.jarId).join(','), template: templateKey.value, skip: String(template.value?.sheet ? skip.value : 0), copies: String(copies.value ?? 1), cut: String(cut.value) })}`,
)
watch(
  [templateKey, () => wanted.value[0]?.jarId],
  async ([key, first]) => {
    localStorage.setItem('dulse.label', key)
    if (skip.value >= places.value) skip.value = 0
    svg.value = first
      ? await fetch(`/api/jars/${first}/label.svg?template=${key}`)
          .then(answer => (answer.ok ? answer.text() : ''))
          .catch(() => '')
      : ''
  },
  { immediate: true },
)
function turn(jarId: string) {
  const next = new Set(chosen.value)
  if (!next.delete(jarId)) next.add(jarId)
  chosen.value = next
}
/** What lies on a place of the first sheet. */
const onPlace = (i: number) => (i < skip.value ? 'used' : i - skip.value < count.value ? 'printed' : 'free')
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Labels</h1>
      <NuxtLink to="/shelf">To the shelf</NuxtLink>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <div v-else class="two">
      <section class="card" aria-label="Jars">
        <div class="row between">
          <h2>{{ plural(wanted.length, 'jar') }}</h2>
          <div class="row">
            <ElButton @click="chosen = new Set(shown.map(jar => jar.jarId))">All in the list</ElButton
            ><ElButton @click="chosen = new Set()">None</ElButton>
          </div>
        </div>
        <ElInput v-model="words" aria-label="Only jars with these words" placeholder="Food, place or #number" clearable />
        <ul class="plain-list list">
          <li v-for="jar in shown" :key="jar.jarId">
            <label
              ><input type="checkbox" :checked="chosen.has(jar.jarId)" @change="turn(jar.jarId)" /><span
                ><strong>{{ jar.number }}</strong> {{ jar.foodName
                }}{{ jar.purpose === 'powder' ? '' : `, ${PURPOSE_WORDS[jar.purpose]}` }}</span
              ><span class="quiet small">{{ format.weight(jar.leftG) }}, packed {{ format.date(jar.packedAt) }}</span></label
            >
          </li>
        </ul>
        <p v-if="jars.length > shown.length && !words" class="quiet small">
          The newest {{ shown.length }} of {{ jars.length }}: type to find others.
        </p>
      </section>
      <section v-if="template" class="card form" aria-label="Paper">
        <div class="field">
          <label for="template">Paper</label
          ><ElSelect id="template" v-model="templateKey" aria-label="Paper"
            ><ElOption v-for="item in templates" :key="item.key" :value="item.key" :label="item.name"
          /></ElSelect>
        </div>
        <img
          v-if="svg"
          class="label"
          :src="`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`"
          :style="{ width: `${template.width}mm`, height: `${template.height}mm` }"
          alt="The first label at its true size"
        />
        <div v-if="template.sheet" class="field">
          <p class="strong">Begin at the first place that is free</p>
          <div
            class="sheet"
            :style="{
              aspectRatio: `${template.sheet.width} / ${template.sheet.height}`,
              gridTemplateColumns: `repeat(${template.sheet.columns}, 1fr)`,
            }"
          >
            <button
              v-for="i in places"
              :key="i"
              type="button"
              :class="onPlace(i - 1)"
              :aria-label="`Begin at place ${i}`"
              :aria-pressed="skip === i - 1"
              @click="skip = i - 1"
            />
          </div>
          <p class="quiet small">
            {{ plural(count, 'label') }} on {{ plural(sheets, 'sheet') }}{{ skip ? `, ${plural(skip, 'place')} used already` : '' }}.
          </p>
        </div>
        <div class="pair">
          <NumberField v-model="copies" label="Of each" :least="1" :most="20" :decimals="0" bare /><ChoiceField
            v-model="cut"
            label="Cut lines"
            :choices="[
              { value: false, words: 'None', note: 'cut labels' },
              { value: true, words: 'Drawn', note: 'plain paper' },
            ]"
          />
        </div>
        <div class="row">
          <a v-if="count > 0" class="el-button el-button--primary el-button--large" :href="address" target="_blank">PDF at true scale</a
          ><span v-else class="quiet">Choose a jar.</span>
        </div>
        <p class="quiet small">
          Print at 100 %, not fitted to the page. The code opens the jar’s page at the address that Dulse is open at now, so open it by an
          address that your phone reaches too.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.between {
  margin-bottom: 0.6rem;
}
.list {
  max-height: 60vh;
  overflow-y: auto;
  margin-top: 0.6rem;
}
.list label {
  display: grid;
  grid-template-columns: 30px 1fr;
  align-items: center;
  min-height: 50px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}
.list label .small {
  grid-column: 2;
}
.list input {
  width: 20px;
  height: 20px;
  grid-row: span 2;
  accent-color: var(--dulse);
}
.label {
  border: 1px dashed var(--glass);
  background: #fff;
  max-width: 100%;
  justify-self: start;
}
.sheet {
  display: grid;
  gap: 2px;
  width: min(220px, 100%);
  padding: 4px;
  border: 1px solid var(--el-border-color);
  background: var(--card);
}
.sheet button {
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: none;
  cursor: pointer;
  padding: 0;
  min-width: 0;
  min-height: 0;
}
.sheet .used {
  background: repeating-linear-gradient(45deg, var(--sunk), var(--sunk) 3px, var(--rule) 3px, var(--rule) 4px);
}
.sheet .printed {
  background: var(--husk);
  border-color: var(--husk);
}
a.el-button {
  text-decoration: none;
  display: inline-flex;
  align-items: center;
}
@media (width <= 860px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
