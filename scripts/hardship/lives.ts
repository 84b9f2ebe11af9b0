import { liveThrough } from '../../tests/support/lives'
import type { Campaign } from './campaign'

/** Baskets by chance, from harvest to jar: no solids appear or vanish, and the truth lies within the stated doubt. Beyond those of the tests. */
export const lives: Campaign = async size => {
  const { lines, entries, refused, worst, faults } = liveThrough(10_001, size)
  const worsts = Object.entries(worst).map(([name, value]) => `${name} ${value.toPrecision(2)}`)
  return { figures: `${size} lives, ${lines} batches, ${entries} entries, ${refused} refused; worst ${worsts.join(', ')}`, faults }
}
