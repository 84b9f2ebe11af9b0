import { judgeFeel, type FeelCheck } from '../dryness'
import type { Food, Purpose } from '../foods'
import { wayOf } from '../foods'
import { GRADE_UM } from '../grinding'
import { bestByWindow, PACKAGES } from '../keeping'
import { targetWeight } from '../mass'
import { Rack, rackSettings } from '../simulation'
import { randomSource, type RandomSource } from '../stats'
import { waterBackG } from '../freezing'
import { STANDARD_WAY } from '../ways'
import { feelOfPiece } from './hands'

/** A short question with one answer that can be worked out. */
export interface Drill {
  kind: DrillKind
  /** What is asked, with its figures by name; the name's ending tells the unit. */
  ask: string
  figures: Record<string, number | string>
  /** In this unit is answered; a choice has none. */
  unit: 'g' | 'months' | 'spoons' | 'choice'
  answer: number
  /** Right within this share of it; for months and choices exactly within. */
  within: number
  choices?: string[]
  /** What was felt of each of four, for the eye. */
  feels?: Pick<FeelCheck, 'form' | 'answers'>[]
  /** Why, with the same figures and `answer…` among them. */
  why: string
  source: string
}
export const DRILL_KINDS = ['dryFromBasket', 'waterBack', 'grade', 'spoons', 'bestBy', 'whichIsDry'] as const
export type DrillKind = (typeof DRILL_KINDS)[number]

const PRACTICE = 'common practice'
const BASKETS_G = [600, 850, 1200, 1750, 2400, 3100]
const TABLESPOON_ML = 14.8
const ROOM = { celsius: 20, humidity: 0.5 }
const MOST_TRIES = 12
const POWDERS: Purpose[] = ['powder', 'flakes']

/**
 * A drill of a kind: the same seed gives the same one. Its answer is worked out by what the rest of the application reckons with.
 * @param foods to choose from
 */
export function drill(kind: DrillKind, foods: readonly Food[], seed: number): Drill {
  const source = randomSource(seed)
  return MAKERS[kind](foods, source)
}

const plain = (foods: readonly Food[], source: RandomSource) => {
  // Foods that are dried as they are cut: what is cooked before weighs otherwise on the tray.
  const fit = foods.filter(
    food =>
      !food.uncooked &&
      !food.traits.includes('perishable') &&
      food.cards[0]!.steps.every(step => step.step !== 'roast' && step.step !== 'thicken'),
  )
  return source.pick(fit)
}

