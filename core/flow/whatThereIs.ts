import { loadedOn, piecesTakenG, SCALE_SHARE, type BatchState, type HoldPlace, type RunState } from '../log'
import { dangerZoneOf } from '../batch'
import { expectedWeight } from '../kinetics'
import { intervalFromNormal, mapInterval, type Interval } from '../stats'
import { estimateOfRun, waterOf, type Water } from '../water'

/** What food is at a time: whole as it came, worked on, on trays, or dry in one of its forms. */
export type LotForm = 'whole' | 'prepared' | 'drying' | 'pieces' | 'flakes' | 'powder'

/** Some of a batch's food that is there, in one form and in one place. */
export interface OpenLot {
  form: LotForm
  /** On trays, in jars at rest, where it was said to wait, or wherever its last step left it. */
  place: 'machine' | 'rest' | HoldPlace | 'unsaid'
  machineId?: string
  /** Where its trays stand. */
  trays?: number[]
  /** In this form since. */
  since: number
  /** By when it is to go on, where a clock runs. */
  until?: number
  weightG: Interval
  solidsG: Interval
  moisture: Interval
}

/**
 * All food of a batch that is there now: neither packed, nor gone, nor a batch of its own.
 * @param state folded from what was logged until then
 * @returns none once it is finished: what is left then counts as used or lost
 */
export function whatThereIs(state: BatchState, at: number): OpenLot[] {
  if (state.finished) return []
  const { run, beganDry } = state
  if (!run && !beganDry) return [beforeTrays(state, at)]
  return [...(run ? onTrays(state, run, at) : []), ...dryLots(state, at)]
}

function beforeTrays(state: BatchState, at: number): OpenLot {
  const { balance, prep, intake, hold } = state
  const clock = dangerZoneOf(state, at)
  return {
    form: prep.length > 0 || intake.body.prepared ? 'prepared' : 'whole',
    place: hold?.place ?? 'unsaid',
    since: prep.at(-1)?.at ?? intake.at,
    until: hold?.until ?? clock?.until,
    weightG: balance.weightG,
    solidsG: balance.solidsG,
    moisture: balance.moisture,
  }
}

/** What stands in the machine, and trays that came out of it while others stay. */
function onTrays(state: BatchState, run: RunState, at: number): OpenLot[] {
  if (run.unloadedAt !== undefined) return []
  const estimate = estimateOfRun(state, at)!
  const lotOf = (trays: readonly number[], when: number) => {
    const share = loadedOn(run, trays) / run.loadedG
    const whole = expectedWeight(estimate, run.clock.equivalentHoursAt(when))
    return {
      weightG: mapInterval(whole, grams => grams * share),
      solidsG: mapInterval(estimate.solidsG, grams => grams * share),
      moisture: waterOf(state, when).moisture,
    }
  }
  const out = run.positions.filter(tray => !run.present.includes(tray))
  const outAt = Math.min(at, Math.max(...out.map(tray => run.places.outAt.get(tray)!)))
  return [
    {
      ...lotOf(run.present, at),
      form: 'drying',
      place: 'machine',
      machineId: run.machineId,
      trays: run.present.map(tray => run.places.placeAt(tray, at)),
      since: run.loadedAt,
      until: dangerZoneOf(state, at)?.until,
    },
    ...(out.length > 0 ? [{ ...lotOf(out, outAt), form: 'pieces' as const, place: 'unsaid' as const, since: outAt }] : []),
  ]
}

/** Grams of so much solids at so much water: each end by the doubt that is larger. */
export function heldBy({ moisture }: Pick<Water, 'moisture'>, solidsG: Interval): Pick<OpenLot, 'weightG' | 'solidsG' | 'moisture'> {
  const weight = (solids: number, water: number) => solids / Math.max(0.001, 1 - water)
  const middle = weight(solidsG.p50, moisture.p50)
  const low = middle - Math.hypot(middle - weight(solidsG.p10, moisture.p50), middle - weight(solidsG.p50, moisture.p10))
  const high = middle + Math.hypot(weight(solidsG.p90, moisture.p50) - middle, weight(solidsG.p50, moisture.p90) - middle)
  return { solidsG, moisture, weightG: { p10: Math.max(0, low), p50: middle, p90: high } }
}

const FORMS = ['pieces', 'flakes', 'powder'] as const
/** Dry food below this is dust on the table, g. */
const DUST_G = 0.5

function dryLots(state: BatchState, at: number): OpenLot[] {
  const { run, rest, hold, left, grinds, intake } = state
  if (run && run.unloadedAt === undefined) return []
  const water = waterOf(state, at)
  const resting = rest?.startedAt !== undefined && rest.endedAt === undefined
  return FORMS.flatMap((form): OpenLot[] => {
    const weightG =
      form === 'pieces' ? (left.pieces === undefined ? unweighedPieces(state, water) : weighed(left.pieces)) : weighed(left[form] ?? 0)
    if (!(weightG.p50 > DUST_G)) return []
    return [
      {
        form,
        place: hold?.place ?? (resting && form === 'pieces' ? 'rest' : 'unsaid'),
        since: (form === 'pieces' ? (rest?.endedAt ?? rest?.startedAt) : grinds.at(-1)?.at) ?? run?.unloadedAt ?? intake.at,
        until: hold?.until,
        weightG,
        moisture: water.moisture,
        solidsG: mapInterval(weightG, grams => grams * (1 - water.moisture.p50)),
      },
    ]
  })
}

/** On a kitchen scale, with what it may be out by. */
const weighed = (grams: number): Interval => intervalFromNormal(grams, Math.max(0.5, 0.5 * SCALE_SHARE * grams))

/** Jars that were thrown away at rest, g: the weight at its end is without them. */
export const thrownAtRest = ({ rest }: Pick<BatchState, 'rest'>) => rest?.jars.reduce((sum, jar) => sum + (jar.out?.weightG ?? 0), 0) ?? 0

/** Dry pieces that nobody weighed, by the solids that went on the trays, less what was taken of them since. */
function unweighedPieces(state: BatchState, water: Water): Interval {
  const { weightG } = heldBy(water, estimateOfRun(state)!.solidsG)
  return mapInterval(weightG, grams => Math.max(0, grams - piecesTakenG(state) - thrownAtRest(state)))
}
