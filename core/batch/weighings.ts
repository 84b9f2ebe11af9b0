import type { DryingClock } from '../kinetics'
import type { EntryOf, TrayWeight } from './types'

/** One state of the whole load, from one or several entries on the scale. */
export interface Weighing {
  /** Instant of the last entry in it. */
  at: number
  /** Equivalent hours on the drying clock. */
  hours: number
  /** The whole load, g; extrapolated where only some trays were weighed. */
  weightG: number
  /** Doubt from trays that were not weighed. */
  extraSdG?: number
  /** Positions weighed; empty for the whole load in one. */
  positions: number[]
  entryIds: string[]
}

interface LoadedRun { trays: readonly TrayWeight[], traysWeighed: boolean, loadedG: number, clock: DryingClock }

/** Tray entries this close together belong to one round. */
const ROUND_MS = 30 * 60_000

/** Spread of trays' own pace about the load's, as a share of the water lost so far; common practice in side-flow machines. */
const TRAY_SPREAD = 0.12
/** Added spread where the trays' loads were not weighed but taken as even shares. */
const EVEN_SHARE_SPREAD = 0.1

/**
 * Joins the entries on the scale to weighings of the whole load. Trays weighed one by one within half
 * an hour make one round. Trays left out are taken to have kept the same share of their own load as the
 * weighed ones, with a doubt that grows with the water gone.
 * @param entries the run's weigh-ins in force, ascending
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
      weighings.push({ at: entry.at, hours: run.clock.equivalentHoursAt(entry.at), weightG: entry.body.totalG, positions: [], entryIds: [entry.id] })
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

function roundOf(run: LoadedRun, round: readonly EntryOf<'weigh'>[]): Weighing {
  const at = round.at(-1)!.at
  const weighed = round.flatMap(entry => entry.body.trays ?? [])
  const loadOf = new Map(run.trays.map(tray => [tray.position, tray.weightG]))
  const loadedG = weighed.reduce((sum, tray) => sum + (loadOf.get(tray.position) ?? 0), 0)
  const nowG = weighed.reduce((sum, tray) => sum + tray.weightG, 0)
  const complete = weighed.length >= run.trays.length
  const weightG = complete ? nowG : nowG + (run.loadedG - loadedG) * (nowG / loadedG)
  const unseenG = Math.max(0, run.loadedG - loadedG)
  const goneShare = Math.max(0, 1 - nowG / loadedG)
  const spread = Math.hypot(TRAY_SPREAD * goneShare, run.traysWeighed ? 0 : EVEN_SHARE_SPREAD * (nowG / loadedG))
  return {
    at,
    hours: run.clock.equivalentHoursAt(at),
    weightG,
    extraSdG: complete ? undefined : unseenG * spread * Math.sqrt(1 / weighed.length + 1 / Math.max(1, run.trays.length - weighed.length)),
    positions: weighed.map(tray => tray.position),
    entryIds: round.map(entry => entry.id),
  }
}
