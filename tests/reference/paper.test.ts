import { Rack, RestingJar, IceTray, rackSettings } from '#core/simulation'
import { shelfFluxWM2, SUBLIMATION_MJ_KG } from '#core/freezing'
import { activityAt, activityCurve, ISOTHERMS, isothermOf, moistureAt } from '#core/sorption'
import { wayOf, targetIn } from '#core/foods'
import { brierScore, calibrationOf, intervalScore, wilson, type Said } from '#core/practice'
import { randomSource } from '#core/stats'
import { FOODS, findFood } from '../support/foods'

const ROOM = { celsius: 20, humidity: 0.55 }

describe('ice that leaves from the top down', () => {
  const settings = { solidsG: 130, startX: 7, areaM2: 0.1, thicknessMm: 10 }

  it('takes the time of the closed form: W((1−s) + b(1−s)²/2)/q, after Plank', () => {
    // Heat through a dried layer that hinders b = 1.5 times as the last of the ice goes; whole time as the cycle of core/freezing has it.
    const tray = new IceTray(settings)
    const iceJ = (settings.solidsG * (7 - 0.24) * SUBLIMATION_MJ_KG * 1e6) / 1000
    const wholeH = iceJ / (shelfFluxWM2(settings.thicknessMm) * settings.areaM2) / 3600
    const until = (ice: number) => (wholeH * (1 - ice + 0.75 * (1 - ice) ** 2)) / 1.75
    for (const ice of [0.75, 0.5, 0.25, 0.05]) {
      tray.advance(until(ice) - tray.hours)
      expect(tray.ice).toBeCloseTo(ice, 6)
    }
    tray.advance(wholeH - tray.hours + 0.01)
    expect(tray.ice).toBe(0)
  })

  it('is the same however time is cut, and never gains', () => {
    const [one, other] = [new IceTray(settings), new IceTray(settings)]
    one.advance(30)
    let before = other.weightG
    for (let i = 0; i < 120; i++) {
      other.advance(0.25)
      expect(other.weightG).toBeLessThanOrEqual(before + 1e-9)
      before = other.weightG
    }
    expect(other.weightG).toBeCloseTo(one.weightG, 6)
  })

  it('is dry at the top while there is ice at the floor', () => {
    const tray = new IceTray(settings)
    tray.advance(12)
    expect(tray.ice).toBeGreaterThan(0)
    expect(tray.faceX).toBeLessThan(0.2)
    expect(tray.coreX).toBeGreaterThan(6)
  })
})

describe('a jar in which thick and thin pieces trade', () => {
  const food = findFood('parsnip')!
  const jarOf = (hours: number) => {
    const settings = rackSettings({ food, way: 'dehydrator', purpose: 'powder', trayWeightsG: [400, 400], thicknessSpread: 0.25, seed: 5 })
    const rack = new Rack(settings)
    rack.advance(hours, { setC: 57, room: ROOM })
    return { rack, jar: new RestingJar(rack.trays, settings.evaporationRate, rack.curveAt(20), 0.3) }
  }

  it('keeps its water to 1e-9 with a lid that lets nothing in', () => {
    const { jar } = jarOf(8)
    const before = jar.waterG
    for (let day = 0; day < 10; day++) {
      jar.advance(24, { pantry: ROOM, gPerDayKPa: 0 })
      expect(Math.abs(jar.waterG + jar.owed - before)).toBeLessThan(1e-9)
    }
    // What is owed from step to step is next to nothing.
    expect(Math.abs(jar.owed)).toBeLessThan(0.05)
  })

  it('takes in what passes the lid, and no more', () => {
    const { jar } = jarOf(14)
    const before = jar.waterG
    jar.advance(30 * 24, { pantry: { celsius: 20, humidity: 0.9 }, gPerDayKPa: 0.05 })
    expect(jar.entered).toBeGreaterThan(0.5)
    expect(Math.abs(jar.waterG + jar.owed - before - jar.entered)).toBeLessThan(1e-8)
  })

  it('comes to the humidity in balance with what all of it holds, the isotherm’s own', () => {
    const { jar } = jarOf(9)
    jar.advance(60 * 24, { pantry: ROOM, gPerDayKPa: 0 })
    expect(jar.humidity).toBeCloseTo(activityAt(isothermOf(food), jar.meanX, 20), 2)
    expect(jar.wettestX / jar.meanX).toBeLessThan(1.05)
  })
})

describe('the isotherm at one warmth for many moistures', () => {
  it.each(Object.keys(ISOTHERMS))('%s: turned round it is itself', key => {
    const isotherm = ISOTHERMS[key as keyof typeof ISOTHERMS]
    for (const celsius of [5, 25, 60]) {
      const curve = activityCurve(isotherm, celsius)
      for (const activity of [0.05, 0.2, 0.4, 0.6, 0.8, 0.9])
        expect(curve(moistureAt(isotherm, activity, celsius))).toBeCloseTo(activity, 4)
    }
  })
})

