import { createHash } from 'node:crypto'

/**
 * An id that follows from what a line says (a UUID of version 8, RFC 9562): the same file brings nothing in twice.
 */
export function contentId(...words: readonly (string | number | undefined)[]): string {
  const hex = createHash('sha256').update(JSON.stringify(words)).digest('hex')
  const variant = (8 + Number.parseInt(hex[16]!, 16) % 4).toString(16)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-${variant}${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}
