<script setup lang="ts">
import { slugOf, type CardSource, type FoodSource, type OwnCardSource } from '#core/foods'
import type { FoodPageAnswer, FoodPartsAnswer } from '#shared/contracts'

/** A food or a card of one's own, copied from the nearest one of the reference. */
const route = useRoute()
const store = useFoods()
const cardFor = typeof route.query.card === 'string' ? route.query.card : undefined
const from = typeof route.query.from === 'string' ? route.query.from : cardFor
const editing = route.query.edit === '1'
useHead({ title: `${cardFor ? 'A card' : 'A food'} of your own · Dulse` })
const problems = ref<Record<string, string>>({})
const busy = ref(false)
const parts = shallowRef<FoodPartsAnswer>({ families: [], forms: [] })
const model = shallowRef<FoodPageAnswer>()
const copied = ref(from ?? '')
const EMPTY: FoodSource = {
  key: '',
  name: '',
  family: 'root',
  water: '88 ± 1.5',
  trim: '15 ± 5',
  waits: 7,
  colour: '#B58A55',
  forms: { 'slices 6': '8 to 13' },
}
const source = ref<FoodSource>({ ...EMPTY })
const others = ref('')
const allergens = ref('')
interface FormRow {
  form: string
  hours: string
  rest: CardSource
}
const rows = ref<FormRow[]>([])
const card = ref<OwnCardSource>({ food: cardFor ?? '', form: 'slices 6', hours: '8 to 13' })
const numbers = reactive({ waits: '', heat: '', thick: '', cardHeat: '' })

try {
  parts.value = await call('foodParts')
  await store.load()
  if (from) await copyFrom(from)
  else fill(EMPTY)
} catch (error) {
  problems.value = { all: (error as Error).message }
}

async function copyFrom(key: string) {
  const { source: given } = (model.value = await store.page(key))
  fill(editing ? given : { ...given, key: '', name: '', others: [] })
  const first = Object.entries(given.forms)[0]!
  if (cardFor) card.value = { food: cardFor, form: first[0], ...(typeof first[1] === 'string' ? { hours: first[1] } : first[1]), name: '' }
}
function fill(food: FoodSource) {
  source.value = JSON.parse(JSON.stringify(food)) as FoodSource
  others.value = (food.others ?? []).join(', ')
  allergens.value = (food.allergens ?? []).join(', ')
  numbers.waits = String(food.waits)
  numbers.heat = food.heat === undefined ? '' : String(food.heat)
  rows.value = Object.entries(food.forms).map(([form, value]) => ({
    form,
    hours: typeof value === 'string' ? value : (value.hours ?? ''),
    rest: typeof value === 'string' ? {} : value,
  }))
}
watch(copied, async key => {
  if (!key || key === from) return
  try {
    await copyFrom(key)
  } catch (error) {
    problems.value = { all: (error as Error).message }
  }
})
const list = (text: string) =>
  text
    .split(',')
    .map(item => item.trim())
    .filter(Boolean)
const numberOf = (text: string) => Number(text.trim().replace(',', '.'))

async function save() {
  if (busy.value) return
  busy.value = true
  problems.value = {}
  try {
    if (cardFor) {
      const thick = numbers.thick.trim() === '' ? card.value.thick : numberOf(numbers.thick)
      const answer = await call('saveCard', {
        body: {
          ...card.value,
          name: card.value.name?.trim() || undefined,
          hours: card.value.hours?.trim() || undefined,
          thick,
          heat: numbers.cardHeat.trim() === '' ? card.value.heat : numberOf(numbers.cardHeat),
        },
      })
      await store.load(true)
      await navigateTo(`/reference/${answer.food.key}`)
      return
    }
    const food: FoodSource = {
      ...source.value,
      key: editing ? source.value.key : slugOf(source.value.name) || 'food',
      name: source.value.name.trim(),
      others: list(others.value),
      allergens: list(allergens.value).length > 0 ? list(allergens.value) : undefined,
      waits: numberOf(numbers.waits),
      heat: numbers.heat.trim() === '' ? undefined : numberOf(numbers.heat),
      forms: Object.fromEntries(
        rows.value
          .filter(row => row.form.trim() !== '')
          .map(row => [
            row.form.trim(),
            Object.keys(row.rest).length > 0 ? { ...row.rest, hours: row.hours.trim() || undefined } : row.hours.trim(),
          ]),
      ),
    }
    const answer = await call('saveFood', {
      body: { food, version: editing ? model.value?.version : undefined },
    })
    await store.load(true)
    await navigateTo(`/reference/${answer.food.key}`)
  } catch (error) {
    problems.value =
      error instanceof Refused && error.problems.length > 0
        ? Object.fromEntries(error.problems.map(problem => [problem.field.replace(/^food\./, ''), problem.message]))
        : { all: (error as Error).message }
  } finally {
    busy.value = false
  }
}
const shownAtField = computed(
  () =>
    new Set([
      'name',
      'key',
      'water',
      'trim',
      'waits',
      'colour',
      'density',
      'heat',
      'heatWhy',
      'family',
      'form',
      'hours',
      'load',
      'thick',
      ...rows.value.flatMap(row => [`forms.${row.form.trim()}`, `forms.${row.form.trim()}.hours`]),
    ]),
)
const elsewhere = computed(() =>
  Object.entries(problems.value)
    .filter(([field]) => !shownAtField.value.has(field))
    .map(([field, message]) => (field === 'all' ? message : `${field}: ${message}`)),
)
const formNames = computed(() => parts.value.forms.map(form => form.key).join(', '))
</script>

