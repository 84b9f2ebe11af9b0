import type { Purpose } from '../foods'
import type { BatchState, BodyOf, EntryBody } from '../log'
import { mapInterval, sdOf } from '../stats'
import { waterOf } from '../water'
import { spentAt } from './hold'
import { balanceOnTrays } from './prepLedger'

/** Below this share of what may be there at the least, a load leaves a part of it elsewhere. */
export const MUCH_LESS = 0.85

/** A weight with its doubt, standard deviation, g. */
export interface DoubtfulWeight {
  grams: number
  sdG: number
}

/** What is not on the trays, and what it is. */
export type Remainder = DoubtfulWeight & Pick<PartAsked, 'form'>

/**
 * What should be there still once so much of it is on the trays.
 * @param state before the loading
 * @returns undefined where that is about all that there is
 */
export function remainderAt(state: BatchState, loadedG: number): Remainder | undefined {
  const { run, beganDry, left } = state
  if (run || beganDry) {
    const { pieces, flakes = 0, powder = 0 } = left
    if (pieces === undefined) return undefined
    const thereG = pieces + flakes + powder
    const form = pieces > 0 ? 'pieces' : powder > 0 ? 'powder' : 'flakes'
    return loadedG < MUCH_LESS * thereG ? { grams: thereG - loadedG, sdG: 0, form } : undefined
  }
  const there = balanceOnTrays(state).weightG
  if (loadedG >= MUCH_LESS * there.p10) return undefined
  return { grams: there.p50 - loadedG, sdG: sdOf(there), form: 'prepared' }
}

export interface PartOfBatch {
  intake: BodyOf<'intake'>
  /** To stand in its log at the times of the first. */
  history: { at: number; body: EntryBody }[]
  /** When its basket came in. */
  at: number
}

export interface PartAsked extends DoubtfulWeight {
  batchId: string
  /** In words, for its log. */
  number: number
  form: 'prepared' | Purpose
  /** It is cut already, as the rest that is loaded, whether anybody wrote that down or not. */
  cut?: boolean
  cardKey?: string
  purpose?: Purpose
  what?: string
}

/**
 * A part of a batch as a batch of its own: the same basket with all that was done to it, so that its clock, its cautions and its water go
 * on. What its steps took off is behind it.
 * @param at when it was taken
 */
export function partOf(state: BatchState, at: number, asked: PartAsked): PartOfBatch {
  const { foodKey, cultivar, source, plant, condition, mix, weightG } = state.intake.body
  const { moisture } = asked.form === 'prepared' ? state.balance : waterOf(state)
  const isDry = asked.form !== 'prepared'
  const share = asked.grams / ((isDry ? (state.dryG ?? state.run?.loadedG) : undefined) ?? state.balance.weightG.p50)
  const intake: BodyOf<'intake'> = {
    kind: 'intake',
    foodKey,
    cultivar,
    source,
    plant,
    condition: asked.what ?? condition,
    weightG: asked.grams,
    ...(asked.sdG > 0 && { weightSdG: asked.sdG }),
    purpose: asked.purpose ?? state.purpose,
    cardKey: asked.cardKey ?? state.card.key,
    mix: mix?.map(part => ({ ...part, weightG: (part.weightG * asked.grams) / weightG })),
    from: asked.batchId,
    prepared: { at, ...preparedAs(moisture), ...(isDry && { spentH: spentAt(state, at) }) },
    ...(asked.form !== 'prepared' && { fromForm: asked.form }),
  }
  const done = state.prep.map(({ at: when, body }) => ({ at: when, body: behindIt(body, share, asked.number) }))
  const waited = isDry ? [] : state.holds.map(({ at: when, body }) => ({ at: when, body }))
  const history: PartOfBatch['history'] = [...saidOf(state), ...done, ...waited].sort((a, b) => a.at - b.at)
  const isCut = state.prep.some(({ body }) => body.step === 'cut')
  if (asked.cut && !isCut && state.card.steps.some(({ step }) => step === 'cut'))
    history.push({ at, body: { kind: 'prep', step: 'cut', effect: 'none', cutName: state.cutName, note: `with batch ${asked.number}` } })
  return { intake, history, at: state.intake.at }
}

/** What was chosen, accepted and said of the whole is so of its part, from the beginning. */
const saidOf = ({ intake: { at }, choices, accepted, contains }: BatchState): PartOfBatch['history'] =>
  [
    ...Object.entries(choices).map(([question, school]) => ({ kind: 'choose' as const, question, school: school! })),
    ...[...accepted].map(rule => ({ kind: 'caution' as const, rule })),
    ...(contains ? [{ kind: 'contains' as const, allergens: contains.allergens, all: contains.all || undefined }] : []),
  ].map(body => ({ at, body }))

/** Water as it was believed, wet basis. */
const preparedAs = (moisture: BatchState['balance']['moisture']) => {
  const within = mapInterval(moisture, value => Math.min(0.999, Math.max(0.001, value)))
  return { mean: within.p50, sd: sdOf(within) }
}

/** A step that was done with the whole of it: it says what was done, and what of it came in with this part. */
function behindIt(body: BodyOf<'prep'>, share: number, number: number): BodyOf<'prep'> {
  const { step, cutName, thicknessMm, by, coreC, minutes, school, added } = body
  const did = { kind: 'prep' as const, step, cutName, thicknessMm, by, coreC, minutes, school, note: `with batch ${number}` }
  if (body.effect !== 'added' || !added) return { ...did, effect: 'none' }
  const part = Object.fromEntries(Object.entries(added).map(([what, grams]) => [what, grams && grams * Math.min(1, share)]))
  return { ...did, effect: 'added', added: part }
}
