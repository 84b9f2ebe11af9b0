import { trimSpread } from '#core/planning'
import { cutFactor, heatLaw } from '#core/hours'
import { inForce, ofKind } from '#core/log'
import type { BatchState } from '#core/log'
import { wayOf, type Food, type MethodCard, type Purpose } from '#core/foods'
import {
  CALIBRATION_SHARES,
  calibrationWorth,
  learnBasket,
  learnDensity,
  learnedHours,
  learnHours,
  type BasketFactor,
  type BasketLearned,
  type BasketLesson,
  type HoursLearned,
  type LearnedHours,
  type LoadAsked,
} from '#core/learning'
import { DIAL_SD, thermostatOffset, type DialBelief } from '#core/machines'
import { sdLogOf } from '#core/stats'
import { WAYS, type WayKey } from '#core/ways'
import type { LearnedAnswer, MachinePageAnswer, RunBehind } from '#shared/contracts'
import { writtenMark } from '#server/db/open'
import { batchView, leftOutViews, pacesMark, pacesOf, taughtOf, type BatchViewRow } from '#server/db/batches'
import { densitiesOf, entriesOfBatch } from '#server/db/entries'
import type { Db } from '#server/db/open'
import { heatSeenOf } from '#server/db/runs'
import { findMachine, listMachines } from '#server/db/settings'
import type { Context } from './context'
import { NotFound } from './refusals'

/** Newest finished runs that are looked through; each machine's newest sixty count. */
const RUNS_LOOKED_AT = 2000
/** Newest runs of a machine that say how far its dial is off. */
export const HEATS_LEARNED_FROM = 30
/** Newest trays of a machine that say how evenly it dries today. */
export const TRAYS_LEARNED_FROM = 240
/** Own lots of a food that count: the newest say most about today's garden and knife. */
const LOTS_LEARNED_FROM = 40

/** What is kept beside a batch of what it taught of its food. */
export type TaughtFacts = Omit<BasketLesson, 'id'>

const kept = new WeakMap<
  Db,
  { written: string; mark: string; foods: Context['foods']; learned: HoursLearned; dials: ReadonlyMap<string, number> }
>()

/** What all finished runs teach of hours; worked out anew when one has come or gone, or a dial was measured. */
export function hoursLearned(context: Context): HoursLearned {
  return learnedNow(context).learned
}

function learnedNow({ db, foods }: Context): { learned: HoursLearned; dials: ReadonlyMap<string, number> } {
  const before = kept.get(db)
  // A page asks for every machine and cut: while nothing is written nothing is looked up again.
  const written = writtenMark(db)
  if (before?.written === written) return before
  const machines = listMachines(db)
  const dials = new Map(machines.map(machine => [machine.id, dialMean(db, machine.id, machine.kind)]))
  const mark = `${pacesMark(db)} ${machines.map(({ id, kind }) => `${id} ${kind} ${dials.get(id)}`).join(' ')}`
  // A food of one's own may have changed its family: the book is then another one.
  if (before?.mark === mark && before.foods === foods) {
    before.written = written
    return before
  }
  const kinds = new Map(machines.map(machine => [machine.id, machine.kind]))
  const learned = learnHours(
    pacesOf(db, RUNS_LOOKED_AT).map(row => ({
      id: row.batch_id,
      pace: row.pace,
      doubt: row.pace_doubt,
      ...loadOf(row.machine_id, kinds.get(row.machine_id), foods.find(row.food_key) ?? { key: row.food_key, group: '' }, row.card_key),
      cutBy: row.cut_by ?? undefined,
      season: row.loaded_at === null ? undefined : seasonOf(row.loaded_at),
    })),
    machine => dials.get(machine) ?? 0,
  )
  const now = { written, mark, foods, learned, dials }
  kept.set(db, now)
  return now
}

/** A load as runs are compared: what dries by sun, room or vacuum teaches nothing of the same food in warm air. */
function loadOf(machine: string, kind: WayKey | undefined, { key, group }: Pick<Food, 'key' | 'group'>, card: string): LoadAsked {
  const apart = kind === undefined || WAYS[kind].plainHeat ? '' : `${kind} `
  return { machine, food: apart + key, family: apart + group, card }
}

