import { cardOf, wayOf, type CardWay, type FindFood, type Food, type MethodCard, type Purpose } from '../foods'
import { balancePrep, type PrepBalance } from '../mass'
import type { Air } from '../air'
import type { DryingClock, HeatChange, Setback } from '../kinetics'
import { dryingClock, setBackClock } from '../kinetics'
import { inForce, ofKind } from './effective'
import { holdOf, type Hold } from './hold'
import { setbacksOf } from './offSpells'
import { sunClock } from './sunClock'
import { ledgerOf } from './prepLedger'
import { followTrays, type TrayPlaces } from './places'
import { restOf, type RestState } from './rest'
import { weighingsOf, type Weighing } from './weighings'
import type { Entry, EntryOf, Stage, TrayWeight, UsualHours } from './types'

/** A spell of a batch in a machine, from loading to taking out. */
export interface RunState {
  runId: string
  machineId: string
  /** How it is dried there: heat and usual hours of the card for that kind of machine. */
  way: CardWay
  /** Trays that went in frozen solid. */
  frozen: number[]
  portions?: { count: number; ml: number }
  /** It went back in as powder. */
  powder: boolean
  /** What was said of the weather, outdoors. */
  outlook?: { duskMinute: number; rainAt?: number }
  /** The trays, each known by the place it was loaded in. */
  positions: number[]
  /** Trays still in the machine. */
  present: number[]
  /** Where the trays stand, since they change places. */
  places: TrayPlaces
  /** Weight by tray where trays were weighed; an even share otherwise. */
  trays: TrayWeight[]
  /** Whether the trays were weighed one by one. */
  traysWeighed: boolean
  loadedG: number
  /** What the hours were believed to be at loading; the card's where missing. */
  usualHours?: UsualHours
  loadedAt: number
  /** Set while the heat is on. */
  setC: number | null
  /** The room's air as last measured during the run. */
  room?: Air
  /** What was last measured in the machine with the heat on, °C. */
  chamberC?: number
  clock: DryingClock
  /** What spells without heat took back; the clock has them in it. */
  setbacks: readonly Setback[]
  weighings: Weighing[]
  /** Single trays on the scale, oldest first. */
  trayWeights: { position: number; at: number; hours: number; weightG: number }[]
  unloadedAt?: number
}

/** What of the batch went into a jar; a jar that was topped up stands here once for each time. */
export interface JarState {
  jarId: string
  packEntryId: string
  netG: number
  packedAt: number
  body: EntryOf<'pack'>['body']
}

/** All that follows from a batch's log. Nothing here is stored. */
export interface BatchState {
  food: Food
  card: MethodCard
  purpose: Purpose
  intake: EntryOf<'intake'>
  stage: Stage
  /** Cut in words: what the prep said, or the card. */
  cutName: string
  /** Thickness on the trays, where known, mm. */
  thicknessMm?: number
  /** Who cut it, where noted. */
  cutBy?: string
  prep: EntryOf<'prep'>[]
  /** Solids and moisture at (first) loading, or as far as prep has come. */
  balance: PrepBalance
  run?: RunState
  /** Runs before the present or last one. */
  earlierRuns: RunState[]
  feel?: EntryOf<'feel'>
  /** Newest reading of the air in a closed jar since the last loading. */
  jarAir?: EntryOf<'jarAir'>
  rest?: RestState
  /** Net dry weight: from the newest of grinding, end of rest, taking out, last weigh-in. */
  dryG?: number
  grinds: EntryOf<'grind'>[]
  powderG: number
  /** What may still be packed, g: powder, or dry pieces. Undefined before there is anything to pack. */
  unpackedG?: number
  jars: JarState[]
  packedG: number
  finished: boolean
  /** Where it waits, while work stands still. */
  hold?: Hold
  /** Mould was seen: nothing but discarding is left. */
  mould: boolean
  /** Rules whose caution was accepted. */
  accepted: ReadonlySet<string>
  /** It was begun from jars of the shelf: dry already, to be ground, or dried again. */
  fromJars: boolean
  /** What became batches of their own. */
  splits: EntryOf<'split'>[]
}

