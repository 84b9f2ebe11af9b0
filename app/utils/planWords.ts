import type { Breach, PlanProblem, Ticket } from '#core/plan'

type Format = ReturnType<typeof useFormat>

/** What breaks, in words: what it is, and what it comes to. */
export function breachWords(breach: Breach, problem: PlanProblem, format: Format, now: number): string {
  const machine = (id: string) => problem.machines.find(item => item.id === id)?.name ?? 'the machine'
  const beside = (ids: readonly string[]) => {
    const names = [...new Set(ids.map(id => problem.baskets.find(item => item.id === id)?.title ?? ''))].filter(Boolean)
    return names.length > 0 ? names.join(', ') : 'what stands there'
  }
  switch (breach.kind) {
    case 'no-way':
      return 'It does not go into that machine in one load.'
    case 'too-early':
      return `It is not there before ${format.moment(breach.readyAt, now)}, and has to be cut first.`
    case 'past':
      return 'Its cutting would begin before now.'
    case 'too-late':
      return `It keeps until ${format.moment(breach.keepsUntil, now)}: by then it would be spoiled.`
    case 'nobody-prepares':
      return breach.away
        ? `Nobody is at home to cut and load it, from ${format.moment(breach.at, now)} on.`
        : `It would be cut and loaded at night, from ${format.moment(breach.at, now)} on.`
    case 'nobody-watches':
      return `It must not run alone, and may run until ${format.moment(breach.until, now)}.`
    case 'no-place':
      return `${machine(breach.machineId)} has ${breach.places} places, and ${breach.needed} would be wanted: ${beside(breach.beside)} stands there.`
    case 'closed':
      return `${machine(breach.machineId)} is wanted for something else ${format.window(breach.from, breach.to, now)}.`
    case 'two-heats':
      return `It wants another heat than ${beside(breach.beside)} in ${machine(breach.machineId)}.`
    case 'smell':
      return `One of it and ${beside(breach.beside)} smells or is hot, and the other would taste of it.`
    case 'no-hands':
      return `That day would have ${format.hours(breach.minutes / 60)} of cutting; there are ${format.hours(breach.of / 60)}.`
    case 'no-sun':
      return 'There is no sun then.'
    case 'wakes':
      return `In ${Math.round(10 * breach.share)} of 10 cases it ends while people sleep.`
    case 'wish-late':
      return `${format.weight(breach.shortG)} of what is wished for would not be on the shelf in time.`
  }
}

/** What hands do. */
export const TICKETS: Record<Ticket['kind'], string> = {
  chill: 'into the refrigerator',
  prepare: 'prepare',
  freeze: 'freeze on its trays',
  smoke: 'into the smoke',
  load: 'load',
  rotate: 'turn the trays',
  takeOut: 'take out, rest',
  finish: 'grind or pack',
}

export const WHY_LOST = {
  'no-option': 'no machine here takes it in one load',
  'no-place': 'no machine has the places before it spoils',
  'too-late': 'no hour is left in which somebody is up before it spoils',
  'no-hands': 'the hours of work of these days are used up',
} as const

/** What would save it. */
export const SAVED_BY = {
  'no-option': 'A larger machine, or half of it in the freezer.',
  'no-place': 'The freezer, a thinner cut, a second machine or a neighbour’s oven would save it.',
  'too-late': 'The freezer, tonight.',
  'no-hands': 'The freezer, or another pair of hands.',
} as const
