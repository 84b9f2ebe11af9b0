import { InputError, problem, type Problem } from '../errors'
import { middleHeat } from './heat'
import type { Ingredient } from './types'

/** What is wanted of one share of a blend. */
export interface Wish {
  ingredient: Ingredient
  /** Share of the weight that the recipe has, 0–1. */
  share: number
  /** Kept as the recipe has it: only the others give way. */
  fixed?: boolean
  /** Whole measures only, g each: a spoon that exists. Without it any weight. */
  stepG?: number
}

export interface BlendQuestion {
  wishes: readonly Wish[]
  totalG: number
  /** Scoville units of the whole by the middles of the ranges; a band where it is to be met with spoons. */
  heat?: { low: number; high: number }
  /** Salt at most, share of the weight. */
  saltMost?: number
}

export interface BlendAnswer {
  grams: number[]
  totalG: number
  heat: number
  /** Root of the mean square by which shares differ from the recipe's, in shares of the whole. */
  off: number
}

/** The part of a solver that is used: a model in the CPLEX LP format in, its columns out. */
export interface Solver {
  solve: (model: string) => { Status: string; Columns: Record<string, object> }
}

/** With spoons the whole may be off by so much of itself. */
const SPOON_TOLERANCE = 0.06

/**
 * Weights that come nearest to a recipe while the heat, the salt and what the shelf holds are kept. On a scale
 * it is a bounded least-squares problem over the shares; with spoons the measures are whole numbers and the sum
 * of differences is least. Both are given to a published solver.
 * @throws InputError for shares that do not fit, and where nothing meets what is wanted, saying what stands in the way
 */
export function solveBlend(question: BlendQuestion, solver: Solver): BlendAnswer {
  check(question)
  const { wishes, totalG } = question
  const whole = wishes.reduce((sum, wish) => sum + wish.share, 0)
  const wanted = wishes.map(wish => (wish.share / whole) * totalG)
  const bySpoon = wishes.some(wish => wish.stepG !== undefined)
  const result = solver.solve(bySpoon ? spoonModel(question, wanted) : scaleModel(question, wanted))
  if (result.Status !== 'Optimal') throw new InputError([whatStands(question, wanted)])
  const grams = wishes.map((wish, i) => {
    const value = (result.Columns[`x${i}`] as { Primal?: number | null } | undefined)?.Primal ?? 0
    return Math.max(0, wish.stepG === undefined ? value : Math.round(value) * wish.stepG)
  })
  const sum = grams.reduce((a, b) => a + b, 0)
  return {
    grams,
    totalG: sum,
    heat: heatOf(wishes, grams),
    off: Math.sqrt(grams.reduce((total, value, i) => total + (value / sum - wanted[i]! / totalG) ** 2, 0) / grams.length),
  }
}

const units = ({ ingredient }: Wish) => (ingredient.heat ? middleHeat(ingredient.heat) : 0)

function heatOf(wishes: readonly Wish[], grams: readonly number[]): number {
  const total = grams.reduce((a, b) => a + b, 0)
  return total > 0 ? wishes.reduce((sum, wish, i) => sum + units(wish) * grams[i]!, 0) / total : 0
}

function check({ wishes, totalG, heat, saltMost }: BlendQuestion): void {
  const problems: Problem[] = []
  if (wishes.length === 0) problems.push({ field: 'parts', code: 'nothing-chosen', message: 'Choose what goes in.' })
  if (!(totalG > 0)) problems.push({ field: 'totalG', code: 'amount-missing', message: 'Say how much is wanted: above zero.' })
  wishes.forEach(({ share, stepG }, i) => {
    if (!(share > 0)) problems.push({ field: `parts.${i}.share`, code: 'not-above-zero', message: 'must be above zero' })
    if (stepG !== undefined && !(stepG > 0))
      problems.push({ field: `parts.${i}.stepG`, code: 'not-above-zero', message: 'must be above zero' })
  })
  if (heat && !(heat.low >= 0 && heat.high >= heat.low))
    problems.push({ field: 'heat', code: 'not-a-band', message: 'Give heat as a band, the lower first.' })
  if (saltMost !== undefined && !(saltMost >= 0 && saltMost <= 1))
    problems.push({ field: 'saltMost', code: 'not-a-fraction', message: 'must be a share from 0 to 1' })
  if (problems.length > 0) throw new InputError(problems)
}

/** A number as the format has it. */
const n = (value: number) => Number(value.toPrecision(12)).toString()
/** "+ 3 x0 - 2 x1" of coefficients that are not nothing. */
const terms = (parts: readonly (readonly [number, string])[]) =>
  parts
    .filter(([value]) => Math.abs(value) > 1e-12)
    .map(([value, name]) => `${value < 0 ? '-' : '+'} ${n(Math.abs(value))} ${name}`)
    .join(' ') || '0 x0'

