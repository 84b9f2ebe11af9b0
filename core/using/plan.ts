import { InputError } from '../errors'
import type { Purpose } from '../foods'
import type { Interval } from '../stats'
import { freshOf, powderFor } from './fresh'
import { howTo, schoolsFor, type HowTo } from './howTo'
import { inVessels, type Measured, type MeasureSystem } from './measures'
import { productOf, solidsFor, waterBack, WHOLE, type Product, type WaterBack } from './waterBack'

/** What is in a jar, as a cook needs it. */
export interface Powder {
  foodKey: string
  /** Key of its family. */
  group: string
  purpose: Purpose
  leftG: number
  /** Water of what is in the jar and of the raw food, wet basis. */
  moisture: number
  rawMoisture: number
  /** Spooned, g/mL. */
  densityGMl: Interval
}

/** A product by name, or its share of solids; and how much of it, or how much powder there is for it. */
export interface WaterWish {
  product?: string
  solids?: number
  wantedG?: number
  powderG?: number
}

export interface WaterPlan extends WaterBack {
  solids: number
  /** The product that it makes, by its solids. */
  makes?: Product
  /** In the middle of what is known of the density. */
  powder: Measured
  powderMl: Interval
  water: Measured
  holdBack: Measured
  how: HowTo
  schools: ReturnType<typeof schoolsFor>
  /** Missing in the jar, g. */
  shortG?: number
}

/** Millilitres of water to a gram, near enough in a kitchen. */
const WATER_ML_G = 1

/**
 * Powder and water for what is wanted, on the scale and in spoons, with what to do and where the schools land.
 * @throws InputError by field, as `waterBack`; and for a jar that holds none
 */
export function planWater(powder: Powder, wish: WaterWish, measures: MeasureSystem): WaterPlan {
  const product = wish.product ?? WHOLE.key
  if (wish.solids !== undefined && !(wish.solids > 0 && wish.solids < 1))
    throw new InputError([{ field: 'solids', code: 'not-a-fraction', message: 'must be a share between 0 and 1' }])
  const solids = wish.solids ?? solidsFor(product, powder.rawMoisture)
  if (solids >= 1 - powder.moisture)
    throw new InputError([
      {
        field: 'solids',
        code: 'drier-than-powder',
        message: `The powder itself holds ${Math.round(100 * powder.moisture)} % water: what is made of it must hold more.`,
      },
    ])
  const amounts = waterBack({ moisture: powder.moisture, target: 1 - solids, wantedG: wish.wantedG, powderG: wish.powderG })
  return {
    ...amounts,
    solids,
    makes: productOf(solids),
    ...volumesOf(amounts.powderG, powder.densityGMl, measures),
    water: inVessels(amounts.waterG * WATER_ML_G, measures),
    holdBack: inVessels(amounts.holdBackG * WATER_ML_G, measures),
    how: howTo(product, powder.purpose, powder.group),
    schools: powder.purpose === 'pieces' ? [] : schoolsFor(powder),
    ...(amounts.powderG > powder.leftG + 0.5 && { shortG: amounts.powderG - powder.leftG }),
  }
}

/** What a volume of it weighs, as spooned, g. */
export const spoonedG = ({ densityGMl }: Pick<Powder, 'densityGMl'>, ml: number): number => ml * densityGMl.p50

/** A weight of powder in spoons and cups. */
export function volumesOf(grams: number, densityGMl: Interval, measures: MeasureSystem): { powder: Measured; powderMl: Interval } {
  return {
    powder: inVessels(grams / densityGMl.p50, measures),
    powderMl: { p10: grams / densityGMl.p90, p50: grams / densityGMl.p50, p90: grams / densityGMl.p10 },
  }
}

/** Something fresh, or out of a tin, that recipes ask for: its weight as it goes into the pot. `solids` where it is not the raw food. */
export interface CommonAmount {
  foodKey: string
  words: string
  grams: number
  solids?: number
}

