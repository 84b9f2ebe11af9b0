import { formPacked } from '../batch'
import type { Purpose } from '../foods'
import { dryFormOf, inForce, piecesTakenG, SCALE_SHARE, type BatchState, type Entry, type EntryOf, type Fate, type RunState } from '../log'
import { tracePrep } from '../mass'
import { mapInterval, sdLogOf, sdOf } from '../stats'
import { HOUR } from '../time'
import { beliefOf, waterOf } from '../water'
import { heldBy, thrownAtRest, whatThereIs, type OpenLot } from './whatThereIs'

/**
 * Why something left the stream of a batch, or joined it:
 * `waste` and `water` of a step of preparing, `added` by one, `dried` in a machine, `powder dried` after the mill, `mill` dust and what a
 * sieve kept, `seed` of older powder, `jar` packed, `part` a batch of its own, a fate, `rest jar` thrown away at rest, `scale` what weights
 * disagree by, `unsaid` what is missing and nobody wrote where it went, `over` what was left when it was finished.
 */
export type FlowKind =
  | 'waste'
  | 'water'
  | 'added'
  | 'dried'
  | 'powder dried'
  | 'mill'
  | 'seed'
  | 'jar'
  | 'part'
  | Fate
  | 'rest jar'
  | 'scale'
  | 'unsaid'
  | 'over'

/** One arrow out of the stream, or into it. */
export interface FlowArrow {
  at: number
  kind: FlowKind
  /** What left, g; below zero where it came in. */
  weightG: number
  solidsG: number
  /** On a scale; otherwise it follows from the rest, or from what is usual. */
  weighed: boolean
  /** What the batch had after it, packed food not counted: g and g of solids. */
  leftG: number
  leftSolidsG: number
  /** The step of preparing. */
  step?: string
  /** In its own words. */
  what?: string
  form?: Purpose
  /** The batch that it became; the jar; the machine. */
  batchId?: string
  jarId?: string
  machineId?: string
  entryId?: string
}

/** Where the food of one batch came from and went to. */
export interface Flow {
  basket: { at: number; weightG: number; solidsG: number }
  /** In the order in which it happened. */
  arrows: FlowArrow[]
  open: OpenLot[]
  /**
   * Solids of the basket by what is believed of its food, less those of all that became of it: what reference, scales and estimates disagree
   * by, g, with the doubt that explains it (standard deviation).
   */
  doubt: { solidsG: number; sdG: number }
}

/** A weight so long before the taking out is as good as at it. */
const AT_ONCE_MS = HOUR
/** Below this nothing is worth an arrow, g. */
const NOTHING_G = 0.05

type Draft = Omit<FlowArrow, 'leftG' | 'leftSolidsG' | 'solidsG'> & { solidsG?: number; addedSolidsG?: number; dry?: boolean }

/**
 * Follows the food of a batch from basket to jar. Weights run forward from the basket; solids are found from the end, where they are known
 * best, and run backward: a step that is of the food's own make-up takes its share of them, and water takes none.
 * @param state folded from the entries
 * @param entries its log, with or without what is out of force
 */
export function flowOf(state: BatchState, entries: readonly Entry[], at: number): Flow {
  const log = inForce(entries)
  const { intake, ledger } = state
  const runs = [...state.earlierRuns, ...(state.run ? [state.run] : [])]
  const open = whatThereIs(state, at)
  // Where each loading stands in the log: what was written before it, at the same instant too, is of the run before.
  const loads = log.flatMap(({ body }, i) => (body.kind === 'load' ? [i] : []))
  const drafts = [
    ...ofPreparing(state, log, runs[0]),
    ...runs.flatMap((run, i) => ofRun(state, log.slice(loads[i], loads[i + 1]), run, runs[i + 1], at)),
  ]
  if (runs.length === 0 && state.beganDry) drafts.push(...ofDryFood(state, log, at))
  const weightIn = intake.body.weightG
  const goneG = drafts.reduce((sum, arrow) => sum + arrow.weightG, 0)
  const openG = open.reduce((sum, lot) => sum + lot.weightG.p50, 0)
  const restG = weightIn - goneG - openG
  if (Math.abs(restG) > NOTHING_G) {
    // Before the trays the middle of what is believed of a step that nobody weighed takes it, or of a basket that was only counted.
    const believed = runs.length === 0 ? drafts.findLast(arrow => !arrow.weighed) : undefined
    if (believed) believed.weightG += restG
    else if (runs.length === 0 && open[0]) open[0] = heavierBy(open[0], restG)
    else {
      const last = Math.max(intake.at, ...drafts.map(arrow => arrow.at))
      // Once it is finished, what is left counts as used up or lost.
      const over: Partial<Draft> = state.finished && restG > 0 ? { kind: 'over' } : {}
      drafts.push(...missing(restG, weightIn - goneG, last).map(arrow => ({ ...arrow, ...over, dry: true })))
    }
  }
  const openSolidsG = open.reduce((sum, lot) => sum + lot.solidsG.p50, 0)
  const arrows = withSolids(state, drafts, weightIn, openSolidsG)
  const first = arrows[0]
  const basketSolidsG = first ? first.leftSolidsG + first.solidsG : openSolidsG
  const believedG = weightIn * (1 - ledger.rawMoisture.mean)
  return {
    basket: { at: intake.at, weightG: weightIn, solidsG: basketSolidsG },
    arrows,
    open,
    doubt: { solidsG: believedG - basketSolidsG, sdG: doubtOf(state, Math.max(believedG, basketSolidsG)) },
  }
}

