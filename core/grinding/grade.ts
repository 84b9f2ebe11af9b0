import type { SievePass } from './sieves'

export type Grade = 'flake' | 'coarse' | 'fine' | 'flour'

/** Coarsest opening of each grade, µm: topping, soups, drinks and blends, bread (common practice). */
export const GRADE_UM: Record<Grade, number> = { flake: 3000, coarse: 850, fine: 300, flour: 150 }
const GRADES: readonly Grade[] = ['flour', 'fine', 'coarse', 'flake']
/** So much must be through for the whole to count as that fine. */
const THROUGH = 0.9

/** Grade of what fell through a sieve. */
export const gradeOfOpening = (openingUm: number): Grade => GRADES.find(grade => openingUm <= GRADE_UM[grade]) ?? 'flake'

/**
 * The finest sieve that nine tenths of what there is are through, µm: all that fell through it against that and what stayed on top at last.
 * @returns undefined where no sieve has brought that much through
 */
export function finestThrough(passes: readonly SievePass[]): number | undefined {
  const openings = [...new Set(passes.map(pass => pass.openingUm))].sort((a, b) => a - b)
  return openings.find(openingUm => {
    const same = passes.filter(pass => pass.openingUm === openingUm)
    const throughG = same.reduce((sum, pass) => sum + pass.throughG, 0)
    return throughG >= THROUGH * (throughG + same.at(-1)!.overG)
  })
}

/** The grade of that sieve. */
export function gradeReached(passes: readonly SievePass[]): Grade | undefined {
  const reached = finestThrough(passes)
  return reached === undefined ? undefined : gradeOfOpening(reached)
}
