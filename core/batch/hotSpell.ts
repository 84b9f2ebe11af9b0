import { hotHoursAllowed, isHot } from '../dryness'
import { WAYS } from '../ways'
import type { Assessment } from './assess'
import type { BatchState } from '../log'
import { HOUR } from '../time'

/** A heat above the card's that is on now, and when it should come down. */
export interface HotSpell {
  since: number
  lowerBy: number
  celsius: number
}

/** Whether a batch stands at a heat that may harden it; undefined where it does not. */
export function hotSpellOf(state: BatchState, { waterGone }: Pick<Assessment, 'waterGone'>): HotSpell | undefined {
  const { run } = state
  if (!run || run.setC === null || run.unloadedAt !== undefined || WAYS[run.way.way].underVacuum) return undefined
  const celsius = run.clock.spells.at(-1)!.setC
  const from = run.clock.spells.findLastIndex(spell => !isHot(run.way.temperatureC, spell.setC)) + 1
  const since = run.clock.spells[from]?.from ?? Infinity
  const hours = hotHoursAllowed({ cardC: run.way.temperatureC, nowC: celsius, thicknessMm: state.thicknessMm, waterGone: waterGone.p50 })
  return hours === undefined ? undefined : { since, lowerBy: since + hours * HOUR, celsius }
}
