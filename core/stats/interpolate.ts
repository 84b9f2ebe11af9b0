/**
 * Value at a place between the points of a table, along straight lines; that of its ends beyond them.
 * @param places ascending, as many as `values`, at least one
 */
export function interpolate(places: readonly number[], values: readonly number[], at: number): number {
  let low = 0
  let high = places.length - 1
  if (at <= places[low]!) return values[low]!
  if (at >= places[high]!) return values[high]!
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (places[middle]! <= at) low = middle
    else high = middle
  }
  return values[low]! + ((values[high]! - values[low]!) * (at - places[low]!)) / (places[high]! - places[low]!)
}
