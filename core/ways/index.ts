import { air } from './air'
import { dehydrator } from './dehydrator'
import type { ListItem, WayOf } from './define'
import { freezeDryer } from './freezeDryer'
import { oven } from './oven'
import { smoker } from './smoker'
import { sun } from './sun'

export { INSECTS_HEAT, INSECTS_WORDS, type ListItem, type UpkeepTask, type WayAsk } from './define'
export { SUN_HOURS } from './sun'

/**
 * The ways of drying, each in a file of its own. Their lists and their wear are common practice, the machine's manual comes first;
 * their factors agree with what practice says of chilies: two to three days of sun, four or five in a warm cupboard.
 */
const DECLARED = { dehydrator, oven, smoker, 'freeze-dryer': freezeDryer, sun, air } satisfies { [Key in string]: WayOf<Key> }

export type WayKey = keyof typeof DECLARED
export type Way = WayOf<WayKey>

export const WAYS: Record<WayKey, Way> = DECLARED
export const WAY_KEYS = Object.keys(DECLARED) as [WayKey, ...WayKey[]]

/** The way that hours and heats of the reference are said of, and that dries on what another has begun. */
export const STANDARD_WAY: WayKey = 'dehydrator'

/** Hours over those of the standard way at the food's own heat; 1 where they do not follow from it. */
export const hoursFactor = ({ hours }: Way) => (hours.from === 'factor' ? hours.factor : 1)

/** Its hours follow from those of the standard way. */
export const isOfStandardHours = ({ hours }: Way) => hours.from === 'said' || hours.from === 'factor'

/** What a way's heat is called when it is set so, or off. */
export function heatState(way: WayKey, setC: number | null, temperature: (celsius: number) => string): string {
  const { on, off } = WAYS[way].words
  return setC === null ? off : on.replace('{t}', temperature(setC))
}

/** The item of a list by its key; undefined for one that this way does not have. */
export function listItem(way: WayKey, list: 'start' | 'end', key: string): ListItem | undefined {
  return WAYS[way][list].find(entry => entry.key === key)
}

/** Hangs or lies in a room without heat, and so goes by that room even where nobody measured it. */
export const goesByRoom = (way: WayKey) => WAYS[way].unheated && !WAYS[way].outdoors
