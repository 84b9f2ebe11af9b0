import { Kitchen, judge, NotNow, play, readLesson, type Act, type Lesson } from '#core/practice'
import { findFood } from '../../support/foods'
import { LESSON_FILES, LESSONS } from '../../support/lessons'

const lesson = (key: string) => LESSONS.find(item => item.key === key)!
const foodOf = (of: Lesson) => findFood(of.food)!
const KITCHENS = Array.from({ length: 12 }, (_, i) => i + 1)
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length

describe('the lessons that ship', () => {
  it('are twelve and more, each with a key of its own', () => {
    expect(LESSONS.length).toBeGreaterThanOrEqual(12)
    expect(new Set(LESSONS.map(item => item.key)).size).toBe(LESSONS.length)
  })

  it.each(LESSONS.map(item => [item.key, item] as const))('%s: who does as it teaches does better than who does not', (_, of) => {
    const cost = (rule: Lesson['taught']) => mean(KITCHENS.map(seed => judge(play(of, foodOf(of), seed, rule)).cost))
    expect(cost(of.taught)).toBeLessThan(cost(of.habit) - 1)
  })

  it.each(LESSONS.map(item => [item.key, item] as const))('%s: another kitchen is another, the same the same', (_, of) => {
    const ends = [1, 1, 2].map(seed => judge(play(of, foodOf(of), seed, of.taught)))
    expect(ends[1]).toEqual(ends[0])
    expect(ends[2]!.moisture).not.toBe(ends[0]!.moisture)
  })
})

