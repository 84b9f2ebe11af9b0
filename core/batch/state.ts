import { USUAL_ROOM } from '../air'
import { asCut, cardOf, chosenCard, mixedFood, QUESTION_OF_STEP, wayOf, type Choices, type FindFood, type Purpose } from '../foods'
import { dryingClock, WET_SHARE, wetPacePerHour, type DryingClock, type HeatChange, type Spell } from '../kinetics'
import {
  emptyDraft,
  inForce,
  kindOf,
  piecesTakenG,
  type BatchDraft,
  type BatchState,
  type DryForms,
  type Entry,
  type EntryOf,
  type JarState,
  type RestState,
  type RunState,
  type Stage,
  type TrayPlaces,
  type TrayWeight,
  type Weighing,
} from '../log'
import { balancePrep } from '../mass'
import { insidePace, hoursOfRun, middleOf } from '../hours'
import { spellsOf } from '../water'
import { hotterThanBelieved, UNKNOWN_DIAL, type DialBelief } from '../machines'
import { WAYS } from '../ways'
import { cycleTold } from './cycle'
import { followDry, type DryFood } from './dryFood'
import { holdOf } from './hold'
import { followTrays } from './places'
import { ledgerOf } from './prepLedger'
import { restOf } from './rest'
import { sunClock } from './sunClock'
import { weighingsOf } from './weighings'
import { HOUR } from '../time'

/** Below this share of what there was to pack, the rest counts as dust in the cup. */
const DUST_SHARE = 0.02
/** Trays that came out within this are one taking out. */
const APART_MS = HOUR
/** Share of a weight that may stay behind in a jar. */
const CRUMBS = 0.01
/** The same weight within this is the same reading. */
const SAME_MS = 900_000

/**
 * Works out where a batch stands from its log.
 * @param entries the batch's own entries together with those of its runs, in any order
 * @param find gives the food by its key
 * @returns undefined when there is no intake in force (it was voided), or its food is not known.
 */
