import type { RackAnswer } from '#shared/contracts'
import { WAYS } from '#core/ways'
import { DAY, HOUR } from '#core/time'

/** How long a machine still runs, as its windows say: "3–5 h", "within 4 h", "4–14 days". One figure would promise more than they do. */
export function leftWords({ finishes, setC, machine }: Pick<RackAnswer, 'finishes' | 'setC' | 'machine'>, now: number): string {
  if (finishes.length === 0) return 'empty'
  if (setC === null) return WAYS[machine.kind].plainHeat ? 'heat off' : 'waits'
  const open = finishes.filter(finish => finish.from !== undefined && finish.to !== undefined)
  if (open.length === 0) return 'no finish at this heat'
  const first = Math.min(...open.map(finish => finish.from!)) - now
  const last = Math.max(...open.map(finish => finish.to!)) - now
  if (last <= 0) return 'may be dry'
  const [size, one, many] = last > 2 * DAY ? [DAY, 'day', 'days'] : [HOUR, 'h', 'h']
  const high = Math.max(1, Math.round(last / size))
  const low = Math.max(0, Math.round(first / size))
  const unit = high === 1 ? one : many
  return low === 0 ? `within ${high}\u00A0${unit}` : low === high ? `about ${high}\u00A0${unit}` : `${low}–${high}\u00A0${unit}`
}
