const UNKNOWN = 'unknown: '
const MAY = 'may contain '

/** Allergens of a lot: its food's, and what is known of the lot itself; where that is known, “unknown” of its kind falls away. */
export function allergensOfLot(food: readonly string[], lot: readonly string[] | undefined): string[] {
  const known = lot?.some(name => !name.startsWith(UNKNOWN)) ? food.filter(name => !name.startsWith(UNKNOWN)) : food
  return [...new Set([...known, ...(lot ?? [])])]
}

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
