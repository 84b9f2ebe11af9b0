import type { MethodCard } from '../foods'

/** Grams that one tray takes in a single layer of the card's cut: mean and spread. */
export function trayTakesG(card: MethodCard, trayAreaM2: number): { mean: number; sd: number } {
  return { mean: card.trayLoadKgM2.mean * 1000 * trayAreaM2, sd: card.trayLoadKgM2.sd * 1000 * trayAreaM2 }
}
