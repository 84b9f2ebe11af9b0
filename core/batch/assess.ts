import { chamberFinish } from '../freezing'
import { isConstantWeight, judgeDryness, type DrynessEvidence, type DrynessVerdict } from '../dryness'
import { estimateTrays, type DryingEstimate, type Tray, type TrayEstimate } from '../kinetics'
import type { BatchState, RunState, Weighing } from '../log'
import type { Interval } from '../stats'
import { beliefOf, estimateOfRun, flipHour, isByHours, isOffAt, reachOf, readJarAir, targetOfRun } from '../water'
import { WAYS } from '../ways'
import { ROUND_H } from './constantTrays'
import { inChamber } from './cycle'
import { dangerZoneOf } from './dangerZone'
import { restDays, restNeeded, worstLook } from './rest'
import { HOUR } from '../time'

/** A window in instants; `Infinity` where the heat is off or the target is out of reach. */
export interface FinishWindow {
  from: number
  middle: number
  to: number
}

/** What is computed of a batch that is or was in a machine. */
export interface Assessment {
  estimate: DryingEstimate
  finish: FinishWindow
  verdict: DrynessVerdict
  /** Share of the loaded water that is gone. */
  waterGone: Interval
}

/** A tray of the run with its own window. */
export interface AssessedTray extends TrayEstimate {
  finish: FinishWindow
  lastG?: number
  /** Share of the tray's own loaded water that is left. */
  left: number
  /** Water in the food, wet basis, and what it must come to. */
  moisture: number
  target: number
}

/** Spread of an even share that was taken for want of a weight. */
const GUESSED_SHARE_SD = 0.1

/** The trays of a run as the estimator takes them. */
function traysOf(run: RunState): Tray[] {
  return run.trays.map(({ position, weightG }): Tray => ({
    position,
    share: weightG / run.loadedG,
    shareSd: run.traysWeighed ? undefined : GUESSED_SHARE_SD,
    weighIns: run.trayWeights
      .filter(weight => weight.position === position)
      .map(({ hours, weightG: grams }) => ({ hours, weightG: grams })),
  }))
}

/**
 * Every tray of the present run with its own window; undefined where no single tray was weighed.
 * @param now what a rack that is off took up or lost until then is reckoned with; without it, what was logged
 */
export function assessTrays(state: BatchState, now?: number): AssessedTray[] | undefined {
  const { run } = state
  if (!run || run.positions.length < 2 || run.trayWeights.length === 0) return undefined
  const { drying, posterior } = beliefOf(state, run, now)
  const { trays } = estimateTrays(drying, traysOf(run), posterior)
  return trays.map(tray => ({
    ...tray,
    finish: windowOf(run, tray.hoursToTarget),
    moisture: tray.moistureNow.p50,
    target: targetOfRun(state, run),
    left: Math.min(
      1,
      tray.waterLeftG.p50 / (run.trays.find(item => item.position === tray.position)!.weightG * state.balance.moisture.p50),
    ),
    lastG: run.trayWeights.findLast(weight => weight.position === tray.position)?.weightG,
  }))
}

/** A tray as it stands in a machine: by its own weights where it has some, by its load's otherwise. */
export interface StandingTray {
  place: number
  left: number
  /** Water in the food, wet basis, and what it must come to. */
  moisture: number
  target: number
  /** Nothing of it was weighed: an estimate by its hours. */
  byHours?: true
  finish: FinishWindow
  lastG?: number
  pace?: Interval
  /** When its sheet is to be turned over, while it was not. */
  flipAt?: number
}

/** The trays of a batch that are in the machine now, by place. */
export function assessRack(state: BatchState, now: number): StandingTray[] {
  const { run } = state
  const assessed = assess(state, now)
  if (!run || !assessed) return []
  const own = assessTrays(state, now)
  const flip = run.places.flippedAt === undefined ? flipHour(state, run) : undefined
  const flipAt = flip === undefined ? undefined : run.clock.instantAt(flip)
  return run.present
    .map((position): StandingTray => {
      const tray = own?.find(item => item.position === position)
      return {
        place: run.places.placeAt(position, Infinity),
        left: tray?.left ?? 1 - assessed.waterGone.p50,
        moisture: tray?.moisture ?? assessed.estimate.moistureNow.p50,
        target: targetOfRun(state, run),
        byHours: isByHours(run) || undefined,
        finish: tray?.finish ?? assessed.finish,
        lastG: tray?.lastG,
        pace: tray?.pace,
        flipAt,
      }
    })
    .sort((a, b) => a.place - b.place)
}

