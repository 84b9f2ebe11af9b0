import { judgeFeel } from '../dryness'
import { effectsOfChoices } from '../foods'
import { isOfTheFood, ofKind, partedG, type BatchState, type Entry, type RunState } from '../log'
import { balancePrep } from '../mass'
import { mapInterval, sdLogOf, type Finding } from '../stats'
import { hoursOfRun, middleOf } from '../hours'
import { hoursByWeights, readJarAir, solidsByWeights, targetOfRun } from '../water'
import { ledgerOf, stepsAhead, trimmedBasket } from './prepLedger'
import { MUCH_LESS } from './parts'
import { isDamp, worstLook } from './rest'
import { MINUTE } from '../time'

/** What a batch that has left its machine teaches of the next one. */
export interface Taught {
  /** Hours to the target over the middle of the card's, by its dial. */
  hours?: Finding
  /** Solids of the raw food over the reference's. */
  solids?: Finding
  /** Prepared weight over raw, and what it gives dry at its target over raw, each over the reference's. */
  prep?: Finding
  dry?: Finding
  /** Powder over dry weight, over the usual. */
  recovery?: Finding
  /** What was done to it beside trimming and cutting, such as "roast": its weights are told apart by it. */
  path: string
}

/** Beyond this the weights say next to nothing. */
const MOST_DOUBT = 0.35
/** The scale and what clings to bowls, as shares. */
const SCALE_DOUBT = 0.01
/** Taken out as dry, its moisture is the target's, up to so much of it more or less (common practice). */
const DRY_WITHIN = 0.35
/** A weight so near the taking out is as good as at it. */
const AT_ONCE_MS = 15 * MINUTE
/** Lighter than the taking out by more than this, something was eaten or lost meanwhile. */
const MISSING = 0.03
/** Powder over dry for a small grinder: dust, film on the cup, what the sieve keeps (common practice). */
export const USUAL_RECOVERY = { median: 0.95, sdLog: 0.03 }

/** @param entries the log in force */
export function taughtBy(state: BatchState, entries: readonly Entry[]): Taught {
  const path = pathOf(state)
  const first = state.earlierRuns[0] ?? state.run
  if (state.beganDry || !first || first.unloadedAt === undefined) return { path }
  // A mix is no food of its own, and what was counted into the basket was not weighed.
  const { mix, weightSdG, prepared } = state.intake.body
  const { solids, prep, dry } = mix || prepared ? {} : solidsOf(state, first, entries)
  const weighed = weightSdG === undefined ? { prep, dry } : {}
  return { path, hours: hoursOf(state, first, entries), solids, ...weighed, recovery: recoveryOf(state) }
}

/** Steps that change the food's make-up, in the order in which they were done. */
function pathOf({ prep }: BatchState): string {
  return [...new Set(prep.flatMap(({ body }) => (body.effect === 'water' || body.effect === 'added' ? [body.step] : [])))].join(' ')
}

/**
 * Hours to the target over the middle of its card's: by the weights of its first run; where those say little, between the last time
 * that it was felt not to be dry and when it was.
 */
function hoursOf(state: BatchState, run: RunState, entries: readonly Entry[]): Finding | undefined {
  if (run.way.partOnly) return undefined
  const usual = Math.log(middleOf(hoursOfRun(state, run, { learned: false }))) + Math.log(run.feltOverDial)
  const byWeights = run.weighings.length > 0 ? hoursByWeights(state, run) : undefined
  const found = byWeights && byWeights.doubt <= MOST_DOUBT ? byWeights : hoursByHand(state, run, entries)
  return found && { log: found.log - usual, doubt: found.doubt }
}

/** Hours between two looks by hand are not told closer than this. */
const LOOKED_DOUBT = 0.12
/** Nobody looked before it was dry: it was so for a while already (common practice). */
const LATE = { log: 0.18, doubt: 0.25 }

