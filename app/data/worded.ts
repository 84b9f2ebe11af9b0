import { shallowRef } from 'vue'

/** How the reference's own words are written in the household's units; undefined where they are right as they are. */
export const wording = shallowRef<((text: string) => string) | undefined>()

/** Names that the server makes of the reference: "Beetroot, 3 mm slices". */
const NAMES: ReadonlySet<string> = new Set(['title', 'batchTitle', 'cut', 'cardName'])
/** What is written back, or matched with what was: it stays as it is. */
const KEPT: ReadonlySet<string> = new Set(['entries', 'food', 'foods', 'body', 'cards'])

/** An answer with its names in the household's units. What is not a name is the very same. */
export function worded<Answer>(answer: Answer, write: (text: string) => string): Answer {
  if (Array.isArray(answer)) return answer.map(item => worded(item as unknown, write)) as Answer
  if (answer === null || typeof answer !== 'object') return answer
  return Object.fromEntries(
    Object.entries(answer).map(([key, value]) => [
      key,
      NAMES.has(key) && typeof value === 'string' ? write(value) : KEPT.has(key) ? value : worded(value as unknown, write),
    ]),
  ) as Answer
}
