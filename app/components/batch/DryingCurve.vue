<script setup lang="ts">
import { WAYS } from '#core/ways'
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { Assessment } from '#core/batch'
import { inForce, ofKind, type Entry, type RunState } from '#core/log'
import { curveIn, overHeat, trayCurve, weighingsIn, type CurveView } from '#core/kinetics'
import type { Interval } from '#core/stats'
import { gramsIn, temperatureIn } from '#core/units'
import { HOUR, MINUTE } from '#core/time'

use([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

/** The run against its hours of heat: the food above, the heat and the room's air below on the same axis. */
const props = defineProps<{ run: RunState; assessment: Assessment; entries: readonly Entry[]; name: string; now: number }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const ink = useChartInk()
const chart = ref<{ getDataURL: (options: { type: 'svg' }) => string }>()

type View = CurveView | 'trays'
/** With most of the water gone the weight lies flat on its axis: water shows what is still to come. */
const MOSTLY_GONE = 0.7
const view = ref<View>(props.assessment.waterGone.p50 > MOSTLY_GONE ? 'moisture' : 'weight')
const views = computed(() => [
  { value: 'weight' as View, words: 'Weight' },
  { value: 'moisture' as View, words: 'Water' },
  { value: 'rate' as View, words: 'Rate' },
  ...(props.run.trayWeights.length > 0 ? [{ value: 'trays' as View, words: 'Trays' }] : []),
])
/** What the hours of this way are hours of. */
const hoursOf = WAYS[props.run.way.way].words.hours
const TITLES: Record<View, string> = {
  weight: `Weight against hours ${hoursOf}`,
  moisture: `Water in the food against hours ${hoursOf}`,
  rate: 'Water leaving an hour',
  trays: 'Water left, tray by tray',
}
/** A figure of the view on its axis, and in words. */
const onAxis = (value: number) => {
  if (view.value === 'moisture' || view.value === 'trays') return value * 100
  const metric = settings.value.weightUnit === 'g'
  if (view.value === 'rate') return metric ? value : gramsIn(value, 'oz')
  return metric ? value / 1000 : gramsIn(value, 'oz') / 16
}
const axisName = computed(() => {
  const metric = settings.value.weightUnit === 'g'
  return view.value === 'moisture' || view.value === 'trays'
    ? '%'
    : view.value === 'rate'
      ? metric
        ? 'g/h'
        : 'oz/h'
      : metric
        ? 'kg'
        : 'lb'
})
const inWords = (value: Interval) =>
  view.value === 'moisture'
    ? `${format.share(value.p50)} water, ${format.range(value, format.share)}`
    : view.value === 'rate'
      ? `${format.weight(value.p50)} an hour`
      : `${format.weight(value.p50)}, ${format.weightRange(value)}`
const seen = computed(() => (view.value === 'trays' ? { points: [], target: undefined } : curveIn(view.value, props.assessment.estimate)))
const clock = computed(() => props.run.clock)
const log = computed(() =>
  inForce(props.entries).filter(entry => entry.at >= props.run.loadedAt && entry.at <= (props.run.unloadedAt ?? Infinity)),
)

/** What devices read at the machine during the run. */
const { answer: readings } = useServer('readings', () => {
  // To the minute: until then nothing new is drawn.
  const until = props.run.unloadedAt ?? Math.ceil(props.now / MINUTE) * MINUTE
  return { query: { machine: props.run.machineId, from: props.run.loadedAt, to: Math.max(props.run.loadedAt + 1, until), points: 240 } }
})
const series = computed(() => readings.value ?? [])

/** Instant to which the curve is drawn: a little past the window, or now where there is none. */
const endAt = computed(() => {
  const { finish } = props.assessment
  const end = Number.isFinite(finish.to) ? finish.to + 0.08 * (finish.to - props.run.loadedAt) : props.now + 6 * HOUR
  return props.run.unloadedAt ?? Math.max(props.now, end)
})
const curve = computed(() =>
  seen.value.points.length === 0
    ? []
    : overHeat(seen.value.points, clock.value, props.run.loadedAt, endAt.value).map(point => ({ hours: point.hours, ...point.value })),
)
const points = computed(() =>
  view.value === 'trays'
    ? []
    : weighingsIn(
        view.value,
        [
          { hours: 0, weightG: props.run.loadedG },
          ...props.run.weighings.map(weighing => ({ hours: clock.value.hoursAt(weighing.at), weightG: weighing.weightG })),
        ],
        props.assessment.estimate.solidsG.p50,
      ),
)
const solidsShare = computed(() => props.assessment.estimate.solidsG.p50 / props.run.loadedG)
const trays = computed(() =>
  view.value !== 'trays'
    ? []
    : props.run.trays
        .map(({ position, weightG }) => ({
          place: props.run.places.placeAt(position, Infinity),
          out: !props.run.present.includes(position),
          points: trayCurve(
            weightG,
            solidsShare.value,
            props.run.trayWeights
              .filter(weight => weight.position === position)
              .map(weight => ({ hours: clock.value.hoursAt(weight.at), weightG: weight.weightG })),
          ),
        }))
        .filter(tray => tray.points.length > 1),
)

/** What was done, as marks on the time. */
const done = computed(() =>
  [
    ...ofKind(log.value, 'move').map(entry => ({ at: entry.at, words: 'moved' })),
    ...ofKind(log.value, 'feel').map(entry => ({ at: entry.at, words: 'felt' })),
    ...ofKind(log.value, 'unload')
      .filter(entry => entry.body.positions)
      .map(entry => ({ at: entry.at, words: 'tray out' })),
    ...(props.run.spells.length > 0 ? props.run.clock.spells.slice(1).map(spell => ({ at: spell.from, words: 'off before' })) : []),
  ].map(mark => ({ xAxis: clock.value.hoursAt(mark.at), name: mark.words })),
)

const degrees = (celsius: number) => Math.round(temperatureIn(celsius, settings.value.temperatureUnit) * 10) / 10
const set = computed(() => {
  const last = clock.value.hoursAt(Math.min(props.now, props.run.unloadedAt ?? Infinity))
  const heats = ofKind(log.value.length ? inForce(props.entries) : [], 'heat').filter(
    entry => entry.body.runId === props.run.runId && entry.body.setC !== null,
  )
  return heats.flatMap(({ at, body }, i) => {
    const until = heats[i + 1] ? clock.value.hoursAt(heats[i + 1]!.at) : last
    return [
      [clock.value.hoursAt(at), degrees(body.setC!)],
      [until, degrees(body.setC!)],
    ]
  })
})
const measured = computed(() => {
  const probe = series.value.find(item => item.channel === 'celsius' && item.kind === 'probe')
  if (probe) return probe.points.map(point => [clock.value.hoursAt(point.at), degrees(point.value)])
  return ofKind(log.value, 'air')
    .filter(entry => entry.body.chamberC !== undefined)
    .map(entry => [clock.value.hoursAt(entry.at), degrees(entry.body.chamberC!)])
})
const humidity = computed(() => {
  const room = series.value.find(item => item.channel === 'humidity')
  if (room) return room.points.map(point => [clock.value.hoursAt(point.at), Math.round(point.value * 1000) / 10])
  return ofKind(log.value, 'air')
    .filter(entry => entry.body.roomHumidity !== undefined)
    .map(entry => [clock.value.hoursAt(entry.at), Math.round(entry.body.roomHumidity! * 1000) / 10])
})

const option = computed(() => {
  const { estimate } = props.assessment
  const show = onAxis
  const colours = ink.value
  const { target } = seen.value
  const nowH = clock.value.hoursAt(props.now)
  const windowFrom = clock.value.hoursAt(props.assessment.finish.from)
  const windowTo = clock.value.hoursAt(props.assessment.finish.to)
  const words = CHART_WORDS
  const label = { ...words, color: colours.text }
  const end = Math.max(curve.value.at(-1)?.hours ?? 0, trays.value.length ? nowH : 0, 1)
  const axis = (gridIndex: number) => ({
    type: 'value',
    gridIndex,
    min: 0,
    max: Math.ceil(end),
    axisLabel: { ...label, show: gridIndex === 1, formatter: '{value} h' },
    splitLine: { show: false },
    axisLine: { lineStyle: { color: colours.rule } },
    axisTick: { show: false },
  })
  const band = { stack: 'band', symbol: 'none', lineStyle: { width: 0 }, silent: true, tooltip: { show: false } }
  return {
    animation: false,
    textStyle: words,
    grid: [
      { left: 44, right: 58, top: 34, height: 196 },
      { left: 44, right: 58, top: 262, bottom: 26 },
    ],
    tooltip: {
      trigger: 'axis',
      ...chartTooltip(colours),
      formatter: (items: { axisValue: number }[]) => {
        const hours = Number(items[0]?.axisValue ?? 0)
        const near = curve.value.reduce<(typeof curve.value)[number] | undefined>(
          (best, point) => (!best || Math.abs(point.hours - hours) < Math.abs(best.hours - hours) ? point : best),
          undefined,
        )
        return near && view.value !== 'trays'
          ? `${format.hours(near.hours)} ${hoursOf}<br>${inWords(near)}`
          : `${format.hours(hours)} ${hoursOf}`
      },
    },
    xAxis: [axis(0), axis(1)],
    yAxis: [
      {
        type: 'value',
        min: 0,
        name: axisName.value,
        nameTextStyle: { ...label, align: 'right' },
        axisLabel: label,
        splitLine: { lineStyle: { color: colours.rule } },
      },
      {
        type: 'value',
        gridIndex: 1,
        scale: true,
        splitNumber: 2,
        name: `°${settings.value.temperatureUnit}`,
        nameTextStyle: { ...label, align: 'right' },
        axisLabel: label,
        splitLine: { lineStyle: { color: colours.rule } },
      },
      {
        type: 'value',
        gridIndex: 1,
        min: 0,
        max: 100,
        interval: 50,
        position: 'right',
        name: '% room',
        nameTextStyle: { ...label, color: colours.brine, align: 'left' },
        axisLabel: { ...label, color: colours.brine },
        splitLine: { show: false },
      },
    ],
    series: [
      { type: 'line', data: curve.value.map(point => [point.hours, show(point.p10)]), ...band },
      {
        type: 'line',
        data: curve.value.map(point => [point.hours, show(point.p90 - point.p10)]),
        ...band,
        areaStyle: { color: colours.line, opacity: 0.18 },
      },
      {
        type: 'line',
        data: curve.value.map(point => [point.hours, show(point.p50)]),
        symbol: 'none',
        lineStyle: { color: colours.line, width: 2.5 },
        markArea: {
          silent: true,
          data: [
            ...(target
              ? [
                  [
                    {
                      yAxis: show(target.p10),
                      itemStyle: {
                        color: colours.husk,
                        opacity: 0.22,
                        borderColor: colours.husk,
                        borderWidth: target.p10 === target.p90 ? 1 : 0,
                      },
                      label: { show: false },
                    },
                    { yAxis: show(target.p90) },
                  ],
                ]
              : []),
            ...(Number.isFinite(windowTo) && Number.isFinite(estimate.hoursToTarget.p90)
              ? [
                  [
                    {
                      xAxis: windowFrom,
                      itemStyle: { color: colours.dulse, opacity: 0.12 },
                      label: {
                        show: true,
                        position: 'top',
                        formatter:
                          props.run.setC === null
                            ? '8 in 10'
                            : `dry ${format.window(props.assessment.finish.from, props.assessment.finish.to, props.now)}`,
                        color: colours.dulse,
                        ...words,
                        fontWeight: 700,
                      },
                    },
                    { xAxis: windowTo },
                  ],
                ]
              : []),
          ],
        },
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: colours.text, type: 'dotted', width: 1.5 },
          label: { formatter: '{b}', position: 'insideStartTop', rotate: 0, ...label },
          data: [
            ...(props.run.unloadedAt === undefined ? [{ xAxis: nowH, name: 'now' }] : []),
            ...done.value.map(mark => ({
              ...mark,
              lineStyle: { color: colours.kelp },
              label: { color: colours.kelp, position: 'insideEndTop' },
            })),
          ],
        },
      },
      {
        type: 'line',
        symbol: 'circle',
        showAllSymbol: true,
        lineStyle: { width: 0 },
        data: points.value.map(point => [point.hours, show(point.value)]),
        symbolSize: 11,
        itemStyle: { color: colours.card, borderColor: colours.ink, borderWidth: 2.2 },
        z: 5,
        silent: true,
      },
      ...trays.value.map(tray => ({
        type: 'line',
        data: tray.points.map(point => [point.hours, show(point.value)]),
        symbol: 'circle',
        symbolSize: 6,
        lineStyle: { color: colours.line, width: 1.6, type: tray.out ? 'dashed' : 'solid' },
        itemStyle: { color: colours.line },
        endLabel: { show: true, formatter: String(tray.place), ...words, color: colours.ink },
        labelLayout: { moveOverlap: 'shiftY' },
      })),
      {
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: set.value,
        symbol: 'none',
        lineStyle: { color: colours.text, width: 1.5, type: 'dashed' },
        silent: true,
      },
      {
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: measured.value,
        symbol: measured.value.length < 14 ? 'circle' : 'none',
        symbolSize: 7,
        lineStyle: { color: colours.dulse, width: 1.6 },
        itemStyle: { color: colours.dulse },
        silent: true,
      },
      {
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 2,
        data: humidity.value,
        symbol: humidity.value.length < 14 ? 'circle' : 'none',
        symbolSize: 7,
        lineStyle: { color: colours.brine, width: 1.6 },
        itemStyle: { color: colours.brine },
        silent: true,
      },
    ],
  }
})

