import type { Air } from '../air'
import { WAYS, type WayKey } from '../ways'

/** Less than this many degrees apart is the same heat, °C. */
const SAME_C = 1

/** Machines for a cut, the one to be offered first: of those that dry it in its usual way what the household uses most, then the largest. */
export function machinesByUse<Machine extends { kind: WayKey; hoursRun?: number; trays: number; trayAreaM2: number }>(
  machines: readonly Machine[],
  ways: readonly { way: WayKey }[],
): Machine[] {
  const rank = ({ kind }: Machine) => (kind === ways[0]?.way ? 0 : ways.some(({ way }) => way === kind) ? 1 : 2)
  return [...machines].sort(
    (a, b) => rank(a) - rank(b) || (b.hoursRun ?? 0) - (a.hoursRun ?? 0) || b.trays * b.trayAreaM2 - a.trays * a.trayAreaM2,
  )
}

/** A heat that may be set at loading. */
export interface HeatChoice {
  celsius: number
  /** The card's own, a school's by its name, gentler or quicker than the card's, or as near as the machine comes to it. */
  because: 'card' | 'gentler' | 'quicker' | 'nearest' | { school: string }
}

/**
 * The heats that are offered when food goes into a machine: the card's, then those of the schools or of the way, as far as the
 * machine goes. A way without a dial has one.
 */
export function heatChoices(
  way: WayKey,
  cardC: number,
  schools: readonly { name: string; celsius?: number }[],
  machine: { lowC: number; highC: number },
): HeatChoice[] {
  const { otherHeats, words } = WAYS[way]
  const own: HeatChoice = { celsius: cardC, because: 'card' }
  if (words.choose) return [own]
  const others =
    otherHeats === 'schools'
      ? schools.flatMap(({ name, celsius }): HeatChoice[] =>
          celsius === undefined || Math.abs(celsius - cardC) <= SAME_C ? [] : [{ celsius, because: { school: name } }],
        )
      : otherHeats.map((celsius): HeatChoice => ({ celsius, because: celsius < cardC ? 'gentler' : 'quicker' }))
  const within = [own, ...others].filter(({ celsius }) => celsius >= machine.lowC && celsius <= machine.highC)
  return within.length > 0 ? within : [{ celsius: nearestHeat(cardC, machine), because: 'nearest' }]
}

/** The card's heat, or as near as a machine comes to it, °C. */
export function nearestHeat(cardC: number, { lowC, highC }: { lowC: number; highC: number }): number {
  return Math.min(highC, Math.max(lowC, cardC))
}

/** Extension guidance for drying outdoors: at least so warm, and at most so humid. */
export const OUTDOORS = { leastC: 30, mostHumidity: 0.6 }

/** Whether the air is too cool or too damp to dry in it outdoors; unknown parts are let pass. */
export function isPoorOutdoors(air: Partial<Air>): boolean {
  return (air.celsius ?? OUTDOORS.leastC) < OUTDOORS.leastC || (air.humidity ?? 0) > OUTDOORS.mostHumidity
}
