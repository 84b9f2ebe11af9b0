import { inForce, type BlendDraw, type EntryOf, type JarDraw } from '../batch'
import { InputError } from '../errors'
import { bestByWindow, MONTH_MS } from '../keeping'
import type { Purpose } from '../foods'
import type { FindLot, Jar, JarItem, JarPart, JarUse, Mixed } from './types'

/** The scale's doubt: so much more may be taken than was put in, g. */
export const SCALE_G = 0.5
const NOTHING: Mixed = { starchG: 0, saltG: 0 }

/** What is in a batch's bowl beside its own basket: old powder that seeded it, or the jars it was begun from. */
interface Bowl {
  ownG: number
  fromJars: boolean
  parts: JarPart[]
}

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
  const jars = new Map<string, Jar>()
  const bowls = new Map<string, Bowl>()
  const uses: JarUse[] = []
  const bowlOf = (batchId: string) => {
    const bowl = bowls.get(batchId) ?? { ownG: 0, fromJars: false, parts: [] }
    bowls.set(batchId, bowl)
    return bowl
  }
  /** Parts drawn from a jar, aged to the instant; what was mixed in comes along. */
  const draw = ({ jarId, weightG }: JarDraw, at: number): Drawn => {
    const jar = jars.get(jarId)
    if (strict && !jar) throw new InputError([{ field: 'weightG', message: 'Something was taken from this jar: void that first.' }])
    if (strict && weightG > jar!.leftG + SCALE_G)
      throw new InputError([
        { field: 'weightG', message: `More was taken from the jar than it would hold: ${Math.round(jar!.leftG * 10) / 10} g.` },
      ])
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
  const add = (jar: Jar, parts: readonly JarPart[], mixed: Mixed, grams: number, at: number) => {
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

  // One entry alone stands: thousands of jars come in so.
  for (const item of (items.length > 1 ? inForce(items) : items) as JarItem[]) {
    const { body, at } = item
    switch (body.kind) {
      case 'intake':
        for (const source of body.fromJars ?? []) {
          const bowl = bowlOf(item.batchId!)
          bowl.fromJars = true
          bowl.parts.push(...draw(source, at).parts)
        }
        break
      case 'grind': {
        const bowl = bowlOf(item.batchId!)
        if (!bowl.fromJars) bowl.ownG += Math.max(0, body.powderOutG - (body.seed?.weightG ?? 0))
        if (body.seed) bowl.parts.push(...draw(body.seed, at).parts)
        break
      }
      case 'pack': {
        const jar = jars.get(body.jarId) ?? openJar(item as EntryOf<'pack'> & JarItem, jars, find)
        if (jar)
          add(
            jar,
            packed(item as EntryOf<'pack'> & JarItem, bowls.get(item.batchId!), find),
            { starchG: body.mixed?.starchG ?? 0, saltG: body.mixed?.saltG ?? 0 },
            body.netG + (body.mixed?.starchG ?? 0) + (body.mixed?.saltG ?? 0),
            at,
          )
        break
      }
      case 'fill': {
        const drawn = body.from.map(source => sifted(toasted(source, draw(source, at), strict), body))
        const first = drawn[0]?.jar
        if (!first) break
        const { blend } = body
        const called = blend
          ? {
              name: blend.name,
              foodKey: blendKey(blend.recipeId ?? body.jarId),
              purpose: blend.purpose ?? coarsest(drawn.flatMap(({ jar }) => jar?.purpose ?? [])),
              sievedUm: blend.sifted?.openingUm,
            }
          : { name: first.name, foodKey: first.foodKey, purpose: first.purpose, sievedUm: first.sievedUm }
        const jar: Jar = {
          ...fresh(body.jarId, at),
          ...called,
          packageKey: body.packageKey,
          place: body.place,
          sizeMl: body.sizeMl,
          storageC: body.storageC,
          leakGDayKPa: body.leakGDayKPa,
        }
        jars.set(body.jarId, jar)
        for (const { parts, mixed, grams } of drawn) add(jar, parts, mixed, grams, at)
        break
      }
      case 'stock': {
        const jar = jars.has(body.jarId) ? undefined : stockedJar(item as EntryOf<'stock'>, find)
        if (jar) jars.set(body.jarId, jar)
        break
      }
      case 'pour': {
        const jar = jars.get(body.jarId)
        if (!jar) {
          if (strict) throw new InputError([{ field: 'jarId', message: 'Something was poured into this jar: void that first.' }])
          break
        }
        const { parts, mixed, grams } = draw(body.from, at)
        add(jar, parts, mixed, grams, at)
        break
      }
      case 'take': {
        const { grams } = draw({ jarId: body.jarId, weightG: body.weightG }, at)
        if (grams > 0) uses.push({ jarId: body.jarId, entryId: item.id, at, grams })
        break
      }
      case 'discard': {
        const jar = jars.get(body.jarId)
        if (!jar) break
        draw({ jarId: body.jarId, weightG: jar.leftG }, at)
        jar.discarded = { at, cause: body.cause }
        break
      }
      case 'moveJar': {
        const jar = jars.get(body.jarId)
        if (!jar) break
        if (body.storageC !== undefined && body.storageC !== jar.storageC) {
          jar.parts = jar.parts.map(part => agedTo(part, jar, at, find))
          jar.storageC = body.storageC
        }
        jar.place = body.place
        break
      }
      case 'lookJar':
        jars.get(body.jarId)?.looks.push({ at, saw: body.saw })
        break
      case 'smell':
        jars.get(body.jarId)?.smells.push({ at, smell: body.smell })
        break
      case 'measure': {
        const jar = jars.get(body.jarId)
        if (jar) jar.densityGMl = body.weightG / body.ml
      }
    }
  }
  return { jars, uses }
}

/** Key of a blend: jars made by one recipe are like, and so are the jars that one making was split into. */
export const blendKey = (id: string) => `blend-${id}`

type Drawn = { parts: JarPart[]; mixed: Mixed; grams: number; jar?: Jar }

/** What cannot be of a weight after toasting, in words. */
export function toastingFault(grams: number, toastedG: number, moisture: number): string | undefined {
  if (toastedG > grams + SCALE_G) return 'Toasted it weighs less, not more.'
  const waterG = grams * moisture
  return grams - toastedG > waterG * 1.1 + SCALE_G
    ? `Toasting drives out water, and there were only ${Math.round(waterG * 10) / 10} g of it. Was some spilt? Then take that from the weight.`
    : undefined
}

/** What was toasted lost water, and nothing else. */
function toasted(source: BlendDraw, drawn: Drawn, strict: boolean): Drawn {
  if (source.toastedG === undefined || drawn.grams <= 0) return drawn
  const lostG = Math.max(0, drawn.grams - source.toastedG)
  const waterG = drawn.parts.reduce((sum, part) => sum + part.grams * part.moisture, 0)
  const fault = strict && toastingFault(drawn.grams, source.toastedG, waterG / drawn.grams)
  if (fault) throw new InputError([{ field: 'from.toastedG', message: fault }])
  const share = Math.min(lostG, waterG) / Math.max(waterG, 1e-9)
  const parts = drawn.parts.map(part => {
    const grams = part.grams * (1 - part.moisture * share)
    return { ...part, grams, moisture: (part.grams * part.moisture * (1 - share)) / grams }
  })
  return { ...drawn, parts, grams: drawn.grams - waterG * share }
}

/** What stayed on the sieve leaves each source in its share of the whole. */
function sifted(drawn: Drawn, { from, blend }: { from: readonly BlendDraw[]; blend?: { sifted?: { overG: number } } }): Drawn {
  const wholeG = from.reduce((sum, { weightG, toastedG }) => sum + (toastedG ?? weightG), 0)
  const keep = 1 - Math.min(1, (blend?.sifted?.overG ?? 0) / wholeG)
  return keep === 1
    ? drawn
    : {
        ...drawn,
        grams: drawn.grams * keep,
        parts: drawn.parts.map(part => ({ ...part, grams: part.grams * keep })),
        mixed: { starchG: drawn.mixed.starchG * keep, saltG: drawn.mixed.saltG * keep },
      }
}

const COARSE: readonly Purpose[] = ['pieces', 'flakes', 'powder']
const coarsest = (purposes: readonly Purpose[]) => COARSE.find(purpose => purposes.includes(purpose)) ?? 'powder'

const fresh = (jarId: string, at: number) => ({
  jarId,
  inG: 0,
  leftG: 0,
  packedAt: at,
  filledAt: at,
  inOil: false,
  parts: [],
  mixed: NOTHING,
  looks: [],
  smells: [],
  ever: new Map<string, number>(),
})

/** A jar as what was bought in, or stood there before, goes into it; undefined where nothing is known of that. */
export function stockedJar({ at, body }: Pick<EntryOf<'stock'>, 'at' | 'body'>, find: FindLot): Jar | undefined {
  const lot = find(body.jarId)
  if (!lot) return undefined
  const { jarId, netG, purpose, foodKey, name, packageKey, place, sizeMl, storageC, leakGDayKPa } = body
  return {
    jarId,
    batchId: undefined,
    purpose,
    foodKey,
    name,
    packageKey,
    place,
    sizeMl,
    storageC,
    leakGDayKPa,
    inOil: false,
    inG: netG,
    leftG: netG,
    packedAt: at,
    filledAt: at,
    parts: [{ lotId: jarId, grams: netG, packedAt: at, used: 0, since: at, moisture: lot.moisture }],
    mixed: NOTHING,
    looks: [],
    smells: [],
    ever: new Map([[jarId, netG]]),
  }
}

function openJar(item: EntryOf<'pack'> & JarItem, jars: Map<string, Jar>, find: FindLot): Jar | undefined {
  const lot = find(item.batchId!)
  if (!lot) return undefined
  const { body } = item
  const jar: Jar = {
    ...fresh(body.jarId, item.at),
    batchId: item.batchId,
    purpose: lot.purpose,
    foodKey: lot.food.key,
    packageKey: body.packageKey,
    place: body.place,
    sizeMl: body.sizeMl,
    storageC: body.storageC,
    inOil: body.inOil ?? false,
    leakGDayKPa: body.leakGDayKPa,
  }
  jars.set(body.jarId, jar)
  return jar
}

/** The parts of what goes from a batch's bowl into a jar: its own basket, and what else is in the bowl by its share. */
function packed({ batchId, at, body }: EntryOf<'pack'> & JarItem, bowl: Bowl | undefined, find: FindLot): JarPart[] {
  const moisture = body.moisture ?? find(batchId!)?.moisture ?? 0
  const othersG = bowl?.parts.reduce((sum, part) => sum + part.grams, 0) ?? 0
  const share = othersG > 0 ? othersG / (bowl!.ownG + othersG) : 0
  const own = { lotId: batchId!, grams: body.netG * (1 - share), packedAt: at, used: 0, since: at, moisture }
  const others = (bowl?.parts ?? []).map(part => ({ ...part, grams: (body.netG * share * part.grams) / othersG, since: at, moisture }))
  return [...(share < 1 ? [own] : []), ...others]
}

/** A part as it stands at an instant: what it has used of its best time in this jar. */
export function agedTo(part: JarPart, jar: Jar, at: number, find: FindLot): JarPart {
  const lot = find(part.lotId)
  if (!lot) return { ...part, since: at }
  const { low, high } = bestByWindow({
    food: lot.food,
    purpose: jar.purpose,
    packageKey: jar.packageKey,
    storageC: jar.storageC,
    rested: lot.rested,
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
