import * as z from 'zod'
import { id, purpose, text, weightG } from './parts'

const count = z.number({ error: 'Give a count, as a number.' }).positive('Above zero.').max(1000, 'At most 1000.')
/** How much of something: on the scale, by spoons and cups, as so much fresh food, or as a product that has its water back. */
const amount = z.discriminatedUnion(
  'by',
  [
    z.strictObject({ by: z.literal('weight'), grams: weightG }),
    z.strictObject({
      by: z.literal('vessel'),
      count,
      vessel: z.enum(['cup', 'tablespoon', 'teaspoon'], { error: 'Choose cup, tablespoon or teaspoon.' }),
    }),
    z.strictObject({ by: z.literal('fresh'), grams: weightG }),
    z.strictObject({ by: z.literal('product'), grams: weightG, product: text(20) }),
  ],
  { error: 'Give an amount by weight, by spoons, as fresh food or as a product.' },
)
export type RecipeAmount = z.infer<typeof amount>

const heatUnits = z
  .number({ error: 'Give Scoville units, as a number.' })
  .min(0, 'Heat is not negative.')
  .max(5_000_000, 'Nothing is hotter than some three million.')
const head = { id, name: text(80), note: text(500).optional(), version: z.number().int().min(1).optional() }

export const blendRecipe = z.strictObject({
  ...head,
  kind: z.literal('blend'),
  parts: z
    .array(
      z.strictObject({
        foodKey: text(60),
        amount,
        /** Kept as it is when the heat is solved for. */
        fixed: z.boolean().optional(),
        toasted: z.boolean().optional(),
      }),
    )
    .min(1, 'Name at least one part.')
    .max(30, 'At most 30 parts.'),
  heat: z
    .strictObject({ low: heatUnits, high: heatUnits })
    .refine(heat => heat.high >= heat.low, { path: ['high'], message: 'The hotter figure must not be below the milder.' })
    .optional(),
  siftUm: z.number({ error: 'Give the sieve’s opening in µm.' }).min(20, 'At least 20 µm.').max(10_000, 'At most 10 mm.').optional(),
})

export const dishRecipe = z.strictObject({
  ...head,
  kind: z.literal('dish'),
  serves: text(60).optional(),
  powders: z
    .array(
      z.strictObject({
        foodKey: text(60),
        purpose: purpose.optional(),
        amount,
        /** Has its water back before it goes in. */
        rehydrate: z.boolean().optional(),
      }),
    )
    .min(1, 'Name at least one powder.')
    .max(20, 'At most 20 powders.'),
  others: z.array(text(120)).max(40, 'At most 40 lines.').default([]),
  steps: z.array(text(600)).max(30, 'At most 30 steps.').default([]),
})

export const recipe = z.discriminatedUnion('kind', [blendRecipe, dishRecipe], { error: 'A recipe is a blend or a dish.' })
export type Recipe = z.infer<typeof recipe>
export type BlendRecipe = z.infer<typeof blendRecipe>
export type DishRecipe = z.infer<typeof dishRecipe>

/** A recipe as it stood until then: it was changed, or removed. */
export interface PastRecipe {
  recipe: Recipe & { version: number }
  until: number
  removed: boolean
}