describe('a load of a card on paper', () => {
  // Whatever food and cut: of the whole of the reference, not of a few.
  const dried = FOODS.flatMap(food =>
    food.cards.flatMap(card => (card.ways[0]!.way === 'dehydrator' && food.target.powder > 0.045 ? [{ food, card }] : [])),
  )

  it('is dry in the middle of its card’s hours, for every food and cut that a dehydrator dries', () => {
    const late = dried.flatMap(({ food, card }) => {
      const { temperatureC } = wayOf(card, 'dehydrator')
      const settings = rackSettings({
        food,
        cardKey: card.key,
        way: 'dehydrator',
        purpose: 'powder',
        trayWeightsG: [300],
        hours: 10,
        thicknessSpread: 0,
        traySpread: 0,
        seed: 1,
      })
      const rack = new Rack(settings)
      rack.advance(10, { setC: temperatureC, room: ROOM })
      const target = targetIn(food, 'powder', 'dehydrator')
      // Where a mild heat cannot reach the target the clock is of the nearest to it.
      return rack.moisture > target * 1.25 || rack.moisture < target * 0.75
        ? [`${food.key} ${card.key}: ${rack.moisture.toFixed(3)} for ${target}`]
        : []
    })
    expect(dried.length).toBeGreaterThan(200)
    expect(late).toEqual([])
  })

  it('goes with the square of the thickness where the inside decides, and in proportion where the face does', () => {
    const food = findFood('beetroot')!
    const hoursTo = (thickness: number) => {
      const rack = new Rack(
        rackSettings({
          food,
          way: 'dehydrator',
          purpose: 'powder',
          trayWeightsG: [300],
          thickness,
          thicknessSpread: 0,
          traySpread: 0,
          seed: 1,
        }),
      )
      while (rack.moisture > 0.06) rack.advance(0.1, { setC: 57, room: ROOM })
      return rack.hours
    }
    const power = Math.log(hoursTo(2) / hoursTo(1)) / Math.log(2)
    expect(power).toBeGreaterThan(1)
    expect(power).toBeLessThan(2.05)
  })

  it('a longer step tells the same', () => {
    const food = findFood('carrot')!
    const make = () => new Rack(rackSettings({ food, way: 'dehydrator', purpose: 'powder', trayWeightsG: [300, 300], seed: 2 }))
    const [one, other] = [make(), make()]
    one.advance(9, { setC: 57, room: ROOM })
    for (let i = 0; i < 900; i++) other.advance(0.01, { setC: 57, room: ROOM })
    expect(Math.abs(one.moisture - other.moisture)).toBeLessThan(0.008)
  })
})

describe('scores of what was said', () => {
  it('Gneiting and Raftery (2007): width, and ten times what is missed by', () => {
    expect(intervalScore({ low: 2, high: 5 }, 3)).toBe(3)
    expect(intervalScore({ low: 2, high: 5 }, 6)).toBeCloseTo(13, 9)
    expect(intervalScore({ low: 2, high: 5 }, 1.5)).toBeCloseTo(8, 9)
  })

  it('is least in the mean for the window that holds eight of ten', () => {
    const source = randomSource(7)
    const draws = Array.from({ length: 20_000 }, () => source.normal())
    const cost = (half: number) => draws.reduce((sum, draw) => sum + intervalScore({ low: -half, high: half }, draw), 0) / draws.length
    const best = [0.6, 0.9, 1.1, 1.2816, 1.5, 1.8, 2.4].map(half => ({ half, cost: cost(half) })).sort((a, b) => a.cost - b.cost)[0]!
    expect(best.half).toBe(1.2816)
  })

  it('Brier (1950): nothing for who knew, a quarter for even', () => {
    expect(brierScore(1, true)).toBe(0)
    expect(brierScore(0.5, false)).toBe(0.25)
    expect(brierScore(1, false)).toBe(1)
  })

  it('Wilson (1927): 8 of 10 at 95 % is 0.49 to 0.94, a textbook’s case; at 8 in 10 narrower', () => {
    const { low, high } = wilson(8, 10)
    expect(low).toBeGreaterThan(0.49)
    expect(high).toBeLessThan(0.94)
    expect(wilson(0, 0)).toEqual({ low: 0, high: 1 })
  })

  const said = (count: number, half: number, seed: number): Said[] => {
    const source = randomSource(seed)
    return Array.from({ length: count }, (_, i) => {
      const truth = 0.3 + 0.05 * source.normal()
      return {
        at: i,
        of: 'x',
        guess: { water: { low: 0.3 - half, high: 0.3 + half }, sure: 0.8 },
        truths: { water: truth, dry: source.uniform() < 0.8 },
      }
    })
  }
  it('tells narrow windows from fair and wide ones', () => {
    expect(calibrationOf(said(80, 0.02, 1)).verdict).toBe('too-sure')
    expect(calibrationOf(said(80, 0.064, 2)).verdict).toBe('fair')
    expect(calibrationOf(said(80, 0.2, 3)).verdict).toBe('too-unsure')
  })
  it('keeps still where too little was said', () => {
    expect(calibrationOf([])).toMatchObject({ count: 0, held: 0, windows: 0, bins: [] })
    expect(calibrationOf(said(5, 0.02, 1)).verdict).toBeUndefined()
  })
  it('sees that somebody gets better', () => {
    const { earlier, later } = calibrationOf([...said(20, 0.3, 1), ...said(20, 0.06, 2).map(item => ({ ...item, at: item.at + 100 }))])
    expect(later).toBeLessThan(earlier!)
  })
})