describe('a kitchen on paper', () => {
  const of = lesson('night-off')
  const kitchenOf = (key: string, seed = 3, record = false) => new Kitchen(lesson(key), foodOf(lesson(key)), seed, record)

  it('is the same evening again when the same is done in it', () => {
    const acts: Act[] = [
      { do: 'wait', hours: 3 },
      { do: 'weigh' },
      { do: 'feel', trays: [1, 3], thick: true, cooled: true },
      { do: 'heat', setC: null },
      { do: 'wait', hours: 9 },
      { do: 'weigh', tray: 2 },
    ]
    const [one, other] = [kitchenOf('night-off'), kitchenOf('night-off')]
    expect(acts.map(act => one.do(act))).toEqual(acts.map(act => other.do(act)))
    expect(one.moisture).toBe(other.moisture)
  })

  it('answers by the pieces themselves: thick ones from a slow tray feel wetter than any from a quick one', () => {
    const kitchen = kitchenOf('thick-at-the-edge')
    kitchen.do({ do: 'wait', hours: 13 })
    const quick = kitchen.do({ do: 'feel', trays: [1], thick: false, cooled: true })
    const slow = kitchen.do({ do: 'feel', trays: [5], thick: true, cooled: true })
    expect(quick.of === 'feel' && quick.check.answers.bend).toMatch(/snaps|cracks/)
    expect(slow.of === 'feel' && slow.check.answers).toMatchObject({ middle: expect.stringMatching(/damp|darker/) })
  })

  it('feels warm food softer than it is', () => {
    const bends = (cooled: boolean) => {
      const kitchen = kitchenOf('bedtime')
      kitchen.do({ do: 'wait', hours: 24 })
      const felt = kitchen.do({ do: 'feel', trays: [1], thick: false, cooled })
      return felt.of === 'feel' ? felt.check.answers.bend : undefined
    }
    expect(bends(true)).toBe('snaps')
    expect(bends(false)).not.toBe('snaps')
  })

  it('charges a look by the door, and a look at night by the sleep', () => {
    const kitchen = kitchenOf('night-off')
    kitchen.do({ do: 'weigh' })
    expect(kitchen.tally).toMatchObject({ looks: 1, woken: 0 })
    expect(kitchen.tally.doorMin).toBeCloseTo(2, 6)
    kitchen.do({ do: 'wait', hours: 6 })
    kitchen.do({ do: 'weigh' })
    expect(kitchen.tally.woken).toBe(1)
  })

  it('takes water back in a night that it is off, skin first', () => {
    const kitchen = kitchenOf('night-off', 5, true)
    kitchen.do({ do: 'wait', hours: 3.5 })
    kitchen.do({ do: 'wait', hours: 8 })
    kitchen.do({ do: 'heat', setC: null })
    const before = kitchen.weightG
    kitchen.do({ do: 'wait', hours: 14 })
    expect(kitchen.weightG).toBeGreaterThan(before)
    const [thin] = kitchen.frames.at(-1)!.pieces[0]!
    expect(thin!.at(-1)).toBeGreaterThan(thin![0]!)
  })

  it('has beads in the jar when wet middles give to dry rims, and none when all is dry', () => {
    const sights = (rule: { extra: number }) => {
      const kitchen = kitchenOf('night-off', 4)
      kitchen.do({ do: 'wait', hours: 5 + rule.extra })
      kitchen.do({ do: 'takeOut' })
      const jar = new Kitchen({ ...of, deeds: [...of.deeds, 'rest', 'look'] }, foodOf(of), 4)
      for (const { act } of kitchen.acts) jar.do(act)
      jar.do({ do: 'rest' })
      jar.do({ do: 'wait', hours: 48 })
      const look = jar.do({ do: 'look' })
      return look.of === 'look' ? look.saw : undefined
    }
    expect(sights({ extra: 0 })).toBe('moisture')
    expect(['dry', 'hung']).toContain(sights({ extra: 15 }))
  })

  it('shows the hygrometer as it is off, near what the jar holds', () => {
    const shown = (hygrometer: string) => {
      const off = readLesson(LESSON_FILES[0]!.text.replace('hygrometer: -6 to 6', `hygrometer: ${hygrometer}`), findFood).lesson!
      const kitchen = new Kitchen(off, foodOf(off), 2)
      kitchen.do({ do: 'wait', hours: 12 })
      const read = kitchen.do({ do: 'jarAir', hours: 6 })
      return read.of === 'jarAir' ? read.shown : NaN
    }
    expect(shown('8') - shown('-8')).toBeCloseTo(0.16, 1)
  })

  it('sticks to the cup when it is warm, and is dust when it is cool', () => {
    const stuck = (hours: number, burstS: number) => {
      const kitchen = kitchenOf('powder-too-warm')
      if (hours > 0) kitchen.do({ do: 'wait', hours })
      const ground = kitchen.do({ do: 'grind', burstS })
      return ground.of === 'ground' ? ground.stuckG : NaN
    }
    expect(stuck(0, 60)).toBeGreaterThan(5 * stuck(1, 4))
  })

  it('lets damp in past a cheap lid, until the powder cakes', () => {
    const seen = (lid: 'screw-jar' | 'plastic-lid' | 'bag') => {
      const read = kitchenOf('cheap-lid').do({ do: 'pack', lid, gel: false })
      return read.of === 'jar' ? read.saw : undefined
    }
    expect(seen('screw-jar')).toBe('loose')
    expect(seen('plastic-lid')).not.toBe('loose')
    expect(seen('bag')).toBe('clumps')
  })

  it('has ice where the display saw none', () => {
    const sees = KITCHENS.map(seed => {
      const kitchen = kitchenOf('machine-says-done', seed)
      while (!kitchen.saidDone) kitchen.do({ do: 'wait', hours: 1 })
      const felt = kitchen.do({ do: 'feel', trays: [1], thick: true, cooled: false })
      return felt.of === 'feel' && felt.check.answers.touch
    })
    expect(sees).toContain('cold')
  })

  it('moulds a whole pod that stays wet at a mild warmth, not a halved one', () => {
    const mould = (cut: string) => {
      const kitchen = kitchenOf('whole-or-halved', 7)
      kitchen.do({ do: 'cut', key: cut })
      kitchen.do({ do: 'wait', hours: 62 })
      return kitchen.mould
    }
    expect(mould('whole')).toBeGreaterThan(3 * mould('halved'))
  })

  it.each<[string, Act, RegExp]>([
    ['a heat that the machine has not', { do: 'heat', setC: 400 }, /35 to 70/],
    ['a tray that is not there', { do: 'weigh', tray: 9 }, /Tray 9/],
    ['time that goes back', { do: 'wait', hours: -2 }, /on only/],
    ['hours that are none', { do: 'wait', hours: NaN }, /on only/],
    ['a jar before it is out', { do: 'look' }, /lesson does without|in the machine/],
    ['a deed of another lesson', { do: 'turn' }, /does without/],
    ['pieces from nowhere', { do: 'feel', trays: [], thick: true, cooled: true }, /from a tray/],
  ])('refuses %s in words, and nothing is done', (_, act, words) => {
    const kitchen = kitchenOf('night-off')
    const before = kitchen.weightG
    expect(() => kitchen.do(act)).toThrow(NotNow)
    expect(() => kitchen.do(act)).toThrow(words)
    expect(kitchen.weightG).toBe(before)
    expect(kitchen.acts).toEqual([])
  })

  it('has its basket and an empty machine before the cut', () => {
    const kitchen = kitchenOf('whole-or-halved')
    expect(kitchen.weightG).toBe(1000 * kitchen.lesson.load.kg)
    expect(kitchen.moisture).toBe(kitchen.truth.water)
    expect(kitchen.present).toEqual([])
    expect(() => kitchen.do({ do: 'weigh' })).toThrow('Choose the cut first.')
  })

  it('keeps out the fire that rain put out while the door stood open', () => {
    const kitchen = kitchenOf('smoke-and-rain')
    kitchen.do({ do: 'wait', hours: kitchen.truth.rain + 0.001 })
    expect([kitchen.rained, kitchen.setC]).toEqual([false, 80])
    kitchen.do({ do: 'weigh' })
    expect([kitchen.rained, kitchen.setC]).toEqual([true, null])
  })

  it('meets the edge of a night in the midst of a long wait', () => {
    const kitchen = kitchenOf('night-off')
    kitchen.do({ do: 'wait', hours: 0.3 })
    kitchen.do({ do: 'wait', hours: 3.2 })
    expect([kitchen.clock, kitchen.asleep]).toEqual([expect.closeTo(22.5, 9), true])
    const one = kitchenOf('night-off')
    one.do({ do: 'wait', hours: 12 })
    const bits = kitchenOf('night-off')
    for (const hours of [0.1, 3, 0.55, 6.35, 2]) bits.do({ do: 'wait', hours })
    expect(bits.moisture).toBeCloseTo(one.moisture, 3)
  })

  it('stays in its jar when it cannot go back at that heat', () => {
    const kitchen = kitchenOf('beads-on-day-two')
    kitchen.do({ do: 'rest' })
    kitchen.do({ do: 'wait', hours: 24 })
    expect(() => kitchen.do({ do: 'back', setC: 400 })).toThrow(/goes from/)
    expect([kitchen.stage, kitchen.present]).toEqual(['jar', []])
    kitchen.do({ do: 'back', setC: 50 })
    expect([kitchen.stage, kitchen.present.length]).toEqual(['machine', kitchen.trayCount])
  })

  it('is over when it is over', () => {
    const kitchen = kitchenOf('night-off')
    kitchen.do({ do: 'stop' })
    expect(() => kitchen.do({ do: 'weigh' })).toThrow('It is over.')
  })
})

