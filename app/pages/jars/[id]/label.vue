<script setup lang="ts">
import { allergenWords } from '#core/foods/allergens'
import { safetyRule } from '#core/safety'
import type { JarAnswer, LabelTemplateAnswer } from '#shared/contracts'

const route = useRoute()
const jarId = String(route.params.id)
const svg = ref('')
const problem = ref('')
const templates = shallowRef<LabelTemplateAnswer[]>([])
const templateKey = ref(localStorage.getItem('dulse.label') ?? 'a4-24')
/** What goes with a jar that leaves the house; printed below the label where it is wanted. */
const jar = shallowRef<JarAnswer>()
const leaflet = ref(false)
const format = useFormat()
useHead({ title: 'Label · Dulse' })

async function draw() {
  try {
    const response = await fetch(`/api/jars/${jarId}/label.svg?template=${templateKey.value}`)
    if (response.ok) svg.value = await response.text()
    else problem.value = ((await response.json()) as { message: string }).message
  } catch {
    problem.value = 'Dulse’s server cannot be reached.'
  }
}
try {
  templates.value = await call('labelTemplates')
  jar.value = await call('jar', { params: { jarId } })
  if (!templates.value.some(item => item.key === templateKey.value)) templateKey.value = templates.value[0]!.key
} catch (error) {
  problem.value = (error as Error).message
}
await draw()
watch(templateKey, key => {
  localStorage.setItem('dulse.label', key)
  void draw()
})
const template = computed(() => templates.value.find(item => item.key === templateKey.value))
// The label is drawn by our own server with all text escaped; as an image nothing in it can run.
const source = computed(() => `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg.value)}`)
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <header class="page-head no-print">
      <h1>Label</h1>
      <div class="row">
        <NuxtLink :to="`/labels?jars=${jarId}`">A sheet of many</NuxtLink><NuxtLink :to="`/jars/${jarId}`">Back to the jar</NuxtLink>
      </div>
    </header>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <template v-else-if="template">
      <div class="field no-print size">
        <label for="size">Size</label
        ><ElSelect id="size" v-model="templateKey" aria-label="Size"
          ><ElOption v-for="item in templates" :key="item.key" :value="item.key" :label="item.name"
        /></ElSelect>
      </div>
      <img
        :src="source"
        alt="The label as it is printed, with a code that opens this jar’s page"
        class="label"
        :style="{ width: `${template.width}mm`, height: `${template.height}mm` }"
      />
      <div class="row no-print">
        <ElButton type="primary" @click="print">Print</ElButton>
        <a class="el-button el-button--large" :href="`/api/jars/${jarId}/label.pdf?template=${templateKey}`" target="_blank">PDF</a>
        <a
          class="el-button el-button--large"
          :href="`/api/jars/${jarId}/label.svg?template=${templateKey}`"
          :download="`label-${jarId}.svg`"
          >SVG</a
        >
      </div>
      <section v-if="jar" class="card leaflet" :class="{ 'no-print': !leaflet }" aria-label="Leaflet">
        <h2>{{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose] }}</h2>
        <p>
          <strong>{{ allergenWords(jar.allergens) || 'No known allergens.' }}</strong>
        </p>
        <ul>
          <li v-for="text in jar.told.use" :key="text">{{ format.sentence(text) }}</li>
          <li>{{ safetyRule('rehydrated')!.text }}</li>
        </ul>
        <p class="quiet no-print">{{ safetyRule('selling')!.text }}</p>
        <ElCheckbox v-model="leaflet" size="large" class="no-print">Print this with the label</ElCheckbox>
      </section>
      <p class="quiet no-print">
        {{ template.width }} × {{ template.height }} mm. Print at 100 %, not fitted to the page. The code opens this jar’s page at the
        address that Dulse is open at now, so open it by an address that your phone reaches too.
      </p>
    </template>
  </div>
</template>

<style scoped>
.label {
  border: 1px dashed var(--glass);
  background: #fff;
}
.size {
  max-width: 340px;
}
.page-head .row {
  gap: 1.2rem;
}
@media print {
  .no-print {
    display: none;
  }
  .label {
    border: 0;
  }
}
</style>
