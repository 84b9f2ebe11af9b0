<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { DAMP_LIMITS, type Damp } from '#core/keeping'

use([LineChart, GridComponent, MarkLineComponent, SVGRenderer])

/** The air inside a jar over its months, with what clumps and what moulds. */
const props = defineProps<{ damp: Damp, packedAt: number, now: number }>()
const ink = useChartInk()
const MONTH = 30.44
const today = computed(() => (props.now - props.packedAt) / 86_400_000 / MONTH)
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const line = (value: number, words: string, colour: string) => ({ yAxis: value * 100, lineStyle: { color: colour, type: 'dashed', width: 1.4 }, label: { ...CHART_WORDS, color: colour, formatter: words, position: 'insideStartTop' } })
  return {
    animation: false, textStyle: CHART_WORDS, grid: { left: 44, right: 18, top: 30, bottom: 30 },
    xAxis: { type: 'value', min: 0, max: Math.round(props.damp.curve.at(-1)!.day / MONTH), axisLabel: { ...label, formatter: '{value} mo' }, splitLine: { show: false }, axisLine: { lineStyle: { color: colours.rule } }, axisTick: { show: false } },
    yAxis: { type: 'value', min: 0, max: 70, name: '% humidity in the jar', nameTextStyle: { ...label, align: 'left' }, axisLabel: label, splitLine: { lineStyle: { color: colours.rule } } },
    series: [{
      type: 'line', symbol: 'none', data: props.damp.curve.map(point => [point.day / MONTH, point.activity * 100]), lineStyle: { color: colours.brine, width: 2.4 },
      markLine: { symbol: 'none', silent: true, data: [line(DAMP_LIMITS.clumps, 'clumps', colours.ochre), line(DAMP_LIMITS.mould, 'mould can grow', colours.dulse), { xAxis: today.value, lineStyle: { color: colours.text, type: 'dotted' }, label: { ...label, formatter: 'now', position: 'end', rotate: 0 } }] },
    }],
  }
})
</script>

<template>
  <VChart class="chart" :option="option" :update-options="{ notMerge: true }" autoresize />
</template>

<style scoped>
.chart { height: 220px; }
</style>