/** Lines of the table: every weighing, and the curve at some hours between. */
const TABLE_LINES = 12
const tableRows = computed(() => {
  const every = Math.max(1, Math.floor(curve.value.length / TABLE_LINES))
  const drawn = curve.value.filter((_, i) => i % every === 0).map(point => ({ hours: point.hours, weighed: '', by: inWords(point) }))
  const weighed = props.run.weighings.map(weighing => ({
    hours: clock.value.hoursAt(weighing.at),
    weighed: format.weight(weighing.weightG),
    by: '',
  }))
  return [...drawn, ...weighed].sort((a, b) => a.hours - b.hours).map(row => [format.hours(row.hours), row.weighed, row.by])
})
/** What the picture shows, for whoever hears it. */
const said = computed(() => {
  const { finish, estimate } = props.assessment
  const first = curve.value[0]
  const here = curve.value.findLast(point => point.hours <= clock.value.hoursAt(props.now))
  return [
    TITLES[view.value],
    first && `From ${inWords(first)}`,
    here && `now ${inWords(here)}`,
    `dry at ${format.weightRange(estimate.targetWeightG)}`,
    Number.isFinite(finish.to) && `8 in 10 between ${format.window(finish.from, finish.to, props.now)}`,
    plural(props.run.weighings.length, 'weighing'),
  ]
    .filter(Boolean)
    .join('. ')
})

