/** Numbers that are said rather than written, in English, German and French. */
const ONES: Readonly<Record<string, number>> = {
  a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12, fifteen: 15,
  thirteen: 13, fourteen: 14, sixteen: 16, seventeen: 17, eighteen: 18, nineteen: 19, hundred: 100,
  ein: 1, eine: 1, einen: 1, zwei: 2, drei: 3, vier: 4, fünf: 5, sechs: 6, sieben: 7, acht: 8, neun: 9, zehn: 10, elf: 11, zwölf: 12,
  un: 1, une: 1, deux: 2, trois: 3, quatre: 4, cinq: 5, sept: 7, huit: 8, neuf: 9, dix: 10, onze: 11, douze: 12,
  dreizehn: 13, vierzehn: 14, fünfzehn: 15, sechzehn: 16, siebzehn: 17, achtzehn: 18, neunzehn: 19, hundert: 100,
  treize: 13, quatorze: 14, quinze: 15, seize: 16, cent: 100,
} // prettier-ignore
const TENS: Readonly<Record<string, number>> = {
  twenty: 20, thirty: 30, forty: 40, fifty: 50, sixty: 60, seventy: 70, eighty: 80, ninety: 90,
  zwanzig: 20, dreißig: 30, dreissig: 30, vierzig: 40, fünfzig: 50, sechzig: 60, siebzig: 70, achtzig: 80, neunzig: 90,
  vingt: 20, trente: 30, quarante: 40, cinquante: 50, soixante: 60, 'quatre-vingts': 80, 'quatre-vingt': 80,
} // prettier-ignore
const either = (of: Readonly<Record<string, number>>) =>
  Object.keys(of)
    .sort((a, b) => b.length - a.length)
    .join('|')
const ONE = either(ONES)
const TEN = either(TENS)
const WORD = `${TEN}|${ONE}`
const BEFORE = String.raw`(?<![\p{L}\d])`
const AFTER = String.raw`(?![\p{L}])`
const say = (pattern: string) => new RegExp(`${BEFORE}(?:${pattern})${AFTER}`, 'giu')
const one = (word: string) => (TENS[word.toLowerCase()] ?? ONES[word.toLowerCase()])!

/** In this order: what is said with a half behind it, halves and quarters by themselves, then the plain words. */
const RULES: readonly [RegExp, (...found: string[]) => string][] = [
  // "sixty-five", "soixante-dix", "vingt et un"; "fünfundzwanzig"
  [
    new RegExp(String.raw`${BEFORE}(${TEN})(?:\s+|-)(?:et(?:\s+|-))?(${ONE})${AFTER}`, 'giu'),
    (_, tens, ones) => String(one(tens!) + one(ones!)),
  ],
  [new RegExp(String.raw`${BEFORE}(${ONE})und(${TEN})${AFTER}`, 'giu'), (_, ones, tens) => String(one(tens!) + one(ones!))],
  [new RegExp(String.raw`${BEFORE}dix-(sept|huit|neuf)${AFTER}`, 'giu'), (_, ones) => String(10 + one(ones!))],
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
