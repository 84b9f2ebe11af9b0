<script setup lang="ts">
import type { LikeBasket } from '~/components/intake/SameAgain.vue'
import type { Sent } from '~/data/parcel'
import type { TakenPicture } from '~/composables/usePictures'
import { uuidv7 } from 'uuidv7'
import { cardOf, mixedFood, wayOf, type Food, type Purpose, type Spread } from '#core/foods'
import { foodSearch } from '#core/foods/search'
import { cutFactor, hoursOf } from '#core/hours'
import { machinesByUse, nearestHeat } from '#core/planning'
import { cautionsAt } from '#core/safety'
import type { TryKnobs } from '#core/tries'
import type { FoodPageAnswer, NewBatch } from '#shared/contracts'

const format = useFormat()
const outbox = useOutboxStore()
const { now } = useClock()

useHead({ title: 'A basket came in · Dulse' })

const route = useRoute()
const problems = ref<Record<string, string>>({})
const foods = useFoods()
void foods.load()
const foodKey = ref(typeof route.query.food === 'string' ? route.query.food : '')
const foodPage = shallowRef<FoodPageAnswer>()
const food = computed<Food | undefined>(() => foodPage.value?.food)
/** The page of the chosen food, on its way: whoever is quicker than the server waits for it. */
let arriving = Promise.resolve()
async function fetchFood(key: string) {
  foodPage.value = undefined
  if (!key) return
  try {
    const page = await foods.page(key)
    if (key === foodKey.value) foodPage.value = page
  } catch (error) {
    if (key === foodKey.value)
      problems.value = {
        foodKey: error instanceof OutOfTouch ? 'The foods are kept by the server, and it is out of touch.' : (error as Error).message,
      }
  }
}
watch(
  foodKey,
  key => {
    arriving = fetchFood(key)
  },
  { immediate: true },
)
const search = computed(() => foodSearch(foods.list))
const looked = ref('')
/** A list of all is slow to open, and nobody reads it: the first of the alphabet, and what was typed. */
const SHOWN = 40
const options = computed(() => search.value(looked.value).slice(0, SHOWN))
const more = computed(() => (looked.value === '' ? Math.max(0, foods.list.length - SHOWN) : 0))
/** What was typed last, while the list was open. */
const lastLooked = ref('')
watch(looked, words => {
  if (words) lastLooked.value = words
})
/** The list opens or closes: what was typed and not chosen is no food yet, and says so. */
function pickerTurned(open: boolean) {
  if (open) lastLooked.value = ''
  else if (lastLooked.value && !foodKey.value)
    problems.value = { ...problems.value, foodKey: `“${lastLooked.value}” is not chosen yet: take one of the list.` }
  looked.value = ''
}
/** A food that is being added, by the name it is to have. */
const adding = ref<{ name: string }>()
function addOwn(name: string) {
  adding.value = { name: name.trim() }
  ;(document.activeElement as HTMLElement | null)?.blur()
}
async function ownAdded(key: string) {
  adding.value = undefined
  await foods.load(true)
  foodKey.value = key
}
const plant = ref('')
const count = ref<number>()
const price = ref<number>()
const cultivar = ref('')
const source = ref('Own garden')
const weightG = ref<number>()
/** Doubt of what was counted or filled into pots. */
const weightSdG = ref<number>()
/** Other kinds in the basket; cut otherwise than the rest they become batches of their own. */
interface Part {
  id: number
  foodKey: string
  weightG?: number
  sdG?: number
  cardKey: string
}
const parts = ref<Part[]>([])
let partsMade = 0
function addPart() {
  parts.value.push({ id: ++partsMade, foodKey: '', cardKey: '' })
}
const partFoods = shallowRef<Record<string, Food>>({})
watch(
  () => parts.value.map(part => part.foodKey).filter(key => key && !partFoods.value[key]),
  async keys => {
    for (const key of keys) {
      const page = await foods.page(key).catch(() => undefined)
      if (page) partFoods.value = { ...partFoods.value, [key]: page.food }
    }
  },
)
function measuresOf(key: string): { each?: Spread; litre?: Spread; names?: readonly string[] } | undefined {
  const of = partFoods.value[key]
  return of && { each: of.each?.value, litre: of.litre?.value, names: [of.name, ...of.otherNames, ...of.foundBy] }
}
const complete = computed(() => parts.value.filter((part): part is Part & { weightG: number } => Boolean(part.foodKey && part.weightG)))
const together = computed(() => complete.value.filter(part => part.cardKey === '' || part.cardKey === cardKey.value))
const apart = computed(() => complete.value.filter(part => !together.value.includes(part)))
const mixOf = (list: readonly (Part & { weightG: number })[]) => {
  const sums = new Map<string, number>()
  for (const part of list) sums.set(part.foodKey, (sums.get(part.foodKey) ?? 0) + part.weightG)
  return [...sums].map(([key, grams]) => ({ foodKey: key, weightG: grams }))
}
/** The first food of a basket, of which some is cut otherwise. */
const totalOf = (own: number, list: readonly (Part & { weightG: number })[]) => own + list.reduce((sum, part) => sum + part.weightG, 0)
const sdOf = (...sds: (number | undefined)[]) => {
  const sd = Math.hypot(...sds.map(value => value ?? 0))
  return sd > 0 ? Math.round(10 * sd) / 10 : undefined
}
const doubtG = computed(() => sdOf(weightSdG.value, ...together.value.map(part => part.sdG)))
const mixed = computed(() =>
  food.value && weightG.value && together.value.length > 0
    ? mixedFood(food.value, totalOf(weightG.value, together.value), mixOf(together.value), key => partFoods.value[key])
    : undefined,
)
/** All that is in the basket, whatever becomes of it: its cautions are read together. */
const inBasket = computed(() =>
  food.value && weightG.value && complete.value.length > 0
    ? mixedFood(food.value, totalOf(weightG.value, complete.value), mixOf(complete.value), key => partFoods.value[key])
    : undefined,
)
/** What was on the scale, of a food that is cooked before it is dried. */
const weighed = ref<'uncooked' | 'cooked'>('uncooked')
const purpose = ref<Purpose>('powder')
const cardKey = ref('')
const condition = ref('')
const at = ref<number>()
const { answer: machineList, problem: noMachines, ready: machinesReady } = useServer('machines')
const machines = computed(() => machineList.value ?? [])
const machineId = ref('')
const busy = ref(false)
const checkFields = useFieldChecks()
const SOURCES = ['Own garden', 'Market', 'Neighbour', 'Leftovers', 'Freezer']

