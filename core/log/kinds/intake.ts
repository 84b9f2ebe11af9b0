import * as z from 'zod'
import { cardOf } from '../../foods'
import { checkSources } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, jarDraw, price, purpose, text, weightG } from '../fields'

/** What was believed of its water when it came in, wet basis, from so many own lots; the reference's where it is missing. */
const rawWater = z.strictObject({
  mean: z.number().min(0.01).max(0.999),
  sd: z.number().min(0).max(0.5),
  lots: z.number().int().min(1).max(10_000),
})

const schema = z.strictObject({
  kind: z.literal('intake'),
  foodKey: text(40),
  cultivar: text(80).optional(),
  source: text(120),
  weightG,
  condition: text(120).optional(),
  purpose,
  cardKey: text(80),
  /** The plant or row that it was picked from: its pickings add up over the season. */
  plant: text(80).optional(),
  count: z
    .number({ error: 'Give a count, as a number.' })
    .int('Whole pieces.')
    .min(1, 'At least one.')
    .max(100_000, 'At most 100 000.')
    .optional(),
  /** What was paid for it, in the household's money. */
  price: price.optional(),
  /** The batch whose basket it is a part of. */
  from: id.optional(),
  /** Begun from jars of the shelf, to be dried or ground again: dry already. */
  fromJars: z.array(jarDraw).min(1, 'Choose a jar.').max(40, 'At most 40 jars.').optional(),
  /** What stood in those jars. */
  fromForm: purpose.optional(),
  rawWater: rawWater.optional(),
  /** What was on the scale, of a food that is cooked before it is dried; told by what was cooked later where it is missing. */
  weighed: z.enum(['uncooked', 'cooked'], { error: 'Say whether it was weighed uncooked or cooked.' }).optional(),
})

/** What came in; the first entry of every batch. */
export const intake: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'taking in', what: 'a basket' },
  effect: (draft, entry) => {
    draft.intake ??= entry
  },
  check: (body, { find, say }) => {
    const food = find(body.foodKey)
    if (!food)
      return say('foodKey', 'unknown-food', '“{key}” is not a food in the reference. Choose one from the list.', { key: body.foodKey })
    if (cardOf(food, body.cardKey).key !== body.cardKey)
      say('cardKey', 'unknown-card', '{food} has no method card “{card}”.', { food: food.name, card: body.cardKey })
    if (!(body.weightG > 0)) say('weightG', 'weight-not-above-zero', 'The weight must be above zero.')
  },
  jars: {
    names: body => (body.fromJars ?? []).map(source => source.jarId),
    check: (body, { jars, say }) => checkSources(body.fromJars ?? [], 'fromJars', jars, say),
    effect: (desk, { at, body, batchId }) => {
      for (const source of body.fromJars ?? []) {
        const bowl = desk.bowlOf(batchId!)
        bowl.fromJars = true
        bowl.parts.push(...desk.draw(source, at).parts)
      }
    },
  },
}
