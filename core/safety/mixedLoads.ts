import { wayOf, type Food, type MethodCard } from '../foods'
import { WAYS, type WayKey } from '../ways'
import { dangerHotC } from './danger'

/** A food that shares a load. */
export interface LoadMate {
  food: Food
  card: MethodCard
  frozen?: boolean
  /** It was cooked or puréed. */
  cooked?: boolean
}

/** Heats further apart than this do not suit one another, °C. */
const APART_C = 8

/**
 * What speaks against two foods in one load: taint, heat, and unfrozen beside frozen. Warnings only; a
 * freeze dryer's users mix smells without complaint (common practice).
 */
export function mixedLoadWarnings(coming: LoadMate, there: readonly LoadMate[], way: WayKey): string[] {
  const warnings: string[] = []
  const name = (mate: LoadMate) => mate.food.name.toLowerCase()
  const smells = (mate: LoadMate) => mate.food.traits.includes('smell') || mate.food.traits.includes('hot')
  for (const mate of there.filter(other => other.food.key !== coming.food.key)) {
    if (!WAYS[way].underVacuum && smells(mate) !== smells(coming)) {
      const [strong, mild] = smells(mate) ? [mate, coming] : [coming, mate]
      warnings.push(`${strong.food.name} goes into whatever shares its air: the ${name(mild)} will taste of it.`)
    }
    const [own, other] = [wayOf(coming.card, way).temperatureC, wayOf(mate.card, way).temperatureC]
    if (Math.abs(own - other) > APART_C) {
      // Food that spoils is not held lower for the sake of another.
      const spoils = [coming, mate].find(item => (dangerHotC(item.food, item.cooked ?? false) ?? -Infinity) > Math.min(own, other))
      const mend = spoils
        ? `The ${name(spoils)} must be kept that hot while it is moist: give it a run of its own.`
        : 'Take the lower, and more time.'
      warnings.push(`The ${name(mate)} dries at ${other} °C, this at ${own} °C: one machine has one heat. ${mend}`)
    }
  }
  if (WAYS[way].underVacuum && there.length > 0 && there.some(mate => mate.frozen !== coming.frozen)) {
    warnings.push('Unfrozen beside frozen: the cycle starts from the warmest tray, and the advantage is lost for all.')
  }
  return [...new Set(warnings)]
}
