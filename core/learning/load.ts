import type { Effect } from './effects'
import type { HoursLearned, LoadAsked } from './hours'

export interface LearnedHours {
  /** 10th and 90th percentile of the hours to target, as a card has them. */
  low: number
  high: number
  /** The household's finished runs of its machine, food or family, which it comes from most; 0 where the card stands. */
  runs: number
  /** What moved them: nothing but the card, the machine's dial, or own runs. */
  by: 'card' | 'dial' | 'runs'
  /** What machine, food and person make of the cards' hours, where runs of theirs are among them. */
  machine?: Effect
  food?: Effect
  person?: Effect
}

/**
 * Hours of a load before it is dried: the card's, moved by what the household's finished runs teach of its machine, food, cut and
 * person. With no run of its machine, food or family yet the card stands, moved by the machine's dial where that was measured.
 * Every page that tells hours ahead asks here.
 * @param usual the card's hours
 * @param known `factor`: hours for its thickness over the card's; `dial`: ln of what the measured dial makes of them
 */
export function learnedHours(
  usual: { low: number; high: number },
  learned: HoursLearned,
  load: LoadAsked,
  { factor = 1, dial = 0 }: { factor?: number; dial?: number } = {},
): LearnedHours {
  const machine = learned.effectOf('machine', load.machine)
  const food = learned.effectOf('food', load.food)
  // Runs of other machines with other foods teach of neither.
  if (!machine && !food && !learned.effectOf('family', load.family)) {
    const by = factor * Math.exp(dial)
    return { low: usual.low * by, high: usual.high * by, runs: 0, by: dial === 0 ? 'card' : 'dial' }
  }
  const middle = Math.sqrt(usual.low * usual.high) * factor
  const { p10, p90 } = learned.next(load)
  return {
    low: middle * p10,
    high: middle * p90,
    runs: learned.sharing(load),
    by: 'runs',
    machine,
    food,
    person: load.cutBy === undefined ? undefined : learned.effectOf('person', load.cutBy),
  }
}