function hoursByHand(state: BatchState, run: RunState, entries: readonly Entry[]): Finding | undefined {
  const looks = ofKind(entries, 'feel')
    .filter(({ at }) => at > run.loadedAt && at <= run.unloadedAt!)
    .flatMap(({ at, body }) => {
      const { vote, shortcomings } = judgeFeel(body.check, state.purpose, state.food.pliable)
      // One warm piece that felt dry is no test.
      return vote === 'dry' && shortcomings.length > 0 ? [] : [{ hours: run.clock.equivalentHoursAt(at), dry: vote === 'dry' }]
    })
  const dry = looks.find(look => look.dry)?.hours
  // It went back: at its taking out it was not dry.
  const wet = state.earlierRuns.length > 0 ? run.clock.equivalentHoursAt(run.unloadedAt!) : looks.findLast(look => !look.dry)?.hours
  // Felt wet once and never again: when it was dry nobody knows, unless it went back wet.
  if (dry === undefined) return state.earlierRuns.length > 0 && wet! > 0 ? { log: Math.log(wet!) + LATE.log, doubt: LATE.doubt } : undefined
  // A look long before says no more than none.
  if (wet === undefined || wet >= dry || Math.log(dry / Math.max(wet, 1e-6)) > 2 * (LATE.log + LATE.doubt))
    return { log: Math.log(dry) - LATE.log, doubt: LATE.doubt }
  return { log: 0.5 * Math.log(wet * dry), doubt: Math.hypot(LOOKED_DOUBT, Math.log(dry / wet) / Math.sqrt(12)) }
}

/** Solids at loading, and what follows from them: of the raw food, and of what a basket gives. */
function solidsOf(state: BatchState, run: RunState, entries: readonly Entry[]): Pick<Taught, 'solids' | 'prep' | 'dry'> {
  // What nobody weighed teaches no weights.
  if (run.loadedSdG !== undefined) return {}
  const { food, card, intake, prep: steps, splits } = state
  const rawG = intake.body.weightG
  const trimmed = trimmedBasket(food, card, rawG, intake.body.weighed)
  const preparedG = preparedInAll(state, run)
  const prep = preparedG === undefined ? undefined : { log: Math.log(preparedG / trimmed.weightG.p50), doubt: SCALE_DOUBT }
  const found = solidsFound(state, run, entries)
  if (!found) return { prep }
  const dry =
    preparedG === undefined
      ? undefined
      : { log: found.log + Math.log(preparedG / trimmed.solidsG.p50), doubt: Math.hypot(found.doubt, SCALE_DOUBT) }
  // What the steps leave of the reference's food. What came in beside it is known, and is not the food's.
  const reference = balancePrep(
    ledgerOf({ ...intake, body: { ...intake.body, rawWater: undefined } }, steps, splits, food, card, run.loadedG, state.choices),
  ).solids
  const exact = 1 - food.rawMoisture.value.mean
  const steady = Math.sqrt(Math.max(0, (reference.sd / reference.mean) ** 2 - (food.rawMoisture.value.sd / exact) ** 2))
  const added = addedSolids(state) / run.loadedG
  const ofFood = (Math.exp(found.log) - added) / (reference.mean - added)
  const solids =
    added < ADDED_MOST * reference.mean && ofFood > 0
      ? { log: Math.log(ofFood), doubt: Math.hypot(found.doubt / (1 - added / reference.mean), steady) }
      : undefined
  return { solids, prep, dry }
}

/**
 * What the whole basket came to once it was prepared, g: on the trays, and what left it ready for them. Undefined where that tells nothing
 * of trimming: a part went before it was trimmed or unweighed, it was weighed whole before it was prepared, or much is missing of which
 * nobody said where it went.
 */
function preparedInAll(state: BatchState, run: RunState): number | undefined {
  const { intake, prep, splits, ledger } = state
  const rawG = intake.body.weightG
  const parts = splits.filter(({ body }) => isOfTheFood(body))
  const trimmedAt = prep.find(({ body }) => body.effect === 'waste')?.at ?? Infinity
  if (parts.some(({ at, body }) => at < trimmedAt || body.weightSdG !== undefined)) return undefined
  if (parts.length === 0 && Math.abs(run.loadedG - rawG) <= 0.5) return undefined
  // What should have lain there, by all but the weight that did.
  const should = balancePrep({ ...ledger, loadedWeightG: undefined, steps: [...ledger.steps, ...stepsAhead(state)] })
  if (!run.whole && run.loadedG < MUCH_LESS * should.weightG.p10) return undefined
  return run.loadedG + partedG(parts)
}

