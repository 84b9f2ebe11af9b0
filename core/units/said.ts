/** Numbers that are said rather than written, in English, German and French. */
const ONES: Readonly<Record<string, number>> = {
  a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12, fifteen: 15,
  twenty: 20, thirty: 30, forty: 40, fifty: 50, hundred: 100,
  ein: 1, eine: 1, einen: 1, zwei: 2, drei: 3, vier: 4, fünf: 5, sechs: 6, sieben: 7, acht: 8, neun: 9, zehn: 10, elf: 11, zwölf: 12,
  un: 1, une: 1, deux: 2, trois: 3, quatre: 4, cinq: 5, sept: 7, huit: 8, neuf: 9, dix: 10, onze: 11, douze: 12,
} // prettier-ignore
const WORD = Object.keys(ONES)
  .sort((a, b) => b.length - a.length)
  .join('|')
const BEFORE = String.raw`(?<![\p{L}\d])`
const AFTER = String.raw`(?![\p{L}])`
const say = (pattern: string) => new RegExp(`${BEFORE}(?:${pattern})${AFTER}`, 'giu')
const one = (word: string) => ONES[word.toLowerCase()]!

/** In this order: what is said with a half behind it, halves and quarters by themselves, then the plain words. */
const RULES: readonly [RegExp, (...found: string[]) => string][] = [
  // "a pound and a half", "une livre et demie", "two kilos and a half"
  [
    new RegExp(String.raw`${BEFORE}(${WORD}|\d+)\s+(\p{L}+?)\s+(?:and\s+a\s+half|et\s+demie?)${AFTER}`, 'giu'),
    (_, count, unit) => `${one(count!) || Number(count)}.5 ${unit}`,
  ],
  // "two and a half pounds", "zwei einhalb Kilo"
  [
    new RegExp(String.raw`${BEFORE}(${WORD}|\d+)\s*(?:and\s+a\s+half|und\s+ein\s+halb|einhalb)${AFTER}`, 'giu'),
    (_, count) => `${one(count!) || Number(count)}.5`,
  ],
  [say(String.raw`anderthalb|eineinhalb|one\s+and\s+a\s+half`), () => '1.5'],
  [
    say(String.raw`three[\s-]+quarters?\s+(?:of\s+)?an?|three[\s-]+quarters?|dreiviertel|trois\s+quarts?\s+de|trois\s+quarts?`),
    () => '0.75',
  ],
  [say(String.raw`(?:an?\s+)?quarter(?:\s+of)?(?:\s+an?)?|ein\s+viertel|un\s+quart\s+de`), () => '0.25'],
  [say(String.raw`half\s+an?|(?:an?\s+)?half|eine?n?\s+halbe[snr]?|halbe[snr]?|une?\s+demi(?:e|-)?|demi(?:e|-)?`), () => '0.5'],
  [say(String.raw`(?:an?\s+)?couple(?:\s+of)?`), () => '2'],
  [say(WORD), word => String(one(word))],
]

/**
 * A text with its spoken numbers in figures: "a pound and a half" is "1.5 pound", "three pounds" is "3 pounds", "ein halbes Kilo" is "0.5 Kilo".
 * What says no number stays as it was.
 */
export function figuresSaid(text: string): string {
  const figures = RULES.reduce(
    (said, [pattern, write]) => said.replace(pattern, write as (...found: string[]) => string),
    text.replace(/demi-/giu, 'demi '),
  )
  // "a hundred" is one number.
  return figures.replace(/(?<![\d.])(\d+) 100(?!\d)/g, (_, count: string) => String(Number(count) * 100))
}
