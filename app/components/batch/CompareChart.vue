<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { ComparedRun } from '#shared/contracts'

use([LineChart, GridComponent, TooltipComponent, SVGRenderer])

/** Finished runs on one axis of hours of heat; the chosen one stands out, each named at its end. */
const props = defineProps<{ runs: readonly ComparedRun[]; chosen?: string }>()
const ink = useChartInk()
const chart = ref<{ getDataURL: (options: { type: 'svg' }) => string }>()
/** Where a run is named: half dry, where the curves lie apart. */
function middleOf(run: ComparedRun): [number, number] {
  const point = run.curve.find(item => item.left <= 0.5) ?? run.curve.at(-1)!
  return [point.hours, point.left * 100]
}

const format = useFormat()
/** When so much of its water was left, or that it never came to that. */
const reached = (run: ComparedRun, left: number) => {
  const point = run.curve.find(item => item.left <= left)
  return point ? format.hours(point.hours) : 'not reached'
}
const rows = computed(() =>
  props.runs.map(run => [String(run.number), reached(run, 0.5), reached(run, 0.1), plural(run.weighed.length, 'time')]),
)
const words = computed(() =>
  [
    plural(props.runs.length, 'run'),
    ...rows.value.map(([number, half, tenth]) => `batch ${number}: half of the water gone after ${half}, a tenth left after ${tenth}`),
  ].join('; '),
)
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 48, right: 56, top: 30, bottom: 30 },
    tooltip: {
      trigger: 'item',
      ...chartTooltip(colours),
      formatter: (item: { seriesName: string; value: [number, number] }) =>
        `${item.seriesName}<br>${Math.round(item.value[1])} % left at ${Math.round(item.value[0] * 10) / 10} h`,
    },
    xAxis: {
      type: 'value',
      min: 0,
      axisLabel: { ...label, formatter: '{value} h' },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: colours.rule } },
      axisTick: { show: false },
    },
    yAxis: {
      type: 'value',
      min: 0,
      max: 100,
      name: '% of water left',
      nameTextStyle: { ...label, align: 'left' },
      axisLabel: label,
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: props.runs.flatMap(run => {
      const on = run.batchId === props.chosen
      const colour = on ? colours.dulse : colours.line
      const opacity = on || !props.chosen ? 1 : 0.45
      return [
        {
          type: 'line',
          name: `Batch ${run.number}`,
          data: run.curve.map(point => [point.hours, point.left * 100]),
          symbol: 'none',
          z: on ? 4 : 2,
          lineStyle: { color: colour, width: on ? 3 : 1.6, opacity },
          itemStyle: { color: colour },
        },
        {
          type: 'line',
          symbol: 'circle',
          showAllSymbol: true,
          lineStyle: { width: 0 },
          name: `Batch ${run.number}`,
          data: [middleOf(run)],
          symbolSize: 1,
          silent: true,
          label: {
            show: true,
            formatter: String(run.number),
            position: 'right',
            distance: 8,
            ...CHART_WORDS,
            color: on ? colours.dulse : colours.text,
            fontWeight: on ? 700 : 400,
          },
        },
        {
          type: 'line',
          symbol: 'circle',
          showAllSymbol: true,
          lineStyle: { width: 0 },
          name: `Batch ${run.number}`,
          data: run.weighed.map(point => [point.hours, point.left * 100]),
          symbolSize: on ? 10 : 6,
          z: on ? 5 : 3,
          itemStyle: { color: colours.card, borderColor: colour, borderWidth: on ? 2.2 : 1.4, opacity },
        },
      ]
    }),
  }
})
defineExpose({ picture: () => chart.value?.getDataURL({ type: 'svg' }) })
</script>

<template>
  <div>
    <VChart ref="chart" class="chart" :option="option" :update-options="{ notMerge: true }" autoresize role="img" :aria-label="words" />
    <ChartTable
      caption="Water left, run by run"
      :head="['Batch', 'Half of the water gone after', 'A tenth left after', 'Weighed']"
      :rows="rows"
    />
  </div>
</template>

<style scoped>
.chart {
  height: 380px;
}
</style>
