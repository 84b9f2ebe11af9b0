/** The theme's colours as a chart needs them: read from the page, since a chart knows no CSS variables. */
export function useChartInk() {
  const { dim } = useTheme()
  return computed(() => {
    void dim.value
    const style = getComputedStyle(document.documentElement)
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim()
    return {
      text: colour('quiet'),
      rule: colour('rule'),
      line: colour('brine'),
      dulse: colour('dulse-ink'),
      husk: colour('husk'),
      card: colour('card'),
      ink: colour('ink'),
      kelp: colour('kelp'),
      ochre: colour('ochre'),
      brine: colour('brine'),
    }
  })
}

export const CHART_WORDS = { fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 13 }

type Ink = ReturnType<typeof useChartInk>['value']

/** The box that a figure is told in, as every chart has it. */
export const chartTooltip = (ink: Ink) => ({
  backgroundColor: ink.card,
  borderColor: ink.rule,
  textStyle: { ...CHART_WORDS, color: ink.ink },
})

/** An axis of dates, months written as the household writes them. */
export const monthAxis = (ink: Ink, month: (at: number) => string) => ({
  type: 'time',
  axisTick: { show: false },
  splitLine: { show: false },
  axisLine: { lineStyle: { color: ink.rule } },
  axisLabel: { ...CHART_WORDS, color: ink.text, hideOverlap: true, formatter: month },
})