/** Steps after which food is perishable. */
const PERISHABLE_STEPS: readonly string[] = [
  'peel',
  'seed',
  'cut',
  'blanch',
  'roast',
  'boil',
  'cook',
  'char',
  'puree',
  'thicken',
  'drain',
  'marinate',
  'spread',
]

/** Below this share of what there was to pack, the rest counts as dust in the cup. */
const DUST_SHARE = 0.02

/**
 * Works out where a batch stands from its log.
 * @param entries the batch's own entries together with the heat entries of its runs, in any order
 * @param find gives the food by its key
 * @returns undefined when there is no intake in force (it was voided), or its food is not known.
 */
export function foldBatch(entries: readonly Entry[], find: FindFood): BatchState | undefined {
  const log = inForce(entries)
  const intake = ofKind(log, 'intake')[0]
  const food = intake && find(intake.body.foodKey)
  if (!intake || !food) return undefined
  const card = cardOf(food, intake.body.cardKey)
  const prep = ofKind(log, 'prep')
  const splits = ofKind(log, 'split')
  const balance = balancePrep(ledgerOf(intake, prep, splits, food, card, ofKind(log, 'load')[0]?.body.totalG))
  const runs = runsOf(log, food, card, intake.body.purpose, balance, intake.body.fromForm === 'powder')
  const run = runs.at(-1)
  const feel =
    run &&
    ofKind(log, 'feel')
      .filter(entry => entry.at >= run.loadedAt)
      .at(-1)
  const jarAir =
    run &&
    ofKind(log, 'jarAir')
      .filter(entry => entry.at >= run.loadedAt)
      .at(-1)
  const rest = run?.unloadedAt === undefined ? undefined : restOf(log, run.unloadedAt)
  const purpose = intake.body.purpose
  const grinds = grindsOf(log, run)
  const fromJars = (intake.body.fromJars?.length ?? 0) > 0
  const dryG = dryWeight(log, run, rest, grinds) ?? (fromJars && !run ? intake.body.weightG : undefined)
  const { powderG, redried } = powderOf(log, run, grinds, dryG, intake.body.fromForm === 'powder' ? intake.body.weightG : undefined)
  const jars = jarsOf(log)
  const packedG = jars.reduce((sum, jar) => sum + jar.netG, 0)
  const packable =
    purpose === 'pieces'
      ? rest?.endedAt === undefined && !(fromJars && !run)
        ? undefined
        : dryG
      : grinds.length > 0 || redried
        ? powderG
        : undefined
  const finished =
    ofKind(log, 'finish').length > 0 ||
    (packable !== undefined && jars.length > 0 && packable - packedG <= Math.max(1, DUST_SHARE * packable))
  const mould = rest?.jars.some(jar => jar.mould) ?? false
  const heldAfter = run?.unloadedAt ?? prep.at(-1)?.at ?? intake.at
  const cut = prep.findLast(entry => entry.body.cutName)?.body.cutName
  return {
    food,
    card,
    purpose,
    intake,
    prep,
    balance,
    run,
    earlierRuns: runs.slice(0, -1),
    feel,
    jarAir,
    rest,
    dryG,
    grinds,
    powderG,
    cutName: cut ?? card.name,
    thicknessMm: prep.findLast(entry => entry.body.thicknessMm)?.body.thicknessMm ?? card.thicknessMm,
    cutBy: prep.findLast(entry => entry.body.by)?.body.by,
    unpackedG: packable === undefined ? undefined : Math.max(0, packable - packedG),
    jars,
    packedG,
    finished,
    mould,
    splits,
    hold:
      run && run.unloadedAt === undefined
        ? undefined
        : holdOf(
            log,
            run ? 'dry' : prep.some(entry => PERISHABLE_STEPS.includes(entry.body.step)) ? 'cut' : 'raw',
            food.freshDays.value,
            heldAfter,
          ),
    accepted: new Set(ofKind(log, 'caution').map(entry => entry.body.rule)),
    fromJars,
    stage: fromJars && !run && !finished ? 'grinding' : stageOf({ finished, prep, run, rest, grinds }),
  }
}