/** An earlier basket that this one is like; what is changed by hand stays changed. */
const like = typeof route.query.like === 'string' ? route.query.like : undefined
const wanted = ref<LikeBasket>()
function asBefore(basket: LikeBasket) {
  wanted.value = basket
  foodKey.value = basket.foodKey
  purpose.value = basket.purpose
  cultivar.value = basket.cultivar ?? ''
  source.value = basket.source
}
watch(
  food,
  next => {
    const before = next?.cards.find(item => next.key === wanted.value?.foodKey && item.key === wanted.value.cardKey)
    cardKey.value = (before ?? next?.cards[0])?.key ?? ''
    if (before) chooseMachine()
  },
  { immediate: true },
)

const card = computed(() => food.value && cardOf(food.value, cardKey.value))
const machine = computed(() => machines.value.find(item => item.id === machineId.value))

onMounted(async () => {
  await machinesReady()
  // The largest is what a basket is meant for.
  chooseMachine()
})

// A word about a field goes when the field changes.
for (const [field, value] of Object.entries({ foodKey, weightG, source, at })) {
  watch(value, () => {
    problems.value = Object.fromEntries(Object.entries(problems.value).filter(([other]) => other !== field))
  })
}

/** What the household uses most of what dries this cut in its usual way. */
function chooseMachine() {
  const before = machines.value.find(item => foodKey.value === wanted.value?.foodKey && item.id === wanted.value.machineId)
  if (before) return void (machineId.value = before.id)
  machineId.value = machinesByUse(machines.value, card.value?.ways ?? [])[0]?.id ?? ''
}
watch(
  () => card.value?.ways[0]?.way,
  (usual, before) => {
    if (usual && usual !== before && machine.value && !card.value!.ways.some(way => way.way === machine.value!.kind)) chooseMachine()
    else if (usual && before === undefined) chooseMachine()
  },
)
/** The basket as it is typed, once the hand rests. */
const question = refDebounced(
  computed(() =>
    foodKey.value && cardKey.value && weightG.value && machineId.value
      ? {
          query: {
            foodKey: foodKey.value,
            cardKey: cardKey.value,
            purpose: purpose.value,
            weightG: totalOf(weightG.value, together.value),
            machineId: machineId.value,
            ...(food.value?.uncooked && { weighed: weighed.value }),
            ...(doubtG.value && { weightSdG: doubtG.value }),
            ...(mixed.value && {
              mix: mixOf(together.value)
                .map(part => `${part.foodKey}:${part.weightG.toFixed(1)}`)
                .join(','),
            }),
          },
        }
      : undefined,
  ),
  150,
)
const { answer: lastForecast, problem: noForecast } = useServer('forecast', () => question.value)
const forecast = computed(() => (question.value ? lastForecast.value : undefined))
const forecastProblem = computed(() =>
  noForecast.value || noMachines.value ? 'The forecast needs the server. The basket can be logged all the same.' : '',
)