/** Quarter of the year: the room's air is not the same all year round. */
const seasonOf = (at: number) => `quarter ${Math.floor(new Date(at).getUTCMonth() / 3) + 1}`

/** Heat by which a dial's error is turned into hours, °C: the usual one (the error counts alike at others within a tenth). */
const USUAL_C = 57

/** ln of what a dial that was measured makes of a machine's hours: hotter than set is quicker. 0 where nothing was measured. */
function dialMean(db: Db, machineId: string, kind: WayKey): number {
  const seen = WAYS[kind].plainHeat ? thermostatOffset(heatSeenOf(db, machineId, HEATS_LEARNED_FROM)) : undefined
  return seen ? Math.log(heatLaw(kind, USUAL_C + seen.offC, USUAL_C)) : 0
}

/** Usual hours of a food and cut in a machine, before anything is known of thickness and person. */
export function hoursOfCard(context: Context, machineId: string, food: Food, card: MethodCard, purpose: Purpose = 'pieces'): LearnedHours {
  return hoursFor(context, machineId, { food, card }, kind => cutFactor({ food, card, purpose }, kind))
}

/** Usual hours of a batch, as it was cut and by whom, in a machine. */
export function hoursInMachine(
  context: Context,
  machineId: string,
  state: Pick<BatchState, 'food' | 'card' | 'thicknessMm' | 'cutBy' | 'purpose' | 'choices'>,
): LearnedHours {
  return hoursFor(context, machineId, state, kind => cutFactor(state, kind))
}

function hoursFor(
  context: Context,
  machineId: string,
  { food, card, cutBy }: Pick<BatchState, 'food' | 'card'> & { cutBy?: string },
  factorIn: (kind: WayKey | undefined) => number,
): LearnedHours {
  const kind = findMachine(context.db, machineId)?.kind
  const load = { ...loadOf(machineId, kind, food, card.key), cutBy, season: seasonOf(context.now()) }
  const { learned, dials } = learnedNow(context)
  return learnedHours(wayOf(card, kind).usualHours.value, learned, load, { factor: factorIn(kind), dial: dials.get(machineId) ?? 0 })
}

/** Standard deviation of the logarithm that a machine's hours are off the cards' by before any run of it. */
const MACHINE_SD = 0.12

/** What is believed of a machine's dial when a load goes in; undefined where nothing is known of it. */
export function dialBelieved(context: Context, machineId: string): DialBelief | undefined {
  const seen = thermostatOffset(heatSeenOf(context.db, machineId, HEATS_LEARNED_FROM))
  const effect = hoursLearned(context).effectOf('machine', machineId)
  if (!seen && !effect) return undefined
  const sd = effect ? sdLogOf(effect.factor) : MACHINE_SD
  return { offC: seen?.offC ?? 0, sdC: seen?.sd ?? DIAL_SD, open: Math.min(1, (sd / MACHINE_SD) ** 2) }
}

/** What own lots of a food teach of the next basket. */
export function basketLearned({ db }: Context, food: Food): BasketLearned {
  const { mean, sd } = food.rawMoisture.value
  return learnBasket(
    taughtOf(db, food.key, LOTS_LEARNED_FROM).map(({ batch_id, taught }) => ({ id: batch_id, ...(JSON.parse(taught) as TaughtFacts) })),
    { solids: sd / (1 - mean), prep: trimSpread(food) },
  )
}

/** Density of a food's powder as weighed spoons have it, over the reference's; undefined where none was weighed. */
export function densityLearned({ db }: Context, { key, powderDensity: { value } }: Food): BasketFactor | undefined {
  return learnDensity(
    densitiesOf(db, key, LOTS_LEARNED_FROM).map(density => density / value.mean),
    value.sd / value.mean,
  )
}

