import type { DryingClock } from '../kinetics'
import type { EntryOf, TrayPlaces, TrayWeight, Weighing } from '../log'
import { MINUTE } from '../time'

interface LoadedRun {
  trays: readonly TrayWeight[]
  traysWeighed: boolean
  loadedG: number
  clock: DryingClock
  places: TrayPlaces
}

/** Tray entries this close together belong to one round. */
const ROUND_MS = 30 * MINUTE

/** Spread of trays' own pace about the load's, as a share of the water lost so far; common practice in side-flow machines. */
const TRAY_SPREAD = 0.12
/** Added spread where the trays' loads were not weighed but taken as even shares. */
const EVEN_SHARE_SPREAD = 0.1

/**
 * Joins the entries on the scale to weighings of the whole load. Trays weighed one by one within half
 * an hour make one round. Trays left out are taken to have kept the same share of their own load as the
 * weighed ones, with a doubt that grows with the water gone.
 * @param entries the run's weigh-ins in force, ascending, told by tray
 */
export function weighingsOf(run: LoadedRun, entries: readonly EntryOf<'weigh'>[]): Weighing[] {
  const weighings: Weighing[] = []
  let round: EntryOf<'weigh'>[] = []
  const close = () => {
    if (round.length > 0) weighings.push(roundOf(run, round))
    round = []
  }
  for (const entry of entries) {
    if (entry.body.totalG !== undefined) {
      close()
      weighings.push(wholeOf(run, entry, entry.body.totalG))
      continue
    }
    const positions = new Set(round.flatMap(item => item.body.trays?.map(tray => tray.position) ?? []))
    const repeats = entry.body.trays?.some(tray => positions.has(tray.position))
    if (round.length > 0 && (entry.at - round[0]!.at > ROUND_MS || repeats)) close()
    round.push(entry)
  }
  close()
  return weighings
}

/** All that is in the machine on the scale at once; raised to the whole load where trays have come out before. */
function wholeOf(run: LoadedRun, entry: EntryOf<'weigh'>, totalG: number): Weighing {
  const present = run.trays.filter(tray => (run.places.outAt.get(tray.position) ?? Infinity) > entry.at)
  const whole = { at: entry.at, hours: run.clock.equivalentHoursAt(entry.at), entryIds: [entry.id] }
  if (present.length === run.trays.length || present.length === 0) return { ...whole, weightG: totalG, positions: [] }
  return { ...whole, positions: present.map(tray => run.places.placeAt(tray.position, entry.at)), ...raised(run, present, totalG) }
}

/**
 * A weight of some trays raised to the whole load: the others are taken to have kept the same share of
 * their own load, with a doubt that grows with the water gone.
 */
function raised(run: LoadedRun, weighed: readonly TrayWeight[], nowG: number): Pick<Weighing, 'weightG' | 'extraSdG'> {
  const loadedG = weighed.reduce((sum, tray) => sum + tray.weightG, 0)
  const unseenG = Math.max(0, run.loadedG - loadedG)
  const spread = Math.hypot(TRAY_SPREAD * Math.max(0, 1 - nowG / loadedG), run.traysWeighed ? 0 : EVEN_SHARE_SPREAD * (nowG / loadedG))
  return {
    weightG: nowG + unseenG * (nowG / loadedG),
    extraSdG: unseenG * spread * Math.sqrt(1 / weighed.length + 1 / Math.max(1, run.trays.length - weighed.length)),
  }
}

function roundOf(run: LoadedRun, round: readonly EntryOf<'weigh'>[]): Weighing {
  const at = round.at(-1)!.at
  const weighed = round.flatMap(entry => entry.body.trays ?? [])
  const nowG = weighed.reduce((sum, tray) => sum + tray.weightG, 0)
  const complete = weighed.length >= run.trays.length
  const loaded = run.trays.filter(tray => weighed.some(item => item.position === tray.position))
  return {
    at,
    hours: run.clock.equivalentHoursAt(at),
    ...(complete ? { weightG: nowG } : raised(run, loaded, nowG)),
    positions: weighed.map(tray => run.places.placeAt(tray.position, at)),
    entryIds: round.map(entry => entry.id),
  }
}
