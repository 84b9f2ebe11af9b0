import { estimateDrying, type WeighIn } from '#core/kinetics'
import { randomSource } from '#core/stats'
import { makeTestRuns, type TestRun } from '../../tests/support/dryingRuns'

/** What the estimator saves against common practice, on simulated runs: looks, and hours dried too long. */
export interface Merit {
  /** Weighings after which the middle figure stays within an hour of the true finish, median. */
  weighingsToBeRight: number
  /** Share of runs whose window ever was an hour to each side before they were dry. */
  windowsOfAnHour: number
  looks: number
  looksByHabit: number
  overHours: number
  overHoursByHabit: number
  runs: number
}

const MOST_LOOKS = 40
const middleOf = ({ usualHours: { low, high } }: TestRun['known']) => Math.sqrt(low * high)

/** From two thirds of the usual time on a look every hour, until it is dry (common practice). */
function byHabit(run: TestRun): { looks: number; over: number } {
  let at = (middleOf(run.known) * 2) / 3
  let looks = 1
  for (; at < run.trueFinishH && looks < MOST_LOOKS; at++) looks++
  return { looks, over: at - run.trueFinishH }
}

/** As the agenda asks: a weight at two thirds, then when more than half of the rest has gone, near the end from the window's start on. */
function byDulse(run: TestRun): { looks: number; over: number; rightAfter: number; narrow: boolean } {
  const source = randomSource(run.seed)
  const weighIns: WeighIn[] = []
  let at = (middleOf(run.known) * 2) / 3
  let rightAfter = 1
  let narrow = false
  for (let looks = 1; ; looks++) {
    weighIns.push({ hours: at, weightG: Math.max(1, Math.round(run.trueWeightAt(at) * (1 + 0.005 * source.normal()))) })
    const { p10, p50, p90 } = estimateDrying({ ...run.known, seed: run.seed, weighIns }).hoursToTarget
    if (Math.abs(p50 - run.trueFinishH) > 1) rightAfter = looks + 1
    if ((p90 - p10) / 2 <= 1) narrow = true
    if (at >= run.trueFinishH || looks >= MOST_LOOKS) return { looks, over: at - run.trueFinishH, rightAfter, narrow }
    const near = p10 - at < 1.5
    at = near ? Math.max(at + 1, Math.min(p10, at + 6)) : Math.max(at + 1, at + 0.6 * (p50 - at))
  }
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!
const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length

/** Runs of 5 to 30 hours, as machines at home have them. */
export function measureMerit(): Merit {
  const runs = [81, 82]
    .flatMap(seed => makeTestRuns(6, seed))
    .map((run): TestRun => {
      // The simulated kinds have clocks of their own: each is brought to twelve hours in the middle.
      const stretch = 12 / middleOf(run.known)
      return {
        ...run,
        trueFinishH: run.trueFinishH * stretch,
        trueWeightAt: hours => run.trueWeightAt(hours / stretch),
        known: { ...run.known, usualHours: { low: run.known.usualHours.low * stretch, high: run.known.usualHours.high * stretch } },
      }
    })
  const ours = runs.map(byDulse)
  const habit = runs.map(byHabit)
  return {
    weighingsToBeRight: median(ours.map(item => item.rightAfter)),
    windowsOfAnHour: mean(ours.map(item => Number(item.narrow))),
    looks: mean(ours.map(item => item.looks)),
    looksByHabit: mean(habit.map(item => item.looks)),
    overHours: mean(ours.map(item => item.over)),
    overHoursByHabit: mean(habit.map(item => item.over)),
    runs: runs.length,
  }
}
