<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { Assessment, RunState } from '#core/batch'
import { curveIn, weighingsIn, type CurveView } from '#core/kinetics'
import type { Interval } from '#core/stats'
import { gramsIn } from '#core/units'

use([LineChart, ScatterChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

const props = defineProps<{ run: RunState, assessment: Assessment, now: number }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { dim } = useTheme()

/** The theme's colours as the chart needs them: read from the page, since a chart knows no CSS variables. */
const ink = computed(() => {
  void dim.value
  const style = getComputedStyle(document.documentElement)
  const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return { text: colour('quiet'), rule: colour('rule'), line: colour('brine'), dulse: colour('dulse-ink'), husk: colour('husk'), card: colour('card'), ink: colour('ink') }
})

const view = ref<CurveView>('weight')
const VIEWS: { value: CurveView, words: string }[] = [{ value: 'weight', words: 'Weight' }, { value: 'moisture', words: 'Water' }, { value: 'rate', words: 'Rate' }]
const TITLES: Record<CurveView, string> = { weight: 'Weight against hours of heat', moisture: 'Water in the food against hours of heat', rate: 'Water leaving an hour' }
/** A figure of the view on its axis, and in words. */
const onAxis = (value: number) => {
  if (view.value === 'moisture') return value * 100
  const metric = settings.value.weightUnit === 'g'
  if (view.value === 'rate') return metric ? value : gramsIn(value, 'oz')
  return metric ? value / 1000 : gramsIn(value, 'oz') / 16
}
const axisName = computed(() => {
  const metric = settings.value.weightUnit === 'g'
  return view.value === 'moisture' ? '%' : view.value === 'rate' ? (metric ? 'g/h' : 'oz/h') : metric ? 'kg' : 'lb'
})
const inWords = (value: Interval) => view.value === 'moisture' ? `${format.share(value.p50)} water, ${format.range(value, format.share)}` : view.value === 'rate' ? `${format.weight(value.p50)} an hour` : `${format.weight(value.p50)}, ${format.weightRange(value)}`
const seen = computed(() => curveIn(view.value, props.assessment.estimate))

const option = computed(() => {
  const { estimate } = props.assessment
  const show = onAxis
  const { clock } = props.run
  // The curve is fitted on the clock of the card's heat; people read hours of heat as they passed.
  const stretch = clock.pace > 0 ? 1 / clock.pace : 1
  const nowEquivalent = clock.equivalentHoursAt(props.now)
  const nowH = clock.hoursAt(props.now)
  const realHours = (hours: number) => hours <= nowEquivalent
    ? (nowEquivalent > 0 ? hours / nowEquivalent * nowH : 0)
    : nowH + (hours - nowEquivalent) * stretch
  const colours = ink.value
  const { target } = seen.value
  const curve = seen.value.points.map(point => ({ hours: realHours(point.hours), ...point.value }))
  const windowFrom = realHours(estimate.hoursToTarget.p10)
  const windowTo = realHours(estimate.hoursToTarget.p90)
  const words = { fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 13 }
  const end = curve.at(-1)!.hours
  const points = weighingsIn(view.value, [{ hours: 0, weightG: props.run.loadedG }, ...props.run.weighings.map(weighing => ({ hours: clock.hoursAt(weighing.at), weightG: weighing.weightG }))], estimate.solidsG.p50)
  return {
    animation: false,
    textStyle: words,
    grid: { left: 44, right: 14, top: 34, bottom: 30 },
    tooltip: {
      trigger: 'axis', backgroundColor: colours.card, borderColor: colours.rule, textStyle: { ...words, color: colours.ink },
      formatter: (items: { axisValue: number }[]) => {
        const hours = Number(items[0]?.axisValue ?? 0)
        const near = curve.reduce((best, point) => Math.abs(point.hours - hours) < Math.abs(best.hours - hours) ? point : best)
        return `${format.hours(near.hours)} of heat<br>${inWords(near)}`
      },
    },
    xAxis: { type: 'value', min: 0, max: Math.ceil(end), axisLabel: { ...words, color: colours.text, formatter: '{value} h' }, splitLine: { show: false }, axisLine: { lineStyle: { color: colours.rule } }, axisTick: { show: false } },
    yAxis: { type: 'value', min: 0, name: axisName.value, nameTextStyle: { ...words, color: colours.text, align: 'right' }, axisLabel: { ...words, color: colours.text }, splitLine: { lineStyle: { color: colours.rule } } },
    series: [
      { type: 'line', data: curve.map(point => [point.hours, show(point.p10)]), stack: 'band', symbol: 'none', lineStyle: { width: 0 }, silent: true, tooltip: { show: false } },
      { type: 'line', data: curve.map(point => [point.hours, show(point.p90 - point.p10)]), stack: 'band', symbol: 'none', lineStyle: { width: 0 }, areaStyle: { color: colours.line, opacity: 0.18 }, silent: true, tooltip: { show: false } },
      {
        type: 'line', data: curve.map(point => [point.hours, show(point.p50)]), symbol: 'none', lineStyle: { color: colours.line, width: 2.5 },
        markArea: {
          silent: true,
          data: [
            ...(target ? [[{ yAxis: show(target.p10), itemStyle: { color: colours.husk, opacity: 0.22, borderColor: colours.husk, borderWidth: target.p10 === target.p90 ? 1 : 0 }, label: { show: false } }, { yAxis: show(target.p90) }]] : []),
            ...(Number.isFinite(windowTo)
              ? [[{ xAxis: windowFrom, itemStyle: { color: colours.dulse, opacity: 0.12 }, label: { show: true, position: 'top', formatter: props.run.setC === null ? '8 in 10' : `dry ${format.window(props.assessment.finish.from, props.assessment.finish.to, props.now)}`, color: colours.dulse, ...words, fontWeight: 700 } }, { xAxis: windowTo }]]
              : []),
          ],
        },
        markLine: { silent: true, symbol: 'none', data: [{ xAxis: nowH }], lineStyle: { color: colours.text, type: 'dotted', width: 1.5 }, label: { formatter: 'now', position: 'insideStartTop', rotate: 0, color: colours.text, ...words } },
      },
      { type: 'scatter', data: points.map(point => [point.hours, show(point.value)]), symbolSize: 11, itemStyle: { color: colours.card, borderColor: colours.ink, borderWidth: 2.2 }, z: 5, silent: true },
    ],
  }
})
</script>

<template>
  <section class="card" aria-label="Drying curve">
    <div class="row between">
      <h2>{{ TITLES[view] }}</h2>
      <ChoiceField v-model="view" label="Show" hide-label :choices="VIEWS" class="views" />
    </div>
    <p class="small target"><template v-if="seen.target"><span class="swatch" aria-hidden="true" />{{ view === 'weight' ? `dry weight ${format.weightRange(seen.target)}` : `dry at ${format.share(seen.target.p50)}` }}</template><template v-else>between weighings, and by the curve</template></p>
    <VChart class="chart" :option="option" autoresize />
    <table class="visually-hidden">
      <caption>Weighings</caption>
      <thead><tr><th>Hours of heat</th><th>Weight</th></tr></thead>
      <tbody>
        <tr v-for="weighing in run.weighings" :key="weighing.at"><td>{{ format.hours(run.clock.hoursAt(weighing.at)) }}</td><td>{{ format.weight(weighing.weightG) }}</td></tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.chart { height: 270px; }
.target { text-align: right; margin: 0.3rem 0 -0.6rem; }
.swatch { display: inline-block; width: 1.6rem; height: 0.55rem; margin-right: 0.5rem; background: color-mix(in srgb, var(--husk) 30%, transparent); }
@media (width <= 760px) { .chart { height: 230px; } }
</style>
