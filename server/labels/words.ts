import { capital } from '#core/text'
import { heatFigures, heatWords } from '#core/blends'
import { allergenWords } from '#core/foods'
import { freshnessOf } from '#core/keeping'
import { formatWeight } from '#core/units'
import { householdOf, type Context } from '#server/services/context'
import { jarPage } from '#server/services/shelf'
import type { JarAnswer } from '#shared/contracts'

/** What stands on a jar's label, in words ready to print. */
export interface JarLabel {
  jarNumber: number
  food: string
  form: string
  /** "Batch 27 · jar 112". */
  lot: string
  netWeight: string
  packed: string
  /** "Best Apr 2027–Oct 2027", or that it is in oil, or not to be used. */
  best: string
  /** "22 g is 240 mL purée", where it was spread as measured portions. */
  portion?: string
  /** "With starch and salt", or undefined. */
  mixed?: string
  /** "Contains celery", or undefined. */
  allergens?: string
  /** What whoever opens it must know, a line each: "RAW: cook through". */
  warnings: string[]
  /** Address of the jar's page, as the code holds it. */
  url: string
}

const FORMS = { pieces: 'dried pieces', flakes: 'flakes', powder: 'fine powder' } as const

/**
 * @param origin address under which the household reaches this server; goes into the code
 */
export function jarLabel(context: Context, jarId: string, origin: string): JarLabel {
  const jar = jarPage(context, jarId)
  const household = householdOf(context)
  const date = new Intl.DateTimeFormat(household.locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: household.timeZone })
  const month = new Intl.DateTimeFormat(household.locale, { month: 'short', year: 'numeric', timeZone: household.timeZone })
  const cultivar = jar.pedigree.length === 1 ? jar.pedigree[0]!.cultivar : undefined
  return {
    jarNumber: jar.number,
    food: jar.foodName,
    form: cultivar ? `${FORMS[jar.purpose]}, “${cultivar}”` : FORMS[jar.purpose],
    lot: [
      ...(jar.pedigree.length > 0
        ? [`${jar.pedigree.length === 1 ? 'Batch' : 'Batches'} ${jar.pedigree.map(basket => basket.number).join(', ')}`]
        : []),
      `jar ${jar.number}`,
    ].join(' · '),
    netWeight: formatWeight(jar.netG, household.weightUnit),
    packed: date.format(jar.packedAt),
    best: bestWords(jar, context.now(), month, date),
    portion: jar.portion && `${formatWeight(jar.portion.dryG, household.weightUnit)} is ${Math.round(jar.portion.ml)} mL purée`,
    mixed:
      [
        mixedWords(jar.mixed),
        jar.heat && jar.heat.high >= 1500 ? `${capital(heatWords(jar.heat))}, ${heatFigures(jar.heat)} SHU` : undefined,
        jar.saltShare >= 0.01 && jar.mixed.saltG < 0.05 ? `${Math.round(100 * jar.saltShare)} % salt` : undefined,
      ]
        .filter(Boolean)
        .join(' · ') || undefined,
    allergens: allergenWords(jar.allergens).replace(/\.$/, '') || undefined,
    // What was dried raw is raw when it has its water back: its label says so.
    warnings: jar.warm ? [] : jar.told.label,
    // A short address makes a coarse code, which small labels and old cameras need.
    url: `${origin}/j/${jar.number}`,
  }
}

/** Until when: of what must not be used no date is printed, and in oil it is a day. */
function bestWords(
  jar: Pick<JarAnswer, 'warm' | 'inOil' | 'leftG' | 'bestFrom' | 'bestTo' | 'bestLimit' | 'smell' | 'saw'>,
  now: number,
  month: Intl.DateTimeFormat,
  day: Intl.DateTimeFormat,
): string {
  const { warm, inOil, bestFrom, bestTo, bestLimit } = jar
  if (warm) return 'DISCARD: too long in the warm'
  if (freshnessOf(jar, now) === 'spoiled') return 'DISCARD: see its page'
  if (inOil) return `In oil, keep cold, until ${day.format(bestTo)}`
  return bestLimit === 'seen' ? 'Look at it before use' : `Best ${month.format(bestFrom)}–${month.format(bestTo)}`
}

/** What must be remembered when cooking, and what clouds a drink. */
function mixedWords({ starchG, saltG }: { starchG: number; saltG: number }): string | undefined {
  const names = [starchG > 0.05 ? 'starch' : '', saltG > 0.05 ? 'salt' : ''].filter(Boolean)
  return names.length > 0 ? `With ${names.join(' and ')}` : undefined
}
