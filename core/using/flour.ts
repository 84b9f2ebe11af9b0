import { InputError } from '../errors'

/** At most a third of the flour by volume: powder has no gluten (common practice). */
export const MOST_FLOUR_SHARE = 1 / 3
/** Wheat flour, spooned and levelled, g/mL (common practice). */
export const FLOUR_G_ML = 0.53
/** Water that vegetable powder drinks beyond what flour does, g a gram (common practice). */
const EXTRA_WATER = 0.8

export interface FlourSwap {
  flourG: number
  powderG: number
  powderMl: number
  waterG: number
}

/**
 * Powder in place of a part of the flour, by volume as bakers do it, and the water it drinks besides.
 * @param share of the flour's volume, up to a third
 * @param densityGMl of the powder as spooned
 * @throws InputError for a share above a third: the dough would not hold together
 */
export function flourSwap(flourG: number, share: number, densityGMl: number): FlourSwap {
  if (!(flourG > 0)) throw new InputError([{ field: 'flourG', code: 'not-above-zero', message: 'must be above zero' }])
  if (!(share > 0 && share <= MOST_FLOUR_SHARE + 1e-9))
    throw new InputError([
      { field: 'share', code: 'out-of-range', message: 'must be above zero and at most a third: powder has no gluten' },
    ])
  const powderMl = (flourG / FLOUR_G_ML) * share
  const powderG = powderMl * densityGMl
  return { flourG: flourG * (1 - share), powderG, powderMl, waterG: EXTRA_WATER * powderG }
}