export function foldBatch(entries: readonly Entry[], find: FindFood): BatchState | undefined {
  const draft = draftOf(inForce(entries))
  const { intake, prep, splits } = draft
  const found = intake && find(intake.body.foodKey)
  if (!intake || !found) return undefined
  const whole = intake.body.mix ? mixedFood(found, intake.body.weightG, intake.body.mix, find) : found
  // Cut otherwise than was planned it dries as it was cut.
  const cutName = prep.findLast(entry => entry.body.cutName)?.body.cutName
  const asCard = whole.cards.find(item => item.name === cutName) ?? cardOf(whole, intake.body.cardKey)
  const choices = { ...draft.choices, ...choicesAtWork(prep) }
  const food = asCut(whole, asCard)
  const card = chosenCard(asCard, food, choices)
  const { purpose } = intake.body
  const ledger = ledgerOf(intake, prep, splits, food, card, weighedLoad(draft.loads[0]), draft.choices)
  const balance = balancePrep(ledger)
  const thicknessMm = prep.findLast(entry => entry.body.thicknessMm)?.body.thicknessMm ?? card.thicknessMm
  const runs = runsOf(draft, { food, card, purpose, thicknessMm, choices, balance, fromPowder: intake.body.fromForm === 'powder' })
  const run = runs.at(-1)
  const newest = <T extends { at: number }>(entries: readonly T[]) => run && entries.findLast(entry => entry.at >= run.loadedAt)
  const rest = run?.unloadedAt === undefined ? undefined : restOf(draft, run.unloadedAt)
  const grinds = grindsOf(draft)
  const beganDry = intake.body.fromForm !== undefined || (intake.body.fromJars?.length ?? 0) > 0
  const cameOutG = dryWeight(draft, run, rest) ?? (beganDry && !run ? intake.body.weightG : undefined)
  const dryWeighed = isWeighedDry(run, rest, draft)
  const dry = dryFoodOf(draft, run, grinds, { cameOutG, dryWeighed, intake })
  const { powderG, piecesInG } = dry
  // What nobody weighed as it came out was weighed into the cup, if all of it was ground.
  const dryG = !dryWeighed && piecesInG > 0 ? piecesTakenG(dry) : cameOutG
  const jars = jarsOf(draft)
  const isDry = rest?.endedAt !== undefined || (beganDry && !run)
  const unpacked = unpackedOf(dry, { isDry, isPowder: grinds.length > 0 || dry.redried, mostG: cameOutG ?? run?.loadedG ?? 0 })
  const { pieces: piecesGone = 0, flakes: flakesGone = 0, powder: powderGone = 0 } = dry.gone
  const isGone = jars.length > 0 || piecesGone + flakesGone + powderGone > 0
  const finished = draft.finished || (isGone && isAllPacked(unpacked, dry, purpose, dryG) && !isMuchLeft(dry, balance, run))
  const state: BatchState = {
    food,
    card,
    purpose,
    intake,
    prep,
    ledger,
    balance,
    run,
    earlierRuns: runs.slice(0, -1),
    feel: newest(draft.feels),
    jarAir: newest(draft.jarAirs),
    rest,
    dryG,
    dryWeighed: dryWeighed || piecesInG > 0,
    grinds,
    powderG,
    piecesInG,
    left: dry.left,
    had: dry.had,
    packed: dry.packed,
    gone: dry.gone,
    unpacked,
    cutName: cutName ?? card.name,
    thicknessMm,
    cutBy: prep.findLast(entry => entry.body.by)?.body.by,
    jars,
    packedG: jars.reduce((sum, jar) => sum + jar.netG, 0),
    finished,
    mould: rest?.jars.some(jar => jar.mould) ?? false,
    splits,
    leftOut: draft.leftOut,
    holds: draft.holds,
    accepted: draft.accepted,
    contains: draft.contains,
    heated: run?.unloadedAt === undefined ? [] : draft.heated.filter(entry => entry.at >= run.unloadedAt!),
    choices,
    beganDry,
    stage: beganDry && !run && !finished ? 'grinding' : stageOf({ finished, prep, run, rest, grinds }),
  }
  return { ...state, hold: holdOf(state) }
}

/** What went on the trays, where it was on a scale: what was only expected tells nothing of the steps before. */
const weighedLoad = (load: EntryOf<'load'> | undefined) => (load?.body.weightSdG === undefined ? load?.body.totalG : undefined)

/** What was done says it as well as a choice does. */
function choicesAtWork(prep: readonly EntryOf<'prep'>[]): Choices {
  return Object.fromEntries(
    prep.flatMap(({ body: { step, school } }) => (school && QUESTION_OF_STEP[step] ? [[QUESTION_OF_STEP[step], school]] : [])),
  )
}

/** What each entry in force lays down, as its kind says. */
function draftOf(log: readonly Entry[]): BatchDraft {
  const draft = emptyDraft()
  for (const entry of log) {
    const { effect } = kindOf(entry.body.kind)
    if (effect !== 'none') effect(draft, entry)
  }
  return draft
}

function stageOf(state: Pick<BatchState, 'finished' | 'prep' | 'run' | 'rest' | 'grinds'>): Stage {
  if (state.finished) return 'shelf'
  if (!state.run) return state.prep.length > 0 ? 'prep' : 'intake'
  if (state.run.unloadedAt === undefined) return 'drying'
  if (state.grinds.length > 0 || state.run.powder) return 'grinding'
  return state.rest?.endedAt === undefined ? 'resting' : 'grinding'
}

interface BatchFacts extends Pick<BatchState, 'food' | 'card' | 'purpose' | 'thicknessMm' | 'choices' | 'balance'> {
  fromPowder: boolean
}

function runsOf(draft: BatchDraft, facts: BatchFacts): RunState[] {
  return draft.loads.map((load, i) => runOf(draft, load, draft.loads[i + 1], facts))
}

/** What was written before the loading at the same instant belongs to the run before: taken out, parted, and loaded again. */
const isAfter = (entry: Entry, other: Entry) => entry.at > other.at || (entry.at === other.at && entry.seq > other.seq)

