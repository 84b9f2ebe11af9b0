import type { CautionStep } from '#core/foods'
import { cautionsAt, cautionsOf, mixedLoadWarnings, SAFETY_RULES, stopsAtLoading, stopsAtPacking } from '#core/safety'
import { wetBasis } from '#core/mass'
import { isothermOf, moistureAt } from '#core/sorption'
import { WAYS, type WayKey } from '#core/ways'
import { FOODS } from '../../support/foods'

/** Which caution stands where, over all foods, ways and steps: whoever changes a rule sees here whom it concerns from then on. */
const food = (key: string) => FOODS.find(item => item.key === key)!
const mate = (key: string, frozen?: boolean) => ({ food: food(key), card: food(key).cards[0]!, frozen })
const STEPS: readonly CautionStep[] = [...new Set(SAFETY_RULES.map(rule => rule.step))]

describe('the cautions', () => {
  it('each with its step, its weight, and the ways that bring it', () => {
    expect(
      SAFETY_RULES.map(({ key, severity, step, traits, ways, wayOut, authority }) =>
        [
          `${key}: ${severity} at ${step}`,
          traits && `of ${traits.join(', ')}`,
          ways &&
            `in ${Object.values(WAYS)
              .filter(ways)
              .map(way => way.key)
              .join(', ')}`,
          wayOut && 'with a way out',
          authority,
        ]
          .filter(Boolean)
          .join('; '),
      ),
    ).toMatchSnapshot()
  })
  it('each with the foods on whose page it stands, the gravest first', () => {
    expect(
      Object.fromEntries(
        SAFETY_RULES.map(({ key }) => [
          key,
          FOODS.filter(item => cautionsOf(item).some(rule => rule.key === key))
            .map(item => item.key)
            .join(' '),
        ]),
      ),
    ).toMatchSnapshot()
    for (const item of FOODS) {
      const order = cautionsOf(item).map(({ severity }) => ['stop', 'care', 'note'].indexOf(severity))
      expect(order).toEqual([...order].sort((a, b) => a - b))
    }
  })
  it('what is told at each step of one food a family, with its circumstances', () => {
    const some = FOODS.filter((item, i) => FOODS.findIndex(other => other.group === item.group) === i)
    const told = (step: CautionStep, key: string, more: Parameters<typeof cautionsAt>[2]) => {
      const { cares, notes } = cautionsAt(step, food(key), more)
      return [...cares.map(rule => `${rule.key}!`), ...notes.map(rule => rule.key ?? 'own')].join(' ')
    }
    expect(
      Object.fromEntries(
        some.map(({ key }) => [
          key,
          STEPS.map(step =>
            [
              step,
              told(step, key, {}),
              ...(step === 'load'
                ? (Object.keys(WAYS) as WayKey[]).map(way => `[${way}: ${told(step, key, { way, liquid: true, raw: true })}]`)
                : [`[all: ${told(step, key, { liquid: true, raw: true, sulphited: true })}]`]),
            ].join(' '),
          ),
        ]),
      ),
    ).toMatchSnapshot()
  })
  it('what a pair is warned of, in warm air and under vacuum', () => {
    const warned = (coming: string, there: string[], way: WayKey, frozen?: [boolean, boolean]) =>
      mixedLoadWarnings(
        mate(coming, frozen?.[0]),
        there.map(key => mate(key, frozen?.[1])),
        way,
      )
    expect(warned('apple', ['onion'], 'dehydrator')).toEqual([
      expect.stringContaining('Onion goes into whatever shares its air: the apple will taste of it.'),
    ])
    expect(warned('onion', ['apple'], 'dehydrator')[0]).toContain('the apple will taste of it')
    expect(warned('apple', ['onion'], 'freeze-dryer', [true, true])).toEqual([])
    expect(warned('apple', ['onion'], 'freeze-dryer', [false, true])).toHaveLength(1)
    expect(warned('apple', ['apple'], 'freeze-dryer', [false, true])).toHaveLength(1)
    expect(warned('apple', [], 'freeze-dryer', [false, true])).toEqual([])
    expect(warned('apple', ['onion'], 'dehydrator', [false, true])).toHaveLength(1)
  })
})

describe('what stops', () => {
  it('each food as it is bought, by way', () => {
    const stopped = (way: WayKey) =>
      FOODS.filter(item => item.cards.some(card => stopsAtLoading(item, card, way, []).length > 0))
        .map(item => item.key)
        .join(' ')
    expect(Object.fromEntries((Object.keys(WAYS) as WayKey[]).map(way => [way, stopped(way)]))).toMatchSnapshot()
  })
  it('packing, by water, package and oil', () => {
    const stops = (packageKey: 'vacuum-jar' | 'foil-bag' | 'screw-jar', moisture: number, inOil = false, storageC?: number) =>
      stopsAtPacking(food('garlic'), { packageKey, moisture, inOil, storageC }).map(({ rule }) => rule.key)
    const isotherm = isothermOf(food('garlic'))
    const edge = wetBasis(moistureAt(isotherm, 0.85, 20))
    expect(stops('vacuum-jar', edge - 0.002)).toEqual([])
    expect(stops('vacuum-jar', edge + 0.002)).toEqual(['no-oxygen'])
    expect(stops('foil-bag', 0.4)).toEqual(['no-oxygen'])
    expect(stops('screw-jar', 0.3)).toEqual([])
    expect(stops('screw-jar', 0.05, true)).toEqual(['oil'])
    expect(stops('screw-jar', 0.05, true, 4)).toEqual([])
    expect(stops('screw-jar', 0.05, true, 4.1)).toEqual(['oil'])
    expect(stopsAtPacking(food('garlic'), { packageKey: 'foil-bag', moisture: 0.412 })[0]!.message).toContain('This may hold 41 % water, ')
  })
})