/** Water of a raw food as own lots have it, wet basis; undefined where the reference stands. */
export function rawWaterBelieved(
  context: Context,
  food: Food,
  lot: { card: string; cultivar?: string; source?: string },
): { mean: number; sd: number; lots: number } | undefined {
  const told = basketLearned(context, food).solids(lot)
  if (!told) return undefined
  const solids = (1 - food.rawMoisture.value.mean) * told.factor.p50
  const sdLog = sdLogOf(told.factor)
  const round = (value: number) => Math.round(value * 1e5) / 1e5
  return { mean: round(Math.min(0.999, Math.max(0.01, 1 - solids))), sd: round(Math.min(0.5, solids * sdLog)), lots: told.lots }
}

/**
 * What runs taught of a machine, a food or a person, with the runs themselves, newest first, and those that were left out.
 * @throws NotFound where there is no such machine or food
 */
export function learnedPage(context: Context, { kind, key }: Pick<LearnedAnswer, 'kind' | 'key'>): LearnedAnswer {
  const { db, foods } = context
  const name = kind === 'machine' ? findMachine(db, key)?.name : kind === 'food' ? foods.find(key)?.name : key
  if (name === undefined) throw new NotFound('key', `There is no such ${kind}.`)
  const learned = hoursLearned(context)
  const counting = learned.behind(kind, key).flatMap(({ id, log, counts }) => {
    const row = id === undefined ? undefined : batchView(db, id)
    return row ? [runBehind(context, row, { hours: Math.exp(log), counts })] : []
  })
  const isOfIt = (row: BatchViewRow) => (kind === 'machine' ? row.machine_id : kind === 'food' ? row.food_key : row.cut_by) === key
  const leftOut = leftOutViews(db)
    .filter(row => isOfIt(row) && row.pace !== null)
    .map(row => {
      const entryId = ofKind(inForce(entriesOfBatch(db, row.batch_id)), 'leaveOut').at(-1)!.id
      return runBehind(context, row, { hours: row.pace!, counts: 0, leftOut: { reason: row.left_out!, entryId } })
    })
  return { kind, key, name, effect: learned.effectOf(kind, key), runs: [...counting, ...leftOut].sort((a, b) => b.number - a.number) }
}

function runBehind({ db }: Context, row: BatchViewRow, more: Pick<RunBehind, 'hours' | 'counts' | 'leftOut'>): RunBehind {
  return {
    batchId: row.batch_id,
    number: row.number,
    title: row.title,
    machineName: (row.machine_id && findMachine(db, row.machine_id)?.name) || 'A machine that is gone',
    loadedAt: row.loaded_at ?? row.started_at,
    ...more,
  }
}

/** Foods that a machine's first run may be made with: cards that say their hours most closely, and are done in a day. */
const CALIBRATION_FOODS = 3
const IN_A_DAY_H = 12

/** How a machine without runs may be tried; undefined once it has one. */
export function calibrationOf(context: Context, machineId: string, kind: WayKey): MachinePageAnswer['calibration'] {
  if (!WAYS[kind].plainHeat || hoursLearned(context).effectOf('machine', machineId)) return undefined
  const cards = context.foods.foods.flatMap(food =>
    food.cards.flatMap(card => {
      const way = card.ways.find(item => item.way === kind && !item.partOnly)
      return way && !card.raw && way.usualHours.value.high <= IN_A_DAY_H ? [{ food, card, ...way.usualHours.value }] : []
    }),
  )
  const closest = [...cards].sort((a, b) => a.high / a.low - b.high / b.low || a.food.rawMoisture.value.sd - b.food.rawMoisture.value.sd)
  const foods: NonNullable<MachinePageAnswer['calibration']>['foods'] = []
  for (const { food, card, low, high } of closest) {
    if (foods.length === CALIBRATION_FOODS) break
    if (!foods.some(item => item.foodKey === food.key))
      foods.push({ foodKey: food.key, name: food.name, cardKey: card.key, cut: card.name, low, high })
  }
  return { worth: calibrationWorth(), shares: CALIBRATION_SHARES, foods }
}
