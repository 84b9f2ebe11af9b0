<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { ofKind, type Entry } from '#core/log'
import { temperatureIn } from '#core/units'
import type { ReadingSeries } from '#shared/contracts'

use([LineChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

/** Heat set and measured, and the room's humidity below, against the time of day. */
const props = defineProps<{ log: readonly Entry[]; series: readonly ReadingSeries[]; from: number; now: number }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const ink = useChartInk()

const degrees = (celsius: number) => Math.round(temperatureIn(celsius, settings.value.temperatureUnit) * 10) / 10
const clip = (at: number) => Math.max(props.from, at)
/** The dial, as steps; a gap while the heat is off. */
const set = computed(() => {
  const heats = ofKind(props.log, 'heat')
  return heats.flatMap(({ at, body }, i) => {
    const value = body.setC === null ? null : degrees(body.setC)
    return [
      [clip(at), value],
      [clip(heats[i + 1]?.at ?? props.now), value],
    ]
  })
})
const airs = computed(() => ofKind(props.log, 'air'))
const logged = computed(() =>
  airs.value.filter(entry => entry.body.chamberC !== undefined).map(entry => [clip(entry.at), degrees(entry.body.chamberC!)]),
)
const of = (kinds: ReadingSeries['kind'][], channel: ReadingSeries['channel']) =>
  props.series.filter(item => kinds.includes(item.kind) && item.channel === channel)
const probes = computed(() => of(['probe', 'controller', 'logger'], 'celsius'))
const humidity = computed(() => [
  ...of(['hygrometer', 'logger'], 'humidity').map(item => ({
    name: item.deviceName,
    points: item.points.map(point => [point.at, Math.round(point.value * 1000) / 10]),
  })),
  ...(airs.value.some(entry => entry.body.roomHumidity !== undefined)
    ? [
        {
          name: 'logged',
          points: airs.value
            .filter(entry => entry.body.roomHumidity !== undefined)
            .map(entry => [clip(entry.at), Math.round(entry.body.roomHumidity! * 1000) / 10]),
        },
      ]
    : []),
])
const marks = computed(() => ofKind(props.log, 'move').map(entry => ({ xAxis: entry.at, name: 'trays moved' })))

const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const axis = (gridIndex: number, show: boolean) => ({
    type: 'time',
    gridIndex,
    min: props.from,
    max: props.now,
    axisTick: { show: false },
    splitLine: { show: false },
    axisLine: { lineStyle: { color: colours.rule } },
    axisLabel: { ...label, show, hideOverlap: true, formatter: (at: number) => format.time(at) },
  })
  const unit = `°${settings.value.temperatureUnit}`
  const line = (name: string, data: unknown[], colour: string, more = {}) => ({
    type: 'line',
    name,
    data,
    symbol: 'none',
    lineStyle: { color: colour, width: 2 },
    itemStyle: { color: colour },
    ...more,
  })
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: [
      { left: 44, right: 62, top: 26, height: 150 },
      { left: 44, right: 62, top: 214, bottom: 26 },
    ],
    tooltip: {
      trigger: 'axis',
      ...chartTooltip(colours),
      formatter: (items: { seriesName: string; value: [number, number | null]; marker: string }[]) =>
        [
          format.moment(items[0]!.value[0], props.now),
          ...items.filter(item => item.value[1] !== null).map(item => `${item.seriesName} ${item.value[1]}`),
        ].join('<br>'),
    },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    xAxis: [axis(0, false), axis(1, true)],
    yAxis: [
      {
        type: 'value',
        gridIndex: 0,
        scale: true,
        name: unit,
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
        name: '% humidity',
        nameTextStyle: { ...label, align: 'left' },
        axisLabel: label,
        splitLine: { lineStyle: { color: colours.rule } },
      },
    ],
    series: [
      line('set', set.value, colours.text, {
        lineStyle: { color: colours.text, width: 1.5, type: 'dashed' },
        connectNulls: false,
        endLabel: { show: true, formatter: 'set', offset: [0, -7], ...label },
        markLine: {
          silent: true,
          symbol: 'none',
          data: marks.value,
          lineStyle: { color: colours.kelp, type: 'dotted' },
          label: { formatter: '{b}', color: colours.kelp, ...CHART_WORDS, position: 'insideEndTop', rotate: 0 },
        },
      }),
      ...probes.value.flatMap(item => [
        line(
          `${item.deviceName} low`,
          item.points.map(point => [point.at, degrees(point.low)]),
          'transparent',
          { stack: item.deviceId + item.channel, lineStyle: { width: 0 }, silent: true, tooltip: { show: false } },
        ),
        line(
          `${item.deviceName} span`,
          item.points.map(point => [point.at, degrees(point.high) - degrees(point.low)]),
          'transparent',
          {
            stack: item.deviceId + item.channel,
            lineStyle: { width: 0 },
            areaStyle: { color: colours.dulse, opacity: 0.16 },
            silent: true,
            tooltip: { show: false },
          },
        ),
        line(
          item.deviceName,
          item.points.map(point => [point.at, degrees(point.value)]),
          colours.dulse,
          { endLabel: { show: true, formatter: 'probe', offset: [0, 8], ...CHART_WORDS, color: colours.dulse } },
        ),
      ]),
      {
        type: 'line',
        symbol: 'circle',
        showAllSymbol: true,
        lineStyle: { width: 0 },
        name: 'measured',
        data: logged.value,
        symbolSize: 9,
        itemStyle: { color: colours.card, borderColor: colours.dulse, borderWidth: 2 },
      },
      ...humidity.value.map(item =>
        line(item.name, item.points, colours.brine, {
          xAxisIndex: 1,
          yAxisIndex: 1,
          symbol: item.points.length < 12 ? 'circle' : 'none',
          symbolSize: 7,
        }),
      ),
    ],
  }
})
/** At most so many lines: what is drawn finer is in the device's own readings. */
const MOST_LINES = 40
const rows = computed(() => {
  const unit = settings.value.temperatureUnit
  const thin = <Item,>(list: readonly Item[]) => list.filter((_, i) => i % Math.ceil(list.length / MOST_LINES || 1) === 0)
  const heats = ofKind(props.log, 'heat').map(({ at, body }) => ({
    at,
    what: 'set',
    figure: body.setC === null ? 'off' : `${degrees(body.setC)} °${unit}`,
  }))
  const measured = probes.value.flatMap(item =>
    thin(item.points).map(point => ({ at: point.at, what: item.deviceName, figure: `${degrees(point.value)} °${unit}` })),
  )
  const typed = logged.value.map(([at, value]) => ({ at: at!, what: 'measured', figure: `${value} °${unit}` }))
  const humid = humidity.value.flatMap(item =>
    thin(item.points).map(([at, value]) => ({ at: at!, what: `humidity, ${item.name}`, figure: `${value} %` })),
  )
  return [...heats, ...measured, ...typed, ...humid]
    .sort((a, b) => a.at - b.at)
    .map(row => [format.moment(row.at, props.now), row.what, row.figure])
})
const words = computed(() => {
  const last = rows.value.at(-1)
  return `Heat and air, ${plural(rows.value.length, 'figure')}${last ? `; the last: ${last[1]}, ${last[2]}, ${last[0]}` : ''}.`
})
const hasAnything = computed(() => set.value.length + probes.value.length + logged.value.length + humidity.value.length > 0)
</script>

<template>
  <section class="card" aria-label="Heat and air">
    <h2>Heat and air</h2>
    <template v-if="hasAnything">
      <VChart class="chart" :option="option" autoresize role="img" :aria-label="words" />
      <ChartTable caption="Heat and air" :head="['When', 'What', 'Figure']" :rows="rows" />
    </template>
    <p v-else class="quiet">
      Nothing is set or measured yet. Log the air with A on a batch, add a device in the set-up, or read a logger’s file in.
    </p>
  </section>
</template>

<style scoped>
.chart {
  height: 320px;
}
</style>
