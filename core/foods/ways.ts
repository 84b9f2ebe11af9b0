import type { MachineKind } from '../machines'
import type { Range } from './types'

/** What a way of drying is, against a dehydrator. */
export interface WayFacts {
  name: string
  /** Usual air, °C; undefined where the food's own is set. */
  celsius?: number
  /** Hours over those of a dehydrator at the food's own heat; undefined where they do not follow from it. */
  factor?: number
  /** Hours of a pass, whatever the food. */
  pass?: Range
  reason: string
}

/** Hours of useful sun in a day (common practice: from nine to dusk, less its edges). */
export const SUN_HOURS = 8

/** Hours on the wall's clock that so many hours of a way take: sun's come eight a day. */
export function elapsedHours(way: MachineKind | undefined, hours: number): number {
  return way === 'sun' ? Math.floor(hours / SUN_HOURS) * 24 + (hours % SUN_HOURS) : hours
}

/**
 * The ways of drying. Factors are what an hour at that air is worth by Arrhenius (30 kJ/mol), and still air
 * in a room slower again; they agree with what practice says of chilies (two to three days of sun, four or
 * five in a warm cupboard). Common practice.
 */
export const WAYS: Record<MachineKind, WayFacts> = {
  dehydrator: { name: 'Dehydrator', factor: 1, reason: '' },
  oven: {
    name: 'Oven, door ajar',
    celsius: 75,
    factor: 0.6,
    reason: 'The lowest that most ovens hold, with the door ajar. It cooks a little: look after an hour, then hourly, and turn.',
  },
  smoker: {
    name: 'Smoker, then dryer',
    celsius: 85,
    pass: { low: 3, high: 5 },
    reason: 'A pass at its lowest takes part of the water and brings the smoke; turn so that nothing crisps, then dry on in a machine.',
  },
  sun: {
    name: 'Sun',
    celsius: 35,
    factor: 2.2,
    reason:
      'Hours in the sun only: 30 °C and above, under 60 % humidity. It costs colour and vitamins; in at dusk, and a last half hour at 60 °C.',
  },
  air: { name: 'Warm room', celsius: 22, factor: 5, reason: 'Shade with moving air is kinder than sun and takes days.' },
  'freeze-dryer': { name: 'Freeze dryer', celsius: 50, reason: 'The shelf warms to about this under vacuum while the food stays frozen.' },
}
