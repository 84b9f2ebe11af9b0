import type { Damp } from '#core/keeping'
import { plural } from './words'

const MONTH_DAYS = 30.44
/** Beyond this nobody keeps a jar. */
const FAR_DAYS = 3650

/** When a jar's damp brings it to clumping, in a sentence. */
export function dampWords({ daysToClump }: Pick<Damp, 'daysToClump'>): string {
  if (daysToClump === 0) return 'It is damper already than what stays loose.'
  if (daysToClump > FAR_DAYS) return 'The damp that it lets in does not matter for ten years.'
  return `The damp that it lets in brings it to clumping in about ${plural(Math.max(1, Math.round(daysToClump / MONTH_DAYS)), 'month')}.`
}