/** A spell in a machine, from a loading to the next. */
function runOf(draft: BatchDraft, load: EntryOf<'load'>, next: EntryOf<'load'> | undefined, { fromPowder, ...cut }: BatchFacts): RunState {
  const { food, card, thicknessMm } = cut
  const { runId, machineId, positions, totalG, weightSdG, trayAreaM2, usualHours, portions, frozen = [] } = load.body
  const { heats, airs: measuredAirs, moves, outlook, cycle } = draft.run(runId)
  const way = wayOf(card, load.body.way)
  const { takesWaterBack, nightsCount, plainHeat } = WAYS[way.way]
  const during = <T extends Entry>(entries: readonly T[]) =>
    entries.filter(entry => isAfter(entry, load) && !(next && isAfter(entry, next)))
  const places = followTrays(positions, during(moves), during(draft.unloads))
  const out = places.outAt
  const unloadedAt = out.size === positions.length ? Math.max(...out.values()) : undefined
  const beforeOut = <T extends { at: number }>(entries: readonly T[]) => entries.filter(entry => entry.at <= (unloadedAt ?? Infinity))
  const airs = beforeOut(measuredAirs)
  // Nobody said that it was on: not at all, or only when it was switched off.
  const [firstHeat] = heats
  const wasNotSaid = !firstHeat || (firstHeat.body.setC === null && firstHeat.at > load.at)
  const forgotten =
    wasNotSaid && hasLost(load, during(draft.weighs), during(draft.unloads)) ? [{ at: load.at, setC: way.temperatureC }] : []
  const measured = airs.findLast(entry => entry.body.roomC !== undefined)?.body
  const room = measured && { celsius: measured.roomC!, humidity: measured.roomHumidity! }
  const usual = hoursOfRun(cut, { way, usualHours, loadedG: totalG, positions, trayAreaM2, frozen })
  // What was dried before has no wet face any more.
  const isFresh = plainHeat && load === draft.loads[0] && !fromPowder
  const clockOf = (changes: readonly HeatChange[]) =>
    dryingClock({
      startAt: load.at,
      endAt: unloadedAt,
      referenceC: way.temperatureC,
      heats: changes,
      wet: isFresh ? { hours: WET_SHARE * middleOf(usual), pace: celsius => wetPacePerHour(celsius, way.temperatureC, room) } : undefined,
      inside: plainHeat
        ? celsius => insidePace(celsius, way.temperatureC, { thicknessMm: isFresh ? thicknessMm : undefined, room })
        : undefined,
    })
  const set = [...forgotten, ...heats.map(({ at, body }) => ({ at, setC: body.setC }))]
  const felt = heatsFelt(set, airs, plainHeat ? (load.body.dial ?? UNKNOWN_DIAL) : undefined)
  const heated = clockOf(felt)
  const chamberC = airs.findLast(entry => entry.body.chamberC !== undefined)?.body.chamberC
  const traysWeighed = (load.body.trays?.length ?? 0) > 0
  const trays = load.body.trays ?? positions.map(position => ({ position, weightG: totalG / positions.length }))
  const weighs = beforeOut(during(draft.weighs)).map(entry => byTray(entry, places))
  const loaded = { trays, traysWeighed, loadedG: totalG, places }
  const clock = nightsCount ? heated : sunClock(heated, way.temperatureC, { dries: load.body.sun, duskAt: outlook?.duskAt })
  const onScale = weighingsOf({ ...loaded, clock }, weighs)
  const last = takenOut(during(draft.unloads), clock, unloadedAt, onScale.at(-1))
  const weighings = [...onScale, ...last]
  const spells = takesWaterBack
    ? spellsOf({
        food,
        clock: heated,
        room,
        covered: !nightsCount,
        weighedAt: weighings.map(weighing => weighing.at),
        until: unloadedAt ?? weighings.at(-1)?.at,
      })
    : []
  return {
    ...loaded,
    loadedSdG: weightSdG,
    whole: load.body.whole,
    runId,
    machineId,
    way,
    frozen,
    portions,
    outlook,
    powderDries: draft.powderDries.filter(entry => isAfter(entry, load) && !(next && isAfter(entry, next))),
    powder: fromPowder || draft.grinds.some(entry => entry.at <= load.at),
    positions,
    present: positions.filter(position => !out.has(position)),
    usualHours,
    trayAreaM2,
    loadedAt: load.at,
    clock,
    feltOverDial: felt.length > set.length && unloadedAt !== undefined ? overDial(heated, clockOf(set), unloadedAt) : 1,
    spells,
    unloadedAt,
    setAt: heats.at(-1)?.at ?? load.at,
    probed: airs.flatMap(({ at, body: { chamberC: shown } }) => (shown === undefined ? [] : [{ at, chamberC: shown }])),
    chamberC,
    room,
    cycle: cycleTold(during(cycle), weighings.at(-1)?.at ?? load.at),
    trayWeights: weighs.flatMap(({ at, body }) => (body.trays ?? []).map(tray => ({ ...tray, at, hours: clock.equivalentHoursAt(at) }))),
    setC: unloadedAt === undefined ? ((heats.length > 0 ? heats.at(-1)!.body.setC : forgotten[0]?.setC) ?? null) : null,
    weighings: markOff(weighings, spells),
    rested: restedWeight(draft, during, clock, unloadedAt),
    felt: during(draft.feels).map(({ at, body: { check } }) => ({
      at,
      hours: clock.equivalentHoursAt(Math.min(at, unloadedAt ?? at)),
      // Taken out it is as warm as the room before long.
      airC:
        at > (unloadedAt ?? Infinity)
          ? USUAL_ROOM.celsius
          : (clock.spells.findLast(({ from, to = Infinity }) => from <= at && at < to)?.setC ?? USUAL_ROOM.celsius),
      check,
    })),
  }
}

