import * as z from 'zod'
import { refuse, type Quantities, type Say } from '../../errors'
import { PURPOSES, type Purpose } from '../../foods'
import { checkLid, checkSources, checkStanding } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, packing, purpose, sieveUm, text, weightG, weightOrNothingG } from '../fields'
import { freshJar, SCALE_G, type Drawn, type Jar } from '../jar'

const blendDraw = z.strictObject({ jarId: id, weightG, toastedG: weightG.optional() })
/** What goes into a blend: `toastedG` is what it weighed once it was toasted, having lost water only. */
export type BlendDraw = z.infer<typeof blendDraw>

const blend = z.strictObject({
  name: text(80),
  recipeId: id.optional(),
  purpose: purpose.optional(),
  sifted: z.strictObject({ openingUm: sieveUm, overG: weightOrNothingG }).optional(),
})
/** What makes of a filling a blend. `sifted`: what stayed on the sieve at last, thrown out or ground again elsewhere. */
export type Blend = z.infer<typeof blend>

const schema = z.strictObject({
  kind: z.literal('fill'),
  jarId: id,
  from: z.array(blendDraw).min(1, 'Choose a jar to fill from.').max(40, 'At most 40 jars.'),
  ...packing,
  blend: blend.optional(),
})
type Fill = z.infer<typeof schema>

/** A new jar filled from others: split, put together, or blended. */
export const fill: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'filling a jar', what: 'a filled jar' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId, ...body.from.map(source => source.jarId)],
    check: (body, scene) => {
      const { jars, say } = scene
      if (jars.has(body.jarId)) say('jarId', 'filled-already', 'This jar has been filled already: pour into it instead.')
      checkLid(body.packageKey, body.leakGDayKPa, say)
      checkSources(body.from, 'from', scene)
      const sources = body.from.flatMap(source => jars.get(source.jarId) ?? [])
      checkStanding({ ...body, inOil: sources.some(jar => jar.inOil), parts: sources.flatMap(jar => jar.parts) }, scene)
      if (body.blend) return checkBlend(body, sources, say)
      const [first, ...others] = sources
      if (first && others.some(jar => jar.foodKey !== first.foodKey || jar.purpose !== first.purpose || jar.inOil !== first.inOil))
        say('from', 'unlike', 'These jars hold different things: only like goes to like here. Give the blend a name if that is meant.')
    },
    effect: (desk, { at, body }) => {
      const drawn = body.from.map(source => sifted(toasted(source, desk.draw(source, at), desk.strict), body))
      const first = drawn[0]?.jar
      if (!first) return
      const { jarId, packageKey, place, sizeMl, storageC, leakGDayKPa } = body
      const called = body.blend
        ? {
            name: body.blend.name,
            foodKey: blendKey(body.blend.recipeId ?? jarId),
            purpose: body.blend.purpose ?? coarsest(drawn.flatMap(({ jar }) => jar?.purpose ?? [])),
            sievedUm: body.blend.sifted?.openingUm,
          }
        : { name: first.name, foodKey: first.foodKey, purpose: first.purpose, sievedUm: first.sievedUm }
      const jar: Jar = { ...freshJar(jarId, at), ...called, packageKey, place, sizeMl, storageC, leakGDayKPa, inOil: first.inOil }
      desk.jars.set(jarId, jar)
      for (const part of drawn) desk.add(jar, part, at)
    },
  },
}

/** Key of a blend: jars made by one recipe are like, and so are the jars that one making was split into. */
const blendKey = (of: string) => `blend-${of}`

const coarsest = (purposes: readonly Purpose[]) => PURPOSES.find(form => purposes.includes(form)) ?? 'powder'

/** Dust of what is on the sieve may not be more than went over it. */
function checkBlend({ from, blend: made }: Fill, jars: readonly Jar[], say: Say): void {
  const wholeG = from.reduce((sum, { weightG: grams, toastedG }) => sum + (toastedG ?? grams), 0)
  from.forEach(({ weightG: grams, toastedG }, i) => {
    // How much water there was is found out jar by jar when the log is replayed.
    const fault = toastedG === undefined ? undefined : toastingFault(grams, toastedG, 1)
    if (fault) say(`from.${i}.toastedG`, 'toasted-otherwise', fault.template, fault.quantities)
  })
  if (made!.sifted && made!.sifted.overG >= wholeG)
    say('blend.sifted.overG', 'nothing-through', 'Only {wholeG} went over the sieve: some of it must fall through.', { wholeG })
  if (jars.some(jar => jar.inOil)) say('from.jarId', 'in-oil', 'A jar in oil is kept cold for four days and goes into no blend.')
}

/** What cannot be of a weight after toasting, in words. */
export function toastingFault(grams: number, toastedG: number, moisture: number): { template: string; quantities: Quantities } | undefined {
  if (toastedG > grams + SCALE_G) return { template: 'Toasted it weighs less, not more.', quantities: {} }
  const waterG = grams * moisture
  return grams - toastedG > waterG * 1.1 + SCALE_G
    ? {
        template: 'Toasting drives out water, and there was only {waterG} of it. Was some spilt? Then take that from the weight.',
        quantities: { waterG },
      }
    : undefined
}

/** What was toasted lost water, and nothing else. */
function toasted(source: BlendDraw, drawn: Drawn, strict: boolean): Drawn {
  if (source.toastedG === undefined || drawn.grams <= 0) return drawn
  const lostG = Math.max(0, drawn.grams - source.toastedG)
  const waterG = drawn.parts.reduce((sum, part) => sum + part.grams * part.moisture, 0)
  const fault = strict && toastingFault(drawn.grams, source.toastedG, waterG / drawn.grams)
  if (fault) refuse('from.toastedG', 'toasted-otherwise', fault.template, fault.quantities)
  const gone = Math.min(lostG, waterG) / Math.max(waterG, 1e-9)
  const parts = drawn.parts.map(part => {
    const grams = part.grams * (1 - part.moisture * gone)
    return { ...part, grams, moisture: (part.grams * part.moisture * (1 - gone)) / grams }
  })
  return { ...drawn, parts, grams: drawn.grams - waterG * gone }
}

/** What stayed on the sieve leaves each source in its share of the whole. */
function sifted(drawn: Drawn, { from, blend: made }: Pick<Fill, 'from' | 'blend'>): Drawn {
  const wholeG = from.reduce((sum, { weightG: grams, toastedG }) => sum + (toastedG ?? grams), 0)
  const keep = 1 - Math.min(1, (made?.sifted?.overG ?? 0) / wholeG)
  if (keep === 1) return drawn
  return {
    ...drawn,
    grams: drawn.grams * keep,
    parts: drawn.parts.map(part => ({ ...part, grams: part.grams * keep })),
    mixed: { starchG: drawn.mixed.starchG * keep, saltG: drawn.mixed.saltG * keep },
  }
}
