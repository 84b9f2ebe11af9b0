import * as z from 'zod'
import { PREP_STEPS } from '../../foods'
import type { EntryKindOf } from '../define'
import { text, weightG, weightOrNothingG } from '../fields'

const schema = z.strictObject({
  kind: z.literal('prep'),
  step: z.enum(PREP_STEPS, { error: 'Choose a step of preparing.' }),
  effect: z.enum(['none', 'waste', 'water', 'added'], { error: 'Say what left or came in.' }),
  weightG: weightG.optional(),
  /** What was on the scale before and after, without vessels, where what left is their difference. */
  beforeG: weightG.optional(),
  afterG: weightG.optional(),
  /** What left, each on its own, where it was weighed so. */
  parts: z
    .strictObject({ skinsG: weightOrNothingG.optional(), seedsG: weightOrNothingG.optional(), specksG: weightOrNothingG.optional() })
    .optional(),
  added: z
    .strictObject({
      solidsG: weightOrNothingG.optional(),
      waterG: weightOrNothingG.optional(),
      saltG: weightOrNothingG.optional(),
      sugarG: weightOrNothingG.optional(),
      oilG: weightOrNothingG.optional(),
    })
    .optional(),
  cutName: text(60).optional(),
  thicknessMm: z
    .number({ error: 'Give a thickness in mm, as a number.' })
    .positive('The thickness must be above zero.')
    .max(200, 'At most 200 mm.')
    .optional(),
  by: text(40).optional(),
  note: text(500).optional(),
  /** What the thermometer showed inside, for what must be cooked. */
  coreC: z
    .number({ error: 'Give what the thermometer showed, as a number.' })
    .min(0, 'Food that cold is frozen: check the thermometer.')
    .max(120, 'No food is that hot inside: check the thermometer.')
    .optional(),
  minutes: z
    .number({ error: 'Give minutes, as a number.' })
    .min(0, 'Minutes are not negative.')
    .max(10_000, 'That is over a week.')
    .optional(),
  /** Which way it was done, where practitioners differ. */
  school: text(60).optional(),
})

/** A step of preparing: what it took off, drove out or brought in. */
export const prep: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'preparing', what: 'a step of preparing' },
  effect: (draft, entry) => void draft.prep.push(entry),
  check: (body, { run, need, say }) => {
    need(!run, 'on-the-trays', 'The food is on the trays already')
    const { beforeG, afterG, parts } = body
    if ((beforeG === undefined) !== (afterG === undefined))
      say(
        beforeG === undefined ? 'beforeG' : 'afterG',
        'before-without-after',
        'Before and after go together: give both weights, or neither.',
      )
    else if (beforeG !== undefined && Math.abs(beforeG - afterG! - (body.weightG ?? 0)) > 1)
      say('weightG', 'not-the-difference', 'Before less after is {differenceG}, not {weightG}.', {
        differenceG: beforeG - afterG!,
        weightG: body.weightG ?? 0,
      })
    const partsG = Object.values(parts ?? {}).reduce((sum, grams) => sum + (grams ?? 0), 0)
    if (parts && Math.abs(partsG - (body.weightG ?? 0)) > 1)
      say('parts', 'parts-sum-otherwise', 'Skins, seeds and specks add up to {partsG}, not to {weightG}.', {
        partsG,
        weightG: body.weightG ?? 0,
      })
    if (body.effect !== 'none' && body.effect !== 'added' && body.weightG !== undefined && !(body.weightG > 0))
      say('weightG', 'weight-not-above-zero', 'The weight must be above zero, or left empty.')
  },
}
