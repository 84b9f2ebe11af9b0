<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { isRaw, isSulphited, keepsOf, packableForms } from '#core/batch'
import { whatThereIs } from '#core/flow'
import type { Purpose } from '#core/foods'
import { waterOf } from '#core/water'
import { WAYS } from '#core/ways'
import type { BatchState, EntryBody } from '#core/log'
import { stopsAtPacking } from '#core/safety'
import { clumpRisk, glassOf, looseBelow } from '#core/grinding'
import { bestByDates, bestByWindow, bestJar, dampOf, jarsFor, leakOf, PACKAGES, type PackageKey } from '#core/keeping'
import type { BatchAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

type Pack = Extract<EntryBody, { kind: 'pack' }>
const props = defineProps<{ state: BatchState; page?: BatchAnswer; initial?: Pack; at?: number }>()
const { settings } = storeToRefs(useHouseholdStore())
const format = useFormat()
const { food } = props.state
/** What may go into a jar: what it is meant for first, and what else there is of it. */
const forms = packableForms(props.state)
const form = ref<Purpose>(props.initial?.form ?? (props.initial ? props.state.purpose : (forms[0] ?? props.state.purpose)))
const purpose = computed(() => form.value)
/** What comes out of a vacuum is packed at once: no rest is missing. */
const fromVacuum = props.state.run !== undefined && WAYS[props.state.run.way.way].underVacuum
const last = props.state.jars.at(-1)?.body
const density = food.powderDensity.value.mean
const asked = { measures: settings.value.measures, unshrunk: fromVacuum }
const lots = whatThereIs(props.state, Date.now())
const left = computed(() => lots.find(lot => lot.form === form.value)?.weightG.p50 ?? 0)
/** What one jar of the usual size takes of it. */
function shareOfJar(): number | undefined {
  if (left.value <= 0) return undefined
  const usual = jarsFor(left.value, density, purpose.value, { ...asked, sizes: [settings.value.jarMl] })[0]!
  return Math.round(left.value / usual.count)
}
const netG = ref<number | undefined>(props.initial?.netG ?? shareOfJar())
watch(form, () => {
  netG.value = shareOfJar()
  ontoJar.value = ''
})
const ontoJar = ref<string>(props.initial?.topUp ? props.initial.jarId : '')
/** Like goes onto like: jars of the form that is packed. */
const ontoJars = computed(() => (props.page?.shelf ?? []).filter(jar => jar.purpose === form.value))
const onto = computed(() => props.page?.shelf.find(jar => jar.jarId === ontoJar.value))
const packageKey = ref<PackageKey>(props.initial?.packageKey ?? last?.packageKey ?? 'screw-jar')
const sizeMl = ref<number>(props.initial?.sizeMl ?? last?.sizeMl ?? settings.value.jarMl)
const place = ref(props.initial?.place ?? last?.place ?? 'Pantry')
const leak = ref<number | undefined>(props.initial?.leakGDayKPa)
const beside = ref<Pick<Pack, 'mixed' | 'absorberCc' | 'gelG' | 'wrapped'>>({
  mixed: props.initial?.mixed,
  absorberCc: props.initial?.absorberCc,
  gelG: props.initial?.gelG,
  wrapped: props.initial?.wrapped,
})
const besideForm = ref<{ problem: () => string | undefined }>()
const cautions = ref<{ problem: () => string | undefined; bodies: () => EntryBody[] }>()
const accepted = new Set([...(props.page?.accepted ?? []), ...props.state.accepted])
const inOil = ref(props.initial?.inOil ?? false)
const oilC = ref(settings.value.pantryC)
const mayOil = food.traits.includes('oil') || food.traits.includes('hot')
const water = waterOf(props.state)
const moisture = props.initial?.moisture ?? water.moisture.p50
/** Known to the jar, not by what may be of the whole batch. */
const measured = water.known === 'jar air' || props.initial?.moisture !== undefined
const stops = computed(() =>
  stopsAtPacking(food, {
    packageKey: packageKey.value,
    inOil: inOil.value,
    storageC: inOil.value ? oilC.value : settings.value.pantryC,
    absorber: beside.value.absorberCc !== undefined,
    moisture: measured ? moisture : water.moisture.p90,
  }),
)
const best = computed(() =>
  bestByWindow({
    food,
    purpose: purpose.value,
    packageKey: packageKey.value,
    storageC: settings.value.pantryC,
    rested: props.state.rest?.startedAt !== undefined || fromVacuum,
    inOil: inOil.value,
    said: keepsOf(props.state),
  }),
)
const glass = glassOf(food)
/** Jars that would take it, the next smaller and larger beside the best. */
const choices = computed(() => {
  const all = jarsFor(netG.value ?? left.value, density, purpose.value, asked)
  const fit = all.indexOf(bestJar(all))
  const near = all.slice(Math.max(0, fit - 1), fit + 2)
  const shown = near.some(choice => choice.sizeMl === sizeMl.value)
    ? near
    : [...near, ...jarsFor(netG.value ?? left.value, density, purpose.value, { ...asked, sizes: [sizeMl.value] })]
  return shown
    .sort((a, b) => a.sizeMl - b.sizeMl)
    .map(choice => ({
      value: choice.sizeMl,
      words: format.volume(choice.sizeMl),
      note: choice.count > 1 ? `takes ${plural(choice.count, 'jar')}` : `${Math.round(choice.fill * 100)} % full`,
    }))
})
/** What the pantry's warmth does to it. */
const clumps = computed(() => {
  if (purpose.value === 'pieces') return undefined
  const risk = clumpRisk(glass, moisture, settings.value.pantryC)
  const driest = looseBelow(glass, settings.value.pantryC)
  const words = { none: 'stays loose', slight: 'may clump a little, and a spoon breaks it', sticky: 'clumps', cakes: 'cakes' }[risk]
  return `At ${format.temperature(settings.value.pantryC)} and ${format.share(moisture)} water it ${words}${risk === 'sticky' || risk === 'cakes' ? (driest > 0.01 ? `; below ${format.share(driest)} it would not` : '; only cold helps') : ''}.`
})
/** When the damp that the package lets in brings it there. */
const damp = computed(() => {
  const gPerDayKPa = leakOf(packageKey.value, leak.value)
  const found =
    netG.value && gPerDayKPa !== undefined
      ? dampOf({
          food,
          purpose: purpose.value,
          netG: netG.value,
          gPerDayKPa,
          celsius: settings.value.pantryC,
          humidity: settings.value.pantryHumidity,
          moisture,
        })
      : undefined
  return found && dampWords(found)
})
const dates = computed(() => bestByDates(props.at ?? Date.now(), best.value))

function read(): FormReading {
  if (netG.value === undefined) return { problem: 'Weigh what goes into the jar.' }
  if (stops.value.length > 0) return { problem: stops.value[0]!.rule.wayOut! }
  if (onto.value === undefined && place.value.trim() === '') return { problem: 'Say where the jar stands.' }
  if (onto.value === undefined && packageKey.value === 'other' && leak.value === undefined)
    return { problem: 'Nobody knows what this lid lets in: measure it, give its film’s figure, or choose another.' }
  const unread = cautions.value?.problem() ?? besideForm.value?.problem()
  if (unread) return { problem: unread }
  const { mixed, absorberCc, gelG, wrapped } = beside.value
  const jar = onto.value
    ? { jarId: onto.value.jarId, topUp: true, place: onto.value.place }
    : { jarId: props.initial?.jarId ?? uuidv7(), topUp: props.initial?.topUp, place: place.value.trim(), sizeMl: sizeMl.value }
  return {
    bodies: [
      ...(cautions.value?.bodies() ?? []),
      {
        kind: 'pack',
        ...jar,
        netG: netG.value,
        form: form.value === props.state.purpose ? undefined : form.value,
        packageKey: packageKey.value,
        storageC: inOil.value ? oilC.value : settings.value.pantryC,
        inOil: inOil.value || undefined,
        moisture: measured ? Math.round(moisture * 1e4) / 1e4 : undefined,
        leakGDayKPa: leak.value,
        mixed,
        absorberCc,
        gelG,
        wrapped,
      },
    ],
  }
}
defineExpose({ read })
</script>

<template>
  <CautionList
    ref="cautions"
    step="pack"
    :food="state.food"
    :accepted="accepted"
    :raw="isRaw(state)"
    :sulphited="isSulphited(state)"
    :stops="stops"
    :sachet="beside.absorberCc !== undefined || beside.gelG !== undefined"
    :canning-lid="packageKey === 'vacuum-jar'"
  />
  <ChoiceField
    v-if="!initial && forms.length > 1"
    v-model="form"
    label="What goes in"
    :choices="forms.map(value => ({ value, words: PURPOSE_WORDS[value] }))"
  />
  <WeightField
    :key="form"
    v-model="netG"
    label="In this jar"
    :hint="initial ? undefined : `${format.weight(left)} to pack, ${format.share(moisture)} water by its ${water.known}`"
    required
    autofocus
  />
  <ChoiceField
    v-if="!initial && ontoJars.length"
    v-model="ontoJar"
    label="Into"
    :choices="[
      { value: '', words: 'A new jar' },
      ...ontoJars.slice(0, 5).map(jar => ({
        value: jar.jarId,
        words: `Onto jar ${jar.number}`,
        note: `${format.weight(jar.leftG)}, ${format.month(jar.oldestAt)}`,
      })),
    ]"
  />
  <p v-if="onto" class="caution">
    A topped-up jar is as old as its oldest part, {{ format.month(onto.oldestAt) }}, and what comes in must be as dry as it.
  </p>
  <template v-else>
    <ChoiceField v-model="packageKey" label="Packed in" :choices="PACKAGES.map(item => ({ value: item.key, words: item.name }))" />
    <LidForm v-if="packageKey === 'other'" v-model="leak" />
    <ChoiceField v-model="sizeMl" label="Size, tapped down" :choices="choices" />
    <ChoiceField
      v-if="mayOil"
      v-model="inOil"
      label="Under oil"
      :choices="[
        { value: false, words: 'No' },
        { value: true, words: 'Yes' },
      ]"
    />
    <ChoiceField
      v-if="inOil"
      v-model="oilC"
      label="Kept"
      :choices="[
        { value: settings.pantryC, words: 'On the shelf' },
        { value: 4, words: 'In the refrigerator' },
        { value: -18, words: 'In the freezer' },
      ]"
    />
    <TextField v-model="place" label="Where it stands" />
  </template>
  <BesideForm
    ref="besideForm"
    v-model="beside"
    :state="state"
    :net-g="netG"
    :size-ml="sizeMl"
    :package-key="packageKey"
    :moisture="moisture"
  />
  <p v-if="!onto">
    <strong>Best by {{ format.month(dates.from) }} to {{ format.month(dates.to) }}.</strong>
    <span class="quiet">{{ best.reason }} ({{ best.source }})</span>
  </p>
  <p v-if="clumps || damp" class="quiet small">{{ clumps }} {{ damp }}</p>
</template>
