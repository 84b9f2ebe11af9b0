import { measuresIn } from '#core/units'
import { FOODS, BOOK } from '../../support/foods'

const US = { weightUnit: 'oz', temperatureUnit: 'F' } as const
const METRIC = { weightUnit: 'g', temperatureUnit: 'C' } as const
const said = (text: string) => measuresIn(text, US).replaceAll('\u00A0', ' ')
/** A figure with a unit that an ounce household does not have. */
export const METRIC_FIGURE = /(?:^|[\s(])\d[\d.,]*[ \u00A0](?:g|kg|mm|cm|mL|L|°C)(?![\p{L}²³/])/u

describe('sentences of the reference in pounds, inches and °F', () => {
  it.each([
    ['6 mm slices', '1/4 in slices'],
    ['Slices of 3 to 5 mm', 'Slices of 1/8 in to 1/4 in'],
    ['at 57 °C', 'at 135 °F'],
    ['500 g of salt', '1 lb 2 oz of salt'],
    ['a 425 g tin', 'a 15 oz tin'],
    ['in 2 L of water', 'in 68 fl oz of water'],
    ['250 mL', '8.5 fl oz'],
    ['water with 5 g of citric acid a litre', 'water with 0.17 oz of citric acid a quart'],
    ['2–3 kg', '4 lb 7 oz to 6 lb 10 oz'],
    ['3 grains, 4 good mmols, 5 gg', '3 grains, 4 good mmols, 5 gg'],
  ])('%s: %s', (metric, us) => {
    expect(said(metric)).toBe(us)
    expect(measuresIn(metric, METRIC)).toBe(metric)
  })
  it('every cut, source and reason of the reference comes out without a metric figure', () => {
    const texts = FOODS.flatMap(food => [
      ...food.cards.flatMap(card => [card.name, card.spread, ...card.steps.map(step => step.words)]),
      food.drynessTest.value,
      food.keepsReason,
      ...food.cautions.map(String),
    ])
    expect(texts.length).toBeGreaterThan(1000)
    const metric = texts.filter(text => METRIC_FIGURE.test(measuresIn(text, US)))
    expect(metric).toEqual([])
    expect(texts.some(text => METRIC_FIGURE.test(text))).toBe(true)
    for (const school of BOOK.schools.flatMap(question => question.schools))
      expect(measuresIn(school.reason, US)).not.toMatch(METRIC_FIGURE)
  })
})
