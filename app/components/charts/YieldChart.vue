<script setup lang="ts">
import { ScatterChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { InsightAnswer } from '#shared/contracts'

use([ScatterChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer])

/** What each basket gave against its reference, over the years: a dot a batch, named where a food came more than once. */
const props = defineProps<{ yields: InsightAnswer['yields'] }>()
const format = useFormat()
const ink = useChartInk()
const percent = (share: number) => `${(100 * share).toFixed(1)}\u00A0%`
const known = computed(() => props.yields.filter(item => item.reference !== undefined))
const ratio = (item: (typeof props.yields)[number]) => 100 * (item.share / item.reference! - 1)
const FAR_OUT = 15
const words = computed(() => {
  const offs = known.value.map(ratio).sort((a, b) => a - b)
  if (offs.length === 0) return 'No basket has a reference to be held against.'
  const middle = offs[Math.floor(offs.length / 2)]!
  return `The middle of ${plural(offs.length, 'basket')} gave ${Math.round(middle) === 0 ? 'what' : `${Math.abs(Math.round(middle))} % ${middle < 0 ? 'less' : 'more'} than`} the reference${Math.round(middle) === 0 ? ' says' : ''}; the least ${Math.round(offs[0]!)} %, the most ${Math.round(offs.at(-1)!)} %.`
})
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: { left: 52, right: 70, top: 26, bottom: 28 },
    tooltip: {
      ...chartTooltip(colours),
      formatter: ({ dataIndex }: { dataIndex: number }) => {
        const item = known.value[dataIndex]!
        return `${item.name}, batch ${item.number}, ${format.date(item.at)}<br>${percent(item.share)} of the basket, reference ${percent(item.reference!)}`
      },
    },
    xAxis: monthAxis(colours, format.month),
    yAxis: {
      type: 'value',
      name: '% against the reference',
      nameTextStyle: { ...label, align: 'left' },
      axisLabel: label,
      splitLine: { lineStyle: { color: colours.rule } },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 10,
        itemStyle: { color: colours.husk },
        data: known.value.map(item => ({
          value: [item.at, Math.round(10 * ratio(item)) / 10],
          label: {
            // What lies far out is named; the rest is in the table.
            show: Math.abs(ratio(item)) > FAR_OUT,
            formatter: item.name,
            position: 'right',
            ...label,
            fontSize: 11,
          },
        })),
        labelLayout: { hideOverlap: true },
      },
    ],
  }
})
</script>

<template>
  <div>
    <VChart class="chart" :option="option" autoresize role="img" :aria-label="words" />
    <p class="small">{{ words }}</p>
    <ChartTable
      caption="What each basket gave"
      :head="['Batch', 'Food', 'Came in', 'Of the basket', 'Reference']"
      :rows="
        yields.map(item => [
          String(item.number),
          item.name,
          format.date(item.at),
          percent(item.share),
          item.reference === undefined ? 'none' : percent(item.reference),
        ])
      "
    />
  </div>
</template>

<style scoped>
.chart {
  height: 300px;
}
</style>
