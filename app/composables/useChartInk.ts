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
