import { USUAL_ROOM } from '../air'
import { isConstantWeight, judgeDryness, type DrynessEvidence, type DrynessVerdict } from '../dryness'
import {
  believedOf,
  estimateOf,
  estimateTrays,
  type DryingEstimate,
  type DryingRun,
  type Posterior,
  type Spell,
  type Tray,
  type TrayEstimate,
} from '../kinetics'
import { dryBasis } from '../mass'
import type { Interval } from '../stats'
import { activityOfTarget, equilibriumIn, isothermOf, moistureFromJarAir, roomBalance } from '../sorption'
import { goesByRoom, WAYS } from '../ways'
import { restDays, worstLook } from './rest'
import type { BatchState, EntryOf, RunState, Weighing } from '../log'
import { usualHoursFactor } from './usualHours'

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
}

/**
 * The run as the estimator takes it. A load that goes back to the machine after a rest starts with the
 * solids of the first loading in a smaller weight, and with a share of the usual hours.
 */
export function dryingRunOf(state: BatchState, run: RunState): DryingRun {
  const first = state.earlierRuns[0] ?? run
  const targetMoisture = state.food.target[state.purpose]
  const solidsG = state.balance.solids.mean * first.loadedG
  const again = first !== run || state.fromJars
  const mean = Math.min(0.98, first !== run ? solidsG / run.loadedG : state.balance.solids.mean)
  const sd = Math.max(0.004, state.balance.solids.sd * (mean / state.balance.solids.mean))
  const usual = run.usualHours ?? (run.way.partOnly ? wholeHours(state) : run.way.usualHours.value)
  // What was believed at loading knew the thickness already; the card does not.
  const thickness = run.usualHours ? 1 : usualHoursFactor(state)
  // Without heat the room decides how dry is possible, measured or not; under vacuum it does not count.
  const room = run.room ?? (goesByRoom(run.way.way) ? USUAL_ROOM : undefined)
  const share =
    thickness *
    (again ? shareOfHours(mean, state.fromJars ? 1 - state.food.rawMoisture.value.mean : state.balance.solids.mean, targetMoisture) : 1)
  // What was weighed when the rest ended is the same food.
  const weighings = [...run.weighings, ...(run.rested ? [run.rested] : [])]
  return {
    startWeightG: run.loadedG,
    solids: { mean, sd },
    targetMoisture,
    usualHours: { low: usual.low * share, high: usual.high * share },
    ...(WAYS[run.way.way].underVacuum
      ? { equilibriumX: VACUUM_X }
      : room && { equilibriumX: equilibriumIn(isothermOf(state.food), room, run.chamberC ?? run.setC ?? run.way.temperatureC) }),
    weighIns: weighings.map(({ hours, weightG, extraSdG, afterOff }) => ({ hours, weightG, extraSdG, afterOff })),
    spells: [...run.spells, ...restSpell(state, run)],
    ...atOf(run),
  }
}

/** Exchange through a lid that is opened for a look each day, against a run's own (common practice; from a third to three times). */
const LID_SHARE = 0.002

/** What a rest that was weighed at its end may have let in. */
function restSpell({ food }: BatchState, { rested, unloadedAt, weighings }: RunState): Spell[] {
  if (!rested || unloadedAt === undefined) return []
  const mean = roomBalance(isothermOf(food), USUAL_ROOM)
  const lastsH = (rested.at - unloadedAt) / 3_600_000
  return [{ hours: rested.hours, lastsH, balanceX: { mean, sd: 0.4 * mean }, share: LID_SHARE, before: weighings.length }]
}

/**
 * The hour that figures are of: the last weight's; but what was off since, or taken out unweighed, is not as it was weighed.
 */
function atOf(run: RunState): Pick<DryingRun, 'at'> {
  if (run.unloadedAt !== undefined) return { at: run.clock.equivalentHoursAt(run.unloadedAt) }
  const last = run.spells.at(-1)
  return last && last.before === run.weighings.length ? { at: Math.max(last.hours, run.weighings.at(-1)?.hours ?? 0) } : {}
}

/** Under vacuum hardly any water is left at last, dry basis (freeze-dried food of 1 to 3 %, common practice). */
const VACUUM_X = { mean: 0.01, sd: 0.005 }

/** A pass in the smoke is not dried to its end: how long that would take follows from the card's first way. */
const wholeHours = ({ card }: BatchState) => ({
  low: card.usualHours.value.low * SMOKE_HOURS.low,
  high: card.usualHours.value.high * SMOKE_HOURS.high,
})
/**
 * Against a dryer's hours: its heat alone would halve them (Arrhenius, 30 kJ/mol, 57 to 85 °C), its damp and
 * hardly moving air takes that back; four hours dry a part only (common practice).
 */
const SMOKE_HOURS = { low: 0.55, high: 1.1 }

