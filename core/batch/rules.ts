import { gather, InputError, refuse, type Problem, type Say } from '../errors'
import { PURPOSES, type FindFood } from '../foods'
import {
  checkEnvelope,
  checkInstant,
  inForce,
  isOfJar,
  kindOf,
  ofKind,
  mostOf,
  SCALE_SHARE,
  type BatchScene,
  type BatchState,
  type Entry,
  type LoadMachine,
} from '../log'
import { mouldStop, stopsAtLoading, warmStop } from '../safety'
import { waterOf } from '../water'
import { dangerZoneOf } from './dangerZone'
import { formPacked } from './dryFood'
import { foldBatch } from './state'

/** What the rules need to know beside the log. */
export interface RuleContext {
  now: number
  find: FindFood
  /** Trays of the machine that a load goes into, and what stands in it now (other batches). */
  machine?: LoadMachine
}

/**
 * Decides whether an entry may be added to a batch's log (with the entries of its runs).
 * @param entries the log without the new entry
 * @throws InputError naming the field and what would mend it; then nothing is to be written.
 */
export function checkEntry(entries: readonly Entry[], entry: Entry, context: RuleContext): void {
  const { problems, say } = gather()
  checkEnvelope(entries, entry, context.now)

  const { kind } = entry.body
  const before = inForce(entries.filter(item => item.id !== entry.replaces))
  const then = before.filter(item => item.at <= entry.at || item.body.kind === 'intake')
  const state = kind === 'intake' ? undefined : foldBatch(then, context.find)
  if (kind === 'intake') checkFirst(entry, context, say)
  else if (kind !== 'void' && !state) say('batch', 'no-intake', 'This batch has no intake in force: nothing can be logged on it.')
  else if (state) checkBody(entry, state, before, context, say)
  if (problems.length > 0) throw new InputError(problems)

  checkWhole(entries, entry, context.find)
}

/**
 * Many weigh-ins of one batch at once, as from a file. Each is held against the log as it stood then, which other
 * weigh-ins do not change, so that the log is followed once for each of its steps rather than for each weight.
 * @returns problems by the entry's place in the list; the log as a whole is looked at where none has any
 */
export function checkWeighIns(
  entries: readonly Entry[],
  coming: readonly Entry[],
  context: RuleContext,
): { index: number; problem: Problem }[] {
  const found: { index: number; problem: Problem }[] = []
  const others = inForce(entries).filter(entry => entry.body.kind !== 'weigh')
  const states = new Map<number, BatchState | undefined>()
  for (const [index, entry] of coming.entries()) {
    const { problems, say } = gather()
    const count = others.filter(item => item.at <= entry.at).length
    const before = others.slice(0, count)
    if (!states.has(count)) states.set(count, foldBatch(before, context.find))
    const state = states.get(count)
    checkInstant(entry, context.now, say)
    if (!state) say('at', 'before-the-intake', 'This is before the food came in. Check the time, or the number of the batch.')
    else checkBody(entry, state, before, context, say)
    found.push(...problems.map(problem => ({ index, problem })))
  }
  if (found.length > 0 || coming.length === 0) return found
  try {
    checkWhole([...entries, ...coming.slice(0, -1)], coming.at(-1)!, context.find)
  } catch (error) {
    if (!(error instanceof InputError)) throw error
    found.push({ index: coming.length - 1, problem: error.problems[0]! })
  }
  return found
}

/** The intake itself, before there is a state. */
function checkFirst(entry: Entry, context: RuleContext, say: Say): void {
  const { check } = kindOf('intake')
  if (check !== 'none') check(entry.body, { find: context.find, say } as BatchScene)
}

function checkBody(entry: Entry, state: BatchState, before: readonly Entry[], context: RuleContext, say: Say): void {
  const { body, at } = entry
  const { words, anytime, afterMould, evidence, check } = kindOf(body.kind)
  if (at < state.intake.at && body.kind !== 'note')
    say('at', 'before-the-intake', 'This is before the food came in. Check the time, or correct the intake.')
  if (isOfJar(body.kind)) return say('kind', 'of-a-jar', 'This belongs to a jar’s own log.')
  if (state.mould && !anytime && !afterMould) return say('kind', 'mould', mouldStop().message)
  const spoiled = () => dangerZoneOf(state, at)?.over ?? false
  if (!anytime && !afterMould && !evidence && spoiled()) return say('kind', 'stop-too-warm', warmStop().message)
  if (check === 'none') return
  const { run } = state
  const need: BatchScene['need'] = (good, code, message) => {
    if (!good) say('kind', code, `${message} (${words.doing} comes at another step).`)
    return good
  }
  const inMachine = run !== undefined && run.unloadedAt === undefined
  const { machine, find } = context
  check(body, {
    at,
    state,
    run,
    inMachine,
    out: run?.unloadedAt !== undefined,
    before,
    machine,
    wettest: () => waterOf(state).moisture.p90,
    spoiled,
    find,
    say,
    need,
  })
}

