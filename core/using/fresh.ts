import { InputError } from '../errors'

/**
 * Fresh, trimmed food that a weight of powder stands for, g: its solids in the water it once had.
 * @param moisture of the powder, `raw` of the fresh edible part; wet basis
 */
export function freshOf(powderG: number, moisture: number, raw: number): number {
  if (!(powderG > 0)) throw new InputError([{ field: 'powderG', code: 'not-above-zero', message: 'must be above zero' }])
  return (powderG * (1 - moisture)) / (1 - raw)
}

/** The other way: powder for a weight of fresh, trimmed food, g. */
export function powderFor(freshG: number, moisture: number, raw: number): number {
  if (!(freshG > 0)) throw new InputError([{ field: 'freshG', code: 'not-above-zero', message: 'must be above zero' }])
  return (freshG * (1 - raw)) / (1 - moisture)
}
