const UNKNOWN = 'unknown: '
const MAY = 'may contain '

/**
 * Allergens of a lot: its food's, and what is known of the lot itself; where that is known, “unknown” of its kind falls away. What it
 * contains it need not be said to perhaps contain.
 * @param all what is known of the lot is all: none is an answer too
 */
export function allergensOfLot(food: readonly string[], lot: readonly string[] | undefined, all = false): string[] {
  const isAnswered = all || lot?.some(name => !name.startsWith(UNKNOWN) && !name.startsWith(MAY))
  const known = isAnswered ? food.filter(name => !name.startsWith(UNKNOWN)) : food
  return plainly([...known, ...(lot ?? [])])
}

/** Each once; what is certain is not told as possible too. */
export const plainly = (allergens: readonly string[]): string[] =>
  [...new Set(allergens)].filter(name => !name.startsWith(MAY) || !allergens.includes(name.slice(MAY.length)))

/** What may have come along from something else that holds these: traces of what it contains for certain. */
export const tracesOf = (allergens: readonly string[]): string[] =>
  allergens.filter(name => !name.startsWith(UNKNOWN) && !name.startsWith(MAY)).map(name => `${MAY}${name}`)

/** Allergens as a label says them: "Contains celery, milk. May contain egg. Allergens unknown: see its packet."; nothing where none is known. */
export function allergenWords(allergens: readonly string[]): string {
  const of = (prefix: string) => allergens.filter(name => name.startsWith(prefix)).map(name => name.slice(prefix.length))
  const contains = allergens.filter(name => !name.startsWith(UNKNOWN) && !name.startsWith(MAY))
  return [
    contains.length > 0 && `Contains ${contains.join(', ')}.`,
    of(MAY).length > 0 && `May contain ${of(MAY).join(', ')}.`,
    of(UNKNOWN).length > 0 && `Allergens unknown: ${of(UNKNOWN).join(', ')}.`,
  ]
    .filter(Boolean)
    .join(' ')
}