<template>
  <form class="stack own" @submit.prevent="save">
    <header class="page-head">
      <div>
        <p class="small"><NuxtLink to="/reference">Reference</NuxtLink></p>
        <h1>
          {{
            cardFor
              ? `A card of your own for ${model?.food.name.toLowerCase() ?? 'it'}`
              : editing
                ? `Change ${source.name.toLowerCase()}`
                : 'A food of your own'
          }}
        </h1>
      </div>
    </header>
    <div class="card form">
      <template v-if="cardFor">
        <div class="pair">
          <TextField
            v-model="card.name"
            label="Name"
            :problem="problems.name"
            placeholder="such as thin, for tea"
            hint="empty: the form’s own"
            optional
          />
          <TextField
            v-model="card.form"
            label="Form"
            :problem="problems.form"
            :hint="`one of: ${formNames}; with a number where it is measured`"
          />
        </div>
        <div class="pair">
          <TextField
            v-model="card.hours"
            label="Hours in a dehydrator"
            :problem="problems.hours"
            hint="8 of 10 of your runs, such as 8 to 13"
          />
          <TextField v-model="numbers.thick" label="Thickness, mm" :problem="problems.thick" optional />
          <TextField v-model="numbers.cardHeat" label="Heat, °C" :problem="problems.heat" optional />
          <TextField v-model="card.load" label="On a square metre, kg" :problem="problems.load" placeholder="4 ± 0.6" optional />
        </div>
        <TextField v-model="card.heatWhy" label="Reason" :problem="problems.heatWhy" hint="for the next time, and for others" optional />
      </template>
      <template v-else>
        <div v-if="!editing" class="field">
          <label for="copied">Copied from</label>
          <ElSelect id="copied" v-model="copied" filterable placeholder="nothing: begin empty" aria-label="Copied from"
            ><ElOption v-for="item in store.list" :key="item.key" :value="item.key" :label="item.name"
          /></ElSelect>
        </div>
        <div class="pair">
          <TextField v-model="source.name" label="Name" :problem="problems.name ?? problems.key" />
          <TextField v-model="others" label="Other names" hint="with commas between" optional />
        </div>
        <div class="field">
          <label for="family">Family</label>
          <ElSelect id="family" v-model="source.family" aria-label="Family"
            ><ElOption v-for="item in parts.families" :key="item.key" :value="item.key" :label="item.name"
          /></ElSelect>
          <p :class="problems.family ? 'problem' : 'quiet small'">
            {{ problems.family ?? 'Ways of drying, keeping, cautions and how it holds water follow from it.' }}
          </p>
        </div>
        <div class="pair">
          <TextField v-model="source.water" label="Water, %" :problem="problems.water" hint="mean ± spread, of the raw edible part" />
          <TextField v-model="source.trim" label="Trimmed off, %" :problem="problems.trim" hint="of the basket" />
          <TextField v-model="numbers.waits" label="Waits in the cold, days" :problem="problems.waits" />
        </div>
        <div class="pair">
          <TextField v-model="numbers.heat" label="Heat, °C" :problem="problems.heat" hint="empty: its family’s" optional />
          <TextField v-model="source.density" label="Powder, g/mL" :problem="problems.density" placeholder="0.5 ± 0.1" optional />
          <div class="field">
            <label for="colour">Colour of the powder</label><input id="colour" v-model="source.colour" type="color" class="colour" />
            <p v-if="problems.colour" class="problem">{{ problems.colour }}</p>
          </div>
        </div>
        <fieldset class="forms">
          <legend>Forms and their hours in a dehydrator</legend>
          <div v-for="(row, i) in rows" :key="i" class="pair">
            <TextField v-model="row.form" :label="`Form ${i + 1}`" :problem="problems[`forms.${row.form.trim()}`]" />
            <TextField v-model="row.hours" label="Hours" :problem="problems[`forms.${row.form.trim()}.hours`]" />
          </div>
          <p class="quiet small">A form is one of: {{ formNames }}. With a number where it is measured, such as slices 6.</p>
          <ElButton @click="rows.push({ form: '', hours: '8 to 13', rest: {} })">Another form</ElButton>
        </fieldset>
        <TextField v-model="allergens" label="Allergens" hint="carried on every label" optional />
      </template>
      <div role="alert">
        <p v-for="problem in elsewhere" :key="problem" class="problem">{{ problem }}</p>
      </div>
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="busy">Save</ElButton
        ><ElButton @click="navigateTo(from ? `/reference/${from}` : '/reference')">Cancel</ElButton>
      </div>
    </div>
  </form>
</template>

<style scoped>
.own {
  max-width: 860px;
}
.forms {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 0.7rem;
}
.forms legend {
  font-weight: 650;
  margin-bottom: 0.5rem;
}
.forms .el-button {
  justify-self: start;
}
.colour {
  width: 100%;
  height: 46px;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  padding: 4px;
}
</style>