/** What a kitchen scale is out by at the least. */
const SCALE_G = 0.5

const heavierBy = (lot: OpenLot, grams: number): OpenLot => {
  const times = 1 + grams / lot.weightG.p50
  return { ...lot, weightG: mapInterval(lot.weightG, value => value * times), solidsG: mapInterval(lot.solidsG, value => value * times) }
}

/** Relative doubt of the solids: of the food's water and of the steps, of the scale, and of how dry it came out. */
function doubtOf(state: BatchState, solidsG: number): number {
  const { solids } = state.balance
  const { rawMoisture, rawWeightG, rawWeightSdG = 0 } = state.ledger
  const ofBasket = rawMoisture.sd / (1 - rawMoisture.mean)
  const ofSteps = Math.sqrt(Math.max(0, (solids.sd / solids.mean) ** 2 - ofBasket ** 2))
  const ofDry = state.run ? sdLogOf(mapInterval(waterOf(state).moisture, water => 1 - water)) : 0
  return Math.hypot(SCALE_G, solidsG * Math.hypot(ofBasket, ofSteps, ofDry, rawWeightSdG / rawWeightG, SCALE_SHARE))
}

/** Steps before the trays, and what is missing on them. */
function ofPreparing(state: BatchState, log: readonly Entry[], run: RunState | undefined): Draft[] {
  const byId = new Map(log.map(entry => [entry.id, entry]))
  const traced = tracePrep(state.ledger)
  const drafts = traced.map(({ step, weightG, addedSolidsG }): Draft => {
    const entry = step.entryId === undefined ? undefined : byId.get(step.entryId)
    const at = entry?.at ?? state.intake.at
    const weighed = step.kind === 'added' || step.weightG !== undefined
    if (entry?.body.kind === 'split') return ofSplit(entry as EntryOf<'split'>)
    return { at, kind: step.kind, step: step.name, weightG, addedSolidsG, weighed, entryId: entry?.id }
  })
  const preparedG = traced.at(-1)?.afterG ?? state.intake.body.weightG
  return [...drafts, ...(run ? missing(preparedG - run.loadedG, preparedG, run.loadedAt) : [])]
}

const ofSplit = ({ at, id, body }: EntryOf<'split'>): Draft => ({
  at,
  kind: body.fate ?? 'part',
  weightG: body.weightG,
  weighed: body.weightSdG === undefined,
  batchId: body.to,
  what: body.what,
  form: dryFormOf(body),
  entryId: id,
})

/** Water that a machine took, and what became of the dry food until the next loading: by the log between the two. */
function ofRun(state: BatchState, log: readonly Entry[], run: RunState, next: RunState | undefined, at: number): Draft[] {
  const { machineId, unloadedAt } = run
  if (unloadedAt === undefined) {
    const inside = whatThereIs(state, at).reduce((sum, lot) => sum + lot.weightG.p50, 0)
    const weighed = at - (run.weighings.at(-1)?.at ?? -Infinity) < AT_ONCE_MS
    return [{ at, kind: 'dried', weightG: run.loadedG - inside, solidsG: 0, weighed, machineId }]
  }
  const after = ofDryFood(state, log, at)
  const wentOnG = next && next.loadedG + after.reduce((sum, arrow) => sum + arrow.weightG, 0)
  const { weightG, weighed } = cameOut(state, run, wentOnG)
  const dried: Draft = { at: unloadedAt, kind: 'dried', weightG: run.loadedG - weightG, solidsG: 0, weighed, machineId }
  const lost = next ? missing(weightG - wentOnG!, weightG, next.loadedAt).map(arrow => ({ ...arrow, dry: true })) : []
  return [dried, ...after, ...lost]
}

/** What is not there any more, of so much: within the scale, or without a word. More than there was is the scale's. */
function missing(missingG: number, ofG: number, at: number): Draft[] {
  if (Math.abs(missingG) <= NOTHING_G) return []
  const isScale = missingG < 0 || missingG <= Math.max(1, SCALE_SHARE * ofG)
  return [{ at, kind: isScale ? 'scale' : 'unsaid', weightG: missingG, weighed: false }]
}

