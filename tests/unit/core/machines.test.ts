import { evennessOf, swapsWorthMaking, tareOf, thermostatOffset, upkeepOf, type PlacePace } from '#core/machines'
import { WAYS, listItem, WAY_KEYS } from '#core/ways'
import { randomSource } from '#core/stats'

describe('kinds of machine', () => {
  it.each(WAY_KEYS)('%s has a list for the start and the end, with keys of their own', kind => {
    for (const list of ['start', 'end'] as const) {
      const keys = WAYS[kind][list].map(item => item.key)
      expect(keys.length).toBeGreaterThan(1)
      expect(new Set(keys).size).toBe(keys.length)
    }
    expect(WAYS[kind].upkeep.every(task => task.everyHours > 0)).toBe(true)
  })
  it('a freeze dryer is chilled, drained and latched first, and vented before it is opened (common practice)', () => {
    expect(WAYS['freeze-dryer'].start.map(item => item.words).join(' ')).toMatch(/chilled.*drain valve shut.*latched/i)
    expect(WAYS['freeze-dryer'].end.map(item => item.words).join(' ')).toMatch(/vented.*weighed.*packed.*defrosted.*drained/i)
    expect(listItem('freeze-dryer', 'start', 'drain')!.words).toBe('Drain valve shut')
    expect(listItem('oven', 'start', 'drain')).toBeUndefined()
  })
})

describe('upkeep', () => {
  it('counts hours run since it was last done, and is due when they are up', () => {
    const done = [
      { task: 'filter', at: 1, hoursRun: 90 },
      { task: 'filter', at: 5, hoursRun: 130 },
    ]
    const filter = (hours: number) => upkeepOf('dehydrator', hours, done).find(task => task.key === 'filter')!
    expect(filter(180)).toMatchObject({ sinceHours: 50, due: false, doneAt: 5 })
    expect(filter(230)).toMatchObject({ sinceHours: 100, due: true })
    expect(upkeepOf('dehydrator', 260, []).find(task => task.key === 'fan')).toMatchObject({
      sinceHours: 260,
      due: true,
      doneAt: undefined,
    })
  })
})

describe('evenness by place', () => {
  /** Trays of many runs in places of known pace. */
  const seen = (paces: readonly number[], runs: number, seed = 3): PlacePace[] => {
    const source = randomSource(seed)
    return Array.from({ length: runs }, () =>
      paces.map((pace, i) => ({ place: i + 1, lnPace: Math.log(pace) + 0.1 * source.normal(), sd: 0.06 })),
    ).flat()
  }
  const TRUE = [0.85, 0.92, 1, 1.08, 1.15]
  it('comes near the truth with twenty runs, and holds it in its range', () => {
    const places = evennessOf(seen(TRUE, 20))
    places.forEach(({ pace, low, high }, i) => {
      expect(Math.abs(pace - TRUE[i]!)).toBeLessThan(0.05)
      expect(low).toBeLessThan(pace)
      expect(high).toBeGreaterThan(pace)
    })
    // Of the five ranges of 8 in 10, at most two miss.
    expect(places.filter(({ low, high }, i) => TRUE[i]! >= low && TRUE[i]! <= high).length).toBeGreaterThanOrEqual(3)
  })
  it('claims little from one run', () => {
    const [top] = evennessOf([{ place: 1, lnPace: Math.log(0.7), sd: 0.06 }])
    expect(top!.pace).toBeGreaterThan(0.8)
    expect(top!.pace).toBeLessThan(1)
    expect(evennessOf([])).toEqual([])
  })
  it('pairs the slowest place with the fastest, and only where they clearly differ', () => {
    const places = evennessOf(seen(TRUE, 20))
    expect(swapsWorthMaking(places, [1, 2, 3, 4, 5])).toEqual([
      { from: 1, to: 5 },
      { from: 2, to: 4 },
    ])
    expect(swapsWorthMaking(places, [2, 3])).toEqual([])
    expect(swapsWorthMaking(evennessOf(seen([1, 1, 1, 1], 20)), [1, 2, 3, 4])).toEqual([])
    expect(swapsWorthMaking(evennessOf(seen([0.9, 1.1], 1)), [1, 2])).toEqual([])
  })
})

describe('a thermostat', () => {
  it('is taken as true until it was measured, and followed as measurements come', () => {
    expect(thermostatOffset([])).toBeUndefined()
    const after = (count: number) => thermostatOffset(Array.from({ length: count }, () => ({ setC: 57, measuredC: 50 })))!
    expect(after(1).offC).toBeLessThan(-3)
    expect(after(1).offC).toBeGreaterThan(-7)
    expect(after(20).offC).toBeCloseTo(-7, 0)
    expect(after(20).sd).toBeLessThan(after(1).sd)
  })
})

describe('tare', () => {
  it('is each tray’s own where it is known', () => {
    const machine = { trayTareG: 300, trayTares: { 3: 412 } }
    expect(tareOf(machine, [1, 2])).toBe(600)
    expect(tareOf(machine, [3])).toBe(412)
    expect(tareOf(machine, [1, 3, 5])).toBe(1012)
  })
})
