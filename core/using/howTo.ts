import type { Interval } from '../stats'
import { productOf, solidsOfRatio, type Product } from './waterBack'

/** How a powder or pieces get their water back, in words of the kitchen (common practice). */
export interface HowTo {
  minutes: { low: number; high: number }
  water: string
  thin: string
  thick: string
}

const STIR: HowTo = {
  minutes: { low: 5, high: 10 },
  water: 'Stir the powder into most of the water, hot, and wait: it goes on drinking.',
  thin: 'Too thin: simmer it down, or stir in another half spoon of powder and wait again.',
  thick: 'Too thick: the water that was held back, a spoonful at a time.',
}
const BY_GROUP: Record<string, Partial<HowTo>> = {
  dairy: {
    minutes: { low: 10, high: 30 },
    water: 'Add the water to the powder, cold and little by little: all at once it lumps. Then it stands in the cold.',
    thin: 'Too thin: whisk in a spoon of powder with a little of the milk first.',
  },
  egg: { minutes: { low: 5, high: 10 }, water: 'Whisk lukewarm water into the powder, little by little; hot water sets it.' },
  berry: { minutes: { low: 5, high: 10 }, water: 'Cold or lukewarm water, little by little: sugar-rich powder lumps in hot.' },
  meat: { minutes: { low: 20, high: 60 }, water: 'Hot broth or water, then a simmer: it softens as it cooks.' },
  fish: { minutes: { low: 15, high: 40 }, water: 'Hot water or milk, then a simmer: it softens as it cooks.' },
}

/**
 * What to do with powder, or pieces, and water.
 * @param group key of the food's family
 */
export function howTo(product: string, purpose: 'pieces' | 'flakes' | 'powder', group: string): HowTo {
  const own = BY_GROUP[group] ?? {}
  if (purpose === 'pieces')
    return {
      ...STIR,
      minutes: { low: 20, high: 90 },
      water: 'Cover the pieces with boiling water and let them soak; above two hours only in the cold.',
      ...(group === 'meat' || group === 'fish' ? own : {}),
    }
  if (product === 'broth' || product === 'juice')
    return {
      ...STIR,
      minutes: { low: 2, high: 5 },
      water: 'Whisk it into the water; it settles, so stir again at the table.',
      ...(group === 'dairy' ? own : {}),
    }
  if (product === 'paste')
    return { ...STIR, minutes: { low: 5, high: 15 }, water: 'Stir the water in by spoonfuls until it holds its shape, and wait.', ...own }
  return { ...STIR, ...own }
}

const TOMATO = ['tomato', 'tomato-paste', 'tomato-sauce']

/** A ratio by volume that people hand on, and for what. Powder is one part. */
export interface RatioSchool {
  key: string
  product: string
  parts: number
  words: string
  of?: readonly string[]
}

/** All common practice. `of` names families or foods; without it, it is said of any powder. */
const RATIO_SCHOOLS: readonly RatioSchool[] = [
  { key: 'gourd-puree', product: 'puree', parts: 4, words: 'Half a cup of powder to two cups of hot water', of: ['gourd'] },
  { key: 'tomato-paste', product: 'paste', parts: 2, words: 'One of powder to two of water, for paste', of: TOMATO },
  { key: 'tomato-sauce', product: 'sauce', parts: 4, words: 'One of powder to four of water, for sauce', of: TOMATO },
  { key: 'tomato-simmer', product: 'sauce', parts: 1, words: 'One to one, then simmered with the rest', of: TOMATO },
  { key: 'milk', product: 'whole', parts: 3, words: 'One of milk powder to three of water', of: ['dairy'] },
  { key: 'broth', product: 'broth', parts: 16, words: 'A tablespoon to a cup, for broth' },
]

/** Each school's ratio, and where it really lands with this powder. */
export function schoolsFor(powder: {
  foodKey: string
  group: string
  moisture: number
  densityGMl: Interval
}): { school: RatioSchool; solids: Interval; makes: Product | undefined }[] {
  return RATIO_SCHOOLS.filter(school => !school.of || school.of.includes(powder.group) || school.of.includes(powder.foodKey)).map(
    school => {
      const solids = solidsOfRatio(school.parts, powder.moisture, powder.densityGMl)
      return { school, solids, makes: productOf(solids.p50) }
    },
  )
}
