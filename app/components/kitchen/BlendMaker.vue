<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { bestJar, jarsFor, PACKAGES, type PackageKey } from '#core/keeping'
import type { Mix } from '#core/blends'
import { FAULTY_LINES, type BlendLine } from '~/composables/useBlend'
import type { ToolAnswer } from '#shared/contracts'

/** What is on the table goes into a jar. */
const props = defineProps<{ lines: readonly BlendLine[]; mix: Mix; recipeId?: string; name?: string }>()
const emit = defineEmits<{ made: [jarId: string] }>()
const store = useKitchen()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const name = ref(props.name ?? '')
watch(
  () => props.name,
  next => {
    if (next && !name.value) name.value = next
  },
)
const packageKey = ref<PackageKey>('screw-jar')
const place = ref('Spice shelf')
const sizeMl = ref<number>()
const sieve = ref('')
const overG = ref<number>()
const problem = ref('')
const busy = ref(false)
const tools = ref<ToolAnswer[]>(await call('tools').catch(() => []))
const sieves = computed(() => tools.value.flatMap(tool => (tool.kind === 'sieve' ? [tool] : [])))
const fits = computed(() => bestJar(jarsFor(props.mix.totalG, props.mix.densityGMl.p50, 'powder', { measures: settings.value.measures })))
const checkFields = useFieldChecks()

async function make() {
  problem.value = ''
  if (checkFields() !== undefined || busy.value) return
  if (name.value.trim() === '') {
    problem.value = 'Give the blend a name: it goes on the label.'
    return
  }
  if (props.lines.some(line => line.fault)) {
    problem.value = FAULTY_LINES
    return
  }
  const used = props.lines.filter(line => line.grams !== undefined && line.grams > 0)
  if (new Set(used.map(line => line.jarId)).size < used.length) {
    problem.value = 'A jar stands in two lines: put them together.'
    return
  }
  const first = store.jarOf(used[0]?.jarId)
  if (!first) return
  busy.value = true
  const jarId = uuidv7()
  const openingUm = sieves.value.find(tool => tool.id === sieve.value)?.openingUm
  const tenth = (grams: number) => Math.max(0.1, Math.round(grams * 10) / 10)
  try {
    await store.log(
      { jarId, number: 0 },
      {
        kind: 'fill',
        jarId,
        packageKey: packageKey.value,
        place: place.value.trim() || 'Shelf',
        sizeMl: sizeMl.value === undefined ? fits.value?.sizeMl : Math.round(sizeMl.value),
        from: used.map(line => ({
          jarId: line.jarId,
          weightG: tenth(line.grams!),
          ...(line.toastedG !== undefined && { toastedG: line.toastedG }),
        })),
        blend: {
          name: name.value.trim(),
          recipeId: props.recipeId,
          ...(openingUm !== undefined && { sifted: { openingUm, overG: overG.value ?? 0 } }),
        },
      },
    )
    emit('made', jarId)
  } catch (error) {
    problem.value = error instanceof Refused ? [...new Set(error.problems.map(item => item.message))].join(' ') : (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="form" @submit.prevent="make">
    <div class="pair">
      <TextField v-model="name" label="Its name" /><TextField v-model="place" label="Where it stands" /><VolumeField
        v-model="sizeMl"
        label="Its jar"
        :hint="fits ? `${format.volume(fits.sizeMl)} takes it` : undefined"
        :least="10"
        :most="10000"
        bare
      />
    </div>
    <ChoiceField
      v-model="packageKey"
      label="Into"
      :choices="PACKAGES.filter(item => item.key !== 'other').map(item => ({ value: item.key, words: item.name }))"
    />
    <ChoiceField
      v-if="sieves.length"
      v-model="sieve"
      label="Sifted"
      :choices="[
        { value: '', words: 'Not sifted' },
        ...sieves.map(tool => ({ value: tool.id, words: `${tool.name}, ${tool.openingUm} µm` })),
      ]"
    />
    <WeightField v-if="sieve" v-model="overG" label="Stayed on the sieve" hint="ground again elsewhere, or thrown out" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="busy"
        >Fill {{ format.weight(mix.totalG - (sieve ? (overG ?? 0) : 0)) }} into a jar</ElButton
      >
    </div>
  </form>
</template>
