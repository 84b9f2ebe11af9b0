import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { weightG } from '../fields'

const schema = z.strictObject({
  kind: z.literal('heatThrough'),
  /** The oven's heat. */
  airC: z
    .number({ error: 'Give the heat in °C, as a number.' })
    .min(50, 'Below 50 °C nothing is killed.')
    .max(250, 'At most 250 °C: above that it burns.'),
  minutes: z.number({ error: 'Give minutes, as a number.' }).positive('The minutes must be above zero.').max(600, 'At most ten hours.'),
  afterG: weightG.optional(),
})

/** Dry food heated through: jerky that went on the trays raw, or what stood open and may hold eggs of insects. */
export const heatThrough: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'heating it through', what: 'that it was heated through' },
  effect: (draft, entry) => void draft.heated.push(entry),
  check: (_, { out, state, need }) =>
    void need(out && state.stage !== 'shelf', 'not-to-heat', 'Only what has left the machine, and is not packed yet, is heated through'),
}
