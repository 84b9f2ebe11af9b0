import type { Purpose } from '../foods'
import type { BatchState, BodyOf, EntryBody } from '../log'
import { mapInterval, sdOf, type Interval } from '../stats'
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

/** One of several that go into the same cup. */
export interface CupShare {
  state: BatchState
  asked: PartAsked
}

/**
 * Dry food of several batches in one cup, as a batch of its own: named for the one that gives most, the others' foods among it by weight. What
 * was done to any of them was done to it; its water is theirs by weight, its danger clock the furthest of theirs.
 * @param shares two or more, of dry pieces
 * @param at when they were put together
 */
export function togetherOf(shares: readonly CupShare[], at: number, purpose: Purpose): PartOfBatch {
  const parts = [...shares]
    .sort((a, b) => b.asked.grams - a.asked.grams)
    .map(({ state, asked }) => ({ ...partOf(state, at, asked), number: asked.number }))
  const [first, ...others] = parts as [(typeof parts)[number], ...typeof parts]
  const grams = (part: PartOfBatch) => part.intake.weightG
  const weightG = parts.reduce((sum, part) => sum + grams(part), 0)
  const byWeight = (of: (part: PartOfBatch) => number) => parts.reduce((sum, part) => sum + (of(part) * grams(part)) / weightG, 0)
  const one = <T>(of: (part: PartOfBatch) => T): T | undefined => (new Set(parts.map(of)).size === 1 ? of(first) : undefined)
  const ofFood = new Map<string, number>()
  for (const { intake } of parts) {
    const mixG = (intake.mix ?? []).reduce((sum, other) => sum + other.weightG, 0)
    for (const { foodKey, weightG: foodG } of [{ foodKey: intake.foodKey, weightG: intake.weightG - mixG }, ...(intake.mix ?? [])])
      ofFood.set(foodKey, (ofFood.get(foodKey) ?? 0) + foodG)
  }
  const mix = [...ofFood].filter(([foodKey]) => foodKey !== first.intake.foodKey).map(([foodKey, foodG]) => ({ foodKey, weightG: foodG }))
  const sdG = Math.hypot(...parts.map(part => part.intake.weightSdG ?? 0))
  return {
    intake: {
      ...first.intake,
      purpose,
      weightG,
      weightSdG: sdG > 0 ? sdG : undefined,
      cultivar: one(part => part.intake.cultivar),
      plant: one(part => part.intake.plant),
      condition: `with ${parts.map(part => `batch ${part.number}`).join(', ')} in one cup`,
      mix: mix.length > 0 ? mix : undefined,
      with: others.map(part => ({ batchId: part.intake.from!, weightG: grams(part) })),
      prepared: {
        at,
        mean: byWeight(part => part.intake.prepared!.mean),
        sd: Math.hypot(...parts.map(part => (part.intake.prepared!.sd * grams(part)) / weightG)),
        spentH: Math.max(...parts.map(part => part.intake.prepared!.spentH ?? 0)),
      },
    },
    history: [...saidOfAll(shares, first), ...parts.flatMap(part => stepsOf(part, part === first))].sort((a, b) => a.at - b.at),
    at: Math.min(...parts.map(part => part.at)),
  }
}

/** So much damper is damper, as a share of the weight. */
const DAMPER = 0.005

/**
 * Which of several is damper than the driest of the others: for certain, where the least it may hold is over the most that that one may, and
 * over what is dry enough; or as far as one can tell, which a weight or a hand has to say.
 * @param waters wet basis
 * @param target water at which all of them are dry enough to grind, wet basis
 */
export function damperOf(waters: readonly Interval[], target: number): { at: number; certain: boolean } | undefined {
  const driest = waters.reduce((a, b) => (b.p50 < a.p50 ? b : a))
  const over = waters.map(({ p10 }) => p10 - Math.max(target, driest.p90))
  const surely = over.indexOf(Math.max(...over))
  if (over[surely]! > DAMPER) return { at: surely, certain: true }
  const apart = waters.map(({ p50 }) => p50 - Math.max(target, driest.p50))
  const maybe = apart.indexOf(Math.max(...apart))
  return apart[maybe]! > DAMPER ? { at: maybe, certain: false } : undefined
}

/** Cautions that were read for all of them, allergens of any; choices are the first one's. */
function saidOfAll(shares: readonly CupShare[], first: PartOfBatch): PartOfBatch['history'] {
  const states = shares.map(share => share.state)
  const accepted = [...states[0]!.accepted].filter(rule => states.every(state => state.accepted.has(rule)))
  const contains = states.flatMap(state => state.contains ?? [])
  return [
    ...first.history.filter(({ body }) => body.kind === 'choose'),
    ...accepted.map(rule => ({ at: first.at, body: { kind: 'caution' as const, rule } })),
    ...(contains.length > 0
      ? [
          {
            at: first.at,
            body: {
              kind: 'contains' as const,
              allergens: [...new Set(contains.flatMap(said => said.allergens))],
              all: states.every(state => state.contains?.all) || undefined,
            },
          },
        ]
      : []),
  ]
}

/** The steps of one of them; the cut is the first one's. */
const stepsOf = ({ history }: PartOfBatch, isFirst: boolean): PartOfBatch['history'] =>
  history.flatMap(({ at, body }) =>
    body.kind !== 'prep' ? [] : [{ at, body: isFirst ? body : { ...body, cutName: undefined, thicknessMm: undefined } }],
  )

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