/**
 * What a run gave: on the scale as it came out or at the end of its rest; else by its solids and the water that is believed of it.
 * @param wentOnG what went back into a machine, with all that left before: where that may be what came out, it is
 */
function cameOut(state: BatchState, run: RunState, wentOnG?: number): { weightG: number; weighed: boolean } {
  const isLast = run === state.run
  if (isLast && state.left.pieces !== undefined && state.dryG !== undefined)
    return { weightG: state.dryG + thrownAtRest(state), weighed: true }
  const last = run.weighings.at(-1)
  if (!isLast && last && run.unloadedAt! - last.at < AT_ONCE_MS) return { weightG: last.weightG, weighed: true }
  const takenG = isLast ? piecesTakenG(state) + thrownAtRest(state) : 0
  // All that there was is in its jars.
  if (isLast && state.finished && takenG > 0) return { weightG: takenG, weighed: true }
  const believed = heldBy(waterOf(state, run.unloadedAt!), beliefOf(state, run).estimate.solidsG).weightG
  if (wentOnG !== undefined && Math.abs(wentOnG - believed.p50) <= 2 * sdOf(believed)) return { weightG: wentOnG, weighed: false }
  return { weightG: Math.max(takenG, believed.p50), weighed: false }
}

/** What dry food lost and gained at the mill, at rest, and into jars, by the log of a run. */
function ofDryFood(state: BatchState, log: readonly Entry[], at: number): Draft[] {
  const until = log.filter(entry => entry.at <= at)
  return until.flatMap((entry): Draft[] => {
    const { body, id } = entry
    const dry = { at: entry.at, entryId: id, weighed: true, dry: true }
    switch (body.kind) {
      case 'split':
        return dryFormOf(body) ? [{ ...ofSplit(entry as EntryOf<'split'>), dry: true }] : []
      case 'restOut':
        return [{ ...dry, kind: 'rest jar', weightG: body.weightG, what: body.cause }]
      case 'grind': {
        const seedG = body.seed?.weightG ?? 0
        const lostG = body.dryInG + seedG - body.powderOutG
        return [
          ...(seedG > 0 ? [{ ...dry, kind: 'seed' as const, weightG: -seedG, jarId: body.seed!.jarId }] : []),
          ...(Math.abs(lostG) > NOTHING_G ? [{ ...dry, kind: (lostG > 0 ? 'mill' : 'scale') as FlowKind, weightG: lostG }] : []),
        ]
      }
      case 'powderDry': {
        const lostG = body.afterG === undefined || body.beforeG === undefined ? 0 : Math.max(0, body.beforeG - body.afterG)
        return lostG > NOTHING_G ? [{ ...dry, kind: 'powder dried', weightG: lostG, solidsG: 0 }] : []
      }
      case 'pack':
        return [
          {
            ...dry,
            kind: 'jar',
            weightG: body.netG,
            jarId: body.jarId,
            form: formPacked(body, state.purpose),
            solidsG: packedSolids(state, body, entry.at),
          },
        ]
      default:
        return []
    }
  })
}

/** By what was measured of the jar itself, else as the batch. */
const packedSolids = (state: BatchState, { netG, moisture }: EntryOf<'pack'>['body'], at: number) =>
  netG * (1 - (moisture ?? waterOf(state, at).moisture.p50))

/** Every arrow with its solids and what was left after it, from the last to the first. */
function withSolids(state: BatchState, drafts: readonly Draft[], weightIn: number, openSolidsG: number): FlowArrow[] {
  const leftG: number[] = []
  drafts.reduce((left, arrow, i) => (leftG[i] = left - arrow.weightG), weightIn)
  let solids = openSolidsG
  const arrows: FlowArrow[] = []
  for (let i = drafts.length - 1; i >= 0; i--) {
    const { addedSolidsG, dry, solidsG: known, ...arrow } = drafts[i]!
    const after = solids
    const ofArrow =
      known ??
      (arrow.kind === 'water'
        ? 0
        : arrow.kind === 'added'
          ? -addedSolidsG!
          : dry
            ? arrow.weightG * (1 - waterOf(state, arrow.at).moisture.p50)
            : ofTheSameMake(arrow.weightG, leftG[i]!, after))
    arrows[i] = { ...arrow, solidsG: ofArrow, leftG: leftG[i]!, leftSolidsG: after }
    solids = after + ofArrow
  }
  return arrows
}

/** What left before the trays is of the same make-up as what stayed. */
const ofTheSameMake = (weightG: number, stayedG: number, stayedSolidsG: number) => (stayedG > 0 ? (weightG * stayedSolidsG) / stayedG : 0)
