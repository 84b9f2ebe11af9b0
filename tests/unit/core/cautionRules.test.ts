import { readFileSync } from 'node:fs'
import type { CautionStep } from '#core/foods'
import { cautionsAt, mouldStop, SAFETY_RULES, stopsAtLoading, stopsAtPacking, stopsUnheated, warmStop } from '#core/safety'
import type { WayKey } from '#core/ways'
import { cautionTable } from '../../../scripts/cautionTable'
import { findFood } from '../../support/foods'

/** What is told of a food at a step, in a circumstance, by the keys of its rules. */
const told =
  (foodKey: string, how: Parameters<typeof cautionsAt>[2] = {}, step?: CautionStep) =>
  (rule: (typeof SAFETY_RULES)[number]) => {
    const { cares, notes } = cautionsAt(step ?? rule.step, findFood(foodKey)!, how)
    return [...cares, ...notes].some(item => 'key' in item && item.key === rule.key)
  }
const loading =
  (foodKey: string, way: WayKey, prep: { step: string; coreC?: number }[] = []) =>
  (rule: (typeof SAFETY_RULES)[number]) =>
    stopsAtLoading(findFood(foodKey)!, findFood(foodKey)!.cards[0]!, way, prep).some(stop => stop.rule.key === rule.key)
const packing = (foodKey: string, how: Parameters<typeof stopsAtPacking>[1]) => (rule: (typeof SAFETY_RULES)[number]) =>
  stopsAtPacking(findFood(foodKey)!, how).some(stop => stop.rule.key === rule.key)

type Asks = (rule: (typeof SAFETY_RULES)[number]) => boolean
/** Each rule with a case that it is for, and its next neighbour, for which it is silent. */
const CASES: Readonly<Record<string, [fires: Asks, silent: Asks]>> = {
  wild: [told('porcini'), told('mushroom')],
  'mouldy-pieces': [told('carrot'), told('milk-whole')],
  gloves: [told('jalapeno'), told('sweet-pepper')],
  extreme: [told('habanero'), told('serrano')],
  blades: [told('carrot'), told('egg-whole')],
  'raw-meat': [loading('chicken-cooked', 'dehydrator'), loading('chicken-cooked', 'dehydrator', [{ step: 'cook', coreC: 74 }])],
  'heat-after': [
    rule => stopsUnheated({ heatAfter: true }, { jerkyHeat: 'after' }, []).some(stop => stop.rule.key === rule.key),
    rule => stopsUnheated({ heatAfter: true }, {}, []).some(stop => stop.rule.key === rule.key),
  ],
  'raw-frozen': [told('chicken-cooked', { way: 'freeze-dryer', raw: true }), told('chicken-cooked', { way: 'freeze-dryer' })],
  'animal-outdoors': [
    loading('beef-cooked', 'sun', [{ step: 'cook', coreC: 75 }]),
    loading('beef-cooked', 'dehydrator', [{ step: 'cook', coreC: 75 }]),
  ],
  'perishable-unheated': [loading('rice-cooked', 'air'), loading('rice-cooked', 'dehydrator')],
  'egg-dairy-warm': [told('yoghurt', { way: 'dehydrator' }), told('yoghurt', { way: 'freeze-dryer' })],
  perishable: [told('rice-cooked'), told('potato')],
  'too-warm': [rule => warmStop().rule.key === rule.key, told('rice-cooked', {}, 'load')],
  unblanched: [loading('cassava', 'dehydrator'), loading('potato', 'dehydrator')],
  pasteurised: [told('kefir'), told('carrot')],
  'no-canning': [told('pumpkin'), told('carrot')],
  'outdoors-vegetables': [told('carrot', { way: 'sun' }), told('apricot', { way: 'sun' })],
  insects: [told('apricot', { way: 'sun' }), told('apricot', { way: 'oven' })],
  'oven-ajar': [told('apple', { way: 'oven' }), told('apple', { way: 'dehydrator' })],
  'smoker-outdoors': [told('jalapeno', { way: 'smoker' }), told('jalapeno', { way: 'oven' })],
  'pump-hot': [told('apple', { way: 'freeze-dryer' }), told('apple', { way: 'dehydrator' })],
  'liquid-unfrozen': [told('milk-whole', { way: 'freeze-dryer', liquid: true }), told('strawberry', { way: 'freeze-dryer' })],
  fumes: [told('horseradish'), told('radish')],
  mould: [rule => mouldStop().rule.key === rule.key, told('carrot')],
  moisture: [told('carrot', { moist: true }), told('carrot')],
  dust: [told('carrot'), told('carrot', {}, 'pack')],
  'chili-dust': [told('cayenne'), told('paprika-pepper')],
  shards: [told('pumpkin'), told('cucumber')],
  'left-alone': [told('carrot', { way: 'dehydrator', alone: true }), told('carrot', { way: 'oven', alone: true })],
  oil: [
    packing('garlic', { packageKey: 'screw-jar', moisture: 0.05, inOil: true }),
    packing('apple', { packageKey: 'screw-jar', moisture: 0.05 }),
  ],
  'no-oxygen': [packing('apple', { packageKey: 'foil-bag', moisture: 0.45 }), packing('apple', { packageKey: 'foil-bag', moisture: 0.16 })],
  sachets: [told('carrot', { sachet: true }), told('carrot')],
  nitrate: [told('carrot'), told('apple')],
  'mould-toxin': [told('coconut'), told('zucchini')],
  iodine: [told('kelp'), told('spinach')],
  sulphite: [told('apricot', { sulphited: true }), told('apricot')],
  lid: [told('carrot', { canningLid: true }), told('carrot')],
  selling: [told('carrot', { sold: true }), told('carrot')],
  rehydrated: [told('carrot'), told('carrot', {}, 'pack')],
  reheat: [told('stew'), told('carrot')],
  'eaten-raw': [told('spinach'), told('carrot')],
  pets: [told('onion'), told('carrot')],
  'raw-back': [told('chicken-cooked', { raw: true }), told('chicken-cooked')],
}

describe('every caution', () => {
  it('has a case in this table', () => {
    expect(Object.keys(CASES).sort()).toEqual(SAFETY_RULES.map(rule => rule.key).sort())
  })
  it.each(SAFETY_RULES.map(rule => [rule.key, rule] as const))('%s fires on its case and is silent on its neighbour', (key, rule) => {
    const [fires, silent] = CASES[key]!
    expect([fires(rule), silent(rule)]).toEqual([true, false])
    expect(rule.authority.length).toBeGreaterThan(5)
    expect(rule.wayOut !== undefined).toBe(rule.severity === 'stop')
  })
  it('stands in docs/cautions.md as it is (npm run cautions makes it anew)', () => {
    expect(readFileSync('docs/cautions.md', 'utf8')).toBe(cautionTable())
  })
})
