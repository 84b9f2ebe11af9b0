import * as z from 'zod'
import { checkLid, checkStanding } from '../checkJar'
import type { EntryKindOf, EntryWith } from '../define'
import { id, instant, packing, price, purpose, text, weightG } from '../fields'
import { NOTHING, type FindLot, type Jar } from '../jar'

const heatUnits = z
  .number({ error: 'Give Scoville units, as a number.' })
  .min(0, 'Heat is not negative.')
  .max(5_000_000, 'Nothing is hotter than some three million.')

const schema = z.strictObject({
  kind: z.literal('stock'),
  jarId: id,
  foodKey: text(60),
  name: text(80).optional(),
  purpose,
  netG: weightG,
  ...packing,
  source: text(120).optional(),
  price: price.optional(),
  moisture: z
    .number({ error: 'Give the water as a share from 0 to 1.' })
    .min(0.001, 'At least 0.1 % water.')
    .max(0.3, 'At most 30 % water: that is not dry.')
    .optional(),
  saltShare: z
    .number({ error: 'Give the salt as a share from 0 to 1.' })
    .min(0, 'Salt is not negative.')
    .max(1, 'At most all of it.')
    .optional(),
  heat: z
    .strictObject({ low: heatUnits, high: heatUnits })
    .refine(heat => heat.high >= heat.low, { path: ['high'], message: 'The hotter figure must not be below the milder.' })
    .optional(),
  allergens: z.array(text(40)).max(20, 'At most 20 allergens.').optional(),
  bestTo: instant.optional(),
})
type Stock = z.infer<typeof schema>

/** What stands in a jar without a batch: bought in, or from before the log. `at` is when it was opened or packed. */
export const stock: EntryKindOf<typeof schema, 'jar'> = {
  schema,
  scopes: ['jar'],
  words: { doing: 'putting in what was bought', what: 'what was bought in' },
  effect: 'none',
  check: 'none',
  jars: {
    names: body => [body.jarId],
    check: (body, scene) => {
      const { jars, find, say } = scene
      if (jars.has(body.jarId)) say('jarId', 'filled-already', 'This jar has been filled already: it cannot come in again.')
      checkLid(body.packageKey, body.leakGDayKPa, say)
      const lot = find(body.jarId)
      if (lot) checkStanding({ ...body, inOil: false, parts: [{ lotId: body.jarId, moisture: lot.moisture }] }, scene)
      else
        say('foodKey', 'unknown-food', '“{key}” is neither a food nor a bought-in good of the reference. Choose one from the list.', {
          key: body.foodKey,
        })
    },
    effect: (desk, item) => {
      const jar = desk.jars.has(item.body.jarId) ? undefined : stockedJar(item, desk.find)
      if (jar) desk.jars.set(item.body.jarId, jar)
    },
  },
}

/** A jar as what was bought in, or stood there before, goes into it; undefined where nothing is known of that. */
export function stockedJar({ at, body }: Pick<EntryWith<Stock>, 'at' | 'body'>, find: FindLot): Jar | undefined {
  const lot = find(body.jarId)
  if (!lot) return undefined
  const { jarId, netG, purpose: form, foodKey, name, packageKey, place, sizeMl, storageC, leakGDayKPa } = body
  return {
    jarId,
    batchId: undefined,
    purpose: form,
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
