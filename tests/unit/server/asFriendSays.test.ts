import type { Purpose } from '#core/foods'
import { readAmount } from '#core/using'
import { forecast } from '#server/services/forecast'
import { saveMachine } from '#server/services/settings'
import { testBook } from '../../support/logbook'

const id = (n: number) => `018f3000-0000-7000-8000-00000000000${n}`
const MACHINES = {
  oven: { id: id(1), name: 'Oven below', kind: 'oven', trays: 3, trayAreaM2: 0.16, lowC: 50, highC: 120, watts: 2400 },
  air: { id: id(2), name: 'Loft beam', kind: 'air', trays: 4, trayAreaM2: 0.25, lowC: 5, highC: 45, watts: 1 },
  freeze: {
    id: id(3),
    name: 'Ice chamber',
    kind: 'freeze-dryer',
    trays: 4,
    trayAreaM2: 0.12,
    lowC: 20,
    highC: 60,
    watts: 1100,
    iceG: 5000,
  },
} as const

/** A basket as people say it, and what somebody who has done it for years would expect: grams dry, hours of one load (common practice). */
type Basket = [
  food: string,
  amount: string,
  purpose: Purpose,
  cut: string | undefined,
  machine: keyof typeof MACHINES | undefined,
  dry: [number, number],
  hours: [number, number],
  weighed?: 'uncooked' | 'cooked',
]
const BASKETS: Basket[] = [
  ['carrot', '2 kg', 'powder', undefined, undefined, [150, 260], [7, 13]],
  ['tomato', '9 lb 3½ oz', 'powder', 'slices-6', undefined, [170, 320], [8, 15]],
  ['rice-cooked', '600 g', 'pieces', undefined, undefined, [500, 620], [3, 8], 'uncooked'],
  ['chicken-cooked', '3 lb', 'pieces', 'mince', undefined, [300, 420], [4, 11], 'uncooked'],
  ['pumpkin', '2 pumpkins', 'powder', 'roasted', undefined, [280, 800], [8, 15]],
  ['sweet-pepper', '12 peppers', 'flakes', undefined, undefined, [90, 210], [9, 18]],
  ['strawberry', '2.2 kg', 'pieces', 'slices-6', 'freeze', [140, 260], [12, 36]],
  ['basil', '10 oz', 'flakes', 'bunches', 'air', [12, 40], [120, 320]],
  ['apple', '12 apples', 'pieces', 'rings-5', 'oven', [230, 400], [3, 9]],
]

describe('before a knife is lifted a basket is forecast as a knowledgeable friend would', () => {
  const { context, machineId } = testBook()
  for (const machine of Object.values(MACHINES)) saveMachine(context, { ...machine, trayTareG: 0, trayTares: {} })
  it.each(BASKETS)('%s, %s, for %s', (foodKey, amount, purpose, cut, machine, dry, hours, ...[weighed]) => {
    const food = context.foods.find(foodKey)!
    const { value: weightG, sdG: weightSdG } = readAmount(amount, 'g', 'us', {
      each: food.each?.value,
      litre: food.litre?.value,
      names: [food.name, ...food.otherNames, ...food.foundBy],
    })
    const told = forecast(context, {
      foodKey,
      cardKey: cut ?? food.cards[0]!.key,
      purpose,
      weightG: weightG!,
      weightSdG,
      weighed,
      machineId: machine ? MACHINES[machine].id : machineId,
    })
    expect(told.dryG.p50).toBeGreaterThan(dry[0])
    expect(told.dryG.p50).toBeLessThan(dry[1])
    expect(told.hoursPerLoad.p50).toBeGreaterThan(hours[0])
    expect(told.hoursPerLoad.p50).toBeLessThan(hours[1])
  })
})
