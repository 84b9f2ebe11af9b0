import { gather, InputError } from '../errors'
import { HOUR } from '../time'
import type { PlanProblem } from './types'

/** Most baskets and days that are planned at once. */
const MOST = { baskets: 300, days: 21 }

/**
 * Whether a problem holds together.
 * @throws InputError naming each field that does not, and the mend
 */
export function checkProblem({
  from,
  until,
  household,
  machines,
  baskets,
  handsMinutesADay,
  pins,
  wishes,
  prices,
  sun,
}: PlanProblem): void {
  const { problems, say } = gather()
  if (!(until > from)) say('until', 'not-after-from', 'The plan must end after it begins.')
  else if (until - from > MOST.days * 24 * HOUR) say('until', 'too-long', 'At most three weeks are planned at once: nobody knows more.')
  if (household.sleepFrom === household.sleepTo)
    say('household.sleepTo', 'no-night', 'Say when people sleep: from one minute of the day to another.')
  if (baskets.length > MOST.baskets) say('baskets', 'too-many', 'At most 300 baskets are planned at once: leave some for later.')
  if (!(handsMinutesADay >= 0)) say('handsMinutesADay', 'below-zero', 'Give the minutes that the people have for it on a day, 0 or more.')
  if (![0, 1, 24].includes(prices.length)) say('prices', 'not-a-day', 'Give one price of a kilowatt-hour, or one for each of 24 hours.')
  machines.forEach((machine, i) => {
    if (!(machine.places >= 1)) say(`machines.${i}.places`, 'no-places', 'A machine needs at least one place.')
    if (machines.findIndex(other => other.id === machine.id) < i) say(`machines.${i}.id`, 'twice', 'Two machines have the same id.')
  })
  baskets.forEach((basket, i) => {
    if (baskets.findIndex(other => other.id === basket.id) < i) say(`baskets.${i}.id`, 'twice', 'Two baskets have the same id.')
    if (!(basket.weightG > 0)) say(`baskets.${i}.weightG`, 'weight-not-above-zero', 'Give a weight above 0 g.')
    if (basket.keepsUntil < basket.readyAt) say(`baskets.${i}.keepsUntil`, 'before-ready', 'It would be spoiled before it is there.')
    basket.options.forEach((option, k) => {
      const { p10, p50, p90 } = option.hours
      if (!(p10 > 0 && p10 <= p50 && p50 <= p90))
        say(`baskets.${i}.options.${k}.hours`, 'not-a-range', 'Give hours above zero, the tenth, fiftieth and ninetieth in order.')
      if (option.heat.lowC > option.heat.highC) say(`baskets.${i}.options.${k}.heat`, 'not-a-range', 'The lower heat comes first.')
    })
  })
  pins.forEach((pin, i) => {
    if (!baskets.some(basket => basket.id === pin.basketId)) say(`pins.${i}.basketId`, 'unknown-basket', 'There is no such basket.')
    if (!machines.some(machine => machine.id === pin.machineId)) say(`pins.${i}.machineId`, 'unknown-machine', 'There is no such machine.')
  })
  wishes.forEach((wish, i) => {
    if (!(wish.grams > 0)) say(`wishes.${i}.grams`, 'weight-not-above-zero', 'Give a weight above 0 g.')
  })
  sun.forEach(({ from: a, to: b, share }, i) => {
    if (!(b > a)) say(`sun.${i}.to`, 'not-after-from', 'A spell of sun must end after it begins.')
    if (!(share.p10 > 0 && share.p10 <= share.p50 && share.p50 <= share.p90 && share.p90 <= 1))
      say(`sun.${i}.share`, 'not-a-range', 'Give shares above 0 and up to 1, in order; leave out an hour without sun.')
  })
  if (problems.length > 0) throw new InputError(problems)
}
