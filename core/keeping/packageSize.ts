import { FILL, looseGMl } from './jarFill'
import type { Purpose } from '../foods'

/** Sizes that jars are sold in, mL: metric ones, and quarter pint, half pint, three quarters, pint, quart, half gallon (common practice). */
const JAR_SIZES_ML = {
  metric: [50, 100, 125, 250, 370, 500, 750, 1000, 1500, 2000],
  us: [118, 237, 355, 473, 946, 1893],
} as const

/** What a jar is chosen by, beside the weight. */
export interface JarsAsked {
  /** As the household's country sells them. */
  measures?: keyof typeof JAR_SIZES_ML
  /** These alone. */
  sizes?: readonly number[]
  /** Dried under vacuum: pieces keep their volume. */
  unshrunk?: boolean
}
/** Tapped on the table a powder lies so much closer than spooned; pieces hardly do (common practice). */
const TAPPED: Record<Purpose, number> = { powder: 1.2, flakes: 1.1, pieces: 1.05 }

export interface JarChoice {
  sizeMl: number
  count: number
  fill: number
}

/**
 * Jars for a weight: the smallest that takes all, and how full it is when tapped down; where the largest is
 * too small, several of it. Little air above keeps better.
 * @param powderDensityGMl spooned density of the food's powder, g/mL
 */
export function jarsFor(
  weightG: number,
  powderDensityGMl: number,
  purpose: Purpose,
  { measures = 'metric', sizes = JAR_SIZES_ML[measures], unshrunk }: JarsAsked = {},
): JarChoice[] {
  const density = looseGMl(powderDensityGMl, purpose, unshrunk) * TAPPED[purpose]
  const ml = weightG / density
  return sizes.map(sizeMl => {
    const count = Math.max(1, Math.ceil(ml / (sizeMl * FILL)))
    return { sizeMl, count, fill: ml / count / sizeMl }
  })
}

/** The choice that leaves least air with fewest jars: the smallest single jar that takes all, else the fewest of the largest. */
export function bestJar(choices: readonly JarChoice[]): JarChoice {
  return choices.find(choice => choice.count === 1) ?? choices.reduce((a, b) => (b.count < a.count ? b : a))
}
