<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { PACKAGES, type PackageKey } from '#core/keeping'
import type { Purpose } from '#core/foods'
import type { Entry, EntryBody } from '#core/log'

/** What was bought in, or stood there before the log began, comes onto the shelf as a jar; also corrects one. */
type Stock = Extract<EntryBody, { kind: 'stock' }>
const props = defineProps<{ correcting?: Entry & { body: Stock } }>()
const emit = defineEmits<{ close: []; saved: [jarId: string] }>()
const outbox = useOutboxStore()
const before = props.correcting?.body
const foods = ref<{ key: string; name: string; other: string }[]>([])
const foodKey = ref(before?.foodKey ?? '')
const name = ref(before?.name ?? '')
const source = ref(before?.source ?? '')
const purpose = ref<Purpose>(before?.purpose ?? 'powder')
const netG = ref<number | undefined>(before?.netG)
const price = ref<number | undefined>(before?.price)
const place = ref(before?.place ?? 'Spice shelf')
const packageKey = ref<PackageKey>(before?.packageKey ?? 'screw-jar')
const bestTo = ref<Date | undefined>(before?.bestTo === undefined ? undefined : new Date(before.bestTo))
const saltPercent = ref<number | undefined>(before?.saltShare === undefined ? undefined : before.saltShare * 100)
const heatLow = ref<number | undefined>(before?.heat?.low)
const heatHigh = ref<number | undefined>(before?.heat?.high)
const at = ref<number | undefined>(props.correcting?.at)
const problem = ref('')
onMounted(async () => {
  try {
    const [kitchen, book] = await Promise.all([call('kitchen'), call('foods')])
    foods.value = [
      ...kitchen.goods.map(({ key, name: words }) => ({ key, name: words, other: 'bought in' })),
      ...book.map(food => ({ key: food.key, name: food.name, other: food.groupName.toLowerCase() })),
    ]
  } catch (error) {
    problem.value = (error as Error).message
  }
})
async function save() {
  const problems: string[] = []
  if (foodKey.value === '') problems.push('Choose what it is; “Another spice” serves for what has no name here.')
  if (netG.value === undefined) problems.push('Weigh it, without the jar.')
  if ((heatLow.value === undefined) !== (heatHigh.value === undefined)) problems.push('Give both figures of heat, or none.')
  if (problems.length > 0) return problems
  const jarId = before?.jarId ?? uuidv7()
  const body: Stock = {
    kind: 'stock',
    jarId,
    foodKey: foodKey.value,
    purpose: purpose.value,
    netG: netG.value!,
    packageKey: packageKey.value,
    place: place.value.trim() || 'Shelf',
    ...(name.value.trim() && { name: name.value.trim() }),
    ...(source.value.trim() && { source: source.value.trim() }),
    ...(price.value !== undefined && { price: price.value }),
    ...(bestTo.value && { bestTo: bestTo.value.getTime() }),
    ...(saltPercent.value !== undefined && { saltShare: saltPercent.value / 100 }),
    ...(heatLow.value !== undefined && { heat: { low: heatLow.value, high: heatHigh.value! } }),
    ...(before?.sizeMl && { sizeMl: before.sizeMl }),
    ...(before?.storageC !== undefined && { storageC: before.storageC }),
    ...(before?.moisture !== undefined && { moisture: before.moisture }),
    ...(before?.allergens && { allergens: before.allergens }),
  }
  await outbox.send(
    { jarId, entry: { id: uuidv7(), at: at.value ?? Date.now(), replaces: props.correcting?.id, body } },
    name.value || 'what was bought in',
  )
  emit('saved', jarId)
}
/** What is bought may be whole: peppercorns, seeds. */
const FORMS = PURPOSE_CHOICES.map(choice => (choice.value === 'pieces' ? { ...choice, words: 'Whole or pieces' } : choice))
</script>

<template>
  <FormFrame
    v-slot="{ atProblem }"
    :title="correcting ? 'Correct what came in' : 'Put in what was bought'"
    width="620px"
    :verb="correcting ? 'Save the correction' : 'Put it on the shelf'"
    :save="save"
    @close="emit('close')"
  >
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-if="!correcting" class="quiet">
      Spices from a shop, or jars from before the log began. They keep, blend and run low as your own do.
    </p>
    <div class="field">
      <label for="stock-food">What it is</label
      ><ElSelect id="stock-food" v-model="foodKey" filterable placeholder="Cumin, sweet paprika, onion"
        ><ElOption v-for="food in foods" :key="food.key" :value="food.key" :label="food.name"
          ><span>{{ food.name }}</span> <span class="quiet small">{{ food.other }}</span></ElOption
        ></ElSelect
      >
    </div>
    <WeightField v-model="netG" label="It weighs, without the jar" required />
    <ChoiceField v-model="purpose" label="Form" :choices="FORMS" />
    <div class="pair">
      <TextField v-model="name" label="Called (if otherwise)" /><TextField v-model="source" label="From (if known)" /><TextField
        v-model="place"
        label="Where it stands"
      /><NumberField v-model="price" label="Paid" :least="0" :decimals="2" />
    </div>
    <ChoiceField
      v-model="packageKey"
      label="In"
      :choices="PACKAGES.filter(item => item.key !== 'other').map(item => ({ value: item.key, words: item.name }))"
    />
    <div class="pair">
      <div class="field">
        <label for="stock-best">Best before, as printed <span class="quiet">(if known)</span></label
        ><ElDatePicker id="stock-best" v-model="bestTo" :automatic-dropdown="false" type="date" format="D MMM YYYY" placeholder="none" />
      </div>
      <NumberField v-model="saltPercent" label="Salt, percent" hint="of a seasoned mix" :least="0" :most="100" />
    </div>
    <div class="pair">
      <NumberField v-model="heatLow" label="Heat from, SHU" hint="where the packet says so" :least="0" :decimals="0" /><NumberField
        v-model="heatHigh"
        label="to, SHU"
        :least="0"
        :decimals="0"
      />
    </div>
    <WhenField v-model="at" :problem="atProblem" />
  </FormFrame>
</template>