async function savePicture() {
  const url = chart.value?.getDataURL({ type: 'svg' })
  if (url) saveFile(`${props.name}.svg`, url)
}
/** The figures as they are drawn: hours of heat, what was weighed, and the curve with its band. */
async function saveFigures() {
  const { unparse } = (await import('papaparse')).default
  const unit = settings.value.weightUnit
  const grams = (value: number) => Math.round(gramsIn(value, unit) * 10) / 10
  const { estimate } = props.assessment
  const weighed = props.run.weighings.map(weighing => ({
    what: 'weighed',
    time: new Date(weighing.at).toISOString(),
    hours_of_heat: round(clock.value.hoursAt(weighing.at)),
    [`weight_${unit}`]: grams(weighing.weightG),
    [`low_${unit}`]: '',
    [`high_${unit}`]: '',
    places: weighing.positions.join(' '),
  }))
  const drawn = overHeat(curveIn('weight', estimate).points, clock.value, props.run.loadedAt, endAt.value).map(({ hours, value }) => ({
    what: 'curve',
    time: '',
    hours_of_heat: round(hours),
    [`weight_${unit}`]: grams(value.p50),
    [`low_${unit}`]: grams(value.p10),
    [`high_${unit}`]: grams(value.p90),
    places: '',
  }))
  saveFile(
    `${props.name}.csv`,
    `data:text/csv;charset=utf-8,${encodeURIComponent(unparse([...weighed, ...drawn], { escapeFormulae: true }))}`,
  )
}
const round = (value: number) => Math.round(value * 1000) / 1000
</script>