/** Weighings with an off spell before them: they may be heavier than the one above. */
function markOff(weighings: Weighing[], spells: readonly Spell[]): Weighing[] {
  return weighings.map((weighing, i) => (spells.some(spell => spell.before === i) ? { ...weighing, afterOff: true } : weighing))
}

/** All that came out, on the scale: the last weight of the load in its machine. Trays that came out far apart are no one weight. */
function takenOut(
  unloads: readonly EntryOf<'unload'>[],
  clock: DryingClock,
  unloadedAt: number | undefined,
  last: Weighing | undefined,
): Weighing[] {
  const [first] = unloads
  if (unloadedAt === undefined || !first || unloadedAt - first.at > APART_MS) return []
  const weightG = unloads.reduce((sum, { body }) => sum + (body.weightG ?? NaN), 0)
  if (!(weightG > 0)) return []
  // Weighed and taken out with the same figure: it was on the scale once.
  if (last && unloadedAt - last.at < SAME_MS && Math.abs(weightG - last.weightG) < 0.5) return []
  return [{ at: unloadedAt, hours: clock.equivalentHoursAt(unloadedAt), weightG, positions: [], entryIds: unloads.map(entry => entry.id) }]
}

/** What was weighed at the end of the rest is the same food: it tells of its solids too, if nothing was thrown away meanwhile. */
function restedWeight(
  draft: BatchDraft,
  during: <T extends Entry>(entries: readonly T[]) => T[],
  clock: DryingClock,
  unloadedAt: number | undefined,
): Weighing | undefined {
  if (unloadedAt === undefined || during(draft.restOuts).length > 0) return undefined
  const end = during(draft.restEnds).findLast(entry => entry.at >= unloadedAt)
  if (end?.body.weightG === undefined) return undefined
  const { weightG } = end.body
  // Crumbs stay in the jar, and a jar that is opened daily takes a little from the room.
  const extraSdG = CRUMBS * weightG
  return { at: end.at, hours: clock.equivalentHoursAt(unloadedAt), weightG, extraSdG, afterOff: true, positions: [], entryIds: [end.id] }
}

