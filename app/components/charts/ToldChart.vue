<script setup lang="ts">
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { InsightAnswer } from '#shared/contracts'

use([CustomChart, LineChart, ScatterChart, GridComponent, TooltipComponent, SVGRenderer])

/** Hours as they were said at loading, with their window, against what each run took: on the line it came as said. */
const props = defineProps<{ told: InsightAnswer['told'] }>()
const format = useFormat()
const ink = useChartInk()
const held = (run: (typeof props.told)[number]) => run.actual >= run.low && run.actual <= run.high
const bounds = computed(() => {
  const all = props.told.flatMap(run => [run.low, run.high, run.actual]).filter(hours => hours > 0)
  return { low: 0.8 * Math.min(...all), high: 1.2 * Math.max(...all) }
})
const words = computed(() => {
  const inside = props.told.filter(held).length
  const longer = props.told.filter(run => run.actual > run.middle).length
  return `${inside} of ${plural(props.told.length, 'run')} ended within the window said at loading; ${longer} took longer than its middle, ${props.told.length - longer} shorter.`
})
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const { low, high } = bounds.value
  const axis = (name: string) => ({
    type: 'log',
    min: low,
    max: high,
    name,
    nameLocation: 'middle',
    nameGap: 30,
    nameTextStyle: label,
    axisLabel: { ...label, formatter: (value: number) => `${Math.round(value)} h` },
    splitLine: { lineStyle: { color: colours.rule } },
    axisLine: { lineStyle: { color: colours.rule } },
  })
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 62, right: 20, top: 14, bottom: 48 },
    tooltip: {
      ...chartTooltip(colours),
      formatter: ({ dataIndex }: { dataIndex: number }) => {
        const run = props.told[dataIndex]
        return run
          ? `Batch ${run.number}, ${format.date(run.at)}<br>said ${format.hours(run.low)} to ${format.hours(run.high)}, took ${format.hours(run.actual)}`
          : ''
      },
    },
    xAxis: axis('hours said at loading'),
    yAxis: axis('hours it took'),
    series: [
      {
        type: 'line',
        data: [
          [low, low],
          [high, high],
        ],
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.text, type: 'dashed', width: 1.2 },
      },
      {
        type: 'custom',
        silent: true,
        data: props.told.map(run => [run.low, run.high, run.actual]),
        renderItem: (_: unknown, api: { value: (i: number) => number; coord: (at: number[]) => number[] }) => {
          const [x1, y] = api.coord([api.value(0), api.value(2)])
          const [x2] = api.coord([api.value(1), api.value(2)])
          return { type: 'line', shape: { x1, y1: y, x2, y2: y }, style: { stroke: colours.husk, lineWidth: 2, opacity: 0.55 } }
        },
      },
      {
        type: 'scatter',
        data: props.told.map(run => ({
          value: [run.middle, run.actual],
          symbol: held(run) ? 'circle' : 'diamond',
          itemStyle: { color: held(run) ? colours.kelp : colours.dulse },
        })),
        symbolSize: 11,
        z: 4,
      },
    ],
  }
})
</script>

<template>
  <div>
    <VChart class="chart" :option="option" autoresize role="img" :aria-label="words" />
    <p class="small">{{ words }} <span class="quiet">Bars are windows of 8 in 10; a diamond came outside its own.</span></p>
    <ChartTable
      caption="Hours said at loading and hours taken"
      :head="['Batch', 'Loaded', 'Said', 'Took']"
      :rows="
        told.map(run => [
          String(run.number),
          format.date(run.at),
          `${format.hours(run.low)} to ${format.hours(run.high)}`,
          format.hours(run.actual),
        ])
      "
    />
  </div>
</template>

<style scoped>
.chart {
  height: 320px;
}
</style>
