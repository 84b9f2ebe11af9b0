import type { Food, Purpose } from '../foods'
import { looseGMl } from '../keeping'
import { lidRestS } from './dust'
import { planGrinding, warmingK, type GrindPlan } from './cup'
import { glassOf, grindBelowC } from './glass'
import { fillOf, seedG } from './seed'

/** Warmth of food that has cooled or rested, and of food straight from the machine, °C (common practice). */
const ROOM_C = 22
const WARM_C = 40
/** Never warmer in the cup, °C: scent goes first (common practice). */
const MOST_C = 45
/** A cup of which only the grinder's kind is known, cm. */
const USUAL_CUP_CM = 8

/** What stands on the bench, as far as it is known. */
export interface GrindBench {
  dryG?: number
  cupMl?: number
  watts?: number
  cupCm?: number
  /** Straight from the machine. */
  warm: boolean
}

export interface GrindSession {
  /** Sticks above this, °C, as the food is dried for its purpose; and the most it may reach in the cup. */
  stickyC: number
  mostC: number
  /** Too sticky to be ground as warm as it is. */
  sticks: boolean
  /** None where something is not known, or it sticks. */
  plan?: GrindPlan
  /** The lid stays on so long after the last burst, s. */
  lidS: number
  /** What a minute without a rest would warm a round by, K. */
  minuteK: number
  /** Share of the cup that a round fills, and finished powder that would help it to move, g. */
  fill: number
  seedG: number
}

/** How a food is ground on a bench: rounds, bursts, rests, lid, and whether the cup is full enough. */
export function grindSession(
  food: Pick<Food, 'powderDensity' | 'isotherm' | 'target' | 'traits'>,
  purpose: Purpose,
  bench: GrindBench,
): GrindSession {
  const powderGMl = food.powderDensity.value.mean
  const loose = looseGMl(powderGMl, 'pieces')
  const stickyC = grindBelowC(glassOf(food), food.target[purpose])
  const startC = bench.warm ? WARM_C : ROOM_C
  const mostC = Math.min(MOST_C, stickyC)
  // Within a degree there is no time for a burst.
  const sticks = mostC <= startC + 1
  const { dryG, cupMl, watts } = bench
  const plan = dryG && cupMl && watts && !sticks ? planGrinding({ dryG, looseGMl: loose, cupMl, watts, startC, mostC }) : undefined
  return {
    stickyC,
    mostC,
    sticks,
    plan,
    lidS: lidRestS(bench.cupCm ?? USUAL_CUP_CM, food.traits.includes('hot')),
    minuteK: plan ? warmingK(watts!, 60, plan.gramsPerRound) : 0,
    fill: plan ? fillOf(plan.gramsPerRound, loose, cupMl!) : 0,
    seedG: plan ? seedG(plan.gramsPerRound, loose, powderGMl, cupMl!) : 0,
  }
}

const tenth = (grams: number) => Math.round(grams * 10) / 10

export interface RoundSums {
  inG: number
  /** None until every round was weighed out. */
  outG?: number
  /** How many there will be, as planned and as it goes. */
  rounds: number
  /** For the next round, g; none when nothing is left. */
  nextG?: number
}

/** What rounds at the grinder come to, and what goes into the cup next. */
export function sumRounds(rounds: readonly { inG: number; outG?: number }[], plan: GrindPlan | undefined, dryG = 0): RoundSums {
  const inG = rounds.reduce((sum, round) => sum + round.inG, 0)
  const weighed = rounds.every(round => round.outG !== undefined)
  const left = dryG - inG
  return {
    inG: tenth(inG),
    outG: weighed ? tenth(rounds.reduce((sum, round) => sum + round.outG!, 0)) : undefined,
    // What is under a gram sticks to the bowl.
    rounds: Math.max(plan?.rounds ?? 1, rounds.length + (left > 1 ? 1 : 0)),
    nextG: plan && dryG > 0 ? tenth(Math.max(0, Math.min(plan.gramsPerRound, left))) || undefined : undefined,
  }
}
