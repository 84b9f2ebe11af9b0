import { dryTray, simulateRun, waterActivityOf } from '#core/simulation'

describe('the diffusion model', () => {
  // Crank, The Mathematics of Diffusion: mean moisture ratio of a slab at Fourier number D·t/L².
  it.each([
    [0.05, 0.747687],
    [0.1, 0.643177],
    [0.2, 0.495912],
    [0.5, 0.23605],
    [1.0, 0.06874],
  ])('agrees with Crank’s series at Fo %d', (fourier, ratio) => {
    const { meanX } = dryTray(
      { startX: 1, diffusionRate: 1, slowing: 0, evaporationRate: 1e5, airHumidity: 0, face: 'linear' },
      [fourier],
      120,
      0.0005,
    )
    expect(meanX[0]!).toBeCloseTo(ratio, 2)
    expect(Math.abs(meanX[0]! - ratio)).toBeLessThan(0.004)
  })

  it('dries at a constant rate at first where the air decides', () => {
    const hours = [0, 1, 2, 3]
    const { meanX } = dryTray({ startX: 8, diffusionRate: 50, slowing: 0, evaporationRate: 1, airHumidity: 0 }, hours)
    const losses = [0, 1, 2].map(i => meanX[i]! - meanX[i + 1]!)
    for (const loss of losses) expect(loss).toBeCloseTo(1, 1)
  })

  it('ends where food and air are in balance', () => {
    const { meanX } = dryTray({ startX: 5, diffusionRate: 2, slowing: 0, evaporationRate: 4, airHumidity: 0.2 }, [200])
    expect(waterActivityOf(meanX[0]!)).toBeCloseTo(0.2, 2)
  })

  it('keeps its solids and never gains weight', () => {
    const run = simulateRun(
      {
        trays: 4,
        startWeightG: 2000,
        solids: 0.12,
        slab: { diffusionRate: 0.5, slowing: 0.1, evaporationRate: 3, airHumidity: 0.1 },
        traySpread: 0.15,
        seed: 3,
      },
      30,
    )
    const weights = Array.from({ length: 30 }, (_, h) => run.weightAt(h))
    expect(weights[0]).toBeCloseTo(2000, 6)
    weights.slice(1).forEach((weight, i) => expect(weight).toBeLessThanOrEqual(weights[i]! + 1e-9))
    expect(weights.at(-1)!).toBeGreaterThan(240)
    expect(run.traysAt(5).reduce((a, b) => a + b)).toBeCloseTo(run.weightAt(5), 9)
    const finish = run.hoursTo(0.06)
    expect(run.weightAt(finish)).toBeCloseTo(240 / 0.94, 1)
    expect(run.hoursTo(0.0001)).toBe(Infinity)
  })
})
