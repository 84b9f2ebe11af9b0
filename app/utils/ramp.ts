/** The wet-to-dry ramp, wettest first: the one colour code of the product. */
export const RAMP = ['brine', 'sea-glass', 'straw', 'ochre', 'husk'] as const

/**
 * Colour of a share of the water that is left, 1 (wet, brine) to 0 (dry, husk), as CSS. The mixing is
 * left to the browser, so that the dim theme mixes its own stops.
 */
export function rampColour(waterLeft: number): string {
  const place = (1 - Math.min(1, Math.max(0, waterLeft))) * (RAMP.length - 1)
  const index = Math.min(RAMP.length - 2, Math.floor(place))
  const share = Math.round((place - index) * 100)
  return `color-mix(in oklab, var(--${RAMP[index]}) ${100 - share}%, var(--${RAMP[index + 1]}))`
}
