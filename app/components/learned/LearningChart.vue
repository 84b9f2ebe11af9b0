<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { LearningPoint } from '#core/insight'

use([LineChart, GridComponent, TooltipComponent, SVGRenderer])

/** How far off hours were at loading, and how wide their windows, over the newest eight runs as runs came. */
const props = defineProps<{ points: readonly LearningPoint[] }>()
const format = useFormat()
const ink = useChartInk()
/** Half the window's width as a share of its middle: what is said to be possible, beside what came. */
const half = ({ width }: LearningPoint) => 100 * (Math.sqrt(width) - 1)
const round = (value: number) => Math.round(value * 10) / 10
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const line = (name: string, data: unknown[], colour: string, more = {}) => ({
    type: 'line',
    name,
    data,
    symbol: 'none',
    lineStyle: { color: colour, width: 2, ...more },
    itemStyle: { color: colour },
    endLabel: { show: true, formatter: name, ...label },
  })
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 44, right: 118, top: 26, bottom: 26 },
    tooltip: {
      trigger: 'axis',
      ...chartTooltip(colours),
      formatter: (items: { dataIndex: number }[]) => {
        const point = props.points[items[0]!.dataIndex]!
        return [
          `${format.date(point.at)}, after ${plural(point.runs, 'run')}`,
          `off by ${Math.round(100 * point.error)} %, said within ${Math.round(half(point))} %`,
          `${Math.round(100 * point.held)} of 100 windows held`,
        ].join('<br>')
      },
    },
    xAxis: monthAxis(colours, format.month),
    yAxis: {
      type: 'value',
      min: 0,
      name: '% of the hours',
      nameTextStyle: { ...label, align: 'left' },
      axisLabel: label,
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: [
      line(
        'said within',
        props.points.map(point => [point.at, round(half(point))]),
        colours.husk,
        { type: 'dashed' },
      ),
      line(
        'off by',
        props.points.map(point => [point.at, round(100 * point.error)]),
        colours.kelp,
      ),
    ],
  }
})
const words = computed(() => {
  const [first, last] = [props.points[0]!, props.points.at(-1)!]
  return `Off by ${Math.round(100 * first.error)} % at first and ${Math.round(100 * last.error)} % now; said within ${Math.round(half(first))} % at first and ${Math.round(half(last))} % now.`
})
</script>

<template>
  <div>
    <VChart class="chart" :option="option" autoresize role="img" :aria-label="words" />
    <p class="small">{{ words }}</p>
    <ChartTable
      caption="How well hours were told, as runs came"
      :head="['By', 'Runs', 'Off by', 'Said within', 'Windows that held']"
      :rows="
        points.map(point => [
          format.date(point.at),
          String(point.runs),
          `${Math.round(100 * point.error)} %`,
          `${Math.round(half(point))} %`,
          `${Math.round(100 * point.held)} %`,
        ])
      "
    />
  </div>
</template>

<style scoped>
.chart {
  height: 210px;
}
</style>
