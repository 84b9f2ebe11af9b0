/** A sentence from a phrase: its first letter large. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

/** A phrase from a heading: its first letter small. */
export const uncapital = (words: string) => words.charAt(0).toLowerCase() + words.slice(1)
