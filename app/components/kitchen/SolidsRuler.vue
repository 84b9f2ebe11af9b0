<script setup lang="ts">
import { PRODUCTS, type WaterPlan } from '#core/using'

/** Solids from broth to paste, wet at the left as everywhere: where this mixture stands, and where each school lands. */
const props = defineProps<{ plan: Pick<WaterPlan, 'solids' | 'schools'> }>()
const format = useFormat()
const solidsOf = computed(() => props.plan.solids)
const [LOW, HIGH] = [0.02, 0.45]
/** Solids on a scale of ratios: half the water is as far everywhere. */
const x = (solids: number) => (100 * Math.log(Math.min(HIGH, Math.max(LOW, solids)) / LOW)) / Math.log(HIGH / LOW)
const BANDS = ['broth', 'juice', 'sauce', 'puree', 'paste'].map(key => PRODUCTS.find(product => product.key === key)!)
const COLOURS: Record<string, string> = {
  broth: 'var(--brine)',
  juice: 'var(--sea-glass)',
  sauce: 'var(--straw)',
  puree: 'var(--ochre)',
  paste: 'var(--husk)',
}
/** Sauce and purée overlap: each begins a new band where it begins. */
const bands = computed(() =>
  BANDS.map((product, i) => ({ ...product, from: i === 3 ? BANDS[2]!.solids.high : product.solids.low, to: product.solids.high })),
)
/** What lies between two of them has no name of its own. */
const gaps = computed(() =>
  bands.value
    .slice(1)
    .map((band, i) => ({
      from: bands.value[i]!.to,
      to: band.from,
      words: `between ${bands.value[i]!.name.toLowerCase()} and ${band.name.toLowerCase()}`,
    }))
    .filter(gap => gap.to > gap.from + 1e-6),
)
const TICKS = [0.02, 0.05, 0.1, 0.2, 0.4]
</script>

<template>
  <div class="ruler">
    <div class="scale" role="img" :aria-label="`${format.share(solidsOf)} solids`">
      <span
        v-for="band in bands"
        :key="band.key"
        class="band"
        :style="{ left: `${x(band.from)}%`, width: `${x(band.to) - x(band.from)}%`, background: COLOURS[band.key] }"
        ><span class="name">{{ band.name }}</span></span
      >
      <span
        v-for="gap in gaps"
        :key="gap.words"
        class="band gap"
        :style="{ left: `${x(gap.from)}%`, width: `${x(gap.to) - x(gap.from)}%` }"
        :title="gap.words"
      />
      <span class="here" :style="{ left: `${x(solidsOf)}%` }"
        ><strong>{{ format.share(solidsOf) }}</strong></span
      >
      <span v-for="tick in TICKS" :key="tick" class="tick" :style="{ left: `${x(tick)}%` }"
        >{{ Math.round(tick * 100) }}{{ tick === LOW ? ' % solids' : ' %' }}</span
      >
    </div>
    <p v-for="gap in gaps" :key="gap.words" class="small quiet gap-words">
      Hatched: {{ gap.words }}, {{ format.range({ p10: gap.from, p50: gap.from, p90: gap.to }, format.share) }} solids, which has no name of
      its own.
    </p>
    <table v-if="props.plan.schools.length" class="schools">
      <thead>
        <tr>
          <th>By the cup, as people say it</th>
          <th>Where it lands with this powder</th>
          <th class="visually-hidden">On the scale</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in props.plan.schools" :key="item.school.key">
          <td>{{ item.school.words }}</td>
          <td>
            <strong>{{ format.range(item.solids, format.share) }}</strong> solids{{
              item.makes ? `: ${item.makes.name.toLowerCase()}` : item.solids.p50 < 0.02 ? ': thinner than broth' : ''
            }}
          </td>
          <td class="line">
            <span
              class="span"
              :style="{ left: `${x(item.solids.p10)}%`, width: `${Math.max(1.5, x(item.solids.p90) - x(item.solids.p10))}%` }"
            /><span class="goal" :style="{ left: `${x(solidsOf)}%` }" />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.ruler {
  display: grid;
  gap: 0.9rem;
}
.scale {
  position: relative;
  height: 62px;
  margin: 1.6rem 0.4rem 0;
}
.band {
  position: absolute;
  top: 0;
  height: 34px;
  border-right: 2px solid var(--card);
  display: grid;
  align-items: center;
  overflow: hidden;
}
.gap {
  background: repeating-linear-gradient(-45deg, var(--sunk) 0 4px, var(--rule) 4px 6px);
  border-right-color: transparent;
}
.gap-words {
  margin: 0;
}
.band:first-child {
  border-radius: 6px 0 0 6px;
}
.name {
  font-size: 0.82rem;
  font-weight: 650;
  padding-left: 0.45rem;
  color: #14100d;
  white-space: nowrap;
}
.band:first-child .name,
.band:nth-child(5) .name {
  color: var(--on-husk);
}
.here {
  position: absolute;
  top: -1.5rem;
  translate: -50% 0;
  display: grid;
  justify-items: center;
}
.here::after {
  content: '';
  width: 3px;
  height: 44px;
  background: var(--ink);
  border-radius: 2px;
}
.tick {
  position: absolute;
  top: 42px;
  font-size: 0.82rem;
  color: var(--quiet);
  white-space: nowrap;
}
.schools {
  border-collapse: collapse;
  width: 100%;
}
.schools th {
  text-align: left;
  color: var(--quiet);
  font: 650 0.9rem var(--text);
}
.schools td,
.schools th {
  padding: 0.45rem 0.8rem 0.45rem 0;
  border-bottom: 1px solid var(--rule);
}
.line {
  position: relative;
  width: 34%;
  min-width: 90px;
}
.span {
  position: absolute;
  top: 50%;
  height: 8px;
  translate: 0 -50%;
  background: var(--ochre);
  border-radius: 4px;
}
.goal {
  position: absolute;
  top: 25%;
  height: 50%;
  width: 2px;
  background: var(--ink);
}
@media (width <= 760px) {
  .line {
    display: none;
  }
  .name {
    font-size: 0.7rem;
    padding-left: 0.2rem;
  }
}
</style>
