<script setup lang="ts">
import { optionOf, type PlannedRun, type PlanProblem } from '#core/plan'
import { DAY } from '#core/time'

/** What will stand on the shelf when these runs are done, against what is wished for. */
const props = defineProps<{
  runs: readonly PlannedRun[]
  problem: PlanProblem
  shelf: readonly { foodKey: string; purpose: string; leftG: number }[]
  colours: { [foodKey: string]: string }
  now: number
}>()
const format = useFormat()

const lines = computed(() => {
  const found = new Map<string, { key: string; title: string; colour: string; haveG: number; comesG: number; at: number }>()
  for (const run of props.runs) {
    const basket = props.problem.baskets.find(item => item.id === run.basketId)
    const option = basket && optionOf(basket, run.machineId, run.cardKey)
    if (!basket || !option) continue
    const key = `${basket.foodKey}/${basket.purpose}`
    const known = found.get(key) ?? {
      key,
      title: `${basket.title.split(',')[0]}, ${PURPOSE_WORDS[basket.purpose]}`,
      colour: props.colours[basket.foodKey] ?? '#8a8a8a',
      haveG: props.shelf.find(row => `${row.foodKey}/${row.purpose}` === key)?.leftG ?? 0,
      comesG: 0,
      at: 0,
    }
    known.comesG += option.productG
    known.at = Math.max(known.at, run.ends.p90 + option.restDays * DAY)
    found.set(key, known)
  }
  return [...found.values()].map(line => {
    const wish = props.problem.wishes.find(item => `${item.foodKey}/${item.purpose}` === line.key)
    const wanted = wish && line.haveG + wish.grams
    const most = Math.max(line.haveG + line.comesG, wanted ?? 0)
    return { ...line, wish, most }
  })
})
</script>

<template>
  <section v-if="lines.length > 0" class="card" aria-label="What will stand on the shelf">
    <h2>What will stand on the shelf</h2>
    <ul class="plain-list">
      <li v-for="line in lines" :key="line.key" class="line">
        <span class="title">{{ line.title }}</span>
        <span class="track" aria-hidden="true">
          <span class="have" :style="{ width: `${(100 * line.haveG) / line.most}%`, background: line.colour }" />
          <span class="comes" :style="{ width: `${(100 * line.comesG) / line.most}%`, '--food': line.colour }" />
        </span>
        <span
          ><strong>{{ format.weight(line.comesG) }}</strong> more by {{ format.day(line.at)
          }}<template v-if="line.wish"
            >; {{ format.weight(line.wish.grams) }} wished for by {{ format.day(line.wish.by - 1) }}</template
          ></span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 13rem minmax(6rem, 1fr) minmax(14rem, 1.2fr);
  gap: 0.8rem;
  align-items: center;
  padding: 0.35rem 0;
}
.track {
  display: flex;
  height: 16px;
  border-radius: 4px;
  overflow: hidden;
  background: var(--sunk);
}
.comes {
  background: repeating-linear-gradient(135deg, var(--food) 0 6px, color-mix(in srgb, var(--food) 55%, var(--card)) 6px 12px);
}
@media (width <= 760px) {
  .line {
    grid-template-columns: 1fr;
    gap: 0.2rem;
  }
}
</style>
