import { GAS_J_MOL_K, ZERO_C } from '../air'
import { HOUR } from '../time'
/** A change of heat: the temperature set, or null for off. Instants are milliseconds since 1970. */
export interface HeatChange {
  at: number
  setC: number | null
}

/**
 * The drying clock of a run. It runs with the heat on; hours at another temperature than the card's
 * count through equivalent time.
 */
export interface DryingClock {
  /** Hours with heat on, from loading to an instant. */
  hoursAt(at: number): number
  /**
   * The same in hours at the card's temperature: what the curve is drawn and fitted in.
   */
  equivalentHoursAt(at: number): number
  /**
   * Instant at which the equivalent clock reads `hours`, if the heat stays as it was last set.
   * Infinity with the heat off and the hour not reached; Infinity for infinite hours.
   */
  instantAt(equivalentHours: number): number
  /** Pace now: equivalent hours an hour at the last setting; 0 while off. */
  pace: number
  /** Spells with the heat on, ascending; the last may be open. */
  spells: readonly { from: number; to?: number; setC: number }[]
}

/** Activation energy of moisture diffusion, mid of 20–40 kJ/mol for vegetables (engine figures, from memory of the literature). */
const ACTIVATION_J_MOL = 30_000

/**
 * How much faster than at the reference a food dries at `celsius`, by Arrhenius.
 * 62 °C against 57 °C at 30 kJ/mol: 1.18.
 */
export function pacePerHour(celsius: number, referenceC: number): number {
  return Math.exp((-ACTIVATION_J_MOL / GAS_J_MOL_K) * (1 / (celsius + ZERO_C) - 1 / (referenceC + ZERO_C)))
}

/** How long the face is wet, in hours of the clock, and how much faster than at the reference it dries then at a temperature. */
export interface WetFace {
  hours: number
  pace: (celsius: number) => number
}

/**
 * Makes the clock of a run from its heat entries. Changes before loading count as the state at loading:
 * a machine that was warm already.
 * @param run.wet where it is given, the air decides while the face is wet, and diffusion from then on
 */
export function dryingClock(run: {
  startAt: number
  endAt?: number
  referenceC: number
  heats: readonly HeatChange[]
  wet?: WetFace
  /** Pace past the wet face, where the inside decides, at a heat; by diffusion alone where it is not given. */
  inside?: (celsius: number) => number
}): DryingClock {
  const end = run.endAt ?? Infinity
  const spells: { from: number; to?: number; setC: number }[] = []
  for (const heat of [...run.heats].sort((a, b) => a.at - b.at)) {
    const at = Math.max(run.startAt, heat.at)
    if (at >= end) break
    const open = spells.at(-1)
    if (open && open.to === undefined) {
      if (open.from === at) spells.pop()
      else open.to = at
    }
    if (heat.setC !== null) spells.push({ from: at, setC: heat.setC })
  }
  const last = spells.at(-1)
  if (last && last.to === undefined && run.endAt !== undefined) last.to = run.endAt

  // Hours before each spell, once: weighings and windows ask a hundred times.
  let real = 0
  let equivalent = 0
  const marks: { from: number; to: number; pace: number; real: number; equivalent: number }[] = []
  const mark = (from: number, to: number, pace: number) => {
    marks.push({ from, to, pace, real, equivalent })
    real += (to - from) / HOUR
    equivalent += ((to - from) / HOUR) * pace
  }
  for (const { from, to = Infinity, setC } of spells) {
    let dryFrom = from
    if (run.wet && equivalent < run.wet.hours) {
      const pace = run.wet.pace(setC)
      dryFrom = Math.min(to, from + ((run.wet.hours - equivalent) / pace) * HOUR)
      mark(from, dryFrom, pace)
    }
    if (dryFrom < to) mark(dryFrom, to, run.inside?.(setC) ?? pacePerHour(setC, run.referenceC))
  }
  const markAt = (at: number) => marks.findLast(item => item.from <= at)
  const hoursIn = (item: { from: number; to: number }, at: number) => (Math.min(item.to, at) - item.from) / HOUR
  return {
    spells,
    pace: last && last.to === undefined ? marks.at(-1)!.pace : 0,
    hoursAt(at) {
      const found = markAt(at)
      return found ? found.real + hoursIn(found, at) : 0
    },
    equivalentHoursAt(at) {
      const found = markAt(at)
      return found ? found.equivalent + hoursIn(found, at) * found.pace : 0
    },
    instantAt(equivalentHours) {
      // The first spell in whose course the clock reaches the hour.
      const found = marks.find(item => equivalentHours <= item.equivalent + ((item.to - item.from) / HOUR) * item.pace)
      return found ? found.from + ((equivalentHours - found.equivalent) / found.pace) * HOUR : Infinity
    },
  }
}
