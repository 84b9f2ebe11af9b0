const NUMBERS = ['Nothing', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve']

/** A count as a word at the start of a sentence, in figures above twelve. */
export function countWord(count: number): string {
  return NUMBERS[count] ?? String(count)
}

/** "1 jar", "3 jars". */
export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`
}

/** How a machine runs against the cards, from its own runs; nothing is claimed that the runs do not show. */
export function paceWords(name: string, hours: { p10: number; p50: number; p90: number }, runs: number): string {
  const off = Math.round(Math.abs(hours.p50 - 1) * 100)
  const seen = `from ${plural(runs, 'run')}`
  if (off < 3 || (hours.p10 <= 1 && hours.p90 >= 1)) return `${name} runs about as the cards say, ${seen}.`
  return `${name} runs ${off} % ${hours.p50 > 1 ? 'slower' : 'faster'} than the cards, ${seen}.`
}

/** How what somebody cuts dries against the rest; nothing is claimed that the runs do not show. */
export function personWords({ name, pace, runs }: { name: string; pace: { p10: number; p50: number; p90: number }; runs: number }): string {
  const off = Math.round(Math.abs(pace.p50 - 1) * 100)
  if (off < 2 || (pace.p10 <= 1 && pace.p90 >= 1)) return `What ${name} cuts takes as long as the rest, from ${plural(runs, 'run')}.`
  return `What ${name} cuts takes ${off} % ${pace.p50 > 1 ? 'longer' : 'less'}, from ${plural(runs, 'run')}.`
}

export const PURPOSE_WORDS = { pieces: 'pieces', flakes: 'flakes', powder: 'fine powder' } as const
export const STAGE_WORDS = {
  intake: 'Intake',
  prep: 'Prep',
  drying: 'Drying',
  resting: 'Resting',
  grinding: 'Grinding',
  shelf: 'Shelf',
} as const
