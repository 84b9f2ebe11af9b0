import { foodBook } from '#core/foods'
import { bestOf, judge, play, readLesson, type Lesson, type PlayRule } from '#core/practice'
import { lessons } from '#lessons'
import { reference } from '#reference'
import { tryLoad, usualKnobs, type TryLoad } from '#core/tries'

/** Ways of going about it that people have, whatever the lesson. */
const DRYING: Record<string, PlayRule> = {
  'by the card’s hours': { trusts: 'clock', firstLook: 1 },
  'a warm piece, as it comes': { trusts: 'feel', cooled: false, thick: false, places: 1 },
  'a cooled piece, one place': { trusts: 'feel', cooled: true, thick: false, places: 1 },
  'off at night, by weight': { trusts: 'weight', bedtime: 'off' },
}
/** And where it is dry already. */
const AFTER: Record<string, PlayRule> = { 'never back, at once, any lid': { onBeads: 'shake', coolMin: 0, burstS: 30, lid: 'bag' } }
const KITCHENS = 200

interface Sum {
  cost: number
  spoiled: number
}
function played(lesson: Lesson, food: Parameters<typeof play>[1], rule: PlayRule): Sum {
  const ends = Array.from({ length: KITCHENS }, (_, i) => judge(play(lesson, food, i + 1, rule)))
  return {
    cost: ends.reduce((sum, end) => sum + end.cost, 0) / KITCHENS,
    spoiled: ends.reduce((sum, end) => sum + end.spoiledG / end.wholeG, 0) / KITCHENS,
  }
}

/** Every lesson over 200 kitchens on which nothing was tried: the best that was found, as taught, as warned, and what people do. */
export function benchPractice(row: (name: string, figures: string, aim?: string) => void): void {
  const { find } = foodBook(reference)
  const told = ({ cost, spoiled }: Sum) => `${cost.toFixed(1)} points, ${Math.round(100 * spoiled)} % lost`
  for (const { text } of lessons) {
    const { lesson } = readLesson(text, find)
    const food = find(lesson!.food)!
    const begun = performance.now()
    const best = bestOf(lesson!, food)
    const seconds = (performance.now() - begun) / 1000
    const sums = {
      best: played(lesson!, food, best.rule),
      'as taught': played(lesson!, food, lesson!.taught),
      'as warned': played(lesson!, food, lesson!.habit),
    }
    const habits = Object.entries(lesson!.from === 'load' ? DRYING : AFTER).map(
      ([name, rule]) => [name, played(lesson!, food, rule)] as const,
    )
    const beaten = [...habits, ['as warned', sums['as warned']] as const].filter(([, sum]) => sum.cost > sums.best.cost - 0.05).length
    row(
      `${lesson!.key}, ${KITCHENS} kitchens`,
      `best ${told(sums.best)}`,
      `${beaten} of ${habits.length + 1} habits beaten; ${best.tried} rules, ${seconds.toFixed(0)} s`,
    )
    row('', `taught ${told(sums['as taught'])}`)
    row('', `warned of ${told(sums['as warned'])}`)
    for (const [name, sum] of habits) row(`  ${name}`, told(sum))
  }
}

/** A try as a knob is turned: all of it. */
export function benchTry(row: (name: string, figures: string, aim?: string) => void, ms: (values: number[]) => string): void {
  const { foods } = foodBook(reference)
  const machine = {
    id: 'rack',
    name: 'Rack',
    kind: 'dehydrator' as const,
    trays: 9,
    trayAreaM2: 0.1,
    watts: 600,
    lowC: 35,
    highC: 75,
    slowest: 0.8,
  }
  const times = foods.flatMap(food => {
    if (food.cards[0]!.ways[0]!.way !== 'dehydrator') return []
    const [card] = food.cards
    const at = Date.UTC(2026, 5, 3, 18)
    const load: TryLoad = {
      food,
      log: [
        {
          id: 'in',
          seq: 1,
          at,
          recordedAt: at,
          body: { kind: 'intake', foodKey: food.key, cardKey: card!.key, purpose: 'powder', source: 'Garden', weightG: 3200 },
        },
      ],
      preparedG: 2500,
      machines: [machine],
      startAt: at,
      household: { timeZone: 'UTC', sleepFrom: 22.5 * 60, sleepTo: 6.5 * 60 },
    }
    const knobs = usualKnobs(load, 'rack', card!.key)
    return [knobs, { ...knobs, setC: Math.min(75, knobs.setC + 8) }, { ...knobs, night: 'off' as const }].map(turned => {
      const begun = performance.now()
      tryLoad(load, turned)
      return performance.now() - begun
    })
  })
  row('a try of a load, every food, three knobs', ms(times), 'under 16 ms')
}
