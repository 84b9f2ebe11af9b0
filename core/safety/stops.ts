import type { Food, MethodCard, Trait } from '../foods'
import { temperatureFrom } from '../units'
import { WAYS, type WayKey } from '../ways'
import type { PackageKey } from '../keeping'
import { SAFE_CORE_F, safetyRule, type SafetyRule } from './rules'

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

/** A reading is kept to a tenth of a degree Celsius: 145 °F is written down as 62.8 °C, and has reached 145 °F. */
const WRITTEN_C = 0.06

/**
 * Inner heat that a food must have reached before warm air, °C, as people read it in either unit: 145 °F by a thermometer in °F, 63 °C by
 * one in °C. Undefined for what is no animal food.
 */
export function safeCoreC(food: Pick<Food, 'traits'>): number | undefined {
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

/**
 * What keeps food from going into a machine.
 * @param prep the steps logged so far, with what the thermometer showed
 */
export function stopsAtLoading(
  food: Food,
  card: Pick<MethodCard, 'raw'>,
  way: WayKey,
  prep: readonly { step: string; coreC?: number }[],
): Stop[] {
  const outdoors = safetyRule('animal-outdoors')!
  if (outdoors.ways!(WAYS[way]) && outdoors.traits!.some(trait => food.traits.includes(trait))) return [stop('animal-outdoors')]
  const unheated = safetyRule('perishable-unheated')!
  if (unheated.ways!(WAYS[way]) && unheated.traits!.some(trait => food.traits.includes(trait))) return [stop('perishable-unheated')]
  const needC = safeCoreC(food)
  if (needC === undefined || WAYS[way].underVacuum) return []
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
/** Water above which food may not be without oxygen, wet basis (common practice, from botulism guidance). */
const MOST_WATER = 0.1
const WITHOUT_AIR: readonly PackageKey[] = ['vacuum-jar', 'foil-bag']

/** What keeps food from being packed so. `moisture`: wet basis, what is believed of it. */
export function stopsAtPacking(food: Food, how: { packageKey: PackageKey; storageC?: number; inOil?: boolean; moisture: number }): Stop[] {
  const stops: Stop[] = []
  if (how.inOil && (how.storageC ?? 20) > COLD_C) stops.push(stop('oil'))
  if (WITHOUT_AIR.includes(how.packageKey) && how.moisture > MOST_WATER)
    stops.push(stop('no-oxygen', `This holds about ${Math.round(how.moisture * 100)} %. `))
  return stops
}

/** After too long in the warm nothing but discarding is left, or a word on where it stood. */
export const warmStop = (): Stop => stop('too-warm')

/** After mould nothing but discarding is left. */
export const mouldStop = (): Stop => stop('mould')
