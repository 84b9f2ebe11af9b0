import { InputError } from '../errors'

/** A small grinder, and what is put through it. */
export interface GrindQuestion {
  /** To grind, g, and how loosely the broken pieces lie, g/mL. */
  dryG: number
  looseGMl: number
  cupMl: number
  watts: number
  /** Warmth of the food when it goes in, °C, and the most it may reach before it sticks. */
  startC: number
  mostC: number
}

export interface GrindPlan {
  rounds: number
  gramsPerRound: number
  /** Longest run in one go, s, and the rest after it. */
  burstS: number
  restS: number
  /** Bursts a round, and minutes of the whole with its rests. */
  burstsPerRound: number
  minutes: number
}

/** A cup works best so full (common practice: small cup blenders fuller than jugs). */
const GOOD_FILL = 0.6
/** Share of the rated power that ends as heat in the food (common practice). */
const HEAT_SHARE = 0.6
/** Specific heat of dry food, J/(g·K) (common practice). */
const HEAT_J_GK = 1.6
/** Running time that makes a fine powder of a round, s (common practice). */
const RUN_S = 60
/** Shortest burst worth making, and longest: pulse first, then short runs. */
const LEAST_BURST_S = 3
const MOST_BURST_S = 30
/** The rest is so much longer than the burst: metal and powder share the warmth (common practice). */
const REST_FACTOR = 2

/**
 * How much a run of the grinder warms what is in the cup, K: ΔT = P·η·t/(m·cp).
 * 150 W for 60 s at 60 % into 60 g is 56 K (worked by hand).
 */
export function warmingK(watts: number, seconds: number, grams: number): number {
  return (watts * HEAT_SHARE * seconds) / (grams * HEAT_J_GK)
}

/**
 * Rounds, bursts and rests for a cup.
 * @throws InputError for figures that are not above zero, and a start that is as warm as the limit
 */
export function planGrinding(question: GrindQuestion): GrindPlan {
  const problems = (['dryG', 'looseGMl', 'cupMl', 'watts'] as const)
    .filter(field => !(question[field] > 0))
    .map(field => ({ field: field as string, code: 'not-above-zero', message: 'must be above zero' }))
  if (!(question.mostC > question.startC))
    problems.push({
      field: 'mostC',
      code: 'too-warm-already',
      message: 'must be above the warmth it starts with: let it cool first',
    })
  if (problems.length > 0) throw new InputError(problems)
  const rounds = Math.ceil(question.dryG / (question.cupMl * GOOD_FILL * question.looseGMl))
  const gramsPerRound = question.dryG / rounds
  const longest = (question.mostC - question.startC) / warmingK(question.watts, 1, gramsPerRound)
  const burstS = Math.min(MOST_BURST_S, Math.max(LEAST_BURST_S, Math.floor(longest)))
  const burstsPerRound = Math.ceil(RUN_S / burstS)
  const restS = burstS * REST_FACTOR
  return { rounds, gramsPerRound, burstS, restS, burstsPerRound, minutes: (rounds * burstsPerRound * (burstS + restS)) / 60 }
}
