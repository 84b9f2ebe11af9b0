import { InputError } from '#core/errors'
import { dryingClock, estimateDrying, pacePerHour, studyFinishedRun, type DryingRun } from '#core/kinetics'
import { randomSource } from '#core/stats'
import { prepare, weightAt, weightSlopes, weightsAt } from '#core/kinetics/rateCurve'

const RUN: DryingRun = {
  startWeightG: 3000,
  solids: { mean: 0.12, sd: 0.012 },
  targetMoisture: 0.06,
  usualHours: { low: 8, high: 13 },
  weighIns: [
    { hours: 2, weightG: 1900 },
    { hours: 4, weightG: 1150 },
    { hours: 6, weightG: 720 },
  ],
}

describe('estimateDrying', () => {
  it('with no weighing answers the prior: the usual hours are its 10th and 90th percentile', () => {
    const { hoursToTarget, moistureNow, probabilityDry } = estimateDrying({ ...RUN, weighIns: [] })
    expect(hoursToTarget.p10).toBeCloseTo(8, 0)
    expect(hoursToTarget.p90).toBeCloseTo(13, 0)
    expect(moistureNow.p50).toBeCloseTo(0.88, 2)
    expect(probabilityDry).toBe(0)
  })
  it('narrows as weights come in, and its figures agree with each other', () => {
    const widths = [0, 1, 2, 3].map(count => {
      const { hoursToTarget } = estimateDrying({ ...RUN, weighIns: RUN.weighIns.slice(0, count) })
      return hoursToTarget.p90 - hoursToTarget.p10
    })
    expect(widths[3]!).toBeLessThan(0.9 * widths[0]!)
    const estimate = estimateDrying(RUN)
    expect(estimate.targetWeightG.p50).toBeCloseTo(estimate.solidsG.p50 / 0.94, 3)
    expect(estimate.moistureNow.p50).toBeCloseTo(estimate.waterLeftG.p50 / 720, 1)
    expect(estimate.curve[0]!.weightG.p50).toBeCloseTo(3000, 6)
    estimate.curve.slice(1).forEach((point, i) => expect(point.weightG.p50).toBeLessThanOrEqual(estimate.curve[i]!.weightG.p50 + 1e-6))
  })
  it('is the same for the same seed and nearly the same for another', () => {
    expect(estimateDrying(RUN)).toEqual(estimateDrying(RUN))
    const other = estimateDrying({ ...RUN, seed: 99 })
    expect(Math.abs(other.hoursToTarget.p50 / estimateDrying(RUN).hoursToTarget.p50 - 1)).toBeLessThan(0.04)
  })
  it('says Infinity where the equilibrium is above the target', () => {
    const { hoursToTarget, probabilityDry } = estimateDrying({ ...RUN, equilibriumX: { mean: 0.12, sd: 0.01 } })
    expect(hoursToTarget.p50).toBe(Infinity)
    expect(hoursToTarget.p10).toBe(Infinity)
    expect(probabilityDry).toBe(0)
  })
  it('reads a plateau as dry', () => {
    const plateau = [10, 12, 14, 16].map((hours, i) => ({ hours, weightG: 371 - i * 0.4 }))
    const { probabilityDry, solidsG, hoursToTarget } = estimateDrying({
      ...RUN,
      weighIns: [...RUN.weighIns, { hours: 8, weightG: 460 }, ...plateau],
    })
    expect(probabilityDry).toBeGreaterThan(0.8)
    expect(solidsG.p90 - solidsG.p10).toBeLessThan(0.5 * 2 * 1.2816 * 36)
    expect(hoursToTarget.p50).toBeLessThan(16)
  })
  it('questions a wild weight and is little moved by it', () => {
    const weighIns = [1, 2, 3, 4, 5, 6, 7].map(hours => ({ hours, weightG: Math.round(360 + 2640 * Math.exp(-0.35 * hours)) }))
    const clean = estimateDrying({ ...RUN, weighIns })
    const wild = weighIns.map((weighIn, i) => (i === 3 ? { ...weighIn, weightG: weighIn.weightG - 450 } : weighIn))
    const dirty = estimateDrying({ ...RUN, weighIns: wild })
    expect(dirty.flags.find(flag => flag.index === 3)?.kind).toBe('off-curve')
    expect(dirty.flags.find(flag => flag.index === 3)?.message).toMatch(/4\d\d g below the curve: a mistake, or a tray taken out\?/)
    expect(Math.abs(dirty.hoursToTarget.p50 / clean.hoursToTarget.p50 - 1)).toBeLessThan(0.08)
    expect(clean.flags).toEqual([])
  })
  it('flags a weight that rises, one above the start and one below the solids', () => {
    const kinds = (weighIns: DryingRun['weighIns']) => estimateDrying({ ...RUN, weighIns }).flags.map(flag => flag.kind)
    expect(kinds([...RUN.weighIns, { hours: 7, weightG: 770 }])).toContain('rising')
    expect(kinds([{ hours: 1, weightG: 3400 }])).toContain('above-start')
    expect(kinds([{ hours: 5, weightG: 40 }])).toContain('below-solids')
  })
  it('refuses figures without meaning, all of them at once', () => {
    const bad = {
      ...RUN,
      startWeightG: 0,
      targetMoisture: 1.2,
      usualHours: { low: 9, high: 4 },
      weighIns: [
        { hours: 3, weightG: NaN },
        { hours: 1, weightG: 5 },
      ],
    }
    try {
      estimateDrying(bad)
      throw new Error('was taken')
    } catch (error) {
      expect(error).toBeInstanceOf(InputError)
      expect((error as InputError).problems.map(problem => problem.field)).toEqual([
        'startWeightG',
        'targetMoisture',
        'usualHours.high',
        'weighIns.0.weightG',
        'weighIns.1.hours',
      ])
    }
  })
})

