import { uuidv7 } from 'uuidv7'
import { improvingPlans } from '#core/plan'
import { startOfDay } from '#core/planning'
import type { PlanBook } from '#shared/contracts'
import { machineList } from '#server/services/machines'
import { householdOf, type Context } from '#server/services/context'
import { planProblem, savePlanBook, takePlan } from '#server/services/plan'
import { simulatedWeather } from '../devices/weather'
import { MACHINES } from './story'

const DAY = 86_400_000
const HOUR = 3_600_000

/** The household's week of glut: what the garden brings, an absence, supper, cheap nights, a wish for each season. */
export function writeWeek(context: Context, now: number): void {
  const { timeZone, kwhPrice } = householdOf(context)
  const date = new Intl.DateTimeFormat('sv-SE', { timeZone })
  const day = (ahead: number) => date.format(now + ahead * DAY)
  const oven = machineList(context).find(machine => machine.name === MACHINES.oven.name)!
  const harvest = (
    foodKey: string,
    purpose: PlanBook['harvests'][number]['purpose'],
    lowG: number,
    highG: number,
    from: number,
    to: number,
    everyDays: number,
  ) => ({
    id: uuidv7(),
    foodKey,
    purpose,
    lowG,
    highG,
    from: day(from),
    to: day(to),
    everyDays,
  })
  const wish = (foodKey: string, purpose: PlanBook['wishes'][number]['purpose'], grams: number, by: number) => ({
    id: uuidv7(),
    foodKey,
    purpose,
    grams,
    by: day(by),
  })
  const market = startOfDay(now, timeZone, 2)
  savePlanBook(context, {
    version: 0,
    handsMinutes: 240,
    pace: 1,
    away: [{ id: uuidv7(), from: market + 8 * HOUR, to: market + 14 * HOUR, words: 'market day' }],
    meals: [{ id: uuidv7(), machineId: oven.id, fromMinute: 17 * 60, toMinute: 20 * 60 }],
    // From ten in the evening to six at half the price.
    prices: Array.from({ length: 24 }, (_, hour) => (hour >= 22 || hour < 6 ? kwhPrice / 2 : kwhPrice)),
    harvests: [
      harvest('tomato', 'powder', 3500, 6500, 1, 29, 4),
      harvest('plum', 'pieces', 2000, 4500, 2, 16, 7),
      harvest('leek', 'flakes', 1200, 2200, 3, 120, 14),
      harvest('hot-chili', 'powder', 500, 1100, 1, 22, 7),
      harvest('apple', 'pieces', 3000, 6000, 20, 70, 10),
    ].filter(line => context.foods.find(line.foodKey)),
    wishes: [wish('tomato', 'powder', 900, 30), wish('plum', 'pieces', 1500, 12), wish('apple', 'pieces', 2500, 80)],
    weather: simulatedWeather(now, 10, timeZone, 5),
  })
}

/** Plans that week, and takes the plan to work by. */
export async function planWeek(context: Context): Promise<void> {
  const { problem } = await planProblem(context)
  let best
  for (const step of improvingPlans(problem, { rounds: 1500 })) best = step
  await takePlan(context, best!.plan)
}
