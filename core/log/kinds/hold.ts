import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { roomCelsius } from '../fields'

/** Where food waits between steps. */
export const HOLD_PLACES = ['counter', 'refrigerator', 'freezer', 'cool-room'] as const
export type HoldPlace = (typeof HOLD_PLACES)[number]
/** Where it is kept, as a sentence goes on. */
export const HOLD_WORDS: Record<HoldPlace, string> = {
  counter: 'on the counter',
  refrigerator: 'in the refrigerator',
  freezer: 'in the freezer',
  'cool-room': 'in the cool room',
}

const schema = z.strictObject({
  kind: z.literal('hold'),
  place: z.enum(HOLD_PLACES, { error: 'Say where it is kept.' }).nullable(),
  roomC: roomCelsius.optional(),
})

/** Work stops: where it is kept meanwhile; null when it is taken up again. */
export const hold: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'keeping', what: 'where it is kept' },
  evidence: true,
  effect: (draft, entry) => void draft.holds.push(entry),
  check: (_, { state, inMachine, need }) => {
    if (inMachine) need(false, 'in-a-machine', 'It is in a machine: take it out first')
    else need(state.stage !== 'shelf', 'on-the-shelf', 'It is on the shelf')
  },
}
