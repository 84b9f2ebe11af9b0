import { HOUR } from '../time'

/** Room beyond the last window, so that it does not end at the frame. */
const ROOM = 1.05
/** A window so short is drawn yet. */
const LEAST_SHARE = 0.02

interface Window {
  from: number
  to: number
}

/** An axis of time from now to the last finish, on which windows of several lie. */
export interface FinishAxis {
  /** ms. */
  span: number
  /** Shares of its length, 0–1. */
  place: (finish: Window) => { left: number; width: number }
}

/**
 * @param finishes windows in instants; those without an end do not count
 * @param leastHours it is never shorter
 */
export function finishAxis(finishes: readonly { to: number }[], now: number, leastHours: number): FinishAxis {
  const ends = finishes.filter(({ to }) => Number.isFinite(to)).map(({ to }) => to - now)
  const span = Math.max(leastHours * HOUR, ...ends) * ROOM
  return {
    span,
    place: ({ from, to }) => ({
      left: Math.min(1, Math.max(0, (from - now) / span)),
      width: Math.max(LEAST_SHARE, (Math.max(now, to) - Math.max(now, from)) / span),
    }),
  }
}
