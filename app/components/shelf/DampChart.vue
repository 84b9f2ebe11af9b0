<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { DAMP_LIMITS, type Damp, type Strength } from '#core/keeping'
import { DAY } from '#core/time'

use([LineChart, GridComponent, MarkLineComponent, SVGRenderer])

/** The air inside a jar over its months since it was last filled, with what clumps and what moulds, and how strong its oldest part still is. */
const props = defineProps<{ damp: Damp; strength: Strength; filledAt: number; oldestAt: number; now: number }>()
const ink = useChartInk()
const MONTH = 30.44
const today = computed(() => (props.now - props.filledAt) / DAY / MONTH)
const months = computed(() => Math.round(props.damp.curve.at(-1)!.day / MONTH))
/** Share of the fresh strength at a month since the filling; what was older then began lower. */
function strengthAt(month: number, halfLife: number): [number, number] {
  const age = month + (props.filledAt - props.oldestAt) / DAY / MONTH
  return [month, 100 * 2 ** (-age / halfLife)]
}
const faded = (halfLife: number) => Array.from({ length: 25 }, (_, i) => strengthAt((i * months.value) / 24, halfLife))
/** The curve at some month since the filling. */
const humidityAt = (month: number) =>
  props.damp.curve.reduce((best, point) => (Math.abs(point.day / MONTH - month) < Math.abs(best.day / MONTH - month) ? point : best))
    .activity
const percent = (share: number) => `${Math.round(share)}\u00A0%`
const rows = computed(() => {
  const { p10, p50, p90 } = props.strength.halfLife
  return Array.from({ length: Math.min(13, months.value + 1) }, (_, i) => Math.round((i * months.value) / Math.min(12, months.value))).map(
    month => [
      String(month),
      percent(100 * humidityAt(month)),
      `${percent(strengthAt(month, p50)[1])}, ${percent(strengthAt(month, p10)[1])} to ${percent(strengthAt(month, p90)[1])}`,
    ],
  )
})
const words = computed(() => {
  const [first, last] = [rows.value[0]!, rows.value.at(-1)!]
  return `The air in the jar goes from ${first[1]} humidity to ${last[1]} in ${last[0]} months; its strength from ${first[2]} to ${last[2]}. It is month ${Math.max(0, Math.round(today.value))} now.`
})
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const line = (value: number, words: string, colour: string) => ({
    yAxis: value * 100,
    lineStyle: { color: colour, type: 'dashed', width: 1.4 },
    label: { ...CHART_WORDS, color: colour, formatter: words, position: 'insideStartTop' },
  })
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 44, right: 74, top: 30, bottom: 30 },
    xAxis: {
      type: 'value',
      min: 0,
      max: months.value,
      axisLabel: { ...label, formatter: '{value} mo' },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: colours.rule } },
      axisTick: { show: false },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: 100,
      name: '% of humidity, of strength',
      nameTextStyle: { ...label, align: 'left' },
      axisLabel: label,
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: [
      {
        type: 'line',
        symbol: 'none',
        data: props.damp.curve.map(point => [point.day / MONTH, point.activity * 100]),
        lineStyle: { color: colours.brine, width: 2.4 },
        endLabel: { show: true, ...CHART_WORDS, color: colours.brine, formatter: 'humidity' },
        markLine: {
          symbol: 'none',
          silent: true,
          data: [
            line(DAMP_LIMITS.clumps, 'clumps', colours.ochre),
            line(DAMP_LIMITS.mould, 'mould can grow', colours.dulse),
            {
              xAxis: today.value,
              lineStyle: { color: colours.text, type: 'dotted' },
              label: { ...label, formatter: 'now', position: 'end', rotate: 0 },
            },
          ],
        },
      },
      ...(
        [
          ['p10', 1],
          ['p50', 2.2],
          ['p90', 1],
        ] as const
      ).map(([end, width]) => ({
        type: 'line',
        symbol: 'none',
        data: faded(props.strength.halfLife[end]),
        lineStyle: { color: colours.husk, width, type: end === 'p50' ? 'solid' : 'dotted' },
        endLabel: end === 'p50' ? { show: true, ...CHART_WORDS, color: colours.husk, formatter: 'strength' } : undefined,
      })),
    ],
  }
})
</script>

<template>
  <div>
    <VChart class="chart" :option="option" :update-options="{ notMerge: true }" autoresize role="img" :aria-label="words" />
    <ChartTable caption="The jar over its months" :head="['Month', 'Humidity of its air', 'Strength, 8 in 10']" :rows="rows" />
  </div>
</template>

<style scoped>
.chart {
  height: 220px;
}
</style>
