import { InputError } from '../errors'
import { targetWeight } from '../mass'
import type { Food, Purpose } from '../foods'

/** What own produce and bought-in (peeled or frozen) ask for the same powder. */
export interface BoughtInQuestion {
  food: Food
  purpose: Purpose
  /** Money a kilogram as it comes; 0 from the garden. */
  ownPriceKg: number
  /** Minutes of hands a kilogram of the basket, to wash, peel and trim. */
  ownMinutesKg: number
  /** Money a kilogram, peeled or frozen, nothing left to trim. */
  boughtPriceKg: number
  boughtMinutesKg: number
  /** What an hour of hands is worth to the household; 0 where it is pleasure. */
  hourWorth: number
}

export interface Side {
  money: number
  minutes: number
  kilograms: number
  worth: number
}

export interface BoughtIn {
  /** For 100 g of what is dried: money, minutes, kilograms to get, and money with the hands counted. */
  own: Side
  bought: Side
  cheaper: 'own' | 'bought'
  /** Worth of an hour at which both come to the same; undefined where one costs less in money and in hands. */
  evenAt?: number
}

const PER_G = 100

/**
 * Own peeling against bought-in stock, for 100 g of dry product, by minutes and money.
 * @throws InputError for figures below zero
 */
export function compareBoughtIn(question: BoughtInQuestion): BoughtIn {
  const problems = (['ownPriceKg', 'ownMinutesKg', 'boughtPriceKg', 'boughtMinutesKg', 'hourWorth'] as const)
    .filter(field => !(question[field] >= 0))
    .map(field => ({ field, code: 'negative', message: 'must not be negative' }))
  if (problems.length > 0) throw new InputError(problems)
  const { food } = question
  const dryPerKg = targetWeight(1000 * (1 - food.rawMoisture.value.mean), food.target[question.purpose])
  const boughtKg = PER_G / dryPerKg
  const ownKg = boughtKg / (1 - food.trimShare.value.mean)
  const side = (kilograms: number, priceKg: number, minutesKg: number): Side => ({
    kilograms,
    money: kilograms * priceKg,
    minutes: kilograms * minutesKg,
    worth: kilograms * (priceKg + (minutesKg / 60) * question.hourWorth),
  })
  const own = side(ownKg, question.ownPriceKg, question.ownMinutesKg)
  const bought = side(boughtKg, question.boughtPriceKg, question.boughtMinutesKg)
  const hours = (own.minutes - bought.minutes) / 60
  const evenAt = hours === 0 ? undefined : (bought.money - own.money) / hours
  return {
    own,
    bought,
    cheaper: own.worth <= bought.worth ? 'own' : 'bought',
    evenAt: evenAt !== undefined && evenAt > 0 ? evenAt : undefined,
  }
}
