/** What a code of one of our labels names: `https://…/j/104` is jar 104, `/b/27` batch 27; undefined for any other code. */
export function labelCode(text: string): { kind: 'jar' | 'batch'; number: number } | undefined {
  const match = /^https?:\/\/[^/?#]+\/(j|b)\/(\d{1,9})\/?(?:[?#].*)?$/.exec(text.trim())
  return match ? { kind: match[1] === 'j' ? 'jar' : 'batch', number: Number(match[2]) } : undefined
}