/** A weigh-in as written, by place, told by tray; a place without a tray of this load is passed over. */
function byTray(entry: EntryOf<'weigh'>, places: TrayPlaces): EntryOf<'weigh'> {
  const trays = entry.body.trays?.flatMap(({ position, weightG }): TrayWeight[] => {
    const tray = places.trayAt(position, entry.at)
    return tray === undefined ? [] : [{ position: tray, weightG }]
  })
  return trays ? { ...entry, body: { ...entry.body, trays } } : entry
}

/**
 * The heat as the food feels it: what was set, and what was measured in the machine since. A dial is believed to be off by as much as
 * was known at loading, and the measured moves that; where there is no dial, what was measured last is the heat.
 */
function heatsFelt(set: readonly HeatChange[], airs: readonly EntryOf<'air'>[], dial: DialBelief | undefined): HeatChange[] {
  const seenC: number[] = []
  const measured = airs.flatMap(({ at, body: { chamberC } }) => {
    const setC = set.findLast(heat => heat.at <= at)?.setC ?? null
    if (setC === null || chamberC === undefined) return []
    if (!dial) return [{ at, setC: chamberC, hotter: 0 }]
    seenC.push(chamberC - setC)
    const hotter = hotterThanBelieved(seenC, dial)
    return [{ at, setC: setC + hotter, hotter }]
  })
  // Set to another heat it is off by as much as before.
  const corrected = set.map(({ at, setC }) => ({
    at,
    setC: setC === null ? null : setC + (measured.findLast(item => item.at <= at)?.hotter ?? 0),
  }))
  return [...corrected, ...measured.map(({ at, setC }) => ({ at, setC }))]
}

/** Hours of a run by one clock over those by another. */
function overDial(felt: DryingClock, byDial: DryingClock, at: number): number {
  const hours = byDial.equivalentHoursAt(at)
  return hours > 0 ? felt.equivalentHoursAt(at) / hours : 1
}

/** So much is gone that the heat must have been on, whether it was logged or not. */
const LOST_BY_HEAT = 0.15

function hasLost(load: EntryOf<'load'>, weighs: readonly EntryOf<'weigh'>[], unloads: readonly EntryOf<'unload'>[]): boolean {
  const { totalG, trays = [] } = load.body
  const loadedOf = (position: number) => trays.find(tray => tray.position === position)?.weightG ?? totalG / load.body.positions.length
  const shares = [
    ...weighs.flatMap(({ body }) =>
      body.totalG === undefined ? (body.trays ?? []).map(tray => tray.weightG / loadedOf(tray.position)) : [body.totalG / totalG],
    ),
    ...unloads.flatMap(({ body }) => (body.weightG === undefined || body.positions ? [] : [body.weightG / totalG])),
  ]
  return shares.some(share => share < 1 - LOST_BY_HEAT)
}

function dryWeight(draft: BatchDraft, run: RunState | undefined, rest: RestState | undefined): number | undefined {
  if (run?.unloadedAt === undefined) return undefined
  // Trays that came out one by one: their weights add up, if each was weighed.
  const unloads = draft.unloads.filter(entry => entry.at >= run.loadedAt && entry.at <= run.unloadedAt!)
  const sumG = unloads.every(entry => entry.body.weightG !== undefined)
    ? unloads.reduce((sum, entry) => sum + entry.body.weightG!, 0)
    : undefined
  const outG = rest?.jars.reduce((sum, jar) => sum + (jar.out?.weightG ?? 0), 0) ?? 0
  const wholeG = sumG ?? run.weighings.at(-1)?.weightG
  return rest?.endWeightG ?? (wholeG === undefined ? undefined : Math.max(0, wholeG - outG))
}

/** Whether what came out was on the scale at its taking out or since, so that it is no weight of a wetter hour. */
function isWeighedDry(run: RunState | undefined, rest: RestState | undefined, draft: BatchDraft): boolean {
  if (!run) return true
  if (run.unloadedAt === undefined) return false
  if (rest?.endWeightG !== undefined) return true
  const unloads = draft.unloads.filter(entry => entry.at >= run.loadedAt && entry.at <= run.unloadedAt!)
  const last = run.weighings.at(-1)
  return unloads.every(entry => entry.body.weightG !== undefined) || (last !== undefined && run.unloadedAt - last.at < APART_MS)
}

