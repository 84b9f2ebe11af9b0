import { parseRange, parseSpread } from './amounts'
import { PRACTICE } from './expand'
import type { GoodsSource } from './source'
import type { Food, Purpose } from './types'

/**
 * Bought-in goods as foods of the shelf: they keep, fade and weigh as any, and have no cards to be dried by.
 * @throws Error for an amount that is none: the file was not checked
 */
export function expandGoods(goods: GoodsSource): Food {
  const wrong = (what: string) => new Error(`${goods.key}: ${what}`)
  const keeps = parseRange(goods.keeps)
  const density = parseSpread(goods.density)
  const heat = goods.heatUnits === undefined ? undefined : parseRange(goods.heatUnits)
  if (!keeps || !density || (goods.heatUnits !== undefined && !heat)) throw wrong('an amount that cannot be read')
  const each = <T>(value: T): Record<Purpose, T> => ({ pieces: value, flakes: value, powder: value })
  const water = goods.water / 100
  return {
    key: goods.key,
    name: goods.name,
    otherNames: goods.others ?? [],
    foundBy: [],
    group: 'goods',
    groupName: 'Bought in, dry',
    isotherm: 'wateryVegetable',
    fat: 0,
    rawMoisture: { value: { mean: water, sd: 0.01 }, source: PRACTICE },
    trimShare: { value: { mean: 0, sd: 0 }, source: PRACTICE },
    freshDays: { value: 365, source: PRACTICE },
    handsMinutesKg: { value: 0, source: PRACTICE },
    cards: [],
    target: each(water),
    targetSource: PRACTICE,
    drynessTest: { value: 'It runs freely.', source: PRACTICE },
    pliable: false,
    powderColour: goods.colour,
    powderDensity: { value: density, source: PRACTICE },
    keepsMonths: each(keeps),
    keepsReason: 'Bought in, it fades as spices do.',
    keepsSource: PRACTICE,
    ...(heat && { heatUnits: { value: heat, source: 'common practice, from memory' } }),
    ...(goods.salt !== undefined && { saltShare: goods.salt / 100 }),
    allergens: goods.allergens ?? [],
    traits: goods.traits ?? [],
    cautions: goods.cautions ?? [],
    schools: [],
    prefer: {},
    forbids: {},
    schoolEffects: {},
    own: false,
  }
}