/** The trays of all batches of one run, by batch: what stands under one vacuum has one end. */
export function assessRacks(states: readonly (BatchState | undefined)[], now: number): StandingTray[][] {
  const racks = states.map(state => (state ? assessRack(state, now) : []))
  if (!states.some(state => state?.run && WAYS[state.run.way.way].underVacuum)) return racks
  const finish = chamberFinish(racks.flatMap((trays, i) => trays.map(tray => inChamber(states[i]!, tray.finish))))
  return racks.map(trays => trays.map(tray => ({ ...tray, finish })))
}

function windowOf({ clock, cycle, setC }: RunState, { p10, p50, p90 }: Interval): FinishWindow {
  // What the machine says of its own end is read off; whether it is dry then, two rounds of extra drying show at the most.
  if (cycle.endsAt !== undefined && setC !== null)
    return { from: cycle.endsAt, middle: cycle.endsAt, to: cycle.endsAt + 2 * ROUND_H * HOUR }
  const end = (hours: number) => clock.instantAt(hours) + cycle.sinceH * HOUR
  return { from: end(p10), middle: end(p50), to: end(p90) }
}

/**
 * Estimate, finish window and verdict for the present or last run; undefined before loading.
 * @param now figures are of the last weight, or of now where the heat is off or nothing was weighed
 */
export function assess(state: BatchState, now: number): Assessment | undefined {
  const { run } = state
  const estimate = estimateOfRun(state, now)
  if (!run || !estimate) return undefined
  const waterG = run.loadedG - estimate.solidsG.p50
  const gone = (left: number) => Math.min(1, Math.max(0, 1 - left / waterG))
  return {
    estimate,
    finish: windowOf(run, estimate.hoursToTarget),
    verdict: spoiled(state, now) ?? verdictOf(state, run, estimate, now),
    waterGone: { p10: gone(estimate.waterLeftG.p90), p50: gone(estimate.waterLeftG.p50), p90: gone(estimate.waterLeftG.p10) },
  }
}

/** Perishable food that stood too long where things grow: what weight and hand say of it does not count any more. */
function spoiled(state: BatchState, now: number): DrynessVerdict | undefined {
  return dangerZoneOf(state, now)?.over
    ? {
        level: 'keep-drying',
        ask: 'discard',
        headline: 'Too long in the warm',
        reason: 'Over two hours where things grow, while it was moist: published guidance (USDA) is to discard it, however dry it becomes.',
        witnesses: [],
        discard: true,
      }
    : undefined
}

function verdictOf(state: BatchState, run: RunState, estimate: DryingEstimate, now: number): DrynessVerdict {
  const { rest, feel } = state
  const started = rest?.startedAt
  return judgeDryness({
    purpose: state.purpose,
    targetMoisture: targetOfRun(state, run),
    pliableIsDone: state.food.pliable,
    weight: {
      probabilityDry: estimate.probabilityDry,
      moistureNow: estimate.moistureNow,
      constant: isConstantWeight(onHeat(run)),
      weighIns: run.weighings.length,
      unweighedH: unweighedHours(run, now),
      reach: reachOf(state, run),
      sinceFeel: feel !== undefined && (run.weighings.at(-1)?.at ?? 0) > feel.at,
    },
    feel: feel?.body.check,
    jarAir: state.jarAir && { ...readJarAir(state, state.jarAir.body), closedHours: state.jarAir.body.closedHours },
    rest:
      rest && started !== undefined
        ? { days: restDays(rest, rest.endedAt ?? now), needed: restNeeded(state), lastSaw: sightOf(rest) }
        : undefined,
  })
}

/** A weight so long before is as good as one at the instant itself. */
const AT_ONCE_H = 0.5

/** Hours from the last weight to what the figures are of, where that is later: taken out unweighed, or still without heat. */
function unweighedHours(run: RunState, now: number): number | undefined {
  const last = run.rested ?? run.weighings.at(-1)
  const to = run.unloadedAt ?? (isOffAt(run, now) ? now : undefined)
  const hours = last && to !== undefined ? (to - last.at) / HOUR : 0
  return hours > AT_ONCE_H ? hours : undefined
}

/** Weighings since the heat was last off: what was taken up and lost again is no constant weight. */
function onHeat({ weighings, unloadedAt = Infinity }: RunState): Weighing[] {
  const inMachine = weighings.filter(weighing => weighing.at <= unloadedAt)
  return inMachine.slice(
    Math.max(
      0,
      inMachine.findLastIndex(weighing => weighing.afterOff),
    ),
  )
}

/** Pieces that only hang at the top are as good as dry. A jar that nobody looked at tells nothing. */
function sightOf(rest: NonNullable<BatchState['rest']>): NonNullable<DrynessEvidence['rest']>['lastSaw'] {
  const seen = rest.jars.filter(jar => !jar.out)
  const worst = worstLook(rest)
  if (worst === undefined || (worst === 'hung' ? false : worst === 'dry' && seen.some(jar => jar.last === undefined))) return 'nothing'
  return worst === 'hung' ? 'dry' : worst
}
