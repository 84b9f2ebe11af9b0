import { InputError, type Problem } from '../errors'
import { cardOf, type FindFood } from '../foods'
import type { MachineKind } from '../machines'
import { sumPasses } from '../grinding'
import { mouldStop, stopsAtLoading, stopsAtPacking, safetyRule } from '../safety'
import { inForce, ofKind } from './effective'
import { checkEnvelope } from './envelope'
import { foldBatch, type BatchState } from './state'
import { JAR_KINDS, type Entry, type EntryBody, type EntryKind } from './types'

/** What the rules need to know beside the log. */
export interface RuleContext {
  now: number
  find: FindFood
  /** Trays of the machine that a load goes into, and what stands in it now (other batches). */
  machine?: { name: string; kind: MachineKind; trays: number; lowC: number; highC: number; taken: readonly number[] }
}

/** Tray heavier than loaded by less than this is the scale. */
const SCALE_SHARE = 0.02

const WORDS: Record<EntryKind, string> = {
  intake: 'taking in',
  prep: 'preparing',
  load: 'loading',
  heat: 'changing the heat',
  air: 'measuring the air',
  outlook: 'looking at the weather',
  split: 'taking a part',
  hold: 'keeping',
  caution: 'accepting a caution',
  powderDry: 'drying powder',
  move: 'moving trays',
  tick: 'going through the list',
  weigh: 'weighing',
  feel: 'feeling',
  unload: 'taking out',
  rest: 'resting',
  look: 'looking at the jar',
  jarAir: 'reading the jar’s air',
  restEnd: 'ending the rest',
  grind: 'grinding',
  pack: 'packing',
  finish: 'finishing',
  note: 'noting',
  take: 'taking from a jar',
  moveJar: 'moving a jar',
  discard: 'discarding a jar',
  smell: 'smelling',
  lookJar: 'looking at a jar',
  measure: 'weighing a spoon',
  fill: 'filling a jar',
  stock: 'putting in what was bought',
  pour: 'pouring',
  restOut: 'throwing a jar away',
  review: 'a word for next time',
  void: 'voiding',
}

/**
 * Decides whether an entry may be added to a batch's log (with the heat entries of its runs).
 * @param entries the log without the new entry
 * @throws InputError naming the field and what would mend it; then nothing is to be written.
 */
