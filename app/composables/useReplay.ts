import { assess, foldBatch, type Assessment } from '#core/batch'
import { targetOfRun } from '#core/water'
import { curveIn, valueAt } from '#core/kinetics'
import { inForce, kindOf, type BatchState, type Entry } from '#core/log'
import { HOUR } from '#core/time'
import type { BatchAnswer } from '#shared/contracts'

/** A finished run of the logbook, gone through again: what was known at each instant, and what is known of it now. */
export interface Replay {
  from: number
  to: number
  /** Instants at which something was done or seen, with what it was. */
  events: Entry[]
  target: number
  /** Water of the load at an instant, by all that was ever logged; hours from then until it was dry. */
  truthAt: (at: number) => { water: number; dryIn?: number; dry: boolean }
  /** The state and what could be believed at an instant, by what was logged until then. */
  thenAt: (at: number) => { state: BatchState; assessment: Assessment } | undefined
}

/** @returns undefined for a batch that has not been dried, or never weighed */
export function replayOf(page: BatchAnswer): Replay | undefined {
  const log = inForce(page.entries)
  const find = () => page.food
  const whole = foldBatch(log, find)
  const run = whole?.run
  if (!whole || run?.unloadedAt === undefined || run.weighings.length === 0) return undefined
  const atEnd = assess(
    foldBatch(
      log.filter(entry => entry.at <= run.unloadedAt!),
      find,
    )!,
    run.unloadedAt,
  )
  if (!atEnd) return undefined
  const target = targetOfRun(whole, run)
  const { points } = curveIn('moisture', atEnd.estimate)
  const solidsG = atEnd.estimate.solidsG.p50
  const dryAt = run.clock.instantAt(atEnd.estimate.hoursToTarget.p50)
  return {
    from: run.loadedAt,
    to: run.unloadedAt,
    events: log.filter(entry => entry.at > run.loadedAt && entry.at <= run.unloadedAt! && kindOf(entry.body.kind).replayed),
    target,
    truthAt: at => {
      const weight = run.weighings.find(item => Math.abs(item.at - at) < HOUR / 20)?.weightG
      const water = weight === undefined ? valueAt(points, run.clock.equivalentHoursAt(at)).p50 : Math.max(0, 1 - solidsG / weight)
      return { water, dry: water <= target, ...(Number.isFinite(dryAt) && { dryIn: Math.max(0, (dryAt - at) / HOUR) }) }
    },
    thenAt: at => {
      const state = foldBatch(
        log.filter(entry => entry.at <= at),
        find,
      )
      const assessment = state && assess(state, at)
      return state && assessment && { state, assessment }
    },
  }
}
