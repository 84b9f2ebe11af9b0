import { formatQuantity } from 'format-quantity'
import { numericQuantity } from 'numeric-quantity'

const FIGURE = '[\\d½⅓⅔¼¾⅛⅜⅝⅞](?:[\\d\\s.,/⁄½⅓⅔¼¾⅛⅜⅝⅞]*[\\d½⅓⅔¼¾⅛⅜⅝⅞])?'
/** A figure as a cook writes it at the head of a line, alone or up to another: "300", "1 ½", "1/2", "2–3", "2 to 3". */
const HEAD = new RegExp(`^\\s*(${FIGURE})(?:(\\s*(?:–|-|to)\\s*)(${FIGURE}))?`)
/** From here on whole figures: nobody weighs finer than a gram. */
const WHOLE_FROM = 20

/**
 * A line of a recipe for so many times as much: "300 g lentils" for twice is "600 g lentils". Only the figure that
 * it begins with is scaled.
 * @returns undefined for a line without one, which stays as it is
 */
export function scaledLine(line: string, times: number): string | undefined {
  const match = HEAD.exec(line)
  if (!match) return undefined
  const [whole, from, between = '', to] = match
  const figures = [from, to].flatMap(text => (text === undefined ? [] : numericQuantity(text.replace(/,(?!\d{3}(?!\d))/g, '.')) * times))
  if (figures.some(figure => !(figure > 0))) return undefined
  const rest = line.slice(whole.length).replace(/^(\s*(?:teaspoon|tablespoon|cup))s?\b/, figures.at(-1)! > 1 ? '$1s' : '$1')
  return figures.map((figure, i) => written(figure, [from!, to!][i]!)).join(between) + rest
}

/** A cook who writes 1.5 gets a point again, one who writes 1 ½ a fraction. */
function written(figure: number, text: string): string {
  const shown = figure >= WHOLE_FROM ? Math.round(figure) : Math.round(figure * 1000) / 1000
  return (/[.,]/.test(text) ? undefined : formatQuantity(shown, { vulgarFractions: true })) ?? String(shown)
}
