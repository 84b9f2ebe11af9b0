import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { weightG } from '../fields'
import { heavierThanLoaded, mostOf } from '../weights'

const schema = z.strictObject({ kind: z.literal('restEnd'), weightG: weightG.optional() })

/** The rest is over. */
export const restEnd: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'ending the rest', what: 'the end of the rest' },
  effect: (draft, entry) => void draft.restEnds.push(entry),
  check: (body, { out, run, state, need, say }) => {
    need(out && state.rest?.endedAt === undefined, 'nothing-rests', 'There is no rest to end')
    if (body.weightG !== undefined && run && body.weightG > mostOf(run)) heavierThanLoaded(say, 'weightG', body.weightG, run.loadedG)
  },
}
