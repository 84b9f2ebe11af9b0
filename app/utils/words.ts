import type { QuantityWords } from '#core/errors'
import type { TodoKind } from '#core/planning'
import type { HouseholdSettings } from '#shared/contracts'
import { formatLength, formatShare, formatTemperature, formatVolume, formatWeight } from '#core/units'
import type { Effect } from '#core/learning'
import type { Interval } from '#core/stats'
import type { Finishing } from '#core/water'
import { WAYS } from '#core/ways'

const NUMBERS = ['Nothing', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve']

/** A count as a word at the start of a sentence, in figures above twelve. */
export function countWord(count: number): string {
  return NUMBERS[count] ?? String(count)
}

/** "1 jar", "3 jars". */
export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`
}

/** Whether an effect is told at all: nothing is claimed that the runs do not show. */
const shows = ({ p10, p50, p90 }: Interval, least: number) => Math.abs(p50 - 1) >= least && !(p10 <= 1 && p90 >= 1)
const percentOff = ({ p50 }: Interval) => Math.round(Math.abs(p50 - 1) * 100)

/** How a machine runs against the cards. */
export function paceWords(name: string, { factor: hours, runs }: Effect): string {
  const seen = `from ${plural(runs, 'run')}`
  if (!shows(hours, 0.03)) return `${name} runs about as the cards say, ${seen}.`
  return `${name} runs ${percentOff(hours)} % ${hours.p50 > 1 ? 'slower' : 'faster'} than the cards, ${seen}.`
}

/** How a food dries here against its card, whatever the machine; nothing where the runs do not show it. */
export function foodWords(name: string, { factor: hours, runs }: Effect): string | undefined {
  if (!shows(hours, 0.03)) return undefined
  return `${name} takes ${percentOff(hours)} % ${hours.p50 > 1 ? 'longer' : 'less'} than its card in any machine, from ${plural(runs, 'run')}.`
}

/** How what somebody cuts dries against the rest. */
export function personWords(name: string, { factor: hours, runs }: Effect): string {
  const seen = `from ${plural(runs, 'run')}`
  if (!shows(hours, 0.02)) return `What ${name} cuts takes as long as the rest, ${seen}.`
  return `What ${name} cuts takes ${percentOff(hours)} % ${hours.p50 > 1 ? 'longer' : 'less'}, ${seen}.`
}

export const PURPOSE_WORDS = { pieces: 'pieces', flakes: 'flakes', powder: 'fine powder' } as const
export const PURPOSE_CHOICES = [
  { value: 'pieces' as const, words: 'Pieces' },
  { value: 'flakes' as const, words: 'Flakes' },
  { value: 'powder' as const, words: 'Fine powder' },
]
export const STAGE_WORDS = {
  intake: 'Intake',
  prep: 'Prep',
  drying: 'Drying',
  resting: 'Resting',
  grinding: 'Grinding',
  shelf: 'Shelf',
} as const

/** What an alarm is about, as one would choose it. */
export const TODO_WORDS: Record<TodoKind, string> = {
  danger: 'Food stands too long in the warm',
  discard: 'Something is to be thrown away',
  held: 'What was kept for later has to go on',
  redry: 'A jar is damp: dry it again',
  dry: 'A load is dry, in 8 of 10 cases',
  test: 'Cool and feel',
  weigh: 'Weigh a load',
  round: 'Look at the freeze dryer',
  takeOut: 'Take trays out',
  lower: 'Turn the heat down',
  heat: 'Heat on again',
  rotate: 'Change trays about',
  flip: 'Turn sheets over',
  endSmoke: 'The smoke ends',
  prepare: 'Cut and prepare',
  load: 'Load a machine',
  rest: 'Close it in a jar to rest',
  look: 'Look at the jars at rest',
  grind: 'Grind',
  pack: 'Pack jars',
  lookJar: 'Look at a fresh jar',
  bringIn: 'Bring trays in',
  takeOutside: 'Take trays outside',
  turn: 'Turn what lies in the sun',
  settle: 'Two entries say different things',
}

/** How likely something is dry by a time, as it is said; the figure never says more than it is. */
export function chanceOfDry(dry: number, when = 'by morning'): string {
  if (dry > 0.95) return `almost certainly dry ${when}`
  if (dry < 0.05) return `almost certainly not dry ${when}`
  const tenths = Math.min(9, Math.max(1, Math.round(10 * (dry >= 0.5 ? 1 - dry : dry))))
  if (tenths === 5) return `even odds that it is dry ${when}`
  return dry > 0.5 ? `most likely dry ${when}; ${tenths} in 10 that it is not` : `most likely not dry ${when}; ${tenths} in 10 that it is`
}

/** The finish in warm air of what came short of dry: "about 1 h 30 min at 60 °C in the dehydrator". */
export function finishWords(
  { way, celsius, hours }: Finishing,
  format: { hours: (h: number) => string; temperature: (c: number) => string },
) {
  return `about ${format.hours(hours)} at ${format.temperature(celsius)} in the ${WAYS[way].name.toLowerCase()}`
}
export const sentenceCase = (words: string) => `${words[0]!.toUpperCase()}${words.slice(1)}`

/** How figures of sentences are written in a household's units. */
export function quantityWords({ weightUnit, temperatureUnit }: Pick<HouseholdSettings, 'weightUnit' | 'temperatureUnit'>): QuantityWords {
  return {
    G: grams => formatWeight(grams, weightUnit),
    C: celsius => formatTemperature(celsius, temperatureUnit),
    Share: formatShare,
    Ml: millilitres => formatVolume(millilitres, weightUnit),
    Mm: millimetres => formatLength(millimetres, weightUnit),
  }
}
