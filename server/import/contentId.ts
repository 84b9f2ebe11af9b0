import { createHash } from 'node:crypto'

/** UUIDs of version 8 (RFC 9562) that follow from what a line says. */
function idsOf(words: readonly (string | number | undefined)[], count: 1 | 2): string[] {
  const hex = createHash('sha256').update(words.join('\n')).digest('hex')
  return Array.from({ length: count }, (_, i) => {
    const at = 12 + 20 * i
    const variant = (8 + (Number.parseInt(hex[at + 4]!, 16) % 4)).toString(16)
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(at + 1, at + 4)}-${variant}${hex.slice(at + 5, at + 8)}-${hex.slice(at + 8, at + 20)}`
  })
}

/** An id that follows from what a line says: the same file brings nothing in twice. */
export const contentId = (...words: readonly (string | number | undefined)[]): string => idsOf(words, 1)[0]!

/** The same for a thing and its entry: both begin alike, so that whoever writes many in order finds their places in order. */
export const contentIds = (...words: readonly (string | number | undefined)[]) => idsOf(words, 2) as [thing: string, entry: string]
