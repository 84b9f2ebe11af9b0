import * as z from 'zod'
import { stopsAtPacking, stopsUnheated } from '../../safety'
import { checkAddition, checkLid, checkStanding } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, packing, purpose, weightG, weightOrNothingG } from '../fields'
import { freshJar, type Bowl, type FindLot, type JarPart } from '../jar'
import { SCALE_SHARE } from '../weights'

const schema = z.strictObject({
  kind: z.literal('pack'),
  jarId: id,
  netG: weightG,
  /** In which form it goes in, where that is not what the batch is for. */
  form: purpose.optional(),
  ...packing,
  inOil: z.boolean().optional(),
  topUp: z.boolean().optional(),
  moisture: z
    .number({ error: 'Give the water as a share from 0 to 1.' })
    .min(0.001, 'At least 0.1 % water.')
    .max(0.6, 'At most 60 % water: that is not dry.')
    .optional(),
  /** What was stirred in beside. */
  mixed: z.strictObject({ starchG: weightOrNothingG.optional(), saltG: weightOrNothingG.optional() }).optional(),
  absorberCc: z
    .number({ error: 'Give the absorber’s size in cc.' })
    .int('Whole cc.')
    .min(1, 'At least 1 cc.')
    .max(10_000, 'At most 10 000 cc.')
    .optional(),
  gelG: z.number({ error: 'Give the silica gel in grams.' }).positive('Above zero.').max(1000, 'At most 1 kg.').optional(),
  wrapped: z.boolean().optional(),
})
type Pack = z.infer<typeof schema>

/** Into a new jar, or onto what is in one. */
export const pack: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'packing', what: 'a jar' },
  effect: (draft, entry) => void draft.packs.push(entry),
  check: (body, { state, before, wettest, say }) => {
    const form = body.form ?? state.purpose
    const leftG = state.unpacked[form]
    if (leftG === undefined)
      return form === 'pieces'
        ? say('kind', 'rest-not-ended', 'End the rest before packing, so that what goes in the jar is known to be dry.')
        : say('kind', 'not-ground', 'Grind before packing.')
    if (!body.topUp && before.some(entry => entry.body.kind === 'pack' && entry.body.jarId === body.jarId))
      say('jarId', 'packed-already', 'This jar has been packed already.')
    const [unheated] = stopsUnheated(state.card, state.choices, state.heated)
    if (unheated) return say('kind', 'stop-heat-after', unheated.message)
    if (body.netG > leftG * (1 + SCALE_SHARE) + 1)
      say('netG', 'more-than-is-left', 'Only {leftG} of {form} is left to pack. Was the jar on the scale?', { leftG, form })
    // Onto what is in a jar: how that stands is looked at with the jar.
    if (body.topUp) return
    for (const stop of stopsAtPacking(state.food, {
      ...body,
      absorber: body.absorberCc !== undefined,
      moisture: body.moisture ?? wettest(),
    }))
      say(stop.rule.key === 'oil' ? 'inOil' : 'packageKey', `stop-${stop.rule.key}`, stop.message)
  },
  jars: {
    names: body => [body.jarId],
    check: (body, scene) => {
      const { jars, find, batchId, say } = scene
      if (!body.topUp) checkLid(body.packageKey, body.leakGDayKPa, say)
      const jar = jars.get(body.jarId)
      if (jar && !body.topUp) return say('jarId', 'packed-already', 'This jar has been packed already: top it up, or take another.')
      if (!body.topUp) return
      const lot = find(batchId!)
      if (!jar) return say('jarId', 'unknown-jar', 'There is no such jar to top up.')
      if (!lot) return
      const moisture = body.moisture ?? lot.moisture
      const parts = [{ lotId: batchId!, moisture, grams: body.netG }]
      checkAddition(
        jar,
        { foodKey: lot.food.key, purpose: body.form ?? lot.purpose, inOil: body.inOil ?? false, leftG: body.netG, parts },
        find,
        say,
      )
      checkStanding({ ...jar, parts }, scene)
    },
    effect: (desk, { at, body, batchId }) => {
      const lot = desk.find(batchId!)
      const { jarId, packageKey, place, sizeMl, storageC, leakGDayKPa, inOil = false } = body
      const absorber = body.absorberCc !== undefined || undefined
      let jar = desk.jars.get(jarId)
      if (!jar && lot) {
        const what = {
          batchId,
          purpose: body.form ?? lot.purpose,
          foodKey: lot.food.key,
          packageKey,
          place,
          sizeMl,
          storageC,
          inOil,
          absorber,
          leakGDayKPa,
        }
        jar = { ...freshJar(jarId, at), ...what }
        desk.jars.set(jarId, jar)
      }
      if (!jar) return
      const mixed = { starchG: body.mixed?.starchG ?? 0, saltG: body.mixed?.saltG ?? 0 }
      const grams = body.netG + mixed.starchG + mixed.saltG
      desk.add(jar, { parts: packedParts(body, at, batchId!, desk.bowls.get(batchId!), desk.find), mixed, grams }, at)
    },
  },
}

/** The parts of what goes from a batch's bowl into a jar: its own basket, and what else is in the bowl by its share. */
function packedParts(body: Pack, at: number, batchId: string, bowl: Bowl | undefined, find: FindLot): JarPart[] {
  const moisture = body.moisture ?? find(batchId)?.moisture ?? 0
  const othersG = bowl?.parts.reduce((sum, part) => sum + part.grams, 0) ?? 0
  const share = othersG > 0 ? othersG / (bowl!.ownG + othersG) : 0
  const own = { lotId: batchId, grams: body.netG * (1 - share), packedAt: at, used: 0, since: at, moisture }
  const others = (bowl?.parts ?? []).map(part => ({ ...part, grams: (body.netG * share * part.grams) / othersG, since: at, moisture }))
  return [...(share < 1 ? [own] : []), ...others]
}
