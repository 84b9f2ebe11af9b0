import type { Range } from '../foods'

/** How hot a number of Scoville units is to most people (common practice). */
const WORDS: readonly { below: number; words: string }[] = [
  { below: 100, words: 'not hot' },
  { below: 1500, words: 'mild' },
  { below: 5000, words: 'warm' },
  { below: 20_000, words: 'hot' },
  { below: 80_000, words: 'very hot' },
  { below: 400_000, words: 'fierce' },
  { below: Infinity, words: 'dangerously hot' },
]
export const heatWord = (units: number): string => WORDS.find(({ below }) => units < below)!.words

/** What a word stands for, a little inside its bounds; undefined for one that is not of the list. */
export function heatBand(word: string): Range | undefined {
  const i = WORDS.findIndex(({ words }) => words === word)
  return i < 0 ? undefined : { low: i === 0 ? 0 : WORDS[i - 1]!.below * 1.05, high: Math.min(WORDS[i]!.below * 0.95, 3_000_000) }
}

/** Middle of a range that spans a factor: its geometric mean; half of the top where it begins at nothing. */
export const middleHeat = ({ low, high }: Range): number => (low > 0 ? Math.sqrt(low * high) : high / 2)

/** "hot", or "warm to hot" where plants differ that much. */
export function heatWords(heat: Range | undefined): string {
  if (!heat) return 'not hot'
  const [low, high] = [heatWord(heat.low), heatWord(heat.high)]
  return low === high ? low : `${low} to ${high}`
}

/** "4,000 to 9,500", to two figures: a rating is never known better. */
export function heatFigures(heat: Range): string {
  const round = (units: number) => (units < 10 ? Math.round(units) : Number(units.toPrecision(2)))
  const write = (units: number) => round(units).toLocaleString('en-GB')
  return write(heat.low) === write(heat.high) ? write(heat.high) : `${write(heat.low)} to ${write(heat.high)}`
}

/** From here on, hands, eyes and lungs need care. */
const CARE_FROM = 10_000
const FIERCE_FROM = 100_000

/** What to mind when something so hot is ground, mixed or sifted (common practice; poison centres say likewise). */
export function heatCautions(hottest: number): string[] {
  if (hottest < CARE_FROM) return []
  const always = [
    'Gloves, and no fingers to eyes or nose; wash board and spoons with soap, since oil carries the heat and water does not.',
    'Let the dust settle before the lid comes off, and keep the window open, children and animals out.',
  ]
  return hottest < FIERCE_FROM
    ? always
    : [
        ...always,
        'At this heat goggles and a dust mask too, outdoors or under a strong hood; label the jar so that nobody takes it for paprika.',
      ]
}
