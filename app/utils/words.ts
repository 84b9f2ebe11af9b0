const NUMBERS = ['Nothing', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve']

/** A count as a word at the start of a sentence, in figures above twelve. */
export function countWord(count: number): string {
  return NUMBERS[count] ?? String(count)
}

/** "1 jar", "3 jars". */
export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`
}

export const PURPOSE_WORDS = { pieces: 'pieces', flakes: 'flakes', powder: 'fine powder' } as const
export const STAGE_WORDS = { intake: 'Intake', prep: 'Prep', drying: 'Drying', resting: 'Resting', grinding: 'Grinding', shelf: 'Shelf' } as const
