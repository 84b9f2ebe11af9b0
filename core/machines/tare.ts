/**
 * Weight of empty trays on the scale with their food, g: a tray's own where it is known, else the machine's usual one.
 * @param trays the trays, each by the place that it belongs to
 */
export function tareOf(machine: { trayTareG: number; trayTares: Readonly<Record<string, number>> }, trays: readonly number[]): number {
  return trays.reduce((sum, tray) => sum + (machine.trayTares[tray] ?? machine.trayTareG), 0)
}
