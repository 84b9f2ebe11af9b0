import { judgeFeel } from '../dryness'
import { purposeFactor, type Food } from '../foods'
import { activityOfTarget, isothermOf } from '../sorption'
import type { PackageKey } from '../keeping'
import { isAsleep, Kitchen } from './kitchen'
import type { Lesson, PlayRule } from './lesson'

const { max, min, sqrt } = Math

/** What a player does where its rules say nothing: the careful school. */
const CAREFUL = {
  words: '',
  cut: '',
  trusts: 'weight',
  firstLook: 0.66,
  every: 1.5,
  margin: 1,
  cooled: true,
  thick: true,
  places: 3,
  extraH: 0,
  bedtime: 'leave',
  hotterC: 0,
  hotH: 0,
  swapAt: 0,
  turnAt: 0,
  moveH: 0,
  restDays: 7,
  onBeads: 'back',
  coolMin: 45,
  burstS: 8,
  lid: 'screw-jar',
  gel: false,
  waterShare: 1,
} as const satisfies Required<PlayRule>

const HALF = 0.5
const HOLD_C = 40
const HOTTER_C = 12
/** Nobody stands by a rack for longer than so many times the card's hours. */
const MOST = 5
/** A weight that stands still counts where the food's own spread of water could explain what is over; far above it is air that takes no more. */
const NEAR_SDS = 2
/** Loss in two hours that a scale and a hand do not see. */
const CONSTANT = { hours: 2, share: 0.004 }
const JAR_AIR_H = 4
const BACK_H = 4
const MOST_TIMES_BACK = 3

/**
 * A player who goes by rules: it plays a lesson to its end, knowing what it weighed, felt and looked at and the lesson's own words, and
 * nothing of the truth. What a rule leaves out is done as the careful do it.
 */
export function play(lesson: Lesson, food: Food, seed: number, rules: PlayRule, record = false): Kitchen {
  const rule = { ...CAREFUL, ...rules } as Required<PlayRule>
  const kitchen = new Kitchen(lesson, food, seed, record)
  if (kitchen.stage === 'cut')
    kitchen.do({ do: 'cut', key: lesson.cuts!.some(cut => cut.key === rule.cut) ? rule.cut : lesson.cuts![0]!.key })
  if (kitchen.stage === 'machine') dry(kitchen, rule)
  finish(kitchen, rule)
  if (kitchen.stage !== 'ended') kitchen.do({ do: 'stop' })
  return kitchen
}

const may = (kitchen: Kitchen, deed: Parameters<Kitchen['cannot']>[0]) => kitchen.cannot(deed) === undefined

