<script setup lang="ts">
import { formatWeight, parseWeight } from '#core/units'
import type { StockAnswer } from '#shared/contracts'

/** What there is of each food, how long that lasts at the year's pace, and what should always be there. */
const props = defineProps<{ stock: readonly StockAnswer[]; months: readonly { month: string; grams: number }[] }>()
const emit = defineEmits<{ changed: [stock: StockAnswer[]] }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const problems = ref<Record<string, string>>({})
const sorted = computed(() => [...props.stock].sort((a, b) => Number(b.low) - Number(a.low) || a.foodName.localeCompare(b.foodName)))
const most = computed(() => Math.max(1, ...props.months.map(item => item.grams)))
const yearG = computed(() => props.months.reduce((sum, item) => sum + item.grams, 0))
const monthWords = (month: string) =>
  new Intl.DateTimeFormat(settings.value.locale, { month: 'short', timeZone: 'UTC' }).format(Date.parse(`${month}-15T12:00Z`))
const lasts = (item: StockAnswer) =>
  item.monthsLeft === undefined
    ? 'nothing taken yet'
    : item.leftG <= 0
      ? 'none left'
      : item.monthsLeft > 36
        ? 'over three years'
        : `${item.monthsLeft < 10 ? item.monthsLeft.toFixed(1) : Math.round(item.monthsLeft)} months`

async function wish(item: StockAnswer, typed: string) {
  const text = typed.trim()
  const parsed = text === '' ? { value: null, problem: undefined } : parseWeight(text, settings.value.weightUnit)
  problems.value = { ...problems.value, [item.foodKey]: parsed.problem ?? '' }
  if (parsed.problem !== undefined) return
  try {
    emit('changed', await call('wish', { body: { foodKey: item.foodKey, leastG: parsed.value } }))
  } catch (error) {
    problems.value = { ...problems.value, [item.foodKey]: (error as Error).message }
  }
}
</script>

<template>
  <div class="stack">
    <section v-if="months.length" class="card" aria-label="Eaten in a year">
      <h2>{{ format.weight(yearG) }} eaten in a year</h2>
      <ol class="plain-list bars">
        <li v-for="item in months" :key="item.month">
          <span class="bar" :style="{ height: `${Math.max(2, (84 * item.grams) / most)}px` }" /><span class="small">{{
            monthWords(item.month)
          }}</span
          ><span class="visually-hidden">{{ format.weight(item.grams) }}</span>
        </li>
      </ol>
    </section>
    <section class="card scroll" aria-label="What there is">
      <table class="ruled">
        <thead>
          <tr>
            <th>Food</th>
            <th class="n">Left</th>
            <th class="n">Jars</th>
            <th class="n">Eaten in a year</th>
            <th>Lasts</th>
            <th>Keep at least</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in sorted" :key="item.foodKey">
            <td>
              <span class="dot" :style="{ background: item.colour }" />{{ item.foodName }}
              <span v-if="item.low" class="tag attention">low</span>
            </td>
            <td class="n">
              <strong>{{ format.weight(item.leftG) }}</strong>
            </td>
            <td class="n">{{ item.jars }}</td>
            <td class="n">{{ item.usedYearG > 0 ? format.weight(item.usedYearG) : '' }}</td>
            <td>{{ lasts(item) }}</td>
            <td>
              <input
                class="wish"
                :aria-label="`Keep at least of ${item.foodName}`"
                :value="item.leastG === undefined ? '' : formatWeight(item.leastG, settings.weightUnit)"
                placeholder="no wish"
                @change="event => wish(item, (event.target as HTMLInputElement).value)"
              />
              <p v-if="problems[item.foodKey]" class="problem small">{{ problems[item.foodKey] }}</p>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">Without a wish, less than two months’ use is low.</p>
    </section>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
th {
  white-space: nowrap;
}
.dot {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  border-radius: 50%;
  margin-right: 0.6rem;
  vertical-align: -1px;
}
.wish {
  width: 7.5rem;
  min-height: 44px;
  padding: 0 0.6rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
.bars {
  display: flex;
  gap: 0.5rem;
  align-items: end;
  margin-top: 0.6rem;
}
.bars li {
  display: grid;
  justify-items: center;
  align-content: end;
  gap: 0.3rem;
  flex: 1;
  max-width: 60px;
}
.bar {
  width: 100%;
  background: var(--husk);
  border-radius: 3px 3px 0 0;
}
</style>