/** All common practice: middle sizes, peeled and trimmed. A tin of paste by 21 CFR 155.191 holds at least 24 % solids. */
export const COMMON_AMOUNTS: readonly CommonAmount[] = [
  { foodKey: 'onion', words: 'a medium onion', grams: 110 },
  { foodKey: 'garlic', words: 'a clove of garlic', grams: 4 },
  { foodKey: 'carrot', words: 'a medium carrot', grams: 60 },
  { foodKey: 'tomato', words: 'a medium tomato', grams: 120 },
  { foodKey: 'tomato', words: 'a 170 g tin of paste', grams: 170, solids: 0.26 },
  { foodKey: 'tomato', words: 'a 400 g tin of tomatoes', grams: 400 },
  { foodKey: 'celery', words: 'a stalk of celery', grams: 40 },
  { foodKey: 'sweet-pepper', words: 'a sweet pepper', grams: 150 },
  { foodKey: 'beetroot', words: 'a medium beetroot', grams: 85 },
  { foodKey: 'leek', words: 'a leek', grams: 90 },
  { foodKey: 'mushroom', words: 'a handful of mushrooms', grams: 90 },
  { foodKey: 'spinach', words: 'a bunch of spinach', grams: 280 },
  { foodKey: 'parsley', words: 'a bunch of parsley', grams: 55 },
  { foodKey: 'basil', words: 'ten leaves of basil', grams: 5 },
  { foodKey: 'ginger', words: 'a thumb of ginger', grams: 15 },
  { foodKey: 'hot-chili', words: 'a hot chili', grams: 15 },
  { foodKey: 'milk-whole', words: 'a US cup of milk', grams: 244 },
  { foodKey: 'apple', words: 'an apple', grams: 150 },
  { foodKey: 'pumpkin', words: 'a 425 g tin of pumpkin', grams: 425, solids: 0.1 },
]

export interface FreshEquivalent {
  words: string
  freshG: number
  powderG: number
  powder: Measured
}

/** What usual fresh amounts of a food come to in this powder. */
export function usualAmounts(powder: Powder, measures: MeasureSystem): FreshEquivalent[] {
  return COMMON_AMOUNTS.filter(amount => amount.foodKey === powder.foodKey).map(({ words, grams, solids }) => {
    const powderG = powderFor(grams, powder.moisture, solids === undefined ? powder.rawMoisture : 1 - solids)
    return { words, freshG: grams, powderG, powder: volumesOf(powderG, powder.densityGMl, measures).powder }
  })
}

/** Fresh food in a weight of powder, and the other way, with spoons. */
export function freshBothWays(powder: Powder, amount: { powderG: number } | { freshG: number }, measures: MeasureSystem): FreshEquivalent {
  const powderG = 'powderG' in amount ? amount.powderG : powderFor(amount.freshG, powder.moisture, powder.rawMoisture)
  return {
    words: '',
    powderG,
    freshG: 'freshG' in amount ? amount.freshG : freshOf(powderG, powder.moisture, powder.rawMoisture),
    powder: volumesOf(powderG, powder.densityGMl, measures).powder,
  }
}

/** A recipe's amount of a powder: on the scale, by vessels, as fresh food, or as a product with its water back. */
export type Amount =
  | { by: 'weight'; grams: number }
  | { by: 'vessel'; count: number; ml: number }
  | { by: 'fresh'; grams: number }
  | { by: 'product'; grams: number; product: string }

/** Grams of this powder that an amount comes to. */
export function gramsOf(amount: Amount, powder: Powder): number {
  switch (amount.by) {
    case 'weight':
      return amount.grams
    case 'vessel':
      return spoonedG(powder, amount.count * amount.ml)
    case 'fresh':
      return powderFor(amount.grams, powder.moisture, powder.rawMoisture)
    case 'product':
      return waterBack({ moisture: powder.moisture, target: 1 - solidsFor(amount.product, powder.rawMoisture), wantedG: amount.grams })
        .powderG
  }
}
