import type { BatchState, RunState } from '../log'
import { WAYS } from '../ways'
import { hoursOf, type HoursRange } from './hours'

/** Wet food on a square metre, kg; undefined where the area of a tray was not written down. */
const loadOnTrays = ({ loadedG, positions, trayAreaM2 }: Pick<RunState, 'loadedG' | 'positions' | 'trayAreaM2'>): number | undefined =>
  trayAreaM2 === undefined ? undefined : loadedG / 1000 / (trayAreaM2 * positions.length)

type Asked = Pick<BatchState, 'food' | 'card' | 'purpose' | 'thicknessMm' | 'choices' | 'balance'>
type Running = Pick<RunState, 'way' | 'usualHours' | 'loadedG' | 'positions' | 'trayAreaM2' | 'frozen'>

/**
 * Hours of a run at its card's heat: what was believed at loading, or the card's as it was cut. Its clock counts what heat it really has.
 * @param by `learned: false` for the card's, whatever was believed
 */
export function hoursOfRun(state: Asked, run: Running, by: { learned?: boolean } = {}): HoursRange {
  const { food, card, purpose, thicknessMm, choices, balance } = state
  const { underVacuum } = WAYS[run.way.way]
  return hoursOf({
    food,
    card,
    purpose,
    thicknessMm,
    choices,
    way: run.way.way,
    // A cycle was once written down whole, as of no run: it follows from the load.
    learned: by.learned === false || (underVacuum && run.usualHours?.runs === 0) ? undefined : run.usualHours,
    whole: run.way.partOnly ? wholeHours(card.usualHours.value) : undefined,
    loadKgM2: loadOnTrays(run),
    ...(underVacuum && { frozen: run.frozen.length === run.positions.length, moisture: balance.moisture.p50 }),
  })
}

/** A pass in the smoke is not dried to its end: how long that would take follows from the card's first way. */
const wholeHours = ({ low, high }: HoursRange): HoursRange => ({ low: low * SMOKE_HOURS.low, high: high * SMOKE_HOURS.high })
/**
 * Against a dryer's hours: its heat alone would halve them (Arrhenius, 30 kJ/mol, 57 to 85 °C), its damp and
 * hardly moving air takes that back; four hours dry a part only (common practice).
 */
const SMOKE_HOURS = { low: 0.55, high: 1.1 }
