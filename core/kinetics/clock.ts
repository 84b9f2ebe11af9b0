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
const GAS_J_MOL_K = 8.314462618

/**
 * How much faster than at the reference a food dries at `celsius`, by Arrhenius.
 * 62 °C against 57 °C at 30 kJ/mol: 1.18.
 */
export function pacePerHour(celsius: number, referenceC: number): number {
  return Math.exp((-ACTIVATION_J_MOL / GAS_J_MOL_K) * (1 / (celsius + 273.15) - 1 / (referenceC + 273.15)))
}

/**
 * Makes the clock of a run from its heat entries. Changes before loading count as the state at loading:
 * a machine that was warm already.
 */
export function dryingClock(run: { startAt: number; endAt?: number; referenceC: number; heats: readonly HeatChange[] }): DryingClock {
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
  const marks = spells.map(({ from, to, setC }) => {
    const mark = { from, to: to ?? Infinity, pace: pacePerHour(setC, run.referenceC), real, equivalent }
    const hours = (mark.to - from) / HOUR
    real += hours
    equivalent += hours * mark.pace
    return mark
  })
  const markAt = (at: number) => marks.findLast(mark => mark.from <= at)
  const hoursIn = (mark: { from: number; to: number }, at: number) => (Math.min(mark.to, at) - mark.from) / HOUR
  return {
    spells,
    pace: last && last.to === undefined ? marks.at(-1)!.pace : 0,
    hoursAt(at) {
      const mark = markAt(at)
      return mark ? mark.real + hoursIn(mark, at) : 0
    },
    equivalentHoursAt(at) {
      const mark = markAt(at)
      return mark ? mark.equivalent + hoursIn(mark, at) * mark.pace : 0
    },
    instantAt(equivalentHours) {
      // The first spell in whose course the clock reaches the hour.
      const mark = marks.find(item => equivalentHours <= item.equivalent + ((item.to - item.from) / HOUR) * item.pace)
      return mark ? mark.from + ((equivalentHours - mark.equivalent) / mark.pace) * HOUR : Infinity
    },
  }
}
