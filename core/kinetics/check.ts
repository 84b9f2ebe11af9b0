import { gather, InputError } from '../errors'
import type { DryingRun } from './types'

/**
 * Refuses a run whose figures have no meaning, all problems at once and before any arithmetic.
 * Odd but possible figures (a weight that rises, one that is far off) are not refused but flagged later.
 * @throws InputError
 */
export function checkRun(run: DryingRun): void {
  const { problems, say } = gather()
  const need = (good: boolean, field: string, message: string) => {
    if (!good) say(field, 'out-of-range', message)
  }
  const positive = (value: number) => Number.isFinite(value) && value > 0
  need(positive(run.startWeightG), 'startWeightG', 'must be a weight above 0 g')
  need(run.solids.mean > 0 && run.solids.mean < 1, 'solids.mean', 'must be a fraction between 0 and 1')
  need(run.solids.sd >= 0 && run.solids.sd < 1, 'solids.sd', 'must be a fraction from 0 to below 1')
  need(run.targetMoisture > 0 && run.targetMoisture < 1, 'targetMoisture', 'must be a fraction between 0 and 1')
  need(positive(run.usualHours.low), 'usualHours.low', 'must be above 0 hours')
  need(
    Number.isFinite(run.usualHours.high) && run.usualHours.high >= run.usualHours.low,
    'usualHours.high',
    'must not be below the low figure',
  )
  if (run.equilibriumX) {
    need(run.equilibriumX.mean >= 0 && run.equilibriumX.mean < 5, 'equilibriumX.mean', 'must be from 0 to 5 g/g')
    need(run.equilibriumX.sd >= 0 && Number.isFinite(run.equilibriumX.sd), 'equilibriumX.sd', 'must not be negative')
  }
  if (run.scale) need(positive(run.scale.resolutionG), 'scale.resolutionG', 'must be above 0 g')
  run.weighIns.forEach((weighIn, i) => {
    need(Number.isFinite(weighIn.hours) && weighIn.hours >= 0, `weighIns.${i}.hours`, 'must not be before loading')
    need(positive(weighIn.weightG), `weighIns.${i}.weightG`, 'must be a weight above 0 g')
    if (i > 0 && !weighIn.afterOff) {
      need(weighIn.hours >= run.weighIns[i - 1]!.hours, `weighIns.${i}.hours`, 'must not be before the one above: sort by time')
    }
  })
  if (problems.length > 0) throw new InputError(problems)
}