describe('the rate curve', () => {
  const frame = { startWeightG: 3000, targetX: 0.064 }
  const hours = [0, 0.5, 2, 5, 8, 12, 30]
  const make = (p: readonly number[]) =>
    prepare({ scaleH: Math.exp(p[0]!), falling: Math.exp(p[1]!), tail: p[2]!, solidsG: Math.exp(p[3]!), equilibriumX: p[4]! }, frame)

  it.each([[[2.2, -0.5, 0.15, 5.9, 0.025]], [[2.2, 0.5, 0, 5.9, 0.06]], [[2, -2, -0.05, 6, 0.01]], [[2.5, 3, 0.4, 5.5, 0.01]]])(
    'has the slopes it says it has at %j',
    p => {
      const weights = new Float64Array(hours.length)
      weightsAt(make(p), hours, weights, 1e-13)
      const columns = p.map(() => new Float64Array(hours.length))
      weightSlopes(make(p), frame, hours, weights, columns)
      p.forEach((value, j) => {
        const ahead = new Float64Array(hours.length)
        const behind = new Float64Array(hours.length)
        const shifted = [...p]
        shifted[j] = value + 1e-5
        weightsAt(make(shifted), hours, ahead, 1e-13)
        shifted[j] = value - 1e-5
        weightsAt(make(shifted), hours, behind, 1e-13)
        hours.forEach((_, i) => expect(Math.abs(columns[j]![i]! - (ahead[i]! - behind[i]!) / 2e-5)).toBeLessThan(0.05))
      })
    },
  )
  it('passes through the start and through the target at T', () => {
    const curve = make([Math.log(9), -0.3, 0.1, Math.log(360), 0.02])
    expect(weightAt(curve, 0)).toBeCloseTo(3000, 6)
    expect(weightAt(curve, 9)).toBeCloseTo(360 * 1.064, 4)
  })
  it('is Newton’s curve for a large c and q = 0', () => {
    const curve = make([Math.log(9), Math.log(1e6), 0, Math.log(360), 0])
    const k = Math.log((3000 / 360 - 1) / 0.064) / 9
    expect(weightAt(curve, 4)).toBeCloseTo(360 + 2640 * Math.exp(-k * 4), 1)
  })
})

