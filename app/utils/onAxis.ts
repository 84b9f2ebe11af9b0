import type { FinishAxis } from '#core/planning'

/** Where a finish window is drawn on its axis. */
export function onAxis(axis: FinishAxis, finish: { from: number; to: number }): { left: string; width: string } {
  const { left, width } = axis.place(finish)
  return { left: `${100 * left}%`, width: `${100 * width}%` }
}
