<script setup lang="ts">
import { wetBasis } from '#core/mass'
import { CustomChart, LineChart } from 'echarts/charts'
import { GridComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer, CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { Ending } from '~/workers/practice.worker'

use([CustomChart, LineChart, GridComponent, TooltipComponent, SVGRenderer, CanvasRenderer])

/** The inside of one piece over time, skin to core, with what was done to it; beneath it the water of all, and what was said of it. */
const props = defineProps<{ ending: Ending; tray: number; size: number; begunAt: number; words: string }>()
const format = useFormat()
const ink = useChartInk()
const HOUR = 3_600_000
const frames = computed(() => props.ending.frames.filter(frame => frame.pieces[props.tray]?.[props.size]))
/** Hours in a jar outweigh those on the rack by far: three days in it are drawn as an hour. */
const jarFrom = computed(() => {
  const long = frames.value.findIndex((frame, i) => i > 0 && frame.hours - frames.value[i - 1]!.hours > 2)
  return long < 0 ? Infinity : frames.value[long - 1]!.hours
})
const SLOWER = 1 / 72
const place = (hours: number) => (hours <= jarFrom.value ? hours : jarFrom.value + (hours - jarFrom.value) * SLOWER)
const hoursAt = (x: number) => (x <= jarFrom.value ? x : jarFrom.value + (x - jarFrom.value) / SLOWER)
const endX = computed(() => Math.max(0.5, place(frames.value.at(-1)?.hours ?? 1)))
/** Wet basis: what the ramp is told by. From what went on the tray to nothing. */
const wettest = computed(() =>
  Math.max(0.2, ...(frames.value[0] ? [wetBasis(Math.max(...frames.value[0].pieces[props.tray]![props.size]!))] : [])),
)

/** Stops of the ramp as the page has them, mixed for a chart that knows no CSS. */
const stops = computed(() => {
  void ink.value
  const style = getComputedStyle(document.documentElement)
  return RAMP.map(name => hex(style.getPropertyValue(`--${name}`).trim()))
})
function hex(colour: string): [number, number, number] {
  const value = Number.parseInt(colour.replace('#', ''), 16)
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255]
}
function colourOf(moisture: number): string {
  // Near dry is where the judgement is: the scale is drawn out there.
  const left = Math.min(1, Math.max(0, moisture / wettest.value)) ** 0.6
  const at = (1 - left) * (RAMP.length - 1)
  const i = Math.min(RAMP.length - 2, Math.floor(at))
  const share = at - i
  const [a, b] = [stops.value[i]!, stops.value[i + 1]!]
  return `rgb(${a.map((value, j) => Math.round(value + (b[j]! - value) * share)).join(',')})`
}
/** A slab lies between two skins; what lies on something tight, or round, is drawn as far as its core. */
const cells = computed(() => frames.value[0]?.pieces[props.tray]![props.size]!.length ?? 0)