const MAKERS: Record<DrillKind, (foods: readonly Food[], source: RandomSource) => Drill> = {
  dryFromBasket(foods, source) {
    const food = plain(foods, source)
    const basketG = source.pick(BASKETS_G)
    const trim = food.trimShare.value.mean
    const water = food.rawMoisture.value.mean
    const target = food.target.powder
    const answerG = targetWeight(basketG * (1 - trim) * (1 - water), target)
    return {
      kind: 'dryFromBasket',
      ask: '{basketG} of {food} came in. Some {trimShare} goes in trimming; it holds {waterShare} water. What will it weigh dry, at {targetShare}?',
      figures: {
        basketG,
        food: food.name.toLowerCase(),
        trimShare: trim,
        waterShare: water,
        targetShare: target,
        leftG: basketG * (1 - trim),
        answerG,
      },
      unit: 'g',
      answer: answerG,
      within: 0.2,
      why: 'Trimmed {leftG} stay. Of that the solids are what is not water, and dry they hold {targetShare} again: {answerG}.',
      source: food.rawMoisture.source,
    }
  },
  waterBack(foods, source) {
    const food = plain(foods, source)
    const loadedG = source.pick(BASKETS_G)
    const water = food.rawMoisture.value.mean
    const driedG = Math.round(targetWeight(loadedG * (1 - water), food.target.powder))
    const share = source.pick([0.25, 0.5, 1])
    const answerG = share * waterBackG(loadedG, driedG)
    return {
      kind: 'waterBack',
      ask: '{loadedG} of {food} on the trays became {driedG}. You take {takenG} of it. How much water makes it what it was?',
      figures: { loadedG, food: food.name.toLowerCase(), driedG, takenG: share * driedG, lostG: loadedG - driedG, answerG },
      unit: 'g',
      answer: answerG,
      within: 0.15,
      why: 'It lost {lostG} in all. The same share of that goes back as of the powder is taken: {answerG}.',
      source: 'a balance of weights',
    }
  },
  grade(_, source) {
    const grades = Object.entries(GRADE_UM)
      .map(([name, um]) => ({ name, um }))
      .sort((a, b) => b.um - a.um)
    const through = source.integer(0, grades.length - 1)
    const opening = Math.round(grades[through]!.um * (0.75 + 0.2 * source.uniform()))
    const answer = grades.findLastIndex(grade => opening <= grade.um)
    return {
      kind: 'grade',
      ask: 'Nine tenths of it fall through a sieve of {openingUm} µm. What is it?',
      figures: { openingUm: opening, answerName: grades[answer]!.name },
      unit: 'choice',
      choices: grades.map(grade => grade.name),
      answer,
      within: 0,
      why: 'Nine tenths through give the grade: {answerName} is up to the next coarser opening.',
      source: PRACTICE,
    }
  },
  spoons(foods, source) {
    const food = plain(foods, source)
    const density = food.powderDensity.value.mean
    const grams = source.pick([15, 25, 40, 60, 90])
    const answer = grams / density / TABLESPOON_ML
    return {
      kind: 'spoons',
      ask: 'A recipe wants {powderG} of {food} powder, and the scale is lent out. How many level tablespoons?',
      figures: {
        powderG: grams,
        food: food.name.toLowerCase(),
        density: density.toFixed(2),
        spoonG: density * TABLESPOON_ML,
        answerSpoons: answer.toFixed(1),
      },
      unit: 'spoons',
      answer,
      within: 0.3,
      why: 'Powder of it lies at about {density} g/mL, so a level tablespoon is {spoonG}: {answerSpoons}.',
      source: food.powderDensity.source,
    }
  },
  bestBy(foods, source) {
    const food = plain(foods, source)
    const purpose = source.pick(POWDERS)
    const pack = source.pick(PACKAGES.filter(item => item.key !== 'other'))
    const celsius = source.pick([8, 15, 20, 25, 30])
    const { months, reason } = bestByWindow({ food, purpose, packageKey: pack.key, storageC: celsius, rested: true })
    const answer = Math.sqrt(months.low * months.high)
    return {
      kind: 'bestBy',
      ask: '{food} as {purpose}, in: {pack}, at {storeC}. How many months is it at its best?',
      figures: {
        food: food.name,
        purpose,
        pack: pack.name.toLowerCase(),
        storeC: celsius,
        lowMonths: months.low.toFixed(months.low < 2 ? 1 : 0),
        highMonths: months.high.toFixed(months.high < 2 ? 1 : 0),
        reason,
      },
      unit: 'months',
      answer,
      within: Math.max(0.25, Math.sqrt(months.high / months.low) - 1 + 0.1),
      why: 'Some {lowMonths} to {highMonths} months. {reason}',
      source: food.keepsSource,
    }
  },
  whichIsDry(foods, source) {
    const food = source.pick(
      foods.filter(
        item => item.cards[0]!.feelForm === 'pieces' && item.cards[0]!.ways[0]!.way === STANDARD_WAY && !item.traits.includes('perishable'),
      ),
    )
    const card = food.cards[0]!
    const { temperatureC, usualHours } = wayOf(card, STANDARD_WAY)
    const middle = Math.sqrt(usualHours.value.low * usualHours.value.high)
    const answer = source.integer(0, 3)
    const feels = Array.from({ length: 4 }, (_, i) => {
      const dry = i === answer
      const settings = rackSettings({
        food,
        cardKey: card.key,
        way: STANDARD_WAY,
        purpose: 'powder',
        trayWeightsG: [300],
        hours: middle,
        seed: source.integer(1, 1e9),
      })
      // Of three that are not dry some are warm, and none is the thickest: as hands pick them.
      const celsius = !dry && source.uniform() < 0.4 ? temperatureC : ROOM.celsius
      let hours = (dry ? 2.2 : 0.35 + 0.4 * source.uniform()) * middle
      for (let tries = 0; ; tries++) {
        const rack = new Rack(settings)
        rack.advance(hours, { setC: temperatureC, room: ROOM })
        const answers = feelOfPiece(food, card.feelForm, { x: rack.trays[0]!.pieces[dry ? 2 : 1]!.piece.x, celsius })
        const check = { form: card.feelForm, answers, cooled: true, places: 3 }
        if (tries >= MOST_TRIES || (judgeFeel(check, 'powder').vote === 'dry') === dry) return { form: card.feelForm, answers }
        hours *= dry ? 1.3 : 0.7
      }
    })
    return {
      kind: 'whichIsDry',
      ask: 'Four pieces of {food}, for powder. Which of them is dry?',
      figures: { food: food.name.toLowerCase() },
      unit: 'choice',
      choices: ['first', 'second', 'third', 'fourth'],
      feels,
      answer,
      within: 0,
      why: 'Dry is what snaps clean and is the same within as at the rim.',
      source: PRACTICE,
    }
  },
}

/** Whether an answer is right: within its share, or the very one. */
export function isRight({ unit, answer, within }: Drill, said: number): boolean {
  return unit === 'choice' ? said === answer : Math.abs(said - answer) <= within * answer
}
