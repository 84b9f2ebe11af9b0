/** One word for what is spelt in several ways. */
const SPELT: Readonly<Record<string, string>> = {
  chilli: 'chili',
  chile: 'chili',
  chily: 'chili',
  chilly: 'chili',
  yoghurt: 'yogurt',
  leave: 'leaf',
  halve: 'half',
  tomatoe: 'tomato',
  potatoe: 'potato',
}

/** A word as it is looked for: without accents, capitals and the plural, and in one spelling. */
export function plain(term: string): string {
  const word = term
    .normalize('NFD')
    .replace(/[\u0300-\u036F’']/g, '')
    .toLowerCase()
  const single =
    word.length < 4 || /(?:ss|us|is|as)$/.test(word)
      ? word
      : word
          .replace(/ies$/, 'y')
          .replace(/(sh|ch|x|o)es$/, '$1')
          .replace(/s$/, '')
  // “constructor” is a word too, and every object has it.
  return Object.hasOwn(SPELT, single) ? SPELT[single]! : single
}
/** The words of a name or a text, each as it is looked for. */
export const wordsOf = (text: string): string[] =>
  text
    .split(/[\s,;()/-]+/)
    .map(plain)
    .filter(Boolean)