const ACTS: Record<string, string> = {
  weigh: 'weighed',
  feel: 'felt',
  jarAir: 'air of a jar',
  look: 'looked',
  heat: 'heat',
  swap: 'places changed',
  turn: 'turned',
  move: 'moved',
  takeOut: 'taken out',
  rest: 'into the jar',
  back: 'back in',
  grind: 'ground',
}
const deeds = computed(() =>
  props.ending.acts.flatMap(({ hours, act, reading }) => {
    const words = ACTS[act.do]
    if (!words) return []
    const more =
      reading.of === 'weight'
        ? ` ${format.weight(reading.grams)}`
        : act.do === 'heat'
          ? act.setC === null
            ? ' off'
            : ` ${format.temperature(act.setC)}`
          : act.do === 'feel'
            ? `, ${act.thick ? 'thick' : 'any'}${act.cooled ? '' : ', warm'}`
            : reading.of === 'look'
              ? `: ${reading.saw}`
              : ''
    return [{ x: place(hours), hours, words: words + more }]
  }),
)
const xAxis = (index: number, shown: boolean) => ({
  type: 'value',
  gridIndex: index,
  min: 0,
  max: endX.value,
  axisLine: { lineStyle: { color: ink.value.rule } },
  axisTick: { show: false },
  splitLine: { show: false },
  axisLabel: {
    ...CHART_WORDS,
    show: shown,
    color: ink.value.text,
    hideOverlap: true,
    formatter: (x: number) =>
      x > jarFrom.value ? `day ${Math.round((hoursAt(x) - jarFrom.value) / 24)}` : format.time(props.begunAt + hoursAt(x) * HOUR),
  },
})
const option = computed(() => {
  const colours = ink.value
  const label = { ...CHART_WORDS, color: colours.text }
  const all = frames.value
  const shades = all.slice(0, -1).flatMap((frame, i) => {
    const profile = frame.pieces[props.tray]![props.size]!
    const [from, to] = [place(frame.hours), place(all[i + 1]!.hours)]
    return Array.from(profile, (x, cell) => ({ from, to, cell, moisture: wetBasis(x) }))
  })
  const count = cells.value
  const said = props.ending.said.flatMap(({ hours, guess, dulse, truths }) => [
    ...(guess.water
      ? [
          [
            place(hours),
            100 * guess.water.low,
            100 * guess.water.high,
            truths.water >= guess.water.low && truths.water <= guess.water.high ? 1 : 0,
            0,
          ],
        ]
      : []),
    ...(dulse?.water ? [[place(hours), 100 * dulse.water.low, 100 * dulse.water.high, 1, 1]] : []),
  ])
  return {
    animation: false,
    textStyle: CHART_WORDS,
    grid: [
      { left: 58, right: 16, top: 34, height: 210 },
      { left: 58, right: 16, top: 286, height: 110 },
    ],
    tooltip: {
      ...chartTooltip(colours),
      trigger: 'item',
      formatter: ({ seriesName, data }: { seriesName: string; data: number[] }) =>
        seriesName === 'inside'
          ? `${format.share(data[3]!)} water, ${Math.round(100 * ((data[2]! + 0.5) / count))} % of the way out`
          : seriesName === 'acts'
            ? (deeds.value.find(deed => deed.x === data[0])?.words ?? '')
            : '',
    },
    xAxis: [xAxis(0, false), xAxis(1, true)],
    yAxis: [
      {
        type: 'value',
        gridIndex: 0,
        min: 0,
        max: count,
        interval: count,
        axisLabel: { ...label, formatter: (value: number) => (value === 0 ? 'core' : 'skin') },
        splitLine: { show: false },
      },
      {
        type: 'value',
        gridIndex: 1,
        min: 0,
        max: 100,
        interval: 50,
        axisLabel: { ...label, formatter: '{value} %' },
        splitLine: { lineStyle: { color: colours.rule } },
      },
    ],
    series: [
      {
        name: 'inside',
        type: 'custom',
        xAxisIndex: 0,
        yAxisIndex: 0,
        data: shades.map(({ from, to, cell, moisture }) => [from, to, cell, moisture]),
        renderItem: (_: unknown, api: { value: (i: number) => number; coord: (at: number[]) => number[] }) => {
          const [x1, y1] = api.coord([api.value(0), api.value(2) + 1])
          const [x2, y2] = api.coord([api.value(1), api.value(2)])
          return {
            type: 'rect',
            // A hair wider, so that no seam shows between two.
            shape: { x: x1, y: y1, width: x2! - x1! + 0.7, height: y2! - y1! + 0.7 },
            style: { fill: colourOf(api.value(3)) },
          }
        },
      },
      {
        name: 'acts',
        type: 'custom',
        xAxisIndex: 0,
        yAxisIndex: 0,
        data: deeds.value.map(deed => [deed.x, count]),
        renderItem: (_: unknown, api: { value: (i: number) => number; coord: (at: number[]) => number[] }) => {
          const [x, top] = api.coord([api.value(0), count])
          const [, bottom] = api.coord([api.value(0), 0])
          return {
            type: 'group',
            children: [
              {
                type: 'line',
                shape: { x1: x, y1: top, x2: x, y2: bottom },
                style: { stroke: colours.card, lineWidth: 1.6, lineDash: [3, 3] },
              },
              {
                type: 'circle',
                shape: { cx: x, cy: top! - 8, r: 5 },
                style: { fill: colours.card, stroke: colours.dulse, lineWidth: 2.5 },
              },
            ],
          }
        },
        z: 4,
      },
      {
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: all.map(frame => [place(frame.hours), 100 * frame.moisture]),
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.line, width: 2.5 },
      },
      {
        type: 'line',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: [
          [0, 100 * props.ending.target],
          [endX.value, 100 * props.ending.target],
        ],
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.dulse, width: 1.4, type: 'dashed' },
        endLabel: { show: false },
      },
      {
        type: 'custom',
        xAxisIndex: 1,
        yAxisIndex: 1,
        silent: true,
        data: said,
        renderItem: (_: unknown, api: { value: (i: number) => number; coord: (at: number[]) => number[] }) => {
          const dulse = api.value(4) === 1
          const [x, y1] = api.coord([api.value(0), api.value(1)])
          const [, y2] = api.coord([api.value(0), api.value(2)])
          const at = x! + (dulse ? 6 : -3)
          return {
            type: 'rect',
            shape: { x: at - (dulse ? 1.5 : 3), y: y2, width: dulse ? 3 : 6, height: Math.max(3, y1! - y2!), r: 2 },
            style: { fill: dulse ? colours.text : api.value(3) === 1 ? colours.kelp : colours.dulse },
          }
        },
        z: 5,
      },
    ],
  }
})
</script>

<template>
  <div>
    <VChart class="chart" :option="option" :init-options="{ renderer: 'canvas' }" autoresize role="img" :aria-label="words" />
    <p class="small quiet">
      Wet is brine, dry is husk. Rings and dotted lines: what was done. Below, the water of all of it, dry at the dashed line; thick bars
      are what you said (red: it was not in there), thin ones what Dulse said.{{
        jarFrom < Infinity ? ' Three days in the jar are drawn as an hour.' : ''
      }}
    </p>
    <ChartTable
      caption="What was done, and the water then"
      :head="['Hours', 'What', 'Water of all', 'Skin', 'Core']"
      :rows="
        deeds.map(deed => {
          const frame = frames.findLast(item => item.hours <= deed.hours + 0.01) ?? frames[0]!
          const profile = frame.pieces[tray]![size]!
          return [
            format.hours(deed.hours),
            deed.words,
            format.share(frame.moisture),
            format.share(wetBasis(profile.at(-1)!)),
            format.share(wetBasis(profile[0]!)),
          ]
        })
      "
    />
  </div>
</template>

<style scoped>
.chart {
  height: 430px;
}
</style>
