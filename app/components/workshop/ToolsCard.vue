<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { gradeOfOpening, MESH_UM, nearestMesh, openingUm } from '#core/grinding'
import type { ToolAnswer, ToolSettings } from '#shared/contracts'

/** Grinders with their cups, and sieves with their openings. */
const format = useFormat()
const { answer, problem: lost, ready, load } = useServer('tools')
const tools = computed(() => answer.value ?? [])
const problems = ref<Record<string, string>>({})
const form = ref<{
  id: string
  version?: number
  kind: 'grinder' | 'sieve'
  name: string
  cupMl?: number
  watts?: number
  cupCm?: number
  fineness: 'coarse' | 'fine' | 'flour'
  dedicated: boolean
  openingUm?: number
  wires?: number
  alongMm?: number
  wireMm?: number
  mesh?: number
}>()
const checkFields = useFieldChecks()
const FINENESS = { coarse: 'coarse', fine: 'fine', flour: 'as fine as flour' } as const
const GRADES = { flake: 'flakes', coarse: 'coarse powder', fine: 'fine powder', flour: 'flour' } as const

await ready()
if (lost.value) problems.value = { all: lost.value }

function edit(kind: 'grinder' | 'sieve', item?: ToolAnswer) {
  problems.value = {}
  form.value = {
    id: item?.id ?? uuidv7(),
    version: item?.version,
    kind,
    name: item?.name ?? '',
    cupMl: 250,
    watts: 150,
    cupCm: 8,
    fineness: 'fine',
    dedicated: false,
    ...(item ?? {}),
  } as typeof form.value
}
/** Counted wires, or a number stamped on the rim, give the opening. */
const counted = computed(() => {
  const { wires, alongMm, wireMm, mesh } = form.value ?? {}
  if (mesh && MESH_UM[mesh]) return { um: MESH_UM[mesh], problem: '' }
  if (!wires || !alongMm || !wireMm) return { um: undefined, problem: '' }
  try {
    return { um: openingUm(wires, alongMm, wireMm), problem: '' }
  } catch (error) {
    return { um: undefined, problem: (error as Error).message }
  }
})
const opening = computed(() => counted.value.um ?? form.value?.openingUm)

async function save() {
  if (!form.value || checkFields() !== undefined) return
  const { id, version, kind, name, cupMl, watts, cupCm, fineness, dedicated } = form.value
  const body = (
    kind === 'grinder'
      ? { id, version, kind, name, cupMl, watts, cupCm, fineness, dedicated: dedicated || undefined }
      : { id, version, kind, name, openingUm: opening.value === undefined ? undefined : Math.round(opening.value) }
  ) as ToolSettings
  try {
    await call('saveTool', { body })
    form.value = undefined
    await load()
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
const words = (tool: ToolAnswer) =>
  tool.kind === 'grinder'
    ? `${tool.cupMl === undefined ? '' : format.volume(tool.cupMl)} cup, ${tool.watts} W, grinds ${FINENESS[tool.fineness]}${tool.dedicated ? ', only for this' : ''}`
    : `opening ${Math.round(tool.openingUm)} µm, about No. ${nearestMesh(tool.openingUm)}: ${GRADES[gradeOfOpening(tool.openingUm)]} fall through`
</script>

<template>
  <section class="card" aria-label="Grinders and sieves">
    <div class="row between">
      <h2>Grinders and sieves</h2>
      <div class="row">
        <ElButton @click="edit('grinder')">Add a grinder</ElButton><ElButton @click="edit('sieve')">Add a sieve</ElButton>
      </div>
    </div>
    <p v-if="tools.length === 0 && !form" class="quiet">
      The cup’s volume and power say how many rounds a load takes and how long it may run; a sieve’s opening says how fine the powder is.
    </p>
    <ul class="plain-list">
      <li v-for="tool in tools" :key="tool.id" class="list-line">
        <div>
          <strong>{{ tool.name }}</strong>
          <p class="quiet small">{{ words(tool) }}</p>
        </div>
        <ElButton :aria-label="`Change ${tool.name}`" @click="edit(tool.kind, tool)">Change</ElButton>
      </li>
    </ul>
    <form v-if="form" class="form inner" @submit.prevent="save">
      <h3>{{ form.version ? form.name : form.kind === 'grinder' ? 'A new grinder' : 'A new sieve' }}</h3>
      <TextField v-model="form.name" label="Name" :problem="problems.name" />
      <template v-if="form.kind === 'grinder'">
        <div class="pair">
          <VolumeField v-model="form.cupMl" label="Cup" bare required :least="20" :most="5000" /><NumberField
            v-model="form.watts"
            label="Power, W"
            bare
            required
            :least="20"
            :most="3000"
            :decimals="0"
          /><NumberField
            v-model="form.cupCm"
            label="Height of the cup, cm"
            hint="dust falls so far before you open it"
            bare
            required
            :least="2"
            :most="40"
          />
        </div>
        <ChoiceField
          v-model="form.fineness"
          label="It grinds"
          :choices="[
            { value: 'coarse', words: 'Coarse', note: 'chopper, mortar' },
            { value: 'fine', words: 'Fine', note: 'spice or coffee grinder' },
            { value: 'flour', words: 'As flour', note: 'for bread' },
          ]"
        />
        <ChoiceField
          v-model="form.dedicated"
          label="Coffee is ground in it too"
          :choices="[
            { value: false, words: 'Yes', note: 'clean it with rice between' },
            { value: true, words: 'No, only this' },
          ]"
        />
      </template>
      <template v-else>
        <NumberField
          v-model="form.mesh"
          label="Number on the rim"
          :hint="form.mesh && !MESH_UM[form.mesh] ? `no such number: ${Object.keys(MESH_UM).join(', ')}` : 'where it has one (ASTM E11)'"
          :least="1"
          :most="400"
          :decimals="0"
        />
        <p class="quiet small">A kitchen strainer has none: count the wires along a ruler, and measure how thick one is.</p>
        <div class="pair">
          <NumberField v-model="form.wires" label="Wires counted" :least="1" :most="500" :decimals="0" /><NumberField
            v-model="form.alongMm"
            label="Along, mm"
            :least="1"
            :most="500"
          /><NumberField v-model="form.wireMm" label="A wire, mm" :least="0.01" :most="3" :decimals="2" />
        </div>
        <NumberField
          v-if="counted.um === undefined"
          v-model="form.openingUm"
          label="Or its opening, µm"
          :least="20"
          :most="10000"
          :decimals="0"
        />
        <p v-if="counted.problem" class="problem">{{ counted.problem }}</p>
        <p v-else-if="opening">
          <strong>{{ Math.round(opening) }} µm.</strong>
          <span class="quiet">About No. {{ nearestMesh(opening) }}: {{ GRADES[gradeOfOpening(opening)] }} fall through.</span>
        </p>
      </template>
      <p v-for="(message, field) in problems" v-show="field !== 'name'" :key="field" class="problem">{{ message }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">{{
          form.kind === 'grinder' ? 'Save the grinder' : 'Save the sieve'
        }}</ElButton><ElButton @click="form = undefined">Cancel</ElButton>
      </div>
    </form>
    <p v-else-if="problems.all" class="problem">{{ problems.all }}</p>
  </section>
</template>

<style scoped>
.inner {
  border-top: 1px solid var(--rule);
  padding-top: 0.9rem;
}
</style>
