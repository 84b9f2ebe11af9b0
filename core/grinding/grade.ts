import { sumPasses, type SievePass } from './sieves'

export type Grade = 'flake' | 'coarse' | 'fine' | 'flour'

/** Coarsest opening of each grade, µm: topping, soups, drinks and blends, bread (common practice). */
export const GRADE_UM: Record<Grade, number> = { flake: 3000, coarse: 850, fine: 300, flour: 150 }
const GRADES: readonly Grade[] = ['flour', 'fine', 'coarse', 'flake']
/** So much must be through for the whole to count as that fine. */
const THROUGH = 0.9

/** Grade of what fell through a sieve. */
export const gradeOfOpening = (openingUm: number): Grade => GRADES.find(grade => openingUm <= GRADE_UM[grade]) ?? 'flake'

/**
 * What passes over sieves have come to: the grade of the finest sieve that nine tenths are through.
 * @returns undefined where no pass has brought that much through
 */
export function gradeReached(passes: readonly SievePass[]): Grade | undefined {
  const openings = [...new Set(passes.map(pass => pass.openingUm))].sort((a, b) => a - b)
  const reached = openings.find(opening => sumPasses(passes.filter(pass => pass.openingUm === opening)).through >= THROUGH)
  return reached === undefined ? undefined : gradeOfOpening(reached)
}
