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
  <VChart class="chart" :option="option" :update-options="{ notMerge: true }" autoresize />
</template>

<style scoped>
.chart {
  height: 220px;
}
</style>