function dry(kitchen: Kitchen, rule: Required<PlayRule>): void {
  const { lesson, food } = kitchen
  const { low, high } = kitchen.usualHours
  const usual = sqrt(low * high) * purposeFactor(food, lesson.purpose, lesson.machine.way)
  const start = kitchen.hours
  const { lowC, highC } = kitchen.machine
  const cardC = min(highC, max(lowC, kitchen.setC! + (may(kitchen, 'heat') ? rule.hotterC : 0)))
  if (cardC !== kitchen.setC) kitchen.do({ do: 'heat', setC: cardC })
  const eyes = new Eyes(kitchen, rule)
  let warmH = 0
  let nextLook = rule.firstLook * usual
  let dryAt: number | undefined
  const hot = rule.hotH > 0 && may(kitchen, 'heat')
  if (hot) kitchen.do({ do: 'heat', setC: min(lesson.machine.highC, cardC + HOTTER_C) })
  let done = { hot: !hot, swap: rule.swapAt === 0 || !may(kitchen, 'swap'), turn: rule.turnAt === 0 || !may(kitchen, 'turn') }
  while (kitchen.hours - start < MOST * usual + 24) {
    const elapsed = kitchen.hours - start
    if (
      kitchen.second === false &&
      may(kitchen, 'move') &&
      ((rule.moveH > 0 && elapsed >= rule.moveH) || (kitchen.rained && rule.moveH > 0))
    ) {
      kitchen.do({ do: 'move' })
      nextLook = max(nextLook, warmH + 0.4 * usual)
    }
    if (!done.hot && elapsed >= rule.hotH) {
      const now = kitchen.machine
      if (kitchen.setC !== null) kitchen.do({ do: 'heat', setC: min(now.highC, max(now.lowC, cardC)) })
      done = { ...done, hot: true }
    }
    if (!done.swap && warmH >= rule.swapAt * usual) {
      for (let i = 1; i <= Math.floor(kitchen.trayCount / 2); i++) kitchen.do({ do: 'swap', one: i, other: kitchen.trayCount + 1 - i })
      done = { ...done, swap: true }
    }
    if (!done.turn && warmH >= rule.turnAt * usual) {
      kitchen.do({ do: 'turn' })
      done = { ...done, turn: true }
    }
    if (dryAt !== undefined && warmH >= dryAt) return
    if (dryAt === undefined && warmH >= nextLook) {
      if (eyes.sayDry(warmH, usual)) {
        dryAt = warmH + rule.extraH
        if (rule.extraH === 0) return
      } else nextLook = warmH + rule.every
    }
    if (goesToBed(kitchen)) {
      if (rule.bedtime === 'out' && may(kitchen, 'takeOut')) return
      warmH += night(kitchen, rule)
      continue
    }
    const step = min(HALF, max(0.05, nextLook > warmH ? nextLook - warmH : HALF))
    kitchen.do({ do: 'wait', hours: step })
    if (kitchen.setC !== null) warmH += step
  }
}

const goesToBed = (kitchen: Kitchen) => !kitchen.asleep && isAsleep(kitchen.lesson, (kitchen.clock + HALF) % 24)

/** To bed, and up again: what was done to the heat is undone in the morning. Gives the hours of heat. */
function night(kitchen: Kitchen, rule: Required<PlayRule>): number {
  const before = kitchen.setC
  const change = rule.bedtime !== 'leave' && may(kitchen, 'heat') && before !== null
  const { lowC, highC } = kitchen.machine
  if (change) kitchen.do({ do: 'heat', setC: rule.bedtime === 'warm' ? min(highC, max(lowC, HOLD_C)) : null })
  let hours = 0
  let warm = 0
  do {
    kitchen.do({ do: 'wait', hours: HALF })
    hours += HALF
    if (kitchen.setC !== null) warm += HALF
  } while ((kitchen.asleep || isAsleep(kitchen.lesson, (kitchen.clock + HALF) % 24)) && hours < 16)
  if (change && may(kitchen, 'heat') && (!kitchen.rained || kitchen.second)) kitchen.do({ do: 'heat', setC: before })
  return change && rule.bedtime === 'off' ? 0 : change && rule.bedtime === 'warm' ? 0.4 * hours : warm
}

/** What the player looks at, and what it believes of it. */
class Eyes {
  private last?: { warmH: number; grams: number }
  constructor(
    private readonly kitchen: Kitchen,
    private readonly rule: Required<PlayRule>,
  ) {}

  sayDry(warmH: number, usual: number): boolean {
    const { kitchen, rule } = this
    const { food, lesson } = kitchen
    switch (rule.trusts) {
      case 'clock':
        return warmH >= rule.firstLook * usual
      case 'machine':
        return kitchen.saidDone
      case 'weight':
        return this.waterByWeight(warmH) <= kitchen.target * rule.margin
      case 'constant': {
        const grams = this.weigh()
        const before = this.last
        if (!before || warmH - before.warmH >= CONSTANT.hours) this.last = { warmH, grams }
        return before !== undefined && warmH - before.warmH >= CONSTANT.hours && before.grams - grams <= CONSTANT.share * grams
      }
      case 'feel': {
        const trays = kitchen.present
        const from = rule.places === 1 ? [trays[0]!] : [trays[0]!, trays[Math.floor(trays.length / 2)]!, trays.at(-1)!]
        const felt = kitchen.do({ do: 'feel', trays: [...new Set(from)], thick: rule.thick, cooled: rule.cooled })
        return felt.of === 'feel' && judgeFeel(felt.check, lesson.purpose, food.pliable).vote === 'dry'
      }
      case 'jarAir': {
        // Four hours of a closed jar are worth it only near the end.
        if (this.waterByWeight(warmH) > 1.6 * kitchen.target) return false
        const read = kitchen.do({ do: 'jarAir', hours: JAR_AIR_H })
        return read.of === 'jarAir' && read.shown <= activityOfTarget(isothermOf(food), kitchen.target * rule.margin)
      }
    }
  }

