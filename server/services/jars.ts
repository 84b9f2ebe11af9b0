import { checkJars, contentOf, jarBest, jarWater, jarsNamed, replayJars, type Content, type Pantry } from '#core/jars'
import { stockedJar, targetOf, type FindLot, type Lot, type Jar, type JarItem, type JarUse, type Entry, type EntryOf } from '#core/log'
import { foodOfBlend } from '#core/blends'
import type { Todo } from '#core/planning'
import { batchView } from '#server/db/batches'
import { bowlEntries, entriesOfJar, jarsOfEntry, stockOfJar } from '#server/db/entries'
import { dropJarView, ensureJar, jarsPackedFrom, putJarPart, putJarUse, putJarView } from '#server/db/jars'
import { replaceLookTodo } from '#server/db/todos'
import { pantryOf, type Context } from './context'
import { DAY } from '#core/time'

/** Every jar that an entry names, or whose entry it corrects or voids. */
export function jarsTouched({ db }: Context, entry: Pick<Entry, 'body' | 'replaces'>): string[] {
  const target = targetOf(entry)
  return [...new Set([...jarsNamed(entry), ...(target === undefined ? [] : jarsOfEntry(db, target))])]
}

/**
 * All entries of some jars and of every jar and bowl tied to them by a pouring, a seeding or a new
 * beginning: what is poured on must be known to tell what is in the last jar.
 */
function entriesAround({ db }: Context, jars: readonly string[]): { items: JarItem[]; jarIds: string[] } {
  const seen = new Set(jars)
  const bowls = new Set<string>()
  const items = new Map<string, JarItem>()
  const queue = [...jars]
  const meet = (item: JarItem) => {
    items.set(item.id, item)
    for (const jarId of jarsNamed(item)) {
      if (seen.has(jarId)) continue
      seen.add(jarId)
      queue.push(jarId)
    }
  }
  for (let jarId = queue.pop(); jarId !== undefined; jarId = queue.pop()) {
    for (const item of entriesOfJar(db, jarId)) {
      meet(item)
      // A bowl that old powder went into: all that was ground and packed from it belongs here.
      const bowl = (item.body.kind === 'intake' || item.body.kind === 'grind') && item.batchId
      if (!bowl || bowls.has(bowl)) continue
      bowls.add(bowl)
      for (const own of bowlEntries(db, bowl)) meet(own)
    }
    // A jar packed from such a bowl leads back to it.
    for (const item of [...items.values()]) {
      if (item.body.kind !== 'pack' || !item.batchId || bowls.has(item.batchId)) continue
      const own = bowlEntries(db, item.batchId)
      if (!own.some(({ body }) => (body.kind === 'grind' && body.seed) || (body.kind === 'intake' && body.fromJars))) continue
      bowls.add(item.batchId)
      for (const entry of own) meet(entry)
    }
  }
  return { items: [...items.values()].sort((a, b) => a.seq - b.seq), jarIds: [...seen] }
}

/** What a batch's product brings into a dish, kept with its line. */
export interface ProductFacts {
  allergens: string[]
  /** Those of them that only came along. */
  traces: string[]
  whole: true
  saltShare: number
  raw: boolean
  warm?: boolean
  told: Lot['told']
  driest?: number
  wettest?: number
  keeps?: Lot['keeps']
  heat?: Lot['heat']
  sievedUm?: number
  /** Water at which its last run is dry, wet basis. */
  dryAt?: number
}

/**
 * What the jars need to know of lots: of batches from their lines, of what was bought in from its entry.
 * @param coming an entry that is not written yet
 */
function lotsOf(context: Context, coming?: Entry): FindLot {
  const known = new Map<string, ReturnType<FindLot>>()
  if (coming?.body.kind === 'stock') known.set(coming.body.jarId, lotOfStock(context, coming.body))
  return lotId => {
    if (!known.has(lotId)) known.set(lotId, lotOfBatch(context, lotId) ?? lotOfStock(context, stockOfJar(context.db, lotId)?.body))
    return known.get(lotId)
  }
}

function lotOfBatch({ db, foods }: Context, batchId: string): Lot | undefined {
  const view = batchView(db, batchId)
  const food = view && foods.find(view.food_key)
  return (
    food && {
      food,
      purpose: view.purpose,
      rested: view.rested === 1,
      moisture: view.moisture || food.target[view.purpose],
      ...(JSON.parse(view.product ?? '{}') as Partial<ProductFacts>),
    }
  )
}

function lotOfStock({ foods }: Context, body: Entry['body'] | undefined): Lot | undefined {
  const food = body?.kind === 'stock' ? foods.product(body.foodKey) : undefined
  if (body?.kind !== 'stock' || !food) return undefined
  return {
    food,
    purpose: body.purpose,
    rested: true,
    sold: true,
    moisture: body.moisture ?? food.target[body.purpose],
    allergens: body.allergens,
    saltShare: body.saltShare,
    heat: body.heat,
    bestTo: body.bestTo,
  }
}

