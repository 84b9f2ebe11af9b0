import { BODIES } from './bodies'
import { evidenceOf, posteriorOf, type Curve, type Posterior } from './posterior'
import type { DryingRun } from './types'

/** By how much a loading may have been logged late, as shares of the usual hours, and what is believed of that before any weight (common practice: now and then). */
const LATE = [0.1, 0.2, 0.4] as const
const SHARE = 0.06
/** A quick look tells whether it is worth a closer one: ln of the evidence for a fifth late over that for none. */
const WORTH_A_LOOK = 2
/** Every so many bodies are asked at the quick look. */
const FEW = 7
/** And so many weights. */
const EARLY = 6
/** Reckoned with from this belief on. */
const LEAST = 0.3

const later = (run: DryingRun, hours: number): DryingRun => ({
  ...run,
  weighIns: run.weighIns.map(weighIn => ({ ...weighIn, hours: weighIn.hours + hours })),
  spells: run.spells?.map(spell => ({ ...spell, hours: spell.hours + hours })),
})

/** A curve on a clock that began so many hours later. */
const byLoggedHours = (curve: Curve, late: number): Curve => ({
  ...curve,
  late,
  // A hair before, so that the last weight is never ahead of itself by rounding.
  lastH: Math.max(0, curve.lastH - late) * (1 - 1e-12),
  shifts: curve.shifts.map(shift => ({ ...shift, hours: shift.hours - late })),
})

/**
 * A load that was logged some hours after it went in has lost more than any body can by then. Where the weights say so, curves of
 * the hours that were missed stand beside the others by their evidence.
 */
export function withLateStart(run: DryingRun, posterior: Posterior): Posterior {
  if (run.weighIns.length < 2) return posterior
  const usualH = Math.sqrt(run.usualHours.low * run.usualHours.high)
  const bodies = BODIES.filter((_, i) => i % FEW === 0)
  // The first weights tell of the start.
  const early = { ...run, weighIns: run.weighIns.slice(0, EARLY), spells: run.spells?.filter(spell => spell.before < EARLY) }
  if (evidenceOf(later(early, LATE[1] * usualH), bodies) - evidenceOf(early, bodies) < WORTH_A_LOOK) return posterior
  const found = LATE.map(share => ({ hours: share * usualH, posterior: posteriorOf(later(run, share * usualH)) }))
  const top = Math.max(posterior.evidence, ...found.map(item => item.posterior.evidence))
  const onTime = (1 - SHARE) * Math.exp(posterior.evidence - top)
  const weights = found.map(item => (SHARE / LATE.length) * Math.exp(item.posterior.evidence - top))
  const total = weights.reduce((sum, weight) => sum + weight, onTime)
  const belief = 1 - onTime / total
  if (!(belief > LEAST)) return posterior
  const likeliest = found[weights.indexOf(Math.max(...weights))]!
  // The draws go round by belief: each hypothesis gives the curves at its own places of the list.
  const shares = [onTime, ...weights].map(weight => weight / total)
  let sum = 0
  const ends = shares.map(share => (sum += share))
  const count = posterior.curves.length
  const curves = posterior.curves.map((curve, i) => {
    const place = ((i * 0.6180339887498949) % 1) * ends.at(-1)!
    const which = ends.findIndex(end => place <= end)
    return which <= 0 ? curve : byLoggedHours(found[which - 1]!.posterior.curves[i % count]!, found[which - 1]!.hours)
  })
  const told = belief > 0.5 ? likeliest.posterior : posterior
  return {
    ...posterior,
    curves,
    predictedG: told.predictedG,
    sdG: told.sdG,
    wild: told.wild,
    lateStart: { hours: likeliest.hours, belief },
  }
}
