import { InputError } from '../errors'

/**
 * Water per solids (dry basis, g/g) of a wet-basis fraction.
 * @throws InputError unless 0 ≤ m < 1.
 */
export function dryBasis(moistureWetBasis: number): number {
  if (!(moistureWetBasis >= 0 && moistureWetBasis < 1)) {
    throw new InputError([{ field: 'moistureWetBasis', code: 'not-a-fraction', message: 'must be a fraction from 0 to below 1' }])
  }
  return moistureWetBasis / (1 - moistureWetBasis)
}

/**
 * Wet-basis fraction of a dry-basis moisture.
 * @throws InputError when negative.
 */
export function wetBasis(moistureDryBasis: number): number {
  if (!(moistureDryBasis >= 0)) {
    throw new InputError([{ field: 'moistureDryBasis', code: 'negative', message: 'must not be negative' }])
  }
  return moistureDryBasis / (1 + moistureDryBasis)
}

/** Grams of solids in `weightG` of food at a wet-basis moisture. Drying does not change them. */
export function solidsOf(weightG: number, moistureWetBasis: number): number {
  return weightG / (1 + dryBasis(moistureWetBasis))
}

/** Grams that `solidsG` of solids weigh at a wet-basis moisture. */
export function targetWeight(solidsG: number, moistureWetBasis: number): number {
  return solidsG * (1 + dryBasis(moistureWetBasis))
}