/** What was ground since it last left a machine: ground half dry and gone back, it is in the trays again. */
function grindsOf(draft: BatchDraft): EntryOf<'grind'>[] {
  return sinceLoading(draft, draft.grinds)
}

function sinceLoading<T extends Entry>({ loads }: BatchDraft, entries: readonly T[]): T[] {
  const load = loads.at(-1)
  return entries.filter(entry => !load || isAfter(entry, load))
}

/** Dry food by form, followed through the mill; powder that came out of the machine again, or from jars of the shelf, is powder to begin with. */
function dryFoodOf(
  draft: BatchDraft,
  run: RunState | undefined,
  grinds: readonly EntryOf<'grind'>[],
  { cameOutG, dryWeighed, intake }: { cameOutG?: number; dryWeighed: boolean; intake: EntryOf<'intake'> },
): DryFood & { redried: boolean } {
  const { purpose, fromForm } = intake.body
  const out = run?.unloadedAt !== undefined || (run === undefined && cameOutG !== undefined)
  const isGround = run ? run.powder && out : fromForm !== undefined && fromForm !== 'pieces'
  const turns = [...grinds, ...sinceLoading(draft, [...draft.powderDries, ...draft.packs, ...draft.splits])]
  // Ground half dry and dried on: what was meant for flakes may have been ground finer since.
  const form = run ? (draft.grinds.findLast(entry => entry.at <= run.loadedAt)?.body.makes ?? fromForm ?? purpose) : fromForm
  const groundG = cameOutG ?? run?.loadedG
  const start = isGround
    ? { [form === 'flakes' ? 'flakes' : 'powder']: groundG, pieces: 0 }
    : { pieces: out && dryWeighed ? cameOutG : undefined }
  return { ...followDry(turns, purpose, start), redried: isGround }
}

/** What may go into jars now, by form: pieces once they are known to be dry, and whatever was ground. */
function unpackedOf(dry: DryFood, { isDry, isPowder, mostG }: { isDry: boolean; isPowder: boolean; mostG: number }): DryForms {
  const { pieces, flakes, powder } = dry.left
  return {
    // Where nobody weighed what came out, it is less than the last weight before, and less than went on the trays.
    ...(isDry && { pieces: pieces ?? Math.max(0, mostG - piecesTakenG(dry)) }),
    ...(isPowder && { flakes, powder }),
  }
}

/** Nothing is left but dust in the cup; pieces that wait for the mill are not done with. */
function isAllPacked({ pieces, flakes = 0, powder }: DryForms, { left, powderG }: DryFood, purpose: Purpose, dryG = 0): boolean {
  if (purpose === 'pieces' ? pieces === undefined : powder === undefined && left.pieces !== 0) return false
  const piecesG = purpose === 'pieces' ? pieces! : (left.pieces ?? 0)
  const dustG = (wholeG: number) => Math.max(1, DUST_SHARE * wholeG)
  return piecesG <= (purpose === 'pieces' ? dustG(dryG) : 0) && flakes + (powder ?? 0) <= dustG(powderG)
}

/**
 * Nobody weighed what came out, and what was ground, packed and eaten of it is less than the solids alone that went on the trays: dry pieces
 * are somewhere still.
 */
function isMuchLeft(dry: DryFood, { solids }: BatchState['balance'], run: RunState | undefined): boolean {
  if (!run || run.powder || dry.left.pieces !== undefined) return false
  const solidsG = solids.mean * run.loadedG
  const sdG = Math.hypot(solids.sd * run.loadedG, solids.mean * (run.loadedSdG ?? 0))
  return piecesTakenG(dry) < solidsG - 2 * sdG
}

function jarsOf(draft: BatchDraft): JarState[] {
  return draft.packs.map(({ id, at, body }) => ({ jarId: body.jarId, packEntryId: id, netG: body.netG, packedAt: at, body }))
}