function stageOf(state: Pick<BatchState, 'finished' | 'prep' | 'run' | 'rest' | 'grinds'>): Stage {
  if (state.finished) return 'shelf'
  if (!state.run) return state.prep.length > 0 ? 'prep' : 'intake'
  if (state.run.unloadedAt === undefined) return 'drying'
  if (state.grinds.length > 0 || state.run.powder) return 'grinding'
  return state.rest?.endedAt === undefined ? 'resting' : 'grinding'
}

function runsOf(
  log: readonly Entry[],
  food: Food,
  card: MethodCard,
  purpose: Purpose,
  balance: PrepBalance,
  fromPowder: boolean,
): RunState[] {
  const loads = ofKind(log, 'load')
  const outlooks = ofKind(log, 'outlook')
  const solidsG = balance.solids.mean * (loads[0]?.body.totalG ?? 0)
  return loads.map((load, i) => {
    const { runId, machineId, positions, totalG, usualHours, portions } = load.body
    const way = wayOf(card, load.body.way)
    const outlook = outlooks.findLast(entry => entry.body.runId === runId)?.body
    const until = loads[i + 1]?.at ?? Infinity
    const during = <T extends { at: number }>(entries: T[]) => entries.filter(entry => entry.at >= load.at && entry.at <= until)
    const places = followTrays(
      positions,
      during(ofKind(log, 'move').filter(entry => entry.body.runId === runId)),
      during(ofKind(log, 'unload')),
    )
    const out = places.outAt
    const unloadedAt = out.size === positions.length ? Math.max(...out.values()) : undefined
    const heats = ofKind(log, 'heat').filter(entry => entry.body.runId === runId)
    const airs = ofKind(log, 'air').filter(entry => entry.body.runId === runId && entry.at <= (unloadedAt ?? Infinity))
    const heated = dryingClock({ startAt: load.at, endAt: unloadedAt, referenceC: way.temperatureC, heats: heatsFelt(heats, airs) })
    const measured = airs.findLast(entry => entry.body.roomC !== undefined)?.body
    const room = measured && { celsius: measured.roomC!, humidity: measured.roomHumidity! }
    const chamberC = airs.findLast(entry => entry.body.chamberC !== undefined)?.body.chamberC
    const traysWeighed = (load.body.trays?.length ?? 0) > 0
    const trays = load.body.trays ?? positions.map(position => ({ position, weightG: totalG / positions.length }))
    const weighs = during(ofKind(log, 'weigh'))
      .filter(entry => entry.at <= (unloadedAt ?? Infinity))
      .map(entry => byTray(entry, places))
    const usual = usualHours ?? way.usualHours.value
    // Under vacuum, or still frozen, nothing is taken back from the room.
    const setbacks =
      way.way === 'freeze-dryer'
        ? []
        : setbacksOf({
            covered: way.way === 'sun',
            food,
            clock: heated,
            loadedAt: load.at,
            loadedG: totalG,
            solidsG,
            targetMoisture: food.target[purpose],
            middleHours: Math.sqrt(usual.low * usual.high),
            room,
            weights: weighingsOf({ trays, traysWeighed, loadedG: totalG, clock: heated, places }, weighs),
          })
    const counted = setBackClock(heated, setbacks)
    const clock = way.way === 'sun' && unloadedAt === undefined ? sunClock(counted) : counted
    const run = {
      runId,
      machineId,
      way,
      frozen: load.body.frozen ?? [],
      portions,
      outlook,
      powder: fromPowder || ofKind(log, 'grind').some(entry => entry.at <= load.at),
      positions,
      places,
      present: positions.filter(position => !out.has(position)),
      trays,
      traysWeighed,
      loadedG: totalG,
      usualHours,
      loadedAt: load.at,
      clock,
      setbacks,
      unloadedAt,
      chamberC,
      room,
    }
    const trayWeights = weighs.flatMap(({ at, body }) =>
      (body.trays ?? []).map(tray => ({ ...tray, at, hours: clock.equivalentHoursAt(at) })),
    )
    return {
      ...run,
      trayWeights,
      setC: unloadedAt === undefined ? (heats.at(-1)?.body.setC ?? null) : null,
      weighings: markOff(weighingsOf(run, weighs), setbacks),
    }
  })
}