/**
 * Decides whether an entry that touches jars may be written.
 * @throws InputError naming the field
 */
export function checkJarsFor(context: Context, entry: JarItem): void {
  const jars = jarsTouched(context, entry)
  if (jars.length > 0) checkJars(entriesAround(context, jars).items, entry, { now: context.now(), find: lotsOf(context, entry) })
}

/** The jars as they stand. */
export function jarsNow(
  context: Context,
  jarIds: readonly string[],
): { jars: Map<string, Jar>; uses: JarUse[]; items: JarItem[]; find: FindLot } {
  const { items } = entriesAround(context, jarIds)
  const find = lotsOf(context)
  return { ...replayJars(items, find), items, find }
}

/** Works out what follows of jars, and of all that are tied to them; gives the ids of them all. */
export function projectJars(context: Context, wanted: readonly string[]): readonly string[] {
  if (wanted.length === 0) return []
  const { db } = context
  const { items, jarIds } = entriesAround(context, wanted)
  const find = lotsOf(context)
  const { jars, uses } = replayJars(items, find)
  const pantry = pantryOf(context)
  for (const jarId of jarIds) {
    dropJarView(db, jarId)
    const jar = jars.get(jarId)
    if (!jar) continue
    putJar(context, jar, find, { pantry })
    for (const use of uses) if (use.jarId === jarId) putJarUse(db, use, jar.foodKey)
  }
  for (const batchId of new Set([...jars.values()].flatMap(jar => jar.batchId ?? [])))
    replaceLookTodo(db, batchId, lookTodo(context, batchId))
  return jarIds
}

function putJar(context: Context, jar: Jar, find: FindLot, known: { pantry: Pantry; number?: number }): void {
  putJarView(context.db, rowOf(context, jar, find, known))
  for (const [lotId, everG] of jar.ever)
    putJarPart(context.db, jar.jarId, lotId, everG, jar.parts.find(part => part.lotId === lotId)?.grams ?? 0)
}

/** What follows of a jar that was stocked by this one entry: many at once need not be looked up again. */
export function projectStocked(
  context: Context,
  entry: Pick<EntryOf<'stock'>, 'at' | 'body'>,
  known: { pantry: Pantry; number: number },
): void {
  const lot = lotOfStock(context, entry.body)
  const find = () => lot
  const jar = stockedJar(entry, find)
  if (jar) putJar(context, jar, find, known)
}

/** A closed jar shows within days what was not dry: somebody should look, once. */
function lookTodo({ db, foods }: Context, batchId: string): Todo | undefined {
  const jars = jarsPackedFrom(db, batchId).filter(jar => jar.left_g > 0 && (jar.looked_at ?? 0) < jar.filled_at)
  if (jars.length === 0) return undefined
  const from = Math.min(...jars.map(jar => jar.filled_at)) + DAY
  const name = (foods.product(jars[0]!.food_key)?.name ?? jars[0]!.food_key).toLowerCase()
  return {
    kind: 'lookJar',
    from,
    to: from + 2 * DAY,
    title: jars.length === 1 ? `Look at jar ${jars[0]!.number} of ${name}` : `Look at ${jars.length} jars of ${name}`,
    why: 'In the first days a closed jar shows what was not dry: beads, sticking, lumps.',
  }
}

function rowOf(
  context: Context,
  jar: Jar,
  find: FindLot,
  { pantry, number }: { pantry: Pantry; number?: number },
): Parameters<typeof putJarView>[1] {
  const best = jarBest(jar, find, pantry)
  const blend = jar.foodKey.startsWith('blend-') ? foodOfBlend(jar, find) : undefined
  const smell = jar.smells.at(-1)
  const look = jar.looks.at(-1)
  return {
    jar_id: jar.jarId,
    number: number ?? ensureJar(context.db, jar.jarId),
    batch_id: jar.batchId ?? null,
    food_key: jar.foodKey,
    purpose: jar.purpose,
    place: jar.place,
    package_key: jar.packageKey,
    net_g: jar.inG,
    left_g: jar.leftG < LEAST_G ? 0 : jar.leftG,
    size_ml: jar.sizeMl ?? null,
    packed_at: jar.packedAt,
    filled_at: jar.filledAt,
    oldest_at: best.oldestAt,
    baskets: jar.ever.size,
    best_from: best.from,
    best_to: best.to,
    best_limit: best.limit,
    moisture: jarWater(jar, find).moisture,
    smell: smell?.smell ?? null,
    smelt_at: smell?.at ?? null,
    saw: look?.saw ?? null,
    looked_at: look?.at ?? null,
    name: jar.name ?? null,
    content: JSON.stringify({ ...contentOf(jar, find), storageC: jar.storageC } satisfies JarContent),
    blend: blend ? JSON.stringify(blend) : null,
  }
}

/** What is in a jar, kept with its line. */
export interface JarContent extends Content {
  storageC?: number
}

/** Less than this is dust on the glass, g. */
const LEAST_G = 0.01