describe('a lesson’s file', () => {
  const text = LESSON_FILES[0]!.text
  const problemsOf = (changed: string) => readLesson(changed, findFood).problems ?? []

  it.each<[string, (text: string) => string, string, RegExp, number | undefined]>([
    ['a negative thickness', t => t.replace('spread: 0.1 to 0.22', 'thickness: -1 to 2'), 'varies.thickness', /from 0.3 to 3/, 23],
    ['400 °C', t => t.replace('heatC: 57', 'heatC: 400'), 'heatC', /at most 120/, undefined],
    ['a heat beyond its machine', t => t.replace('heatC: 57', 'heatC: 90'), 'heatC', /35 to 70/, undefined],
    ['a food that nobody knows', t => t.replace('food: parsnip', 'food: moonroot'), 'food', /moonroot/, undefined],
    ['a cut that it has not', t => t.replace('card: slices-3', 'card: slices-99'), 'card', /it has slices-3/, undefined],
    ['a word for a figure', t => t.replace('kg: 1.5', 'kg: much'), 'load.kg', /give a number/, undefined],
    ['a slip in a name', t => t.replace('purpose:', 'porpoise:'), 'porpoise', /slip of the pen/, undefined],
    ['a time of day that is none', t => t.replace("start: '19:00'", "start: '25:00'"), 'start', /19:30/, undefined],
    ['turned figures', t => t.replace('hours: 0.85 to 1.25', 'hours: 1.25 to 0.85'), 'varies.hours', /lower figure comes first/, undefined],
    ['nothing left to do', t => t.replace(/deeds: .*/, 'deeds: [weigh]'), 'deeds', /add stop/, undefined],
    ['a line that is not YAML', t => t.replace('teaches: ', 'teaches: "'), 'lesson', /./, undefined],
    [
      'an anchor',
      t => t.replace('key: night-off', 'key: &a night-off').replace('food: parsnip', 'food: *a'),
      'lesson',
      /anchors/,
      undefined,
    ],
    ['code', t => t.replace('key: night-off', 'key: !!js/function "function(){}"'), 'key', /./, undefined],
    ['air that nobody heats', t => t.replace('way: dehydrator', 'way: sun'), 'machine.way', /sun and room air have none/, undefined],
    [
      'a rest after a freeze dryer',
      t => t.replace('way: dehydrator', 'way: freeze-dryer').replace('takeOut, stop', 'takeOut, rest, stop'),
      'deeds',
      /packed at once/,
      undefined,
    ],
    [
      'a freeze dryer to move into',
      t => t.replace('load:', 'second: { name: Cellar, way: freeze-dryer, areaM2: 0.09, watts: 900, lowC: 20, highC: 60 }\nload:'),
      'second.way',
      /Nothing moves into a freeze dryer/,
      undefined,
    ],
    ['far too much', () => 'x'.repeat(50_000), 'lesson', /longer than a lesson/, undefined],
  ])('with %s is refused by field and line', (_, change, field, message, line) => {
    const changed = change(text)
    expect(changed).not.toBe(text)
    const found = problemsOf(changed).find(problem => problem.field === field)
    expect(found).toBeDefined()
    expect(found!.message).toMatch(message)
    if (line !== undefined) expect(found!.line).toBe(line)
    else if (field !== 'lesson') expect(found!.line).toBeGreaterThan(0)
  })

  it('says the line that the field stands in', () => {
    const lines = text.split('\n')
    const [found] = problemsOf(text.replace('heatC: 57', 'heatC: hot'))
    expect(lines[found!.line! - 1]).toContain('heatC')
  })
})
