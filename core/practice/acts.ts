import type { FeelCheck } from '../dryness'
import type { ClumpRisk } from '../grinding'
import type { PackageKey } from '../keeping'
import type { JarSight, LookSight } from '../log'
import type { Deed } from './lesson'

/** What a player does. Hours and places as somebody says them; every deed takes the time that it takes. */
export type Act =
  | { do: 'cut'; key: string }
  | { do: 'wait'; hours: number }
  /** One tray by its number, or all. */
  | { do: 'weigh'; tray?: number }
  | { do: 'feel'; trays: readonly number[]; thick: boolean; cooled: boolean }
  | { do: 'jarAir'; hours: number }
  | { do: 'heat'; setC: number | null }
  | { do: 'swap'; one: number; other: number }
  | { do: 'turn' }
  | { do: 'move' }
  | { do: 'takeOut'; trays?: readonly number[] }
  | { do: 'rest' }
  | { do: 'look' }
  | { do: 'back'; setC: number }
  | { do: 'grind'; burstS: number }
  | { do: 'ovenDry'; minutes: number }
  | { do: 'pack'; lid: PackageKey; gel: boolean }
  | { do: 'waterBack'; grams: number }
  | { do: 'stop' }

/** What somebody who did it comes to know; nothing else is known. */
export type Reading =
  | { of: 'weight'; grams: number; tray?: number }
  | { of: 'feel'; check: FeelCheck; pieces: { tray: number; thick: boolean; answers: Record<string, string> }[] }
  | { of: 'jarAir'; shown: number; closedHours: number; celsius: number }
  | { of: 'look'; saw: LookSight }
  | { of: 'ground'; powderG: number; stuckG: number; clumps: ClumpRisk; celsius: number }
  | { of: 'jar'; saw: JarSight; months: number }
  | { of: 'cup'; words: 'thin' | 'right' | 'thick' }
  | { of: 'done' }

export type Stage = 'cut' | 'machine' | 'out' | 'jar' | 'powder' | 'packed' | 'ended'

/** One row of what is shown at the end: the inside of every piece at an hour. */
export interface Frame {
  hours: number
  /** By tray, then by size from thin to thickest: moisture from the middle to the face, dry basis. */
  pieces: readonly (readonly Float32Array[])[]
  /** Water of all of it, wet basis. */
  moisture: number
  setC: number | null
}

/** What it came to, as far as can be counted. */
export interface Tally {
  /** Dry matter that was loaded, g. */
  solidsG: number
  looks: number
  woken: number
  kWh: number
  /** Hours of heat after all of it was dry. */
  overH: number
  /** Hours in which perishable food stood warm and wet. */
  dangerH: number
  /** Minutes with the door open. */
  doorMin: number
  /** Hours of heat above what it began with, for each ten degrees: colour and scent. */
  hotH: number
}

/** Where each deed has its place; the others have it anywhere. */
export const DONE_AT: Partial<Record<Deed, readonly Stage[]>> = {
  cut: ['cut'],
  weigh: ['machine'],
  feel: ['machine'],
  jarAir: ['machine', 'out', 'jar'],
  heat: ['machine'],
  swap: ['machine'],
  turn: ['machine'],
  move: ['machine'],
  takeOut: ['machine'],
  rest: ['out'],
  look: ['jar'],
  back: ['out', 'jar'],
  grind: ['out', 'jar'],
  ovenDry: ['powder'],
  pack: ['powder', 'out', 'jar'],
  waterBack: ['powder', 'out', 'packed'],
}

/** Where it is, when it cannot be done. */
export const WHERE: Record<Stage, string> = {
  cut: 'Choose the cut first.',
  machine: 'It is in the machine: take it out first.',
  out: 'It has left the machine.',
  jar: 'It rests in a closed jar.',
  powder: 'It is powder already.',
  packed: 'It is packed.',
  ended: 'It is over.',
}

/** Why an act cannot be done now, in words. */
export class NotNow extends Error {}