/**
 * After the entry the whole log must still add up: a correction of one weight may not leave a later
 * entry impossible.
 */
function checkWhole(entries: readonly Entry[], entry: Entry, find: FindFood): void {
  const after = [...entries, entry]
  const state = foldWhole(after, find)
  if (!state) return
  const log = inForce(after)
  const { run, beganDry } = state
  const field = entry.body.kind === 'void' ? 'target' : 'weightG'
  const has = (since: number, kinds: readonly string[]) => log.some(item => item.at >= since && kinds.includes(item.body.kind))
  if (ofKind(log, 'load').length === 0 && has(-Infinity, ['weigh', 'feel', 'unload', ...(beganDry ? [] : ['grind'])]))
    refuse(field, 'rested-on', 'Later entries rest on this loading: void them first.')
  if (run?.unloadedAt === undefined && !(beganDry && !run) && has(run?.loadedAt ?? 0, ['rest', 'restEnd', 'grind', 'pack']))
    refuse(field, 'rested-on', 'Later entries rest on this taking out: void them first.')
  if (run && (entry.replaces !== undefined || entry.body.kind === 'void')) {
    // What let the food into the machine may not be taken away from under it.
    const done = state.prep.map(step => step.body)
    const [stop] = stopsAtLoading(state.food, state.card, run.way.way, done, state.choices)
    // What was let in by the rules of its time may be put right otherwise.
    const was = stop && foldWhole(entries, find)
    const stood =
      was?.run &&
      stopsAtLoading(
        was.food,
        was.card,
        was.run.way.way,
        was.prep.map(step => step.body),
        was.choices,
      )
    if (stop && !stood?.some(({ rule }) => rule.key === stop.rule.key))
      refuse(field, `stop-${stop.rule.key}`, `The loading rests on this: void that first. ${stop.message}`)
  }
  if (run) {
    const strange = (at: number, trays: readonly { position: number }[] = []) =>
      trays.some(tray => run.places.trayAt(tray.position, at) === undefined)
    if (ofKind(log, 'weigh').some(({ at, body }) => at >= run.loadedAt && strange(at, body.trays)))
      refuse(field, 'rested-on', 'A later weigh-in names a tray that this would have put elsewhere: correct or void that first.')
    const over = run.weighings.find(weighing => weighing.weightG > mostOf(run) + 1)
    if (over)
      refuse(field, 'heavier-than-loaded', 'A later weigh-in of {laterG} would be more than the {loadedG} loaded.', {
        laterG: over.weightG,
        loadedG: run.loadedG,
      })
  }
  checkJarsOfBatch(log, state, field)
}

/** What was packed must have been ground before, and there. */
function checkJarsOfBatch(log: readonly Entry[], state: BatchState, field: string): void {
  const [firstPack] = ofKind(log, 'pack')
  const [firstGrind] = ofKind(log, 'grind')
  const isGround = firstPack && formPacked(firstPack.body, state.purpose) !== 'pieces' && !isPowderAt(state)
  if (isGround && firstGrind && firstGrind.at > firstPack.at)
    refuse(
      'at',
      'packed-before-ground',
      'A jar would have been packed before anything was ground, and its best time would begin too early: check the time.',
    )
  for (const form of PURPOSES) {
    const packedG = state.packed[form] ?? 0
    const hadG = state.had[form] ?? (form === 'pieces' ? state.dryG : 0) ?? 0
    if (packedG > 0 && packedG > hadG * (1 + SCALE_SHARE) + 1)
      refuse(field, 'more-than-there-is', 'The jars hold {packedG} of {form}, more than the {leftG} this would leave.', {
        packedG,
        form,
        leftG: hadG,
      })
  }
}

/** It was powder or flakes before any mill: begun so, or dried so. */
const isPowderAt = ({ intake: { body }, run }: BatchState) =>
  (body.fromForm !== undefined && body.fromForm !== 'pieces') || run?.powder === true

function foldWhole(entries: readonly Entry[], find: FindFood): BatchState | undefined {
  try {
    return foldBatch(entries, find)
  } catch (error) {
    if (error instanceof InputError) throw new InputError([{ ...error.problems[0]!, field: 'weightG' }])
    throw error
  }
}