export function checkEntry(entries: readonly Entry[], entry: Entry, context: RuleContext): void {
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, message })
  checkEnvelope(entries, entry, context.now)

  const before = inForce(entries.filter(item => item.id !== entry.replaces))
  const state =
    entry.body.kind === 'intake'
      ? undefined
      : foldBatch(
          before.filter(item => item.at <= entry.at || item.body.kind === 'intake'),
          context.find,
        )
  if (entry.body.kind === 'intake') checkIntake(entry.body, context.find, say)
  else if (entry.body.kind !== 'void' && !state) say('batch', 'This batch has no intake in force: nothing can be logged on it.')
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
  const others = inForce(entries)
    .filter(entry => entry.body.kind !== 'weigh')
    .sort((a, b) => a.at - b.at || a.seq - b.seq)
  const states = new Map<number, BatchState | undefined>()
  for (const [index, entry] of coming.entries()) {
    const say: Say = (field, message) => found.push({ index, problem: { field, message } })
    const count = others.filter(item => item.at <= entry.at).length
    const before = others.slice(0, count)
    if (!states.has(count)) states.set(count, foldBatch(before, context.find))
    const state = states.get(count)
    if (entry.at > context.now) say('at', 'This is in the future. Give the time when it happened.')
    if (!state) say('at', 'This is before the food came in. Check the time, or the number of the batch.')
    else checkBody(entry, state, before, context, say)
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

type Say = (field: string, message: string) => void

function checkIntake(body: Extract<EntryBody, { kind: 'intake' }>, find: FindFood, say: Say): void {
  const food = find(body.foodKey)
  if (!food) return say('foodKey', `“${body.foodKey}” is not a food in the reference. Choose one from the list.`)
  if (cardOf(food, body.cardKey).key !== body.cardKey) say('cardKey', `${food.name} has no method card “${body.cardKey}”.`)
  if (!(body.weightG > 0)) say('weightG', 'The weight must be above zero.')
}

/** Kinds that may be logged whatever the stage. */
const ANYTIME: readonly EntryKind[] = ['note', 'void', 'caution', 'review']
/** What is left to log once mould was seen. */
const AFTER_MOULD: readonly EntryKind[] = ['finish', 'look', 'restOut']

function checkBody(entry: Entry, state: BatchState, before: readonly Entry[], context: RuleContext, say: Say): void {
  const { body } = entry
  if (entry.at < state.intake.at && body.kind !== 'note') {
    say('at', 'This is before the food came in. Check the time, or correct the intake.')
  }
  if (body.kind === 'caution' && !safetyRule(body.rule)) say('rule', `There is no caution “${body.rule}”.`)
  if (JAR_KINDS.includes(body.kind)) return say('kind', 'This belongs to a jar’s own log.')
  if (ANYTIME.includes(body.kind)) return
  if (state.mould && !AFTER_MOULD.includes(body.kind)) return say('kind', mouldStop().message)
  const { run, rest } = state
  const inMachine = run !== undefined && run.unloadedAt === undefined
  const out = run?.unloadedAt !== undefined
  const need = (good: boolean, message: string) => {
    if (!good) say('kind', `${message} (${WORDS[body.kind]} comes at another step).`)
    return good
  }
  switch (body.kind) {
    case 'prep':
      need(!run, 'The food is on the trays already')
      if (body.effect !== 'none' && body.effect !== 'added' && body.weightG !== undefined && !(body.weightG > 0))
        say('weightG', 'The weight must be above zero, or left empty.')
      break
    case 'load':
      return checkLoad(body, state, inMachine, context, say)
    case 'heat':
    case 'air':
    case 'move':
    case 'outlook':
    case 'tick':
      break
    case 'split':
      if (need(!run, 'The food is on the trays already') && body.weightG >= state.balance.weightG.p90)
        say('weightG', `Only about ${grams(state.balance.weightG.p50)} is there: take less, or correct the intake.`)
      break
    case 'hold':
      need(!inMachine && state.stage !== 'shelf', inMachine ? 'It is in a machine: take it out first' : 'It is on the shelf')
      break
    case 'powderDry':
      if (
        !need(
          (state.grinds.length > 0 || state.intake.body.fromForm === 'powder') && state.jars.length === 0,
          'Only powder that is not packed yet is dried so',
        )
      )
        break
      if (body.afterG !== undefined && body.afterG > (body.beforeG ?? state.powderG) * (1 + SCALE_SHARE) + 1)
        say('afterG', `Powder only gets lighter: ${grams(body.afterG)} is more than before.`)
      break
    case 'jarAir':
      need(run !== undefined && state.stage !== 'shelf', 'Nothing has been dried yet')
      checkJarAir(body, say)
      break
    case 'weigh':
      return need(inMachine, 'The batch is not in a machine') ? checkWeigh(body, state, entry.at, say) : undefined
    case 'feel':
      need(inMachine, 'The batch is not in a machine')
      break
    case 'unload':
      return need(inMachine, 'The batch is not in a machine') ? checkUnload(body, state, entry.at, say) : undefined
    case 'rest':
      need(out && rest?.startedAt === undefined, 'Only food that has left the machine goes to rest, once')
      break
    case 'look':
      if (need(rest?.startedAt !== undefined && rest.endedAt === undefined, 'No jar is resting') && body.jar !== undefined)
        checkRestJar(body.jar, state, say)
      break
    case 'restOut':
      if (!need(rest?.startedAt !== undefined && rest.endedAt === undefined, 'No jar is resting')) break
      checkRestJar(body.jar, state, say)
      if (state.dryG !== undefined && body.weightG > state.dryG) say('weightG', `Only ${grams(state.dryG)} is at rest in all its jars.`)
      break
    case 'restEnd':
      need(out && rest?.endedAt === undefined, 'There is no rest to end')
      if (body.weightG !== undefined && run && body.weightG > run.loadedG) say('weightG', heavier(body.weightG, run.loadedG))
      break
    case 'grind':
      return checkGrind(body, state, say)
    case 'pack':
      return checkPack(body, state, before, say)
    case 'finish':
      need(state.jars.length > 0 || state.stage === 'grinding' || state.mould, 'There is nothing to finish yet')
      break
  }
}

function checkRestJar(number: number, state: BatchState, say: Say): void {
  const jar = state.rest!.jars[number - 1]
  if (!jar)
    say(
      'jar',
      `${state.rest!.jars.length === 1 ? 'One jar is' : `${state.rest!.jars.length} jars are`} at rest; there is no number ${number}.`,
    )
  else if (jar.out) say('jar', 'This jar has been thrown away.')
}

/** The hygrometer's own error may take a reading over the edge; this far it may not. */
function checkJarAir(body: Extract<EntryBody, { kind: 'jarAir' }>, say: Say): void {
  const corrected = body.calibration.offset + body.calibration.gain * body.shown
  if (corrected < 0 || corrected > 1)
    say('shown', `Corrected by its salt test this reads ${Math.round(corrected * 100)} %: the hygrometer needs a new salt test.`)
}

const grams = (value: number) => `${Math.round(value)} g`
const heavier = (is: number, was: number) =>
  `${grams(is)} is more than the ${grams(was)} that was loaded: food in a dryer only gets lighter. Was the tray on the scale?`

function checkLoad(
  body: Extract<EntryBody, { kind: 'load' }>,
  state: BatchState,
  inMachine: boolean,
  context: RuleContext,
  say: Say,
): void {
  if (inMachine) return say('kind', 'The batch is in a machine already: take it out first.')
  if (state.stage === 'shelf') return say('kind', 'The batch is finished.')
  if (state.jars.length > 0) return say('kind', 'Jars of this batch are packed already: take what is left in as a batch of its own.')
  const { machine } = context
  if (!machine) return say('machineId', 'There is no such machine. Choose one from the Workshop.')
  const usual = state.card.ways[0]!.way
  if (body.way === undefined ? machine.kind !== usual : body.way !== machine.kind)
    say('way', `${machine.name} is another way of drying: give “${machine.kind}” as its way.`)
  for (const stop of stopsAtLoading(
    state.food,
    state.card,
    machine.kind,
    state.prep.map(step => step.body),
  ))
    say('machineId', stop.message)
  const strange = (body.frozen ?? []).filter(position => !body.positions.includes(position))
  if (strange.length > 0) say('frozen', `Tray ${strange.join(', ')} is not loaded.`)
  const unique = new Set(body.positions)
  if (unique.size < body.positions.length) say('positions', 'A tray position is named twice.')
  const outside = body.positions.filter(position => position < 1 || position > machine.trays)
  if (outside.length > 0) say('positions', `${machine.name} has trays 1 to ${machine.trays}; there is no ${outside.join(', ')}.`)
  const taken = body.positions.filter(position => machine.taken.includes(position))
  if (taken.length > 0) say('positions', `Taken by another batch: ${taken.join(', ')}. Choose free trays.`)
  if (body.trays) {
    const sum = body.trays.reduce((total, tray) => total + tray.weightG, 0)
    if (body.trays.length !== body.positions.length || body.trays.some(tray => !unique.has(tray.position)))
      say('trays', 'Give a weight for each tray, or the total only.')
    else if (Math.abs(sum - body.totalG) > 1) say('totalG', `The trays add up to ${grams(sum)}, not ${grams(body.totalG)}.`)
  }
  const most = state.grinds.length > 0 ? state.powderG : state.run ? state.run.loadedG : mostAfterPrep(state)
  if (body.totalG > most * (1 + SCALE_SHARE)) {
    say(
      'totalG',
      `${grams(body.totalG)} on the trays is more than the ${grams(most)} there can be. Was the tray on the scale, or is the intake’s weight wrong?`,
    )
  }
}

/** What may lie on the trays at most: the raw weight, less what was weighed off, plus what came in. */
function mostAfterPrep(state: BatchState): number {
  return state.prep.reduce(
    (left, { body }) => {
      if (body.effect === 'added') return left + Object.values(body.added ?? {}).reduce((sum, part) => sum + (part ?? 0), 0)
      return body.effect === 'none' ? left : left - (body.weightG ?? 0)
    },
    state.intake.body.weightG - state.splits.reduce((sum, { body }) => sum + body.weightG, 0),
  )
}

function checkWeigh(body: Extract<EntryBody, { kind: 'weigh' }>, state: BatchState, at: number, say: Say): void {
  const run = state.run!
  const presentG = loadedOn(run, run.present)
  if (body.totalG !== undefined && body.totalG > presentG * (1 + SCALE_SHARE)) say('totalG', heavier(body.totalG, presentG))
  body.trays?.forEach((tray, i) => {
    const loaded = run.trays.find(item => item.position === run.places.trayAt(tray.position, at))
    if (!loaded || !run.present.includes(loaded.position)) {
      const out = run.positions.some(position => !run.present.includes(position) && run.places.placeAt(position, at) === tray.position)
      return say(
        `trays.${i}.position`,
        out
          ? `Tray ${tray.position} has been taken out.`
          : `Tray ${tray.position} does not carry this batch: it lies on ${placesOf(run, at).join(', ')}.`,
      )
    }
    // Where the trays were not weighed at loading an even share is only a guess.
    const most = run.traysWeighed ? loaded.weightG * (1 + SCALE_SHARE) : Math.min(run.loadedG, loaded.weightG * 2)
    if (tray.weightG > most) say(`trays.${i}.weightG`, heavier(tray.weightG, loaded.weightG))
  })
}

/** Places of a load's trays at an instant, those still in the machine. */
const placesOf = (run: NonNullable<BatchState['run']>, at: number) =>
  run.present.map(tray => run.places.placeAt(tray, at)).sort((a, b) => a - b)

/** What went in on some trays, g. */
const loadedOn = (run: NonNullable<BatchState['run']>, positions: readonly number[]) =>
  run.trays.filter(tray => positions.includes(tray.position)).reduce((sum, tray) => sum + tray.weightG, 0)

function checkUnload(body: Extract<EntryBody, { kind: 'unload' }>, state: BatchState, at: number, say: Say): void {
  const run = state.run!
  const here = placesOf(run, at)
  const strange = (body.positions ?? []).filter(position => !here.includes(position))
  if (strange.length > 0)
    return say('positions', `Tray ${strange.join(', ')} is not in the machine with this batch: it has ${here.join(', ')}.`)
  const positions = body.positions ? run.present.filter(tray => body.positions!.includes(run.places.placeAt(tray, at))) : run.present
  // Where the trays were not weighed an even share is only a guess.
  const mostG =
    run.traysWeighed || positions.length === run.positions.length
      ? loadedOn(run, positions)
      : Math.min(run.loadedG, 2 * loadedOn(run, positions))
  if (body.weightG !== undefined && body.weightG > mostG * (1 + SCALE_SHARE)) say('weightG', heavier(body.weightG, mostG))
}

function checkGrind(body: Extract<EntryBody, { kind: 'grind' }>, state: BatchState, say: Say): void {
  if (state.purpose === 'pieces') return say('kind', 'This batch is kept as pieces. Correct the intake’s purpose to grind it.')
  if (state.run?.unloadedAt === undefined && !(state.fromJars && !state.run)) return say('kind', 'The batch has not left the machine.')
  if (state.stage === 'shelf') return say('kind', 'The batch is finished.')
  checkSession(body, say)
  const already = state.grinds.reduce((sum, entry) => sum + entry.body.dryInG, 0)
  const most = state.run?.loadedG ?? state.intake.body.weightG
  if (already + body.dryInG > most)
    say(
      'dryInG',
      `${grams(already + body.dryInG)} to grind is more than the ${grams(most)} that ${state.run ? 'went on the trays' : 'came from the shelf'}.`,
    )
  const wentInG = body.dryInG + (body.seed?.weightG ?? 0)
  if (body.powderOutG > wentInG * (1 + SCALE_SHARE))
    say('powderOutG', `${grams(body.powderOutG)} of powder is more than the ${grams(wentInG)} that went in. Was the cup on the scale?`)
}

/** The rounds, passes and losses of a session must add up with what went in and came out. */
function checkSession(body: Extract<EntryBody, { kind: 'grind' }>, say: Say): void {
  const roundsG = (body.rounds ?? []).reduce((sum, round) => sum + round.inG, 0)
  if (body.rounds && Math.abs(roundsG - body.dryInG) > 1 + SCALE_SHARE * body.dryInG)
    say('rounds', `The rounds add up to ${grams(roundsG)}, not to the ${grams(body.dryInG)} that went in.`)
  body.rounds?.forEach((round, i) => {
    if (round.outG !== undefined && round.outG > (round.inG + (body.seed?.weightG ?? 0)) * (1 + SCALE_SHARE) + 1)
      say(`rounds.${i}.outG`, `${grams(round.outG)} out of a round of ${grams(round.inG)}. Was the cup on the scale?`)
  })
  if (body.passes?.length) {
    try {
      sumPasses(body.passes)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      for (const { field, message } of error.problems) say(field, message.charAt(0).toUpperCase() + message.slice(1))
    }
  }
  const lostG = Object.values(body.lost ?? {}).reduce((sum, grams) => sum + (grams ?? 0), 0)
  const missingG = body.dryInG + (body.seed?.weightG ?? 0) - body.powderOutG
  if (lostG > missingG + 1 + SCALE_SHARE * body.dryInG)
    say('lost', `The losses add up to ${grams(lostG)}, but only ${grams(Math.max(0, missingG))} is missing.`)
}

function checkPack(body: Extract<EntryBody, { kind: 'pack' }>, state: BatchState, before: readonly Entry[], say: Say): void {
  if (state.unpackedG === undefined) {
    return say(
      'kind',
      state.purpose === 'pieces'
        ? 'End the rest before packing, so that what goes in the jar is known to be dry.'
        : 'Grind before packing.',
    )
  }
  if (!body.topUp && ofKind(before, 'pack').some(entry => entry.body.jarId === body.jarId))
    say('jarId', 'This jar has been packed already.')
  if (body.netG > state.unpackedG * (1 + SCALE_SHARE) + 1) {
    say('netG', `Only ${grams(state.unpackedG)} is left to pack. Was the jar on the scale?`)
  }
  for (const stop of stopsAtPacking(state.food, { ...body, moisture: state.food.target[state.purpose] }))
    say(stop.rule.key === 'oil' ? 'inOil' : 'packageKey', stop.message)
}

/**
 * After the entry the whole log must still add up: a correction of one weight may not leave a later
 * entry impossible.
 */
function checkWhole(entries: readonly Entry[], entry: Entry, find: FindFood): void {
  const after = [...entries, entry]
  let state: BatchState | undefined
  try {
    state = foldBatch(after, find)
  } catch (error) {
    if (error instanceof InputError) throw new InputError([{ field: 'weightG', message: error.problems[0]!.message }])
    throw error
  }
  if (!state) return
  const fail = (message: string) => {
    throw new InputError([{ field: entry.body.kind === 'void' ? 'target' : 'weightG', message }])
  }
  const log = inForce(after)
  const wet = state.run?.loadedG
  if (
    ofKind(log, 'load').length === 0 &&
    log.some(item => ['weigh', 'feel', 'unload', ...(state.fromJars ? [] : ['grind'])].includes(item.body.kind))
  ) {
    fail('Later entries rest on this loading: void them first.')
  }
  const { run } = state
  if (
    run?.unloadedAt === undefined &&
    !(state.fromJars && !run) &&
    log.some(item => item.at >= (run?.loadedAt ?? 0) && ['rest', 'restEnd', 'grind', 'pack'].includes(item.body.kind))
  ) {
    fail('Later entries rest on this taking out: void them first.')
  }
  if (run && (entry.replaces !== undefined || entry.body.kind === 'void')) {
    // What let the food into the machine may not be taken away from under it.
    const [stop] = stopsAtLoading(
      state.food,
      state.card,
      run.way.way,
      state.prep.map(step => step.body),
    )
    if (stop) fail(`The loading rests on this: void that first. ${stop.message}`)
  }
  if (run) {
    const lost = ofKind(log, 'weigh').find(
      ({ at, body }) => at >= run.loadedAt && body.trays?.some(tray => run.places.trayAt(tray.position, at) === undefined),
    )
    if (lost) fail('A later weigh-in names a tray that this would have put elsewhere: correct or void that first.')
  }
  if (wet !== undefined) {
    const over = state.run!.weighings.find(weighing => weighing.weightG > wet * (1 + SCALE_SHARE) + 1)
    if (over) fail(`A later weigh-in of ${grams(over.weightG)} would be more than the ${grams(wet)} loaded.`)
  }
  const [firstPack] = ofKind(log, 'pack')
  const [firstGrind] = ofKind(log, 'grind')
  if (firstPack && firstGrind && state.purpose !== 'pieces' && state.intake.body.fromForm !== 'powder' && firstGrind.at > firstPack.at) {
    throw new InputError([
      {
        field: 'at',
        message: 'A jar would have been packed before anything was ground, and its best time would begin too early: check the time.',
      },
    ])
  }
  const packable = (state.purpose === 'pieces' ? state.dryG : state.powderG) ?? 0
  if (state.packedG > 0 && state.packedG > packable * (1 + SCALE_SHARE) + 1) {
    fail(`The jars hold ${grams(state.packedG)}, more than the ${grams(packable)} this would leave.`)
  }
}