/** With more of the solids from salt, sugar and oil than this, the food's own are not to be told. */
const ADDED_MOST = 0.4

function addedSolids({ prep }: BatchState): number {
  return prep.reduce(
    (sum, { body: { effect, added } }) =>
      effect === 'added' && added ? sum + (added.solidsG ?? 0) + (added.saltG ?? 0) + (added.sugarG ?? 0) + (added.oilG ?? 0) : sum,
    0,
  )
}

/** ln of the share of solids at loading: by the weights, by dry weight and jar air, by a dry weight that passed for dry. */
function solidsFound(state: BatchState, run: RunState, entries: readonly Entry[]): Finding | undefined {
  const { jarAir } = state
  const last = run.weighings.at(-1)
  if (!last) return undefined
  const found: Finding[] = []
  // Lighter at the end of its rest than it can have dried: something was eaten.
  const rested = run.rested && run.rested.weightG > (1 - MISSING) * last.weightG ? run.rested : undefined
  const { solids, moistureNow } = solidsByWeights(state, { ...run, rested })
  if (solids && solids.doubt <= MOST_DOUBT) found.push({ log: solids.log - Math.log(run.loadedG), doubt: solids.doubt })
  const dry = rested ?? (run.unloadedAt! - last.at < AT_ONCE_MS ? last : undefined)
  const share = (moisture: number) => Math.log(((1 - moisture) * dry!.weightG) / run.loadedG)
  if (dry && jarAir && jarAir.at >= run.unloadedAt! && state.earlierRuns.length === 0) {
    const { moisture } = readJarAir(state, jarAir.body)
    found.push({ log: share(moisture.p50), doubt: Math.hypot(SCALE_DOUBT, sdLogOf(mapInterval(moisture, value => 1 - value))) })
  } else if (dry && passedForDry(state, entries)) {
    const target = targetOfRun(state, run)
    // Told wet by its weights, it passed and was not.
    if (moistureNow.p10 < (1 + DRY_WITHIN) * target)
      found.push({ log: share(target), doubt: Math.hypot(SCALE_DOUBT, (DRY_WITHIN * target) / (1 - target)) })
  }
  if (found.length === 0) return undefined
  const weights = found.map(({ doubt }) => 1 / Math.max(SCALE_DOUBT, doubt) ** 2)
  const total = weights.reduce((sum, weight) => sum + weight, 0)
  return { log: found.reduce((sum, { log }, i) => sum + log * weights[i]!, 0) / total, doubt: Math.sqrt(1 / total) }
}

/** It was felt to be dry at the last, or rested in closed jars that showed nothing. */
function passedForDry(state: BatchState, entries: readonly Entry[]): boolean {
  if (state.earlierRuns.length > 0) return false
  const last = ofKind(entries, 'feel').at(-1)
  if (last) return judgeFeel(last.body.check, state.purpose, state.food.pliable).vote === 'dry'
  return state.rest?.endedAt !== undefined && state.rest.looks.length > 0 && !isDamp(worstLook(state.rest))
}

function recoveryOf(state: BatchState): Finding | undefined {
  const { grinds, powderG, piecesInG, run } = state
  // Dried once more as powder, or with a seed of older powder in the cup, its weight is not the grinding's alone.
  if (!(piecesInG > 0) || !(powderG > 0) || (run?.powderDries.length ?? 0) > 0) return undefined
  if (grinds.some(({ body }) => body.seed)) return undefined
  // What was chosen to lose or add is no lesson on the mill.
  const usual = USUAL_RECOVERY.median * effectsOfChoices(state.food, state.choices).recovery
  return { log: Math.log(powderG / piecesInG / usual), doubt: SCALE_DOUBT }
}