<template>
  <section class="card" aria-label="Drying curve">
    <div class="row between">
      <h2>{{ TITLES[view] }}</h2>
      <ChoiceField v-model="view" label="Show" hide-label :choices="views" class="views" />
    </div>
    <p class="small target">
      <template v-if="seen.target"
        ><span class="swatch" aria-hidden="true" />{{
          view === 'weight' ? `dry weight ${format.weightRange(seen.target)}` : `dry at ${format.share(seen.target.p50)}`
        }}</template
      ><template v-else>{{
        view === 'trays' ? 'by each tray’s own weights, place at the end' : 'between weighings, and by the curve'
      }}</template>
    </p>
    <VChart ref="chart" class="chart" :option="option" :update-options="{ notMerge: true }" autoresize role="img" :aria-label="said" />
    <p class="small foot row">
      <span class="quiet">Below: set (dashed), <span class="measured">measured</span>, <span class="humid">room humidity</span></span
      ><span class="grow" />Save the <button type="button" aria-label="Save the picture" @click="savePicture">picture</button>
      <button type="button" aria-label="Save the figures" @click="saveFigures">figures</button>
    </p>
    <ChartTable :caption="TITLES[view]" :head="[`Hours ${hoursOf}`, 'Weighed', 'By the curve, 8 in 10']" :rows="tableRows" />
  </section>
</template>

<style scoped>
.chart {
  height: 370px;
}
.target {
  text-align: right;
  margin: 0.3rem 0 -0.6rem;
}
.swatch {
  display: inline-block;
  width: 1.6rem;
  height: 0.55rem;
  margin-right: 0.5rem;
  background: color-mix(in srgb, var(--husk) 30%, transparent);
}
.foot {
  gap: 0.2rem 0.3rem;
}
.grow {
  flex: 1;
}
.foot button {
  border: 0;
  background: none;
  min-height: 44px;
  padding: 0 0.4rem;
  text-decoration: underline;
  text-underline-offset: 3px;
  font-weight: 650;
  cursor: pointer;
}
.measured {
  color: var(--dulse-ink);
}
.humid {
  color: var(--brine);
}
</style>
