import type { PlanOption, PlanProblem } from './types'

/** What may be tried beside a plan. */
export type Variant =
  | { kind: 'as-is' }
  | { kind: 'second-machine'; machineId: string }
  | { kind: 'thinnest' }
  | { kind: 'no-nights' }
  | { kind: 'freeze-half' }
  | { kind: 'more-hands' }

/** Minutes more a day, where somebody lends a hand. */
export const MORE_MINUTES = 90

/** Another problem: the same baskets with a second machine, thinner cuts, machines off at night, half of it frozen, or more hands. */
export function variantOf(problem: PlanProblem, variant: Variant): PlanProblem {
  // What people live by is this plan's; another begins free of it.
  const free = { ...problem, pins: [], before: undefined }
  switch (variant.kind) {
    case 'as-is':
      return problem
    case 'second-machine': {
      const machine = problem.machines.find(item => item.id === variant.machineId)
      if (!machine) return free
      const second = {
        ...machine,
        id: `${machine.id}+`,
        name: `${machine.name}, the second`,
        busy: machine.busy.filter(item => item.closed),
      }
      return {
        ...free,
        machines: [...problem.machines, second],
        baskets: problem.baskets.map(basket => ({
          ...basket,
          options: basket.options.flatMap(option =>
            option.machineId === machine.id ? [option, { ...option, machineId: second.id }] : [option],
          ),
        })),
      }
    }
    case 'thinnest':
      return { ...free, baskets: problem.baskets.map(basket => ({ ...basket, options: quickest(basket.options) })) }
    case 'no-nights':
      // Whatever runs by power is off while people sleep: it runs as if it had to be watched.
      return { ...free, machines: problem.machines.map(machine => (machine.endsAlone ? machine : { ...machine, attended: true })) }
    case 'freeze-half':
      return {
        ...free,
        baskets: problem.baskets.map(basket => ({
          ...basket,
          weightG: basket.weightG / 2,
          options: basket.options.map(option => ({
            ...option,
            places: Math.max(1, Math.ceil(option.places / 2)),
            productG: option.productG / 2,
            handsMinutes: option.handsMinutes / 2,
            afterMinutes: option.afterMinutes / 2,
            // A full machine and a half full one of the same cut take about as long; the power goes with the water.
            kWh: option.kWh / 2,
          })),
        })),
      }
    case 'more-hands':
      return { ...free, handsMinutesADay: Math.min(1440, problem.handsMinutesADay + MORE_MINUTES) }
  }
}

/** Of the cuts in each machine the quickest. */
function quickest(options: readonly PlanOption[]): PlanOption[] {
  const best = new Map<string, PlanOption>()
  for (const option of options) {
    const known = best.get(option.machineId)
    if (!known || option.hours.p50 < known.hours.p50) best.set(option.machineId, option)
  }
  return [...best.values()]
}