/** Share of the usual hours that a partly dried load needs, from exponential drying. */
function shareOfHours(solidsNow: number, solidsFresh: number, targetMoisture: number): number {
  const target = dryBasis(targetMoisture)
  const now = Math.max(1.05 * target, 1 / solidsNow - 1)
  return Math.max(0.1, Math.min(1, Math.log(now / target) / Math.log((1 / solidsFresh - 1) / target)))
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

/** Every tray of the present run with its own window; undefined where no single tray was weighed. */
export function assessTrays(state: BatchState): AssessedTray[] | undefined {
  const { run } = state
  if (!run || run.positions.length < 2 || run.trayWeights.length === 0) return undefined
  const { drying, posterior } = believed(state, run)
  const { trays } = estimateTrays(drying, traysOf(run), posterior)
  return trays.map(tray => ({
    ...tray,
    finish: windowOf(run, tray.hoursToTarget),
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
  finish: FinishWindow
  lastG?: number
  pace?: Interval
}

/** The trays of a batch that are in the machine now, by place. */
export function assessRack(state: BatchState, now: number): StandingTray[] {
  const { run } = state
  const assessed = assess(state, now)
  if (!run || !assessed) return []
  const own = assessTrays(state)
  return run.present
    .map((position): StandingTray => {
      const tray = own?.find(item => item.position === position)
      return {
        place: run.places.placeAt(position, Infinity),
        left: tray?.left ?? 1 - assessed.waterGone.p50,
        finish: tray?.finish ?? assessed.finish,
        lastG: tray?.lastG,
        pace: tray?.pace,
      }
    })
    .sort((a, b) => a.place - b.place)
}

function windowOf(run: RunState, { p10, p50, p90 }: Interval): FinishWindow {
  return { from: run.clock.instantAt(p10), middle: run.clock.instantAt(p50), to: run.clock.instantAt(p90) }
}

/** A folded run does not change: several ask for what is believed of it. */
const estimates = new WeakMap<RunState, DryingEstimate>()
const beliefs = new WeakMap<RunState, { drying: DryingRun; posterior: Posterior }>()

function believed(state: BatchState, run: RunState): { drying: DryingRun; posterior: Posterior } {
  const drying = beliefs.get(run)?.drying ?? dryingRunOf(state, run)
  const known = beliefs.get(run) ?? { drying, posterior: believedOf(drying) }
  beliefs.set(run, known)
  return known
}

/** What is believed of the present or last run; undefined before loading. */
export function estimateOfRun(state: BatchState): DryingEstimate | undefined {
  const { run } = state
  if (!run) return undefined
  const { drying, posterior } = believed(state, run)
  const known = estimates.get(run) ?? estimateOf(drying, posterior)
  estimates.set(run, known)
  return known
}

/** Estimate, finish window and verdict for the present or last run; undefined before loading. */
export function assess(state: BatchState, now: number): Assessment | undefined {
  const { run } = state
  const estimate = estimateOfRun(state)
  if (!run || !estimate) return undefined
  const waterG = run.loadedG - estimate.solidsG.p50
  const gone = (left: number) => Math.min(1, Math.max(0, 1 - left / waterG))
  return {
    estimate,
    finish: windowOf(run, estimate.hoursToTarget),
    verdict: verdictOf(state, run, estimate, now),
    waterGone: { p10: gone(estimate.waterLeftG.p90), p50: gone(estimate.waterLeftG.p50), p90: gone(estimate.waterLeftG.p10) },
  }
}

function verdictOf(state: BatchState, run: RunState, estimate: DryingEstimate, now: number): DrynessVerdict {
  const { rest, feel } = state
  const started = rest?.startedAt
  return judgeDryness({
    purpose: state.purpose,
    targetMoisture: state.food.target[state.purpose],
    pliableIsDone: state.food.pliable,
    weight: {
      probabilityDry: estimate.probabilityDry,
      moistureNow: estimate.moistureNow,
      constant: isConstantWeight(onHeat(run)),
      weighIns: run.weighings.length,
    },
    feel: feel?.body.check,
    jarAir: jarAirOf(state),
    rest: rest && started !== undefined ? { days: restDays(rest, rest.endedAt ?? now), lastSaw: sightOf(rest) } : undefined,
  })
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

/** Room of a jar whose temperature was not noted. */
const USUAL_ROOM_C = 20

function jarAirOf(state: BatchState): DrynessEvidence['jarAir'] {
  return state.jarAir && { ...readJarAir(state, state.jarAir.body), closedHours: state.jarAir.body.closedHours }
}

/** What a hygrometer in a closed jar says of this batch: corrected humidity, the moisture it means, and where the target lies. */
export function readJarAir(
  state: BatchState,
  { shown, celsius = USUAL_ROOM_C, calibration }: Pick<EntryOf<'jarAir'>['body'], 'shown' | 'celsius' | 'calibration'>,
) {
  const isotherm = isothermOf(state.food)
  const humidity = Math.min(0.98, Math.max(0.01, calibration.offset + calibration.gain * shown))
  return {
    humidity,
    moisture: moistureFromJarAir(isotherm, { mean: humidity, sd: calibration.sd }, celsius),
    sealBelow: activityOfTarget(isotherm, state.food.target[state.purpose], celsius),
  }
}

/** Pieces that only hang at the top are as good as dry. A jar that nobody looked at tells nothing. */
function sightOf(rest: NonNullable<BatchState['rest']>): NonNullable<DrynessEvidence['rest']>['lastSaw'] {
  const seen = rest.jars.filter(jar => !jar.out)
  const worst = worstLook(rest)
  if (worst === undefined || (worst === 'hung' ? false : worst === 'dry' && seen.some(jar => jar.last === undefined))) return 'nothing'
  return worst === 'hung' ? 'dry' : worst
}