/** Weighings with an off spell before them: they may be heavier than the one above. */
function markOff(weighings: Weighing[], setbacks: readonly Setback[]): Weighing[] {
  return weighings.map((weighing, i) => {
    const before = i === 0 ? -Infinity : weighings[i - 1]!.at
    return setbacks.some(({ at }) => at > before && at <= weighing.at) ? { ...weighing, afterOff: true } : weighing
  })
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
 * The heat as the food feels it: what was set, or what was measured in the machine since, which a cheap
 * thermostat may be far from.
 */
function heatsFelt(heats: readonly EntryOf<'heat'>[], airs: readonly EntryOf<'air'>[]): HeatChange[] {
  const measured = airs.flatMap(({ at, body }) => {
    const set = heats.findLast(heat => heat.at <= at)?.body.setC ?? null
    return set === null || body.chamberC === undefined ? [] : [{ at, setC: body.chamberC }]
  })
  return [...heats.map(({ at, body }) => ({ at, setC: body.setC })), ...measured]
}

function dryWeight(
  log: readonly Entry[],
  run: RunState | undefined,
  rest: RestState | undefined,
  grinds: readonly EntryOf<'grind'>[],
): number | undefined {
  if (run?.unloadedAt === undefined) return undefined
  if (grinds.length > 0) return grinds.reduce((sum, entry) => sum + entry.body.dryInG, 0)
  // Trays that came out one by one: their weights add up, if each was weighed.
  const unloads = ofKind(log, 'unload').filter(entry => entry.at >= run.loadedAt && entry.at <= run.unloadedAt!)
  const sumG = unloads.every(entry => entry.body.weightG !== undefined)
    ? unloads.reduce((sum, entry) => sum + entry.body.weightG!, 0)
    : undefined
  const outG = rest?.jars.reduce((sum, jar) => sum + (jar.out?.weightG ?? 0), 0) ?? 0
  const wholeG = sumG ?? run.weighings.at(-1)?.weightG
  return rest?.endWeightG ?? (wholeG === undefined ? undefined : Math.max(0, wholeG - outG))
}

/** What was ground since it last left a machine: ground half dry and gone back, it is in the trays again. */
function grindsOf(log: readonly Entry[], run: RunState | undefined): EntryOf<'grind'>[] {
  return ofKind(log, 'grind').filter(entry => entry.at >= (run?.loadedAt ?? 0))
}

/**
 * Powder there is: what was ground, less what drying it took; or what came out of the machine again,
 * where it went in as powder. `fromJarsG`: powder that came from jars of the shelf.
 */
function powderOf(
  log: readonly Entry[],
  run: RunState | undefined,
  grinds: readonly EntryOf<'grind'>[],
  dryG: number | undefined,
  fromJarsG: number | undefined,
): { powderG: number; redried: boolean } {
  if (run?.powder && run.unloadedAt !== undefined && grinds.length === 0) return { powderG: dryG ?? run.loadedG, redried: true }
  const driedOffG = ofKind(log, 'powderDry')
    .filter(entry => entry.at >= (run?.loadedAt ?? 0) && entry.body.afterG !== undefined)
    .reduce((sum, { body }) => sum + Math.max(0, (body.beforeG ?? body.afterG!) - body.afterG!), 0)
  if (fromJarsG !== undefined && !run && grinds.length === 0) return { powderG: Math.max(0, fromJarsG - driedOffG), redried: true }
  return { powderG: Math.max(0, grinds.reduce((sum, entry) => sum + entry.body.powderOutG, 0) - driedOffG), redried: false }
}

function jarsOf(log: readonly Entry[]): JarState[] {
  return ofKind(log, 'pack').map(({ id, at, body }) => ({ jarId: body.jarId, packEntryId: id, netG: body.netG, packedAt: at, body }))
}
