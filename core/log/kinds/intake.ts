import * as z from 'zod'
import { cardOf } from '../../foods'
import type { Say } from '../../errors'
import { checkSources } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, instant, jarDraw, price, purpose, text, weightG } from '../fields'

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
  /** Other batches whose dry food went into the same cup, with what each gave; the rest came from the first. */
  with: z
    .array(z.strictObject({ batchId: id, weightG }))
    .min(1, 'Name at least one other batch.')
    .max(11, 'At most twelve batches in one cup.')
    .optional(),
  /** Begun from jars of the shelf, to be dried or ground again: dry already. */
  fromJars: z.array(jarDraw).min(1, 'Choose a jar.').max(40, 'At most 40 jars.').optional(),
  /** What it was, dry already: what stood in those jars, or the part of another batch. */
  fromForm: purpose.optional(),
  rawWater: rawWater.optional(),
  /** A part of another batch: when it was taken, and its water as it was believed then, wet basis. Steps until then are behind it. */
  prepared: z
    .strictObject({
      at: instant,
      mean: z.number().min(0.001).max(0.999),
      sd: z.number().min(0).max(0.5),
      /** Hours of the danger clock that were gone then, where it is out of a machine already. */
      spentH: z.number().min(0).max(10_000).optional(),
    })
    .optional(),
  /** Doubt of the weight, where it was counted or filled into pots: standard deviation, g. */
  weightSdG: z.number().positive('The doubt is above zero.').max(1_000_000, 'That is over a tonne.').optional(),
  /** Other foods among it, with what each weighs; the food above is the rest. */
  mix: z
    .array(z.strictObject({ foodKey: text(40), weightG }))
    .min(1, 'Name at least one other food.')
    .max(11, 'At most twelve kinds in a basket.')
    .optional(),
  /** The machine that was meant when it came in: loading begins with it. */
  machineId: id.optional(),
  /** What was on the scale, of a food that is cooked before it is dried; told by what was cooked later where it is missing. */
  weighed: z.enum(['uncooked', 'cooked'], { error: 'Say whether it was weighed uncooked or cooked.' }).optional(),
})

/** The batches that a basket came from, and what each gave, g: none where it was brought in. */
export function givenBy({ from, with: others = [], weightG }: BodyOfIntake): { batchId: string; weightG: number }[] {
  if (from === undefined) return []
  const othersG = others.reduce((sum, other) => sum + other.weightG, 0)
  return [{ batchId: from, weightG: weightG - othersG }, ...others]
}
type BodyOfIntake = z.infer<typeof schema>

/** What came in; the first entry of every batch. */
export const intake: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'taking in', what: 'a basket' },
  effect: (draft, entry) => {
    draft.intake ??= entry
  },
  check: (body, { find, say }) => {
    if (body.prepared && !body.from) say('from', 'part-of-what', 'Only a part of another batch comes in prepared: say of which.')
    checkTogether(body, say)
    const food = find(body.foodKey)
    if (!food)
      return say('foodKey', 'unknown-food', '“{key}” is not a food in the reference. Choose one from the list.', { key: body.foodKey })
    if (cardOf(food, body.cardKey).key !== body.cardKey)
      say('cardKey', 'unknown-card', '{food} has no method card “{card}”.', { food: food.name, card: body.cardKey })
    const others = body.mix ?? []
    others.forEach((part, i) => {
      if (!find(part.foodKey))
        say(`mix.${i}.foodKey`, 'unknown-food', '“{key}” is not a food in the reference. Choose one from the list.', { key: part.foodKey })
      else if (part.foodKey === body.foodKey || others.findIndex(other => other.foodKey === part.foodKey) < i)
        say(`mix.${i}.foodKey`, 'food-twice', '{food} is named twice.', { food: find(part.foodKey)!.name })
    })
    const othersG = others.reduce((sum, part) => sum + part.weightG, 0)
    if (othersG >= body.weightG && others.length > 0)
      say('mix', 'more-than-the-basket', 'The other kinds weigh {othersG}, and the whole basket {weightG}: nothing is left for {food}.', {
        othersG,
        weightG: body.weightG,
        food: food.name,
      })
    if (!(body.weightG > 0)) say('weightG', 'weight-not-above-zero', 'The weight must be above zero.')
  },
  jars: {
    names: body => (body.fromJars ?? []).map(source => source.jarId),
    check: (body, scene) => checkSources(body.fromJars ?? [], 'fromJars', scene),
    effect: (desk, { at, body, batchId }) => {
      for (const source of body.fromJars ?? []) {
        const bowl = desk.bowlOf(batchId!)
        bowl.fromJars = true
        bowl.parts.push(...desk.draw(source, at).parts)
      }
    },
  },
}

/** Several batches give dry food to one cup, each once, and what is left of the whole is the first one's. */
function checkTogether(body: BodyOfIntake, say: Say): void {
  if (!body.with) return
  if (!body.from || !body.prepared || body.fromForm !== 'pieces')
    return say('with', 'not-dry-together', 'Only dry pieces of several batches go into one cup: begin it with a part of one of them.')
  const given = givenBy(body)
  if (new Set(given.map(part => part.batchId)).size < given.length) say('with', 'batch-twice', 'A batch is named twice.')
  if (!(given[0]!.weightG > 0))
    say('with', 'more-than-the-whole', 'The others weigh {othersG}, and all together {weightG}: nothing is left of the first.', {
      othersG: body.weightG - given[0]!.weightG,
      weightG: body.weightG,
    })
}