const cautions = computed(() => (food.value ? cautionsAt('intake', inBasket.value ?? food.value) : undefined))
/** The basket as it may be tried before a knife is lifted. */
const { settings } = storeToRefs(useHouseholdStore())
const tryLoad = computed(() =>
  basketToTry(
    {
      food: mixed.value ?? food.value,
      card: card.value,
      purpose: purpose.value,
      weightG: weightG.value,
      weighed: food.value?.uncooked && weighed.value,
      forecast: forecast.value,
      machines: machines.value,
      machineId: machineId.value,
      hours: ownHours.value,
      now: now.value,
    },
    settings.value,
  ),
)
const takenTries = useTakenTries()
const triedKnobs = shallowRef<TryKnobs>()
function takeTry(knobs: TryKnobs) {
  triedKnobs.value = knobs
  machineId.value = knobs.machineId
  cardKey.value = knobs.cardKey
}
/** Pictures of the basket. */
const taken = ref<TakenPicture[]>([])
const readCares = ref<string[]>([])
function take(row: { machineId: string; cardKey: string }) {
  machineId.value = row.machineId
  cardKey.value = row.cardKey
}
const { answer: ownHours } = useServer('foodHours', () => (foodKey.value ? { params: { foodKey: foodKey.value } } : undefined))
/** Hours of a cut in the machine that is meant. */
function hoursNote(item: Food['cards'][number]): string {
  const own = ownHours.value?.machines.find(({ machineId: id }) => id === machineId.value)?.cards[item.key]
  if (!food.value) return ''
  const cut = { food: food.value, card: item, purpose: purpose.value }
  const kind = machine.value?.kind
  const { way, temperatureC } = wayOf(item, kind)
  const factor = cutFactor(cut, way)
  const { low, high } = hoursOf({
    ...cut,
    way: kind,
    // What own runs teach of a cut is told for pieces.
    learned: own && { low: factor * own.low, high: factor * own.high },
    setC: machine.value && nearestHeat(temperatureC, machine.value),
  })
  return high > 72 ? `${Math.round(low / 24)} to ${Math.round(high / 24)} days` : `${Math.round(low)} to ${Math.round(high)} h`
}
async function accept() {
  if (busy.value) return
  busy.value = true
  try {
    await arriving
    await takeIn()
  } finally {
    busy.value = false
  }
}
async function takeIn() {
  // A food that was chosen and did not arrive has said so already.
  const lost = foodKey.value && !food.value ? problems.value.foodKey : undefined
  problems.value = {}
  const bad = checkFields()
  if (!food.value) problems.value.foodKey = lost ?? 'Choose the food.'
  if (bad ?? weightG.value === undefined) problems.value.weightG = bad ?? 'A weight is needed, such as 850, 1.2 kg or 3 lb 4 oz.'
  if (cautions.value?.cares.some(rule => !readCares.value.includes(rule.key)))
    problems.value.cautions = 'Read the caution and tick that you have.'
  if (parts.value.some(part => !part.foodKey || !part.weightG))
    problems.value.mix = 'Give food and weight of every kind in the basket, or take it out.'
  // Without it nobody knows what it warns of.
  const unknown = parts.value.some(part => part.foodKey && !partFoods.value[part.foodKey])
  if (unknown)
    problems.value.mix = 'A food of this basket has not arrived from the server yet: try again, or begin it as a basket of its own.'
  const named = [foodKey.value, ...together.value.map(part => part.foodKey)]
  if (new Set(named).size < named.length) problems.value.mix = 'A kind is named twice in the basket: put its weights together.'
  if (source.value.trim() === '') problems.value.source = 'Say where it came from.'
  if (Object.keys(problems.value).length > 0) return
  const id = uuidv7()
  const body: NewBatch = {
    id,
    entry: {
      id: uuidv7(),
      at: at.value ?? Date.now(),
      body: {
        kind: 'intake',
        foodKey: foodKey.value,
        cultivar: cultivar.value.trim() || undefined,
        source: source.value.trim(),
        weightG: totalOf(weightG.value!, together.value),
        weightSdG: doubtG.value,
        ...(together.value.length > 0 && { mix: mixOf(together.value) }),
        condition: condition.value.trim() || undefined,
        purpose: purpose.value,
        cardKey: cardKey.value,
        weighed: food.value!.uncooked && weighed.value,
        machineId: machineId.value || undefined,
        plant: plant.value.trim() || undefined,
        count: count.value,
        price: price.value,
      },
    },
  }
  try {
    const accepted = (cautions.value?.cares ?? []).map((rule): Sent => ({
      batchId: id,
      entry: { id: uuidv7(), at: body.entry.at, body: { kind: 'caution', rule: rule.key } },
    }))
    const pictures = pictureBodies(taken.value, body.entry.id).map((picture): Sent => ({
      batchId: id,
      entry: { id: uuidv7(), at: body.entry.at, body: picture },
    }))
    const items = [{ begin: body }, ...accepted, ...pictures, ...batchesApart(body)]
    if (triedKnobs.value) takenTries.take(id, triedKnobs.value)
    const sent = await outbox.sendTogether(items, `${food.value!.name} that came in`, id, taken.value.map(plainFile))
    await navigateTo(sent === 'arrived' ? `/batches/${id}` : '/')
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    for (const problem of error.problems) problems.value[problem.field.split('.').at(-1)!] = problem.message
    if (error.problems.length === 0) problems.value.all = error.message
  }
}
/** What is cut otherwise than the rest, a batch for each cut: the kinds that share it together. */
function batchesApart({ entry }: NewBatch): Sent[] {
  const cuts = new Map<string, (Part & { weightG: number })[]>()
  for (const part of apart.value) cuts.set(part.cardKey, [...(cuts.get(part.cardKey) ?? []), part])
  return [...cuts].map(([cut, list]): Sent => {
    const first = list[0]!
    const rest = mixOf(list.filter(part => part.foodKey !== first.foodKey))
    const sameCard = partFoods.value[first.foodKey]?.cards.some(item => item.key === cut)
    const base = entry.body as Extract<NewBatch['entry']['body'], { kind: 'intake' }>
    return {
      begin: {
        id: uuidv7(),
        entry: {
          id: uuidv7(),
          at: entry.at,
          body: {
            ...base,
            foodKey: first.foodKey,
            cardKey: sameCard ? cut : partFoods.value[first.foodKey]!.cards[0]!.key,
            weightG: totalOf(0, list),
            weightSdG: sdOf(...list.map(part => part.sdG)),
            mix: rest.length > 0 ? rest : undefined,
            count: undefined,
            cultivar: undefined,
            price: undefined,
          },
        },
      },
    }
  })
}
const otherProblems = computed(() =>
  Object.entries(problems.value)
    .filter(([field]) => !['foodKey', 'weightG', 'source', 'at'].includes(field))
    .map(([, message]) => message),
)
</script>

