import { fill, InputError } from '#core/errors'
import { dryingClock, estimateDrying, pacePerHour, wetPacePerHour, type DryingRun } from '#core/kinetics'
import { BODIES, diffusing, dryness, lnTimeTo } from '#core/kinetics/bodies'

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
    // The first weight may show a load that the card knows nothing of; each further one tells more of which it is.
    expect(widths[2]!).toBeLessThan(widths[1]!)
    expect(widths[3]!).toBeLessThan(0.9 * widths[2]!)
    const estimate = estimateDrying(RUN)
    expect(estimate.targetWeightG.p50).toBeCloseTo(estimate.solidsG.p50 / 0.94, 3)
    expect(estimate.moistureNow.p50).toBeCloseTo(estimate.waterLeftG.p50 / 720, 1)
    expect(estimate.curve[0]!.weightG.p50 / 3000).toBeCloseTo(1, 2)
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
    const { template, quantities } = dirty.flags.find(flag => flag.index === 3)!
    expect(fill(template, quantities)).toMatch(/4\d\d g below the curve: a mistake, or a tray taken out\?/)
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

describe('the bodies', () => {
  const body = (name: string) => BODIES.find(item => item.name === name)!
  // Crank, The Mathematics of Diffusion (1975): mean free moisture of a slab (eq. 4.18), by Fourier number of the half thickness.
  it.each([
    [0.05, 0.747687],
    [0.1, 0.643177],
    [0.2, 0.495912],
    [0.5, 0.23605],
    [1.0, 0.06874],
  ])('a slab at Fo %d keeps %d (Crank)', (fourier, ratio) => expect(diffusing('slab', fourier)).toBeCloseTo(ratio, 5))
  // At long times one term is left: 4/a², 6/π² (Crank 5.23, 6.20).
  it.each([
    ['cylinder', 4 / 2.404825557695773 ** 2, 2.404825557695773 ** 2],
    ['sphere', 6 / Math.PI ** 2, Math.PI ** 2],
  ] as const)('a %s falls by its first term at last (Crank)', (shape, scale, rate) =>
    expect(diffusing(shape, 0.6) / (scale * Math.exp(-rate * 0.6))).toBeCloseTo(1, 3),
  )
  it.each(['slab', 'cylinder', 'sphere'] as const)('a %s goes on smoothly where the short-time form ends', shape =>
    expect(diffusing(shape, 0.0199999)).toBeCloseTo(diffusing(shape, 0.0200001), 2),
  )
  it('pass through y = 2 at their own time 1, only ever dry, and are read the other way round', () => {
    for (const item of BODIES) {
      expect(dryness(item, 0)).toBeCloseTo(2, 2)
      for (const y of [0.01, 0.3, 1, 2, 3, 5]) expect(dryness(item, lnTimeTo(item, y))).toBeCloseTo(y, 6)
      for (let i = 1; i < item.table.length; i++) expect(item.table[i]!).toBeGreaterThanOrEqual(item.table[i - 1]!)
    }
  })
  it('of first order fall by the same share in the same time; at a constant rate by the same weight', () => {
    const newton = body('Page, n 1')
    expect(dryness(newton, Math.log(0.5))).toBeCloseTo(1, 2)
    const steady = body('constant to 0.05')
    const left = (time: number) => Math.exp(-dryness(steady, Math.log(time)))
    expect(left(0.2) - left(0.4)).toBeCloseTo(left(0.4) - left(0.6), 3)
  })
  it('before the table nothing has left', () => expect(dryness(body('slab'), -50)).toBeLessThan(1e-6))
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
  describe('while the face is wet', () => {
    const wet = { hours: 3, pace: (celsius: number) => wetPacePerHour(celsius, 57) }
    const heats = [
      { at: 0, setC: 68 },
      { at: 5 * H, setC: null },
      { at: 8 * H, setC: 50 },
    ]
    const clock = dryingClock({ startAt: 0, referenceC: 57, heats, wet })
    it('counts an hour at 68 °C as some 1.28, not as the 1.42 of diffusion', () => {
      expect(wetPacePerHour(68, 57)).toBeCloseTo(1.28, 1)
      expect(pacePerHour(68, 57)).toBeCloseTo(1.42, 2)
      expect(clock.equivalentHoursAt(H)).toBeCloseTo(wetPacePerHour(68, 57), 9)
    })
    it('counts by diffusion from then on, through spells without heat', () => {
      const wetEnds = 3 / wetPacePerHour(68, 57)
      expect(clock.equivalentHoursAt(wetEnds * H)).toBeCloseTo(3, 9)
      const byFive = 3 + (5 - wetEnds) * pacePerHour(68, 57)
      expect(clock.equivalentHoursAt(7 * H)).toBeCloseTo(byFive, 9)
      expect(clock.equivalentHoursAt(9 * H)).toBeCloseTo(byFive + pacePerHour(50, 57), 9)
      expect(clock.hoursAt(9 * H)).toBeCloseTo(6, 9)
      expect(clock.pace).toBe(pacePerHour(50, 57))
    })
    it('turns its own hours round', () => {
      for (const hours of [0.5, 2, 3.2, 4.9, 8.5, 12]) {
        expect(clock.instantAt(clock.equivalentHoursAt(hours * H)) / H).toBeCloseTo(hours, 6)
      }
    })
    it('goes on across a change of heat that comes before the face is dry', () => {
      const early = dryingClock({
        startAt: 0,
        referenceC: 57,
        heats: [
          { at: 0, setC: 68 },
          { at: H, setC: 57 },
        ],
        wet,
      })
      expect(early.equivalentHoursAt(4 * H)).toBeCloseTo(wetPacePerHour(68, 57) + 3, 9)
    })
    it('leaves the card’s own heat an hour an hour, and damp air tells more than dry', () => {
      expect(wetPacePerHour(57, 57)).toBe(1)
      expect(wetPacePerHour(45, 57, { celsius: 28, humidity: 0.9 })).toBeLessThan(wetPacePerHour(45, 57, { celsius: 10, humidity: 0.4 }))
    })
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
