import quantile from '@stdlib/stats-base-dists-normal-quantile'
import { balancePrep, targetWeight } from '#core/mass'
import { Z_90, normalCdf } from '#core/stats'
import { parseWeight } from '#core/units'
import { findFood } from '../support/foods'

const grams = (text: string) => parseWeight(text).value!

describe('reference data', () => {
  /**
   * USDA FoodData Central, water in 100 g of the raw edible part (cooked where the food is), from memory. Within half
   * a percentage point; where its entries differ, within the food's own spread.
   */
  it.each([
    ['tomato', 94.5],
    ['pumpkin', 91.6],
    ['butternut', 86.4],
    ['acorn-squash', 87.8],
    ['zucchini', 94.8],
    ['cucumber', 95.2],
    ['mushroom', 92.5],
    ['shiitake', 89.7],
    ['oyster-mushroom', 89.2],
    ['onion', 89.1],
    ['garlic', 58.6],
    ['leek', 83.0],
    ['shallot', 79.8],
    ['sweet-pepper', 92.2],
    ['green-pepper', 93.9],
    ['hot-chili', 88.0],
    ['jalapeno', 91.7],
    ['celery', 95.4],
    ['carrot', 88.3],
    ['beetroot', 87.6],
    ['parsnip', 79.5],
    ['turnip', 91.9],
    ['rutabaga', 89.4],
    ['celeriac', 88.0],
    ['radish', 95.3],
    ['potato', 79.3],
    ['sweet-potato', 77.3],
    ['sweetcorn', 76.0],
    ['pea', 78.9],
    ['green-bean', 90.3],
    ['spinach', 91.4],
    ['chard', 92.7],
    ['cabbage', 92.2],
    ['broccoli', 89.3],
    ['cauliflower', 92.1],
    ['asparagus', 93.2],
    ['okra', 89.6],
    ['eggplant', 92.3],
    ['tomatillo', 91.6],
    ['tomato-paste', 73.5],
    ['parsley', 87.7],
    ['basil', 92.1],
    ['dill', 86.0],
    ['thyme', 65.1],
    ['rosemary', 67.8],
    ['ginger', 78.9],
    ['apple', 85.6],
    ['pear', 84.0],
    ['peach', 88.9],
    ['apricot', 86.4],
    ['plum', 87.2],
    ['grape', 80.5],
    ['fig', 79.1],
    ['mango', 83.5],
    ['pineapple', 86.0],
    ['banana', 74.9],
    ['kiwi', 83.1],
    ['papaya', 88.1],
    ['melon', 90.2],
    ['watermelon', 91.5],
    ['strawberry', 91.0],
    ['raspberry', 85.8],
    ['blackberry', 88.2],
    ['blueberry', 84.2],
    ['cranberry', 87.3],
    ['mandarin', 85.2],
    ['kelp', 81.6],
    ['egg-whole', 76.2],
    ['egg-white', 87.6],
    ['milk-whole', 88.1],
    ['milk-skim', 90.8],
    ['hard-cheese', 37.0],
    ['chicken-cooked', 65.3],
    ['white-fish-cooked', 75.9],
    ['shrimp-cooked', 77.3],
    ['kohlrabi', 91.0],
    ['pak-choi', 95.3],
    ['mustard-greens', 90.7],
    ['plantain', 65.2],
    ['true-yam', 69.6],
    ['cassava', 59.7],
    ['taro', 70.6],
    ['avocado', 73.2],
    ['guava', 80.8],
    ['mulberry', 87.7],
    ['star-fruit', 91.4],
    ['lychee', 81.8],
    ['sour-cherry', 86.1],
    ['pomegranate', 77.9],
    ['goat-milk', 87.0],
    ['kidney-beans-cooked', 66.9],
    ['white-beans-cooked', 63.1],
    ['split-pea-cooked', 69.5],
    ['quinoa-cooked', 71.6],
    ['oats-cooked', 83.6],
    ['pasta-cooked', 62.1],
    ['kefir', 89.0],
    ['bread', 36.5],
  ])('water in %s is USDA’s', (key, percent) => {
    const { mean } = findFood(key)!.rawMoisture.value
    expect(Math.abs(mean * 100 - percent)).toBeLessThan(0.5)
  })
  // Its entries differ by more than half a point: fresh and older ones, kinds, cuts.
  it.each([
    ['kale', 84.0, 89.6],
    ['mint', 78.6, 85.6],
    ['orange', 72.5, 86.8],
    ['lemon', 81.6, 89.0],
    // Flesh, with more or less of its peel.
    ['lime', 80, 88.3],
    ['grapefruit', 76, 88.5],
    ['cherry', 82.3, 86.1],
    ['beef-cooked', 54, 62],
  ])('water in %s lies between USDA’s entries', (key, low, high) => {
    const { mean } = findFood(key)!.rawMoisture.value
    expect(mean * 100).toBeGreaterThan(low)
    expect(mean * 100).toBeLessThan(high)
  })

  it.each([
    ['chicken-cooked', 74],
    ['beef-cooked', 67],
    ['pork-cooked', 70],
    ['venison-cooked', 73],
    ['white-fish-cooked', 81.5],
    ['salmon-cooked', 67],
    ['rice-cooked', 12],
    ['black-beans-cooked', 11],
    ['lentil-cooked', 9],
    ['pasta-cooked', 9.9],
  ])('water in %s before it is cooked is USDA’s', (key, percent) => {
    const { mean, sd } = findFood(key)!.uncooked!.value
    expect(Math.abs(mean * 100 - percent)).toBeLessThan(100 * sd)
  })
  /**
   * Days of sun and hours of oven as extension guides and practice have them, from memory: apricot halves 2 to 3 days of hot sun (8 h
   * a day) to pliable, often 4; habanero quarters two days; chilies in an oven at its lowest 2 to 4 h in pieces; herbs spread in a room
   * 4 to 14 days in bunches; apples in an oven 4 to 8 h.
   */
  it.each([
    ['apricot', 'slices-6', 'sun', 16, 40],
    ['habanero', 'quarters', 'sun', 10, 24],
    ['hot-chili', 'pieces-25', 'oven', 2, 4.5],
    ['poblano', 'pieces-25', 'oven', 2, 5.5],
    ['apple', 'rings-5', 'oven', 3, 8],
    ['tomato', 'halves', 'sun', 24, 72],
    ['basil', 'bunches', 'air', 96, 336],
    ['spinach', 'leaves', 'air', 72, 240],
  ] as const)('%s %s in %s takes hours that the trade knows', (key, cardKey, way, low, high) => {
    const { value } = findFood(key)!
      .cards.find(card => card.key === cardKey)!
      .ways.find(item => item.way === way)!.usualHours
    const middle = Math.sqrt(value.low * value.high)
    expect(middle).toBeGreaterThan(low)
    expect(middle).toBeLessThan(high)
  })

  it('a single target weight for tomato is a false promise: ± 18 %', () => {
    const { value } = findFood('tomato')!.rawMoisture
    expect(value.sd / (1 - value.mean)).toBeCloseTo(0.18, 2)
  })

  /**
   * So Easy to Preserve (University of Georgia Extension), yields of dried vegetables, from memory:
   * pounds in, pounds dried. It does not agree with the water contents to the gram (celery and onion
   * give more than their water allows at 10 % moisture; tomato lost two fifths in trimming), so it is a
   * loose check: within a factor.
   */
  it.each([
    ['beetroot', '15 lb', '1 1/2 lb', 1.35],
    ['carrot', '15 lb', '1 1/4 lb', 1.5],
    ['onion', '12 lb', '1 1/2 lb', 1.5],
    ['tomato', '14 lb', '1/2 lb', 1.9],
    ['kale', '3 lb', '1/4 lb', 1.6],
    ['spinach', '3 lb', '1/4 lb', 1.6],
    ['collard', '3 lb', '1/4 lb', 1.6],
  ])('%s: %s gives about %s', (key, fresh, dried, factor) => {
    const food = findFood(key)!
    const { solidsG } = balancePrep({
      rawWeightG: grams(fresh),
      rawMoisture: food.rawMoisture.value,
      steps: [{ kind: 'waste', name: 'trim', usualShare: food.trimShare.value }],
    })
    const ratio = targetWeight(solidsG.p50, 0.1) / grams(dried)
    expect(ratio).toBeGreaterThan(1 / factor)
    expect(ratio).toBeLessThan(factor)
  })

  it('celery gives less than the table says, as the water content demands', () => {
    const food = findFood('celery')!
    const most = targetWeight(grams('12 lb') * (1 - food.rawMoisture.value.mean), 0.1)
    expect(most).toBeLessThan(grams('3/4 lb') * 0.95)
  })
})

describe('statistics', () => {
  it('the 90th percentile is that of @stdlib', () => {
    expect(Z_90).toBeCloseTo(quantile(0.9, 0, 1), 12)
  })
  it('the normal distribution turns the quantile round', () => {
    for (const p of [0.001, 0.05, 0.3, 0.5, 0.8, 0.99]) expect(normalCdf(quantile(p, 0, 1))).toBeCloseTo(p, 6)
    expect(normalCdf(40)).toBe(1)
    expect(normalCdf(-40)).toBe(0)
  })
})
