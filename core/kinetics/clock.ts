/** A change of heat: the temperature set, or null for off. Instants are milliseconds since 1970. */
export interface HeatChange { at: number, setC: number | null }

/**
 * The drying clock of a run. It runs with the heat on; hours at another temperature than the card's
 * count through equivalent time.
 */
export interface DryingClock {
  /** Hours with heat on, from loading to an instant. */
  hoursAt(at: number): number
  /**
   * The same in hours at the card's temperature, less what was lost while the heat was off: what the
   * curve is drawn and fitted in.
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
  spells: readonly { from: number, to?: number, setC: number }[]
}

/** Activation energy of moisture diffusion, mid of 20–40 kJ/mol for vegetables (engine figures, from memory of the literature). */
const ACTIVATION_J_MOL = 30_000
const GAS_J_MOL_K = 8.314462618
const HOUR_MS = 3_600_000

/**
 * How much faster than at the reference a food dries at `celsius`, by Arrhenius.
 * 62 °C against 57 °C at 30 kJ/mol: 1.18.
 */
export function pacePerHour(celsius: number, referenceC: number): number {
  return Math.exp(-ACTIVATION_J_MOL / GAS_J_MOL_K * (1 / (celsius + 273.15) - 1 / (referenceC + 273.15)))
}

/**
 * Makes the clock of a run from its heat entries. Changes before loading count as the state at loading:
 * a machine that was warm already.
 */
export function dryingClock(run: { startAt: number, endAt?: number, referenceC: number, heats: readonly HeatChange[] }): DryingClock {
  const end = run.endAt ?? Infinity
  const spells: { from: number, to?: number, setC: number }[] = []
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

  const sum = (at: number, weigh: (setC: number) => number) => spells.reduce((total, spell) => {
    const span = Math.min(spell.to ?? Infinity, at) - spell.from
    return span > 0 ? total + span / HOUR_MS * weigh(spell.setC) : total
  }, 0)
  const paceOf = (setC: number) => pacePerHour(setC, run.referenceC)
  return {
    spells,
    pace: last && last.to === undefined ? paceOf(last.setC) : 0,
    hoursAt: at => sum(at, () => 1),
    equivalentHoursAt: at => sum(at, paceOf),
    instantAt(equivalentHours) {
      let left = equivalentHours
      for (const spell of spells) {
        const pace = paceOf(spell.setC)
        const length = spell.to === undefined ? Infinity : (spell.to - spell.from) / HOUR_MS * pace
        if (left <= length) return spell.from + left / pace * HOUR_MS
        left -= length
      }
      return Infinity
    },
  }
}

/** A spell without heat that set the food back (or, wet as it was, on): so many equivalent hours from its end. */
export interface Setback { at: number, hours: number }

/** The clock with what off spells took back, in the order of time. */
export function setBackClock(clock: DryingClock, setbacks: readonly Setback[]): DryingClock {
  if (setbacks.length === 0) return clock
  const lostBy = (at: number) => setbacks.reduce((sum, setback) => setback.at <= at ? sum + setback.hours : sum, 0)
  return {
    ...clock,
    equivalentHoursAt: at => Math.max(0, clock.equivalentHoursAt(at) - lostBy(at)),
    instantAt(hours) {
      // The last time that the clock reads so: after every setback that it may lie beyond.
      for (let i = setbacks.length; i >= 0; i--) {
        const from = i === 0 ? -Infinity : setbacks[i - 1]!.at
        const at = clock.instantAt(hours + lostBy(from))
        if (at >= from) return at
      }
      return clock.instantAt(hours)
    },
  }
}
