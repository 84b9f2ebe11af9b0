import { uuidv7 } from 'uuidv7'
import { partOf, type PartAsked } from '#core/batch'
import type { BatchState, BodyOf, EntryBody, HoldPlace } from '#core/log'
import type { BatchAnswer } from '#shared/contracts'
import type { Sent } from '../data/parcel'

/** What is sent when a part of a batch becomes one of its own: the word in the first one's log, and the whole log that the second begins with. */
export interface PartParcel {
  body: BodyOf<'split'>
  more: Sent[]
}

/**
 * @param asked what leaves, how much of it, and what it is for
 * @param place where it waits now; undefined where nobody says
 */
export function partParcel(
  state: BatchState,
  page: BatchAnswer,
  at: number,
  asked: Omit<PartAsked, 'batchId' | 'number'>,
  place?: HoldPlace,
): PartParcel {
  const to = uuidv7()
  const part = partOf(state, at, { ...asked, batchId: page.batchId, number: page.number })
  const log = (when: number, body: EntryBody) => ({ batchId: to, entry: { id: uuidv7(), at: when, body } }) as Sent
  return {
    body: {
      kind: 'split',
      weightG: asked.grams,
      weightSdG: asked.sdG > 0 ? asked.sdG : undefined,
      to,
      form: asked.form === 'prepared' ? undefined : asked.form,
      what: asked.what,
    },
    more: [
      { begin: { id: to, entry: { id: uuidv7(), at: part.at, body: part.intake } } },
      ...part.history.map(({ at: when, body }) => log(when, body)),
      ...(place ? [log(at, { kind: 'hold', place })] : []),
    ],
  }
}
