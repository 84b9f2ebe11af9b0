import { InputError } from '../errors'
import { fitLeastSquares } from './leastSquares'

/** A thin-layer model, fitted to the moisture ratio of a finished run. */
export interface StudiedModel {
  name: 'Newton' | 'Page' | 'Logarithmic' | 'Midilli'
  /** In the order of the formula. */
  parameters: Record<string, number>
  /** Residual standard deviation of the moisture ratio. */
  residualSd: number
  /** Akaike's criterion, corrected for few points (Hurvich & Tsai 1989). */
  aicc: number
  /** Share of belief among the models tried. */
  weight: number
}

export interface CurveStudy {
  models: StudiedModel[]
  best: StudiedModel
}

interface Shape {
  name: StudiedModel['name']
  start: number[]
  names: string[]
  at: (p: readonly number[], t: number) => number
}

/** Newton (Lewis 1921), Page (1949), logarithmic (Yağcıoğlu 1999), Midilli (2002). */
const SHAPES: readonly Shape[] = [
  { name: 'Newton', names: ['k'], start: [0], at: ([k], t) => Math.exp(-Math.exp(k!) * t) },
  { name: 'Page', names: ['k', 'n'], start: [0, 0], at: ([k, n], t) => Math.exp(-Math.exp(k!) * Math.pow(t, Math.exp(n!))) },
  { name: 'Logarithmic', names: ['k', 'a', 'c'], start: [0, 1, 0], at: ([k, a, c], t) => a! * Math.exp(-Math.exp(k!) * t) + c! },
  {
    name: 'Midilli',
    names: ['k', 'n', 'a', 'b'],
    start: [0, 0, 1, 0],
    at: ([k, n, a, b], t) => a! * Math.exp(-Math.exp(k!) * Math.pow(t, Math.exp(n!))) + b! * t,
  },
]
const LOGARITHMIC = new Set(['k', 'n'])

/**
 * Which thin-layer model a finished run follows, for study: all four are fitted by least squares and
 * compared by AICc. Page and Newton assume that the ratio starts at 1.
 * @param points hours on the drying clock and moisture ratio (1 at loading), at least 7 after loading
 * @throws InputError with too few points, or where a figure is not finite.
 */
export function studyFinishedRun(points: readonly { hours: number; moistureRatio: number }[]): CurveStudy {
  const used = points.filter(point => point.hours > 0)
  if (used.length < 7) {
    throw new InputError([
      {
        field: 'points',
        code: 'needs-weighings-after-loading',
        message: `needs 7 weighings after loading to tell four models apart; there are ${used.length}`,
      },
    ])
  }
  const bad = points.findIndex(point => !Number.isFinite(point.hours) || !Number.isFinite(point.moistureRatio))
  if (bad >= 0)
    throw new InputError([{ field: `points.${bad}`, code: 'must-have-hours-moisture', message: 'must have hours and a moisture ratio' }])
  const scale = used.at(-1)!.hours / 3
  const fits = SHAPES.map(shape => {
    const fit = fitLeastSquares({
      start: shape.start,
      count: used.length,
      maxIterations: 200,
      // Time in thirds of the run keeps k near 1 whatever the food.
      residuals: (p, out) =>
        used.forEach((point, i) => {
          out[i] = shape.at(p, point.hours / scale) - point.moistureRatio
        }),
    })
    const n = used.length
    const k = shape.start.length + 1
    const parameters = Object.fromEntries(
      shape.names.map((name, i) => [name, LOGARITHMIC.has(name) ? Math.exp(fit.parameters[i]!) : fit.parameters[i]!]),
    )
    const exponent = parameters.n ?? 1
    parameters.k = parameters.k! / Math.pow(scale, exponent)
    if (parameters.b !== undefined) parameters.b /= scale
    return {
      name: shape.name,
      parameters,
      residualSd: Math.sqrt(fit.cost / Math.max(1, n - shape.start.length)),
      aicc: n * Math.log(Math.max(1e-30, fit.cost / n)) + 2 * k + (2 * k * (k + 1)) / (n - k - 1),
      weight: 0,
    }
  })
  const least = Math.min(...fits.map(fit => fit.aicc))
  const total = fits.reduce((sum, fit) => sum + Math.exp(-(fit.aicc - least) / 2), 0)
  const models = fits.map(fit => ({ ...fit, weight: Math.exp(-(fit.aicc - least) / 2) / total })).sort((a, b) => a.aicc - b.aicc)
  return { models, best: models[0]! }
}
