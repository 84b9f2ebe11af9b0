<script setup lang="ts">
import type { BatchState, EntryBody } from '#core/log'
import { desiccantG, NOT_BOTH, oxygenAbsorber, type PackageKey } from '#core/keeping'

/** What goes into the jar beside the food: sachets, starch or salt, paper round sharp shards. */
type Beside = Pick<Extract<EntryBody, { kind: 'pack' }>, 'mixed' | 'absorberCc' | 'gelG' | 'wrapped'>
const model = defineModel<Beside>({ required: true })
const props = defineProps<{ state: BatchState; netG?: number; sizeMl: number; packageKey: PackageKey; moisture: number }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const sachet = ref<'none' | 'absorber' | 'gel' | 'both'>(
  model.value.absorberCc && model.value.gelG ? 'both' : model.value.absorberCc ? 'absorber' : model.value.gelG ? 'gel' : 'none',
)
const starchG = ref<number | undefined>(model.value.mixed?.starchG)
const saltG = ref<number | undefined>(model.value.mixed?.saltG)
const wrapped = ref(model.value.wrapped ?? false)
const initialOpen = sachet.value !== 'none' || Boolean(model.value.mixed)
const knows = ref(false)
/** Sharp sheet shards cut a bag. */
const sharp = computed(
  () =>
    props.state.purpose === 'pieces' &&
    props.state.card.feelForm === 'sheet' &&
    ['vacuum-jar', 'bag', 'foil-bag'].includes(props.packageKey),
)
const sum = computed(() => {
  if (!props.netG || props.netG / 1.4 >= props.sizeMl) return undefined
  const absorber = oxygenAbsorber(props.sizeMl, props.netG)
  return {
    ...absorber,
    gelG: Math.max(
      1,
      Math.ceil(
        desiccantG({ airMl: absorber.airMl, filledIn: { celsius: 20, humidity: settings.value.pantryHumidity }, wanted: 0.2, ingressG: 0 }),
      ),
    ),
  }
})
/** An absorber works without oxygen: only where the food is dry, and the package holds it out. */
const leaky = computed(() => props.packageKey === 'bag' || props.packageKey === 'plastic-lid')
const arithmetic = computed(() => {
  if (!sum.value || sachet.value === 'none') return undefined
  const { airMl, oxygenMl, sizeCc, count, gelG } = sum.value
  const air = `${format.volume(props.sizeMl)} less ${format.volume(props.netG! / 1.4)} of food is ${format.volume(airMl)} of air`
  return [
    sachet.value !== 'gel'
      ? `${air}, and 21 % of it ${format.volume(oxygenMl)} of oxygen: ${plural(count, 'absorber')} of ${sizeCc} cc.`
      : '',
    sachet.value !== 'absorber' ? `${air}; ${format.weight(gelG)} of silica gel hold its damp at 20 % humidity.` : '',
  ]
    .filter(Boolean)
    .join(' ')
})
watch([sachet, starchG, saltG, wrapped, sum], () => {
  model.value = {
    absorberCc: sum.value && (sachet.value === 'absorber' || sachet.value === 'both') ? sum.value.sizeCc * sum.value.count : undefined,
    gelG: sum.value && (sachet.value === 'gel' || sachet.value === 'both') ? sum.value.gelG : undefined,
    mixed: starchG.value || saltG.value ? { starchG: starchG.value, saltG: saltG.value } : undefined,
    wrapped: wrapped.value || undefined,
  }
})
const starchShare = computed(() => (starchG.value && props.netG ? starchG.value / (starchG.value + props.netG) : 0))
defineExpose({
  /** What still wants a word. */
  problem: () =>
    sachet.value === 'both' && !knows.value ? 'An absorber and silica gel together: tick that it is meant so, or choose one.' : undefined,
})
</script>

<template>
  <details class="beside" :open="initialOpen || sharp">
    <summary>
      Beside it:
      {{
        sachet === 'none'
          ? 'no sachet'
          : sachet === 'both'
            ? 'absorber and silica gel'
            : sachet === 'gel'
              ? 'silica gel'
              : 'oxygen absorber'
      }}{{ starchG ? ', starch' : '' }}{{ saltG ? ', salt' : '' }}{{ wrapped ? ', wrapped' : '' }}
    </summary>
    <ChoiceField
      v-model="sachet"
      label="Sachet"
      :choices="[
        { value: 'none', words: 'None' },
        { value: 'gel', words: 'Silica gel', note: 'against clumping' },
        { value: 'absorber', words: 'Oxygen absorber', note: 'for long keeping, sealed' },
        { value: 'both', words: 'Both' },
      ]"
    />
    <p v-if="arithmetic" class="small">{{ arithmetic }} <span class="quiet">Neither is eaten, and neither is used twice.</span></p>
    <template v-if="sachet === 'both'"
      ><p class="caution">{{ NOT_BOTH }}</p>
      <ElCheckbox v-model="knows" size="large">It is meant so</ElCheckbox></template
    >
    <p v-if="leaky && (sachet === 'absorber' || sachet === 'both')" class="caution">
      This package lets air in: an absorber is used up in days.
    </p>
    <p v-if="moisture > 0.1 && (sachet === 'absorber' || sachet === 'both')" class="caution">
      Above 10 % water nothing is closed in without oxygen: that is where botulism grows.
    </p>
    <template v-if="state.purpose !== 'pieces'">
      <div class="pair">
        <WeightField
          v-model="starchG"
          label="Starch against caking"
          :hint="starchShare > 0 ? `${format.share(starchShare)} of the jar` : 'such as arrowroot'"
        /><WeightField v-model="saltG" label="Salt mixed in" :hint="saltG ? 'it stands on the label' : undefined" />
      </div>
      <p v-if="starchG" class="small quiet">Not for what goes into drinks or clear liquids: starch makes them cloudy.</p>
    </template>
    <ChoiceField
      v-if="sharp"
      v-model="wrapped"
      label="Sharp shards cut a bag"
      :choices="[
        { value: true, words: 'Wrapped in paper' },
        { value: false, words: 'Bare' },
      ]"
    />
    <p class="quiet small">A lid that was used for dry food is marked, so that it never goes on a canning jar.</p>
  </details>
</template>

<style scoped>
.beside {
  display: grid;
  gap: 0.7rem;
}
.beside > * {
  margin-bottom: 0.6rem;
}
summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
  font-weight: 650;
}
</style>
