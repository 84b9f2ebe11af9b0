import { refuse } from '../errors'
import { bestByWindow, MONTH_MS } from '../keeping'
import {
  inForce,
  kindOf,
  NOTHING,
  SCALE_G,
  type Bowl,
  type Drawn,
  type FindLot,
  type Jar,
  type JarDesk,
  type JarDraw,
  type JarItem,
  type JarPart,
  type JarUse,
} from '../log'

export interface Replay {
  jars: Map<string, Jar>
  uses: JarUse[]
}

/**
 * Follows jars through their entries: what was packed, poured, taken and thrown away, in the order in
 * which it happened. Whatever leaves a jar leaves in the proportion of its parts, so mass is kept part by part.
 * @param items entries of the jars and of the batches they touch, voided and corrected ones included
 * @param strict refuses what cannot be; without it more is never taken than there is
 * @throws InputError, strict only, for an entry that takes from a jar what is not in it
 */
export function replayJars(items: readonly JarItem[], find: FindLot, strict = false): Replay {
  const uses: JarUse[] = []
  const desk = deskOf(find, strict, use => void uses.push(use))
  // One entry alone stands: thousands of jars come in so.
  for (const item of (items.length > 1 ? inForce(items) : items) as JarItem[]) {
    const { jars } = kindOf(item.body.kind)
    if (jars && jars.effect !== 'none') jars.effect(desk, item)
  }
  return { jars: desk.jars, uses }
}

function deskOf(find: FindLot, strict: boolean, used: JarDesk['used']): JarDesk {
  const jars = new Map<string, Jar>()
  const bowls = new Map<string, Bowl>()
  return {
    jars,
    bowls,
    find,
    strict,
    used,
    bowlOf: batchId => {
      const bowl = bowls.get(batchId) ?? { ownG: 0, fromJars: false, parts: [] }
      bowls.set(batchId, bowl)
      return bowl
    },
    age: (part, jar, at) => agedTo(part, jar, at, find),
    draw: (source, at) => drawFrom(jars.get(source.jarId), source, at, find, strict),
    add: (jar, drawn, at) => addTo(jar, drawn, at, find),
  }
}

/** Parts drawn from a jar, aged to the instant; what was mixed in comes along. */
function drawFrom(jar: Jar | undefined, { weightG }: JarDraw, at: number, find: FindLot, strict: boolean): Drawn {
  if (strict && !jar) refuse('weightG', 'rested-on', 'Something was taken from this jar: void that first.')
  if (strict && weightG > jar!.leftG + SCALE_G)
    refuse('weightG', 'more-than-is-left', 'More was taken from the jar than it would hold: {leftG}.', { leftG: jar!.leftG })
  const grams = Math.min(weightG, jar?.leftG ?? 0)
  if (!jar || grams <= 0) return { parts: [], mixed: NOTHING, grams: 0, jar }
  const share = grams / jar.leftG
  const parts = jar.parts.map(part => ({ ...agedTo(part, jar, at, find), grams: part.grams * share }))
  const mixed = { starchG: jar.mixed.starchG * share, saltG: jar.mixed.saltG * share }
  const keep = grams >= jar.leftG ? 0 : 1 - share
  for (const part of jar.parts) part.grams *= keep
  jar.mixed = { starchG: jar.mixed.starchG * keep, saltG: jar.mixed.saltG * keep }
  jar.leftG -= grams
  return { parts, mixed, grams, jar }
}

function addTo(jar: Jar, { parts, mixed, grams, jar: from }: Drawn, at: number, find: FindLot): void {
  // What was said of a jar goes where its food goes; that it was all is said of that jar alone.
  if (from?.contains && from !== jar)
    jar.contains = {
      allergens: [...new Set([...(jar.contains?.allergens ?? []), ...from.contains.allergens])],
      all: jar.parts.length === 0 && from.contains.all,
    }
  for (const part of parts) {
    jar.ever.set(part.lotId, (jar.ever.get(part.lotId) ?? 0) + part.grams)
    const there = jar.parts.find(item => item.lotId === part.lotId)
    if (!there) jar.parts.push({ ...part })
    else merge(there, part, agedTo(there, jar, at, find))
  }
  jar.mixed = { starchG: jar.mixed.starchG + mixed.starchG, saltG: jar.mixed.saltG + mixed.saltG }
  jar.inG += grams
  jar.leftG += grams
  jar.filledAt = at
}

/** A part as it stands at an instant: what it has used of its best time in this jar. */
function agedTo(part: JarPart, jar: Jar, at: number, find: FindLot): JarPart {
  const lot = find(part.lotId)
  if (!lot) return { ...part, since: at }
  const { low, high } = bestByWindow({
    food: lot.food,
    purpose: jar.purpose,
    packageKey: jar.packageKey,
    storageC: jar.storageC,
    rested: lot.rested,
    said: lot.keeps,
    inOil: jar.inOil,
  }).months
  return { ...part, used: Math.min(1, part.used + (at - part.since) / (((low + high) / 2) * MONTH_MS)), since: at }
}

/** Two portions of one basket in one jar become one: as old as the older, as damp as their mean. */
function merge(there: JarPart, more: JarPart, aged: JarPart): void {
  const grams = there.grams + more.grams
  const moisture = grams > 0 ? (there.grams * there.moisture + more.grams * more.moisture) / grams : more.moisture
  if (there.grams <= 0) Object.assign(there, more)
  else if (more.used > aged.used) Object.assign(there, { used: more.used, since: more.since })
  Object.assign(there, { grams, moisture, packedAt: Math.min(there.packedAt, more.packedAt) })
}
