import * as z from 'zod'
import type { BatchScene, EntryKindOf } from '../define'
import { id, text, weightG } from '../fields'
import { mostPiecesG, SCALE_SHARE } from '../weights'

/** What it was when it left: prepared food before the trays, what came off in trimming, or dry food of a form. */
const SPLIT_FORMS = ['prepared', 'trimmings', 'pieces', 'flakes', 'powder'] as const
export type SplitForm = (typeof SPLIT_FORMS)[number]

/** What became of food that left its batch for good. */
export const FATES = ['eaten', 'frozen', 'given', 'thrown'] as const
export type Fate = (typeof FATES)[number]
export const FATE_WORDS: Record<Fate, string> = {
  eaten: 'eaten',
  frozen: 'frozen to be used so',
  given: 'given away',
  thrown: 'thrown away',
}

const schema = z
  .strictObject({
    kind: z.literal('split'),
    weightG,
    /** Nobody weighed it: the weight is what was expected, give or take so much, g. */
    weightSdG: weightG.optional(),
    /** The batch that it became. */
    to: id.optional(),
    fate: z.enum(FATES, { error: 'Say what became of it.' }).optional(),
    form: z.enum(SPLIT_FORMS, { error: 'Say what it was.' }).optional(),
    what: text(120).optional(),
  })
  .refine(body => (body.to === undefined) !== (body.fate === undefined), {
    path: ['fate'],
    message: 'Say what became of it: a batch of its own, or eaten, frozen, given or thrown away.',
  })
type Split = z.infer<typeof schema>

/** The form of a dry part; undefined of what left before the trays, and of what came off. */
export const dryFormOf = ({ form }: Pick<Split, 'form'>) =>
  form === undefined || form === 'prepared' || form === 'trimmings' ? undefined : form
/** Prepared food, or whole: what would else have gone on the trays. */
export const isOfTheFood = ({ form }: Pick<Split, 'form'>): boolean => form === undefined || form === 'prepared'
/** What left before the trays of a batch's food, g. */
export const partedG = (splits: readonly { body: Split }[]): number =>
  splits.reduce((sum, { body }) => sum + (isOfTheFood(body) ? body.weightG : 0), 0)

/** Part of what is there leaves the batch: for good, or as a batch of its own. */
export const split: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'taking a part', what: 'a part' },
  effect: (draft, entry) => void draft.splits.push(entry),
  check: (body, scene) => {
    const form = dryFormOf(body)
    if (form) checkDry({ ...body, form }, scene)
    else checkPrepared(body, scene)
  },
}

function checkPrepared(body: Split, { run, state, need, say }: BatchScene): void {
  if (!need(!run && !state.beganDry, 'on-the-trays', 'The food is on the trays already')) return
  // What came off may be weighed as trimmed already, and is counted once.
  const ofBasket = body.form === 'trimmings'
  if (body.weightG >= (ofBasket ? state.intake.body.weightG : state.balance.weightG.p90))
    say('weightG', 'more-than-there-is', 'Only about {thereG} is there: take less, or correct the intake.', {
      thereG: ofBasket ? state.intake.body.weightG : state.balance.weightG.p50,
    })
}

/** What dry food there is in this form, g, not beyond what went on the trays where nobody weighed it dry. */
function checkDry(body: Split & { form: 'pieces' | 'flakes' | 'powder' }, { out, run, state, need, say }: BatchScene): void {
  const { form } = body
  if (!need(out || (state.beganDry && !run), 'not-out', 'Nothing dry has left the machine')) return
  if (!need(state.stage !== 'shelf', 'on-the-shelf', 'The batch is finished')) return
  const thereG = form === 'pieces' ? mostPiecesG(state) : (state.left[form] ?? 0)
  if (body.weightG > thereG * (1 + SCALE_SHARE) + 1)
    say('weightG', 'more-than-there-is', 'Only {thereG} of {form} is there: take less, or correct what was weighed before.', {
      thereG,
      form,
    })
}
