import type { Choices, Food, MethodCard, Trait } from '../foods'
import { temperatureFrom } from '../units'
import { activityOfTarget, isothermOf } from '../sorption'
import { WAYS, type WayKey } from '../ways'
import type { PackageKey } from '../keeping'
import { COOKING_STEPS, dangerHotC, SAFE_ACTIVITY } from './danger'
import { HEATED_AFTER, SAFE_CORE_F, safetyRule, type SafetyRule } from './rules'

/** Something that must not be done, with its way out. */
export interface Stop {
  rule: SafetyRule
  message: string
}

const stop = (key: string, more = ''): Stop => {
  const rule = safetyRule(key)!
  return { rule, message: `${rule.text} ${more}${rule.wayOut} (${rule.authority}; local guidance comes first.)` }
}

/** Steps that bring food to its safe heat. */
const COOKING: readonly string[] = ['cook', 'boil', 'roast']

/** Steps that leave nothing raw of what may not be so. */
const SOFTENING: readonly string[] = [...COOKING, 'blanch', 'puree']

/** A reading is kept to a tenth of a degree Celsius: 145 °F is written down as 62.8 °C, and has reached 145 °F. */
const WRITTEN_C = 0.06

/**
 * Inner heat that a food must have reached before warm air, °C, as people read it in either unit: 145 °F by a thermometer in °F, 63 °C by
 * one in °C. Undefined for what is no animal food.
 */
export function safeCoreC(food: Pick<Food, 'traits'>): number | undefined {
  // Sold ready to eat it was cooked or cured by its maker.
  if (food.traits.includes('ready')) return undefined
  const heats = food.traits.flatMap((trait: Trait) => SAFE_CORE_F[trait] ?? [])
  if (heats.length === 0) return undefined
  const exact = temperatureFrom(Math.max(...heats), 'F')
  return Math.min(exact - WRITTEN_C, Math.round(exact))
}

/** The highest heat inside that was logged at a cooking step, °C; −∞ without one. */
const hottestInside = (prep: readonly { step: string; coreC?: number }[]) =>
  Math.max(-Infinity, ...prep.filter(({ step }) => COOKING.includes(step)).map(({ coreC }) => coreC ?? -Infinity))

/** Whether what must be cooked was, by the thermometer; true of what need not be. */
export function isCookedThrough(food: Pick<Food, 'traits'>, prep: readonly { step: string; coreC?: number }[]): boolean {
  return hottestInside(prep) >= (safeCoreC(food) ?? -Infinity)
}

/** Whether it is dried raw, to be heated through once it is dry. */
export const isHeatedAfter = (card: Pick<MethodCard, 'heatAfter'>, choices: Choices) =>
  (card.heatAfter ?? false) && choices.jerkyHeat === 'after'

/** What keeps raw jerky from its rest and its jar: that nobody heated it through. */
export function stopsUnheated(
  card: Pick<MethodCard, 'heatAfter'>,
  choices: Choices,
  heated: readonly { body: { airC: number; minutes: number } }[],
): Stop[] {
  const isDone = heated.some(({ body }) => body.airC >= HEATED_AFTER.airC - WRITTEN_C && body.minutes >= HEATED_AFTER.minutes)
  return isHeatedAfter(card, choices) && !isDone ? [stop('heat-after')] : []
}

/**
 * What keeps food from going into a machine.
 * @param prep the steps logged so far, with what the thermometer showed
 */
export function stopsAtLoading(
  food: Food,
  card: Pick<MethodCard, 'raw' | 'heatAfter'>,
  way: WayKey,
  prep: readonly { step: string; coreC?: number }[],
  choices: Choices = {},
): Stop[] {
  const outdoors = safetyRule('animal-outdoors')!
  if (outdoors.ways!(WAYS[way]) && outdoors.traits!.some(trait => food.traits.includes(trait))) return [stop('animal-outdoors')]
  // A purée of pumpkin or potato is as perishable as rice.
  const cooked = prep.some(({ step }) => COOKING_STEPS.includes(step))
  if (safetyRule('perishable-unheated')!.ways!(WAYS[way]) && dangerHotC(food, cooked) !== undefined) return [stop('perishable-unheated')]
  if (food.forbids.blanch?.includes('skip') && !prep.some(({ step }) => SOFTENING.includes(step)))
    return [stop('unblanched', `${food.name} must be boiled first. `)]
  const needC = safeCoreC(food)
  if (needC === undefined || WAYS[way].underVacuum) return []
  // In this school it is heated once it is dry, and packed no sooner.
  if (isHeatedAfter(card, choices)) return []
  const reached = hottestInside(prep)
  return reached >= needC
    ? []
    : [
        stop(
          'raw-meat',
          `${food.name} needs ${Math.round(needC)} °C inside${reached > 0 ? `; ${Number(reached.toFixed(1))} °C were logged` : ''}. `,
        ),
      ]
}

/** At or below this oil is cold enough, °C. */
const COLD_C = 4
/** In the freezer nothing grows, °C. */
const FREEZER_C = -15
const ROOM_C = 20
const WITHOUT_AIR: readonly PackageKey[] = ['vacuum-jar', 'foil-bag']

/** How something is to stand in its jar. */
export interface Packing {
  packageKey: PackageKey
  storageC?: number
  inOil?: boolean
  /** An absorber takes its oxygen. */
  absorber?: boolean
  /** Water that it may have at the most by all that is known of it, wet basis. */
  moisture: number
}

/**
 * What keeps food from being packed, filled, poured or put so. Without oxygen it is judged by its water activity, the doubt counted: at
 * most 0.85 (FDA Food Code, from memory), so that fruit at its 16 % may and what nobody weighed may not.
 */
export function stopsAtPacking(
  food: Pick<Food, 'isotherm' | 'fat'>,
  { packageKey, storageC = ROOM_C, inOil, absorber, moisture }: Packing,
): Stop[] {
  const stops: Stop[] = []
  if (inOil && storageC > COLD_C) stops.push(stop('oil'))
  const isWithoutAir = absorber || WITHOUT_AIR.includes(packageKey)
  const activity = activityOfTarget(isothermOf(food), Math.min(0.95, moisture))
  if (isWithoutAir && storageC > FREEZER_C && activity > SAFE_ACTIVITY)
    stops.push(
      stop('no-oxygen', `This may hold ${Math.round(moisture * 100)} % water, in balance with air of ${Math.round(activity * 100)} %. `),
    )
  return stops
}

/** After too long in the warm nothing but discarding is left, or a word on where it stood. */
export const warmStop = (): Stop => stop('too-warm')

/** After mould nothing but discarding is left. */
export const mouldStop = (): Stop => stop('mould')
