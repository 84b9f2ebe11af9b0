import { foldBatch } from '#core/batch'
import { flowOf } from '#core/flow'
import { givenBy, type BatchState } from '#core/log'
import type { FamilyMember, FlowAnswer } from '#shared/contracts'
import { batchView, findBatch } from '#server/db/batches'
import { entriesOfBatch } from '#server/db/entries'
import { jarsOfBatch } from '#server/db/jars'
import type { Context } from './context'
import { titleOf } from './projections'

/** Parts of parts end somewhere; what points at itself is not followed. */
const DEEPEST = 40

/** Where the food of a basket went: the batch that was asked for, those that it is a part of, and all that became of any. */
export function flowPage(context: Context, batchId: string): FlowAnswer {
  return {
    batches: membersFrom(context, rootsOf(context, batchId)).flatMap(({ id, of }) => {
      const entries = entriesOfBatch(context.db, id)
      const state = foldBatch(entries, context.foods.find)
      if (!state) return []
      const jars = jarsOfBatch(context.db, id).map(jar => ({ jarId: jar.id, number: jar.number }))
      return [{ ...memberOf(context, id, of, state), flow: flowOf(state, entries, context.now()), jars }]
    }),
  }
}

/** The batches that a batch is a part of, and those that are parts of it: none of them where it stands alone. */
export function familyOf(context: Context, batchId: string, state: BatchState): FamilyMember[] {
  const sources = givenBy(state.intake.body).map(({ batchId: id }) => ({ id, of: undefined }))
  const parts = state.splits.flatMap(({ body }) => (body.to ? [{ id: body.to, of: batchId }] : []))
  return [...sources, ...parts].flatMap(({ id, of }) => {
    const other = foldBatch(entriesOfBatch(context.db, id), context.foods.find)
    return other ? [memberOf(context, id, of, other)] : []
  })
}

const memberOf = ({ db }: Context, batchId: string, of: string | undefined, state: BatchState): FamilyMember => ({
  batchId,
  number: findBatch(db, batchId)!.number,
  title: titleOf(state),
  stage: state.stage,
  weightG: state.intake.body.weightG,
  hold: state.hold && { place: state.hold.place, until: state.hold.until },
  of,
})

/** The baskets that it came from: those of all that went into one cup. */
function rootsOf(context: Context, batchId: string): string[] {
  const roots: string[] = []
  const seen = new Set([batchId])
  for (const id of seen) {
    const state = foldBatch(entriesOfBatch(context.db, id), context.foods.find)
    const sources = (state ? givenBy(state.intake.body) : []).filter(part => batchView(context.db, part.batchId))
    if (sources.length === 0) roots.push(id)
    for (const { batchId: from } of sources) if (seen.size < DEEPEST) seen.add(from)
  }
  // What points at itself came from nowhere else.
  return roots.length > 0 ? roots : [batchId]
}

/** The first ones, and each part after what it is a part of. */
function membersFrom(context: Context, roots: readonly string[]): { id: string; of?: string }[] {
  const members: { id: string; of?: string }[] = roots.map(id => ({ id }))
  for (let i = 0; i < members.length && i < DEEPEST; i++) {
    const { id } = members[i]!
    const state = foldBatch(entriesOfBatch(context.db, id), context.foods.find)
    for (const { body } of state?.splits ?? []) {
      if (body.to && findBatch(context.db, body.to) && !members.some(member => member.id === body.to)) members.push({ id: body.to, of: id })
    }
  }
  return members
}
