<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { TryResult } from '#core/tries'
import { HOUR } from '#core/time'

use([LineChart, GridComponent, TooltipComponent, SVGRenderer])

/** Water over the hours: the try in view with its band, the others as lines. */
const props = defineProps<{ tries: readonly { id: number; result?: TryResult }[]; at: number; startAt: number }>()
const format = useFormat()
const ink = useChartInk()
const result = computed(() => props.tries[props.at]?.result)
const DASHES = ['solid', 'dashed', 'dotted', [8, 3, 2, 3]]
const nameOf = (i: number) => (i === 0 ? 'first try' : `try ${i + 1}`)
const words = computed(() => {
  const it = result.value
  if (!it) return ''
  const { p10, p90 } = it.finishH
  return Number.isFinite(p90)
    ? `Water of the load falls to ${format.share(it.target)} in ${format.hours(p10)} to ${format.hours(p90)}.`
    : `Water of the load may never fall to ${format.share(it.target)}.`
})
const option = computed(() => {
  const it = result.value!
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const at = (i: number) => props.startAt + it.hours[i]! * HOUR
  const band = (of: 'p10' | 'p90') => it.water.map((water, i) => [at(i), 100 * water[of]])
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 46, right: props.tries.length > 1 ? 62 : 14, top: 12, bottom: 26 },
    xAxis: {
      type: 'time',
      axisLine: { lineStyle: { color: colours.rule } },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLabel: { ...label, hideOverlap: true, formatter: (when: number) => format.time(when) },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: 100,
      interval: 25,
      axisLabel: { ...label, formatter: '{value} %' },
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: [
      { type: 'line', data: band('p10'), symbol: 'none', silent: true, lineStyle: { opacity: 0 }, stack: 'band', stackStrategy: 'all' },
      {
        type: 'line',
        data: it.water.map((water, i) => [at(i), 100 * (water.p90 - water.p10)]),
        symbol: 'none',
        silent: true,
        lineStyle: { opacity: 0 },
        areaStyle: { color: colours.line, opacity: 0.18 },
        stack: 'band',
        stackStrategy: 'all',
      },
      ...props.tries.flatMap(({ result: one }, i) =>
        one
          ? [
              {
                type: 'line',
                name: nameOf(i),
                data: one.water.map((water, j) => [props.startAt + one.hours[j]! * HOUR, 100 * water.p50]),
                symbol: 'none',
                silent: true,
                lineStyle: { color: i === props.at ? colours.line : colours.text, width: i === props.at ? 2.6 : 1.4, type: DASHES[i] },
                endLabel: { show: props.tries.length > 1 && i === props.at, formatter: nameOf(i), ...label },
              },
            ]
          : [],
      ),
      {
        type: 'line',
        data: [
          [props.startAt, 100 * it.target],
          [at(it.hours.length - 1), 100 * it.target],
        ],
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.dulse, type: 'dashed', width: 1.3 },
      },
    ],
  }
})
</script>

<template>
  <div v-if="result">
    <VChart class="chart" :option="option" autoresize role="img" :aria-label="words" />
    <ChartTable
      caption="The tries beside each other"
      :head="['Try', 'Dry in', 'Trays', 'Power']"
      :rows="
        tries.flatMap(({ result: one }, i) =>
          one
            ? [
                [
                  nameOf(i),
                  Number.isFinite(one.finishH.p90) ? `${format.hours(one.finishH.p10)} to ${format.hours(one.finishH.p90)}` : 'maybe never',
                  String(one.trays),
                  one.kWh === undefined ? '–' : `${one.kWh.toFixed(1)} kWh`,
                ],
              ]
            : [],
        )
      "
    />
  </div>
</template>

<style scoped>
.chart {
  height: 200px;
}
</style>
