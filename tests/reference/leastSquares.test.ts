import { fitLeastSquares } from '#core/kinetics'

/**
 * NIST StRD nonlinear regression sets (data and certified values from memory of the published files):
 * parameters to nine digits, standard deviations and residual sums from the certified tables.
 */
interface Set {
  name: string
  x: number[]
  y: number[]
  model: (b: readonly number[], x: number) => number
  starts: number[][]
  certified: number[]
  sd: number[]
  rss: number
}

const SETS: Set[] = [
  {
    name: 'Misra1a',
    y: [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78],
    x: [77.6, 114.9, 141.1, 190.8, 239.9, 289.0, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0],
    model: (b, x) => b[0]! * (1 - Math.exp(-b[1]! * x)),
    starts: [
      [500, 0.0001],
      [250, 0.0005],
    ],
    certified: [238.94212918, 5.5015643181e-4],
    sd: [2.7070075241, 7.2668688436e-6],
    rss: 0.12455138894,
  },
  {
    name: 'BoxBOD',
    y: [109, 149, 149, 191, 213, 224],
    x: [1, 2, 3, 5, 7, 10],
    model: (b, x) => b[0]! * (1 - Math.exp(-b[1]! * x)),
    starts: [[100, 0.75]],
    certified: [213.80940889, 0.54723748542],
    sd: [12.354515176, 0.10455993237],
    rss: 1168.0088766,
  },
  {
    name: 'DanWood',
    y: [2.138, 3.421, 3.597, 4.34, 4.882, 5.66],
    x: [1.309, 1.471, 1.49, 1.565, 1.611, 1.68],
    model: (b, x) => b[0]! * Math.pow(x, b[1]!),
    starts: [
      [1, 5],
      [0.7, 4],
    ],
    certified: [0.76886226176, 3.8604055871],
    sd: [0.01828197386, 0.051726610913],
    rss: 4.3173084083e-3,
  },
]

describe('the optimiser against NIST StRD', () => {
  it.each(SETS.flatMap(set => set.starts.map(start => [set.name, start, set] as const)))('%s from %j', (_, start, set) => {
    const fit = fitLeastSquares({
      start,
      count: set.x.length,
      maxIterations: 500,
      tolerance: 1e-15,
      residuals: (b, out) =>
        set.x.forEach((x, i) => {
          out[i] = set.model(b, x) - set.y[i]!
        }),
    })
    set.certified.forEach((value, i) => expect(Math.abs(fit.parameters[i]! / value - 1)).toBeLessThan(1e-6))
    expect(Math.abs(fit.cost / set.rss - 1)).toBeLessThan(1e-7)
    const residualVariance = fit.cost / (set.x.length - set.certified.length)
    set.sd.forEach((value, i) => expect(Math.abs(Math.sqrt(fit.covariance![i]![i]! * residualVariance) / value - 1)).toBeLessThan(1e-4))
  })

  it('refuses a start at which nothing can be computed', () => {
    expect(() =>
      fitLeastSquares({
        start: [-1],
        count: 1,
        residuals: (p, out) => {
          out[0] = Math.log(p[0]!)
        },
      }),
    ).toThrow(RangeError)
  })

  it('keeps within bounds and lets a wild point pull little under the robust loss', () => {
    const x = [0, 1, 2, 3, 4, 5, 6, 7]
    const y = x.map(value => 2 + 3 * value)
    y[4] = 90
    const problem = (robust: number) =>
      fitLeastSquares({
        start: [0, 0],
        count: x.length,
        robust,
        residuals: (p, out) =>
          x.forEach((value, i) => {
            out[i] = p[0]! + p[1]! * value - y[i]!
          }),
      })
    expect(Math.abs(problem(8).parameters[1]! - 3)).toBeLessThan(0.1)
    expect(Math.abs(problem(0).parameters[0]! - 2)).toBeGreaterThan(3)
    const bounded = fitLeastSquares({
      start: [0],
      count: 1,
      upper: [1],
      residuals: (p, out) => {
        out[0] = p[0]! - 5
      },
    })
    expect(bounded.parameters[0]).toBe(1)
  })
})
