import { effectsOfChoices, purposeFactor, type Food, type MethodCard } from '../foods'
import type { BatchState } from '../log'
import type { WayKey } from '../ways'

/**
 * How hours grow with thickness where the food's cards do not say it: about in proportion, as they do on average. Diffusion alone would
 * square them, the air alone not change them (common practice).
 */
const THICKNESS_POWER = 1
/** By the food's own cards of two thicknesses, within what air and diffusion allow. */
const POWER = { least: 0.3, most: 2 }
/** Beyond this the card no longer speaks of the same cut. */
const LEAST = 0.5
const MOST = 2.5

/** Hours of a batch as cut, for what it is meant and by the schools that were chosen, over those of its card in a way. */
export function usualHoursFactor(state: Pick<BatchState, 'food' | 'card' | 'thicknessMm' | 'purpose' | 'choices'>, way?: WayKey): number {
  return effectsOfChoices(state.food, state.choices).hours * purposeFactor(state.food, state.purpose, way) * thicknessFactor(state)
}

/** Hours at the thickness that was cut, over those of the card's: 1 where either is not known. */
function thicknessFactor({ food, card, thicknessMm }: Pick<BatchState, 'food' | 'card' | 'thicknessMm'>): number {
  if (!card.thicknessMm || !thicknessMm) return 1
  return Math.min(MOST, Math.max(LEAST, (thicknessMm / card.thicknessMm) ** powerOf(food, card, thicknessMm)))
}

/** By the food's other card of the same form that is nearest to the thickness, where there is one. */
function powerOf({ cards }: Food, card: MethodCard, thicknessMm: number): number {
  const form = ({ key }: MethodCard) => key.split('-')[0]
  const far = (other: MethodCard) => Math.abs(Math.log(other.thicknessMm! / thicknessMm))
  const nearest = cards
    .filter(other => other.key !== card.key && form(other) === form(card) && other.thicknessMm && other.thicknessMm !== card.thicknessMm)
    .sort((a, b) => far(a) - far(b))[0]
  if (!nearest) return THICKNESS_POWER
  const middle = ({ usualHours: { value } }: MethodCard) => 0.5 * Math.log(value.low * value.high)
  const power = (middle(nearest) - middle(card)) / Math.log(nearest.thicknessMm! / card.thicknessMm!)
  return Math.min(POWER.most, Math.max(POWER.least, power))
}
