/** The hot-first school: so much above the card for the first hours, never above `mostC` (common practice: 65 to 70 °C for an hour or two). */
export const HOT_START = { aboveC: 10, hours: 1.5, mostC: 70 } as const

/** Heat from which an outside may harden over a wet core, above the card's, °C. */
const HOT_BY_C = 6
/** Thin food dries through before it hardens: it may stay hot for longer. */
const THIN_MM = 4
const THIN_HOURS = 3
/** With so much of the water gone a higher heat only finishes. */
const NEARLY_DRY = 0.9

export interface HardeningInput {
  /** The card's heat and the heat felt now, °C. */
  cardC: number
  nowC: number
  thicknessMm?: number
  /** Share of the loaded water that is gone. */
  waterGone: number
}

/** Whether a heat is one that may harden food of this card. */
export function isHot(cardC: number, celsius: number): boolean {
  return celsius >= cardC + HOT_BY_C
}

/**
 * How long food may stand at a heat that hardens its outside over a wet core: it then feels dry, and
 * softens in the jar.
 * @returns hours from when it began; undefined where there is no risk
 */
export function hotHoursAllowed({ cardC, nowC, thicknessMm, waterGone }: HardeningInput): number | undefined {
  if (!isHot(cardC, nowC) || waterGone >= NEARLY_DRY) return undefined
  return thicknessMm !== undefined && thicknessMm < THIN_MM ? THIN_HOURS : HOT_START.hours
}

/** The heat of a hot start on a card, in a machine that goes to `highC`; undefined for food that is dried mildly for its scent. */
export function hotStartC(cardC: number, highC: number): number | undefined {
  const celsius = Math.min(cardC + HOT_START.aboveC, HOT_START.mostC, highC)
  return cardC >= 50 && isHot(cardC, celsius) ? celsius : undefined
}