describe('the drying clock', () => {
  const H = 3_600_000
  it('runs with the heat on and stops with it off', () => {
    const clock = dryingClock({
      startAt: 0,
      referenceC: 57,
      heats: [
        { at: 0, setC: 57 },
        { at: 5 * H, setC: null },
        { at: 12 * H, setC: 57 },
      ],
    })
    expect(clock.hoursAt(20 * H)).toBeCloseTo(13, 9)
    expect(clock.equivalentHoursAt(8 * H)).toBeCloseTo(5, 9)
    expect(clock.instantAt(6)).toBeCloseTo(13 * H, 3)
    expect(clock.pace).toBeCloseTo(1, 9)
  })
  it('counts hotter hours for more: 62 °C against 57 °C at 30 kJ/mol is 1.18', () => {
    expect(pacePerHour(62, 57)).toBeCloseTo(1.177, 2)
    const clock = dryingClock({
      startAt: 0,
      referenceC: 57,
      heats: [
        { at: 0, setC: 62 },
        { at: 2 * H, setC: 57 },
      ],
    })
    expect(clock.equivalentHoursAt(4 * H)).toBeCloseTo(2 + 2 * pacePerHour(62, 57), 9)
    expect(clock.instantAt(clock.equivalentHoursAt(3.3 * H))).toBeCloseTo(3.3 * H, 2)
  })
  it('has no end while the heat is off, and none after taking out', () => {
    const off = dryingClock({ startAt: 0, referenceC: 57, heats: [] })
    expect(off.instantAt(1)).toBe(Infinity)
    expect(off.pace).toBe(0)
    const out = dryingClock({ startAt: 0, endAt: 3 * H, referenceC: 57, heats: [{ at: -H, setC: 57 }] })
    expect(out.hoursAt(50 * H)).toBeCloseTo(3, 9)
    expect(out.instantAt(4)).toBe(Infinity)
  })
})

describe('the study of a finished run', () => {
  const points = (ratio: (t: number) => number, seed: number) => {
    const source = randomSource(seed)
    return Array.from({ length: 16 }, (_, i) => ({ hours: i + 0.5, moistureRatio: ratio(i + 0.5) + 0.003 * source.normal() }))
  }
  /** How often a model is chosen over twenty noises; a criterion errs now and then. */
  const chosen = (ratio: (t: number) => number, name: string) =>
    Array.from({ length: 20 }, (_, seed) => studyFinishedRun(points(ratio, seed)).best.name).filter(best => best === name).length

  it('finds Page’s curve and its figures', () => {
    const page = (t: number) => Math.exp(-0.2 * t ** 1.25)
    expect(chosen(page, 'Page')).toBeGreaterThanOrEqual(14)
    const { models } = studyFinishedRun(points(page, 3))
    const { parameters } = models.find(model => model.name === 'Page')!
    expect(parameters.k).toBeCloseTo(0.2, 2)
    expect(parameters.n).toBeCloseTo(1.25, 1)
    expect(models.reduce((sum, model) => sum + model.weight, 0)).toBeCloseTo(1, 9)
  })
  it('prefers the simpler Newton, and the logarithmic where a plateau stands', () => {
    expect(chosen(t => Math.exp(-0.3 * t), 'Newton')).toBeGreaterThanOrEqual(13)
    const plateau = studyFinishedRun(points(t => 0.9 * Math.exp(-0.4 * t) + 0.1, 2)).models.find(model => model.name === 'Logarithmic')!
    expect(plateau.parameters.c).toBeCloseTo(0.1, 2)
    expect(chosen(t => 0.9 * Math.exp(-0.4 * t) + 0.1, 'Logarithmic')).toBeGreaterThanOrEqual(14)
  })
  it('asks for enough weighings', () => {
    expect(() => studyFinishedRun([{ hours: 1, moistureRatio: 0.5 }])).toThrow(/needs 7 weighings/)
  })
})
