import type { EntryOf, TrayPlaces } from '../log'

interface Stand {
  at: number
  places: ReadonlyMap<number, number>
}

/**
 * Follows the trays of one load through moves and takings out.
 * @param trays the places of loading
 * @param moves moves of the run, of whatever batch's trays, in force
 * @param unloads what came out of this load, in force; places as they were then
 */
export function followTrays(
  trays: readonly number[],
  moves: readonly EntryOf<'move'>[],
  unloads: readonly EntryOf<'unload'>[],
): TrayPlaces {
  const outAt = new Map<number, number>()
  const places = new Map(trays.map(tray => [tray, tray]))
  const stands: Stand[] = [{ at: -Infinity, places: new Map(places) }]
  for (const entry of [...moves, ...unloads].sort((a, b) => a.at - b.at || a.seq - b.seq)) {
    const { body, at } = entry
    if (body.kind === 'unload') {
      for (const [tray, place] of places) if (!outAt.has(tray) && (body.positions?.includes(place) ?? true)) outAt.set(tray, at)
      continue
    }
    const to = new Map(body.trays.map(move => [move.from, move.to]))
    for (const [tray, place] of places) if (!outAt.has(tray)) places.set(tray, to.get(place) ?? place)
    stands.push({ at, places: new Map(places) })
  }
  const flipped = new Map<number, number>()
  for (const { at, body } of moves)
    for (const { from, flipped: over } of body.trays) {
      const tray = over && trays.find(item => (stands.findLast(stand => stand.at < at) ?? stands[0]!).places.get(item) === from)
      if (tray && !flipped.has(tray)) flipped.set(tray, at)
    }
  const standAt = (at: number) => stands.findLast(stand => stand.at <= at)!.places
  return {
    outAt,
    movedAt: moves.findLast(move => move.body.trays.some(tray => tray.from !== tray.to))?.at,
    flippedAt: trays.length > 0 && trays.every(tray => flipped.has(tray) || outAt.has(tray)) ? Math.max(...flipped.values()) : undefined,
    placeAt: (tray, at) => standAt(Math.min(at, outAt.get(tray) ?? Infinity)).get(tray) ?? tray,
    trayAt: (place, at) => trays.find(tray => standAt(at).get(tray) === place && (outAt.get(tray) ?? Infinity) >= at),
  }
}

/**
 * Where trays would stand after a move.
 * @param taken places that carry a tray now
 * @returns the places taken afterwards, with repeats where two trays would share one
 */
export function placesAfter(taken: readonly number[], trays: readonly { from: number; to: number }[]): number[] {
  const to = new Map(trays.map(move => [move.from, move.to]))
  return taken.map(place => to.get(place) ?? place)
}
