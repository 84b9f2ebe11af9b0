import type { ShelfJar } from '#shared/contracts'

/** Jars as one walks along the shelf: place by place, by number. The paper and the form that it comes back by have the same order. */
export function byPlace(jars: readonly ShelfJar[]): { place: string; jars: ShelfJar[] }[] {
  const places = new Map<string, ShelfJar[]>()
  for (const jar of [...jars].sort((a, b) => a.number - b.number)) {
    if (jar.leftG <= 0) continue
    places.set(jar.place, [...(places.get(jar.place) ?? []), jar])
  }
  return [...places].map(([place, list]) => ({ place, jars: list })).sort((a, b) => a.place.localeCompare(b.place))
}