/** Rows that hold whatever the measure: heat and salt, per gram of each against the whole. */
function limits({ wishes, heat, saltMost }: BlendQuestion, gramsOf: (i: number) => number): string[] {
  const row = (of: (wish: Wish) => number) => terms(wishes.map((wish, i) => [of(wish) * gramsOf(i), `x${i}`] as const))
  // Units in thousands, so that the solver sees numbers of like size.
  return [
    ...(heat
      ? [
          ` cool: ${row(wish => (units(wish) - heat.low) / 1000)} >= -0.000001`,
          ` hot: ${row(wish => (units(wish) - heat.high) / 1000)} <= 0.000001`,
        ]
      : []),
    ...(saltMost === undefined ? [] : [` salt: ${row(({ ingredient }) => ingredient.saltShare - saltMost)} <= 0`]),
  ]
}

function scaleModel(question: BlendQuestion, wanted: readonly number[]): string {
  const { wishes, totalG } = question
  // (x − w)² of each, as linear and quadratic terms; the constant does not matter. Weighed up, so that the solver's own smoothing is nothing beside it.
  const weight = 1000 / totalG
  return [
    'Minimize',
    ` obj: ${terms(wanted.map((grams, i) => [-2 * weight * grams, `x${i}`] as const))} + [ ${wishes.map((_, i) => `${n(2 * weight)} x${i} ^2`).join(' + ')} ] / 2`,
    'Subject To',
    ` whole: ${terms(wishes.map((_, i) => [1, `x${i}`] as const))} = ${n(totalG)}`,
    ...limits(question, () => 1),
    'Bounds',
    ...wishes.map((wish, i) => (wish.fixed ? ` x${i} = ${n(wanted[i]!)}` : ` 0 <= x${i} <= ${n(wish.ingredient.leftG)}`)),
    'End',
  ].join('\n')
}

function spoonModel(question: BlendQuestion, wanted: readonly number[]): string {
  const { wishes, totalG } = question
  const step = (i: number) => wishes[i]!.stepG ?? 1
  const grams = (i: number) => terms([[step(i), `x${i}`]])
  return [
    'Minimize',
    ` obj: ${wishes.map((_, i) => `o${i} + u${i}`).join(' + ')}`,
    'Subject To',
    ...wishes.map((_, i) => ` d${i}: ${grams(i)} - o${i} + u${i} = ${n(wanted[i]!)}`),
    ` most: ${terms(wishes.map((_, i) => [step(i), `x${i}`] as const))} <= ${n(totalG * (1 + SPOON_TOLERANCE))}`,
    ` least: ${terms(wishes.map((_, i) => [step(i), `x${i}`] as const))} >= ${n(totalG * (1 - SPOON_TOLERANCE))}`,
    ...limits(question, step),
    'Bounds',
    ...wishes.map((wish, i) => {
      const most = Math.floor(wish.ingredient.leftG / step(i) + 1e-9)
      const nearest = Math.max(1, Math.round(wanted[i]! / step(i)))
      return wish.fixed ? ` x${i} = ${Math.min(most, nearest)}` : ` 0 <= x${i} <= ${most}`
    }),
    'General',
    ` ${wishes.map((_, i) => `x${i}`).join(' ')}`,
    'End',
  ].join('\n')
}

/** Why nothing fits, in the order in which a cook would look. */
function whatStands(question: BlendQuestion, wanted: readonly number[]): Problem {
  const { wishes, totalG, heat, saltMost } = question
  const there = wishes.reduce((sum, wish) => sum + wish.ingredient.leftG, 0)
  if (there < totalG)
    return problem('totalG', 'more-than-there-is', 'Only {thereG} of all of it is on the shelf: make less.', { thereG: there })
  const short = wishes.findIndex((wish, i) => wish.fixed && wish.ingredient.leftG < wanted[i]! - 1e-6)
  if (short >= 0)
    return problem(
      `parts.${short}`,
      'more-than-there-is',
      'Only {thereG} of {name} is there, and it is held fast: let it give way, or make less.',
      { thereG: wishes[short]!.ingredient.leftG, name: wishes[short]!.ingredient.name },
    )
  const hottest = Math.max(...wishes.map(units))
  if (heat && hottest < heat.low)
    return {
      field: 'heat',
      code: 'not-hot-enough',
      message: `Nothing in it is that hot: at most ${Math.round(hottest).toLocaleString('en-GB')}. Add a hotter chili, or want less.`,
    }
  if (heat && Math.min(...wishes.map(units)) > heat.high)
    return { field: 'heat', code: 'not-mild-enough', message: 'Everything in it is hotter than that: add something mild.' }
  if (heat)
    return {
      field: 'heat',
      code: 'heat-not-reached',
      message:
        'What is free to give way does not bring this heat, with what is on the shelf: let more give way, widen the band, or make less.',
    }
  if (saltMost !== undefined) return { field: 'saltMost', code: 'too-salty', message: 'It cannot be that little salt with what goes in.' }
  return { field: 'totalG', code: 'nothing-fits', message: 'Nothing fits: make another amount, or let more give way.' }
}