<template>
  <form class="intake" @submit.prevent="accept">
    <section class="stack">
      <header><h1>A basket came in</h1></header>
      <SameAgain v-if="like" :batch-id="like" @begin="asBefore" />
      <div class="card form">
        <div class="pair">
          <div class="field">
            <label for="food">Food</label>
            <ElSelect
              id="food"
              v-model="foodKey"
              filterable
              default-first-option
              :filter-method="(words: string) => (looked = words)"
              placeholder="Choose"
              aria-label="Food"
              @visible-change="pickerTurned"
            >
              <ElOption v-for="item in options" :key="item.key" :value="item.key" :label="item.name" />
              <ElOption v-if="food && !options.some(item => item.key === foodKey)" :value="food.key" :label="food.name" />
              <ElOption v-if="more" value="" disabled :label="`and ${more} more: type a name`" />
              <template #empty>
                <div class="nothing">
                  <p>Nothing is called “{{ looked }}” here.</p>
                  <ElButton type="primary" @mousedown.prevent @click="addOwn(looked)">Add it as your own</ElButton>
                </div>
              </template>
            </ElSelect>
            <p v-if="problems.foodKey" class="problem">{{ problems.foodKey }}</p>
            <button v-if="!food && !adding" type="button" class="word-button" @click="addOwn(lastLooked)">
              Not in the list? Add it as your own
            </button>
          </div>
          <TextField v-model="cultivar" label="Kind" optional />
        </div>
        <LazyOwnFoodHere v-if="adding" :name="adding.name" @leave="adding = undefined" @added="ownAdded" />
        <WeightField
          v-model="weightG"
          :label="parts.length ? `Weight of the ${food?.name.toLowerCase() ?? 'first'}` : 'Weight'"
          required
          :problem="problems.weightG"
          :each="food?.each?.value"
          :litre="food?.litre?.value"
          :names="food && [food.name, ...food.otherNames, ...food.foundBy, cultivar]"
          :hint="food?.each ? 'untrimmed, as it came; a count or a volume does too' : 'untrimmed, as it came'"
          @doubt="sdG => (weightSdG = sdG)"
          @count="number => (count = number ?? count)"
        />
        <div v-for="(part, i) in parts" :key="part.id" class="pair part">
          <div class="field">
            <label :for="`part-${part.id}`">And with it</label>
            <ElSelect
              :id="`part-${part.id}`"
              v-model="part.foodKey"
              filterable
              default-first-option
              :filter-method="(words: string) => (looked = words)"
              placeholder="Choose"
              :aria-label="`Food ${i + 2} in the basket`"
              @visible-change="looked = ''"
            >
              <ElOption v-for="item in options" :key="item.key" :value="item.key" :label="item.name" />
              <ElOption
                v-if="part.foodKey && !options.some(item => item.key === part.foodKey)"
                :value="part.foodKey"
                :label="foods.list.find(item => item.key === part.foodKey)?.name ?? part.foodKey"
              />
            </ElSelect>
            <button type="button" class="word-button" @click="parts.splice(i, 1)">Not in the basket</button>
          </div>
          <WeightField
            :key="part.id"
            v-model="part.weightG"
            label="Weight"
            required
            v-bind="measuresOf(part.foodKey)"
            @doubt="sdG => (part.sdG = sdG)"
          />
          <ChoiceField
            v-if="food && food.cards.length > 1"
            v-model="part.cardKey"
            class="wide"
            label="Cut"
            :choices="[{ value: '', words: 'Like the rest' }, ...food.cards.map(item => ({ value: item.key, words: item.name }))]"
          />
        </div>
        <button v-if="food && parts.length < 11" type="button" class="word-button" @click="addPart">
          {{ parts.length ? 'Another kind in the same basket' : 'Several kinds in one basket' }}
        </button>
        <p v-if="mixed" class="quiet small">
          One batch of {{ mixed.name.toLowerCase() }}: gloves, cautions and allergens are those of whatever is in it{{
            mixed.heatUnits ? ', heat that of the hottest' : ''
          }}. {{ apart.length ? 'What is cut otherwise becomes a batch of its own.' : '' }}
        </p>
        <ChoiceField
          v-if="food?.uncooked"
          v-model="weighed"
          label="On the scale it was"
          :choices="[
            { value: 'uncooked', words: 'Uncooked', note: `${format.share(food.uncooked.value.mean)} water` },
            { value: 'cooked', words: 'Cooked', note: `${format.share(food.rawMoisture.value.mean)} water` },
          ]"
        />
        <ChoiceField v-model="purpose" label="For" :choices="PURPOSE_CHOICES" />
        <ChoiceField
          v-if="food"
          v-model="cardKey"
          label="Cut"
          :choices="food.cards.map(card => ({ value: card.key, words: card.name, note: hoursNote(card) }))"
        />
        <TextField v-model="source" label="Where from" :problem="problems.source" />
        <div class="row quick">
          <button v-for="item in SOURCES" :key="item" type="button" class="chip" :class="{ on: source === item }" @click="source = item">
            {{ item }}
          </button>
        </div>
        <details class="more">
          <summary>Condition, plant, count, price</summary>
          <div class="pair">
            <TextField v-model="condition" label="Condition" placeholder="such as a few soft ones" optional />
            <TextField v-model="plant" label="Plant or row" hint="its pickings add up over the season" optional />
            <NumberField v-model="count" label="How many" :least="1" :most="100000" :decimals="0" />
            <NumberField v-model="price" label="Paid" :least="0" :decimals="2" />
          </div>
        </details>
        <p v-for="caution in cautions?.notes" :key="caution.text" class="caution">{{ caution.text }}</p>
        <div v-for="rule in cautions?.cares" :key="rule.key" class="caution care">
          <div>
            <p>{{ rule.text }}</p>
            <ElCheckbox
              :model-value="readCares.includes(rule.key)"
              size="large"
              @update:model-value="on => (readCares = on ? [...readCares, rule.key] : readCares.filter(key => key !== rule.key))"
              >I have read this</ElCheckbox
            >
          </div>
        </div>
        <PictureField v-model="taken" shows="food" />
        <WhenField v-model="at" :problem="problems.at" />
        <div role="alert">
          <p v-for="message in otherProblems" :key="message" class="problem">{{ message }}</p>
        </div>
        <div class="row save-bar">
          <ElButton type="primary" native-type="submit" :loading="busy">Take it in</ElButton
          ><ElButton @click="navigateTo('/batches')">Cancel</ElButton>
        </div>
      </div>
      <LazyReviewsCard v-if="foodPage?.reviews.length" :reviews="foodPage.reviews" />
      <LazyTryIt
        v-if="food"
        :load="tryLoad"
        :machine-id="machineId"
        :card-key="cardKey"
        :start-at="now"
        take-words="Load it so, when it is in"
        @take="takeTry"
      />
      <p v-if="triedKnobs" class="quiet" role="status">Taken over: loading begins with this try.</p>
      <WaysCard v-if="food && question" :question="question.query" :now="now" @choose="take" />
      <BoughtInCard
        v-if="food"
        :key="food.key"
        :food-key="food.key"
        :purpose="purpose"
        :minutes-kg="food.handsMinutesKg.value"
        :price="price"
        :weight-g="weightG"
      />
    </section>
    <ForecastCard
      v-model:machine-id="machineId"
      :forecast="forecast"
      :food="mixed ?? food"
      :card="card"
      :purpose="purpose"
      :machines="machines"
      :problem="forecastProblem"
      :now="now"
    />
  </form>
</template>

<style scoped>
.intake {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(300px, 1fr);
  gap: 1.2rem;
  align-items: start;
}
.quick {
  gap: 0.35rem;
  margin-top: -0.4rem;
}
.word-button {
  justify-self: start;
}
.part {
  align-items: start;
}
.part .wide {
  grid-column: 1 / -1;
}
.nothing {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  padding: 0.8rem 1rem;
}
.more summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
  color: var(--quiet);
  font-weight: 650;
}
.more .pair {
  margin-top: 0.4rem;
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
}
@media (width <= 900px) {
  .intake {
    grid-template-columns: minmax(0, 1fr);
  }
  .forecast {
    position: static;
  }
  .chip {
    min-height: 44px;
  }
}
</style>