  private weigh(): number {
    const read = this.kitchen.do({ do: 'weigh' })
    return read.of === 'weight' ? read.grams : Infinity
  }
  /** By the weight as loaded and the food's usual water: what anybody can reckon. Near there a weight that stands still is as good. */
  private waterByWeight(warmH: number): number {
    const { food, loadedG, target, card } = this.kitchen
    const solidsG = loadedG * (1 - (card.moisture ?? food.rawMoisture).value.mean)
    const grams = this.weigh()
    const water = max(0, 1 - solidsG / grams)
    const before = this.last
    if (!before || warmH - before.warmH >= CONSTANT.hours) this.last = { warmH, grams }
    const near = target + NEAR_SDS * ((card.moisture ?? food.rawMoisture).value.sd / (1 - (card.moisture ?? food.rawMoisture).value.mean))
    const stands = before !== undefined && warmH - before.warmH >= CONSTANT.hours && before.grams - grams <= CONSTANT.share * grams
    return stands && water < near ? min(water, 0.5 * target) : water
  }
}

/** From the machine to the end: out, rest, mill, jar, cup, as far as the lesson goes. */
function finish(kitchen: Kitchen, rule: Required<PlayRule>): void {
  const { lesson } = kitchen
  if (may(kitchen, 'takeOut')) kitchen.do({ do: 'takeOut' })
  if (may(kitchen, 'rest') && rule.restDays > 0) rest(kitchen, rule)
  if (may(kitchen, 'grind') && lesson.to !== 'dry') {
    if (rule.coolMin > 0) kitchen.do({ do: 'wait', hours: rule.coolMin / 60 })
    kitchen.do({ do: 'grind', burstS: rule.burstS })
  }
  if (may(kitchen, 'waterBack')) {
    const last = kitchen.acts.findLast(({ reading }) => reading.of === 'weight' && reading.tray === undefined)?.reading
    // Who never weighed what came out goes by what milk and the like usually hold.
    const usualG = (kitchen.loadedG * (1 - kitchen.food.rawMoisture.value.mean)) / (1 - kitchen.target)
    const dryG = last?.of === 'weight' ? last.grams : usualG
    kitchen.do({ do: 'waterBack', grams: max(1, rule.waterShare * (kitchen.loadedG - dryG)) })
  }
  if (may(kitchen, 'pack')) kitchen.do({ do: 'pack', lid: rule.lid as PackageKey, gel: rule.gel })
}

function rest(kitchen: Kitchen, rule: Required<PlayRule>): void {
  kitchen.do({ do: 'rest' })
  let back = 0
  for (let day = 1; day <= rule.restDays; day++) {
    kitchen.do({ do: 'wait', hours: 24 - ((kitchen.clock - 9 + 24) % 24) || 24 })
    if (!may(kitchen, 'look')) continue
    const seen = kitchen.do({ do: 'look' })
    const damp = seen.of === 'look' && (seen.saw === 'moisture' || seen.saw === 'clumps')
    if (!damp || rule.onBeads === 'shake' || back >= MOST_TIMES_BACK || !may(kitchen, 'back')) continue
    back++
    const { highC, lowC } = kitchen.machine
    kitchen.do({ do: 'back', setC: min(highC, max(lowC, 57)) })
    kitchen.do({ do: 'wait', hours: BACK_H })
    kitchen.do({ do: 'takeOut' })
    kitchen.do({ do: 'rest' })
    day = 0
    if (back >= MOST_TIMES_BACK) return
  }
}
