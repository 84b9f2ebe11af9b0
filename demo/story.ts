import type { PackageKey } from '#core/keeping'
import type { Purpose } from '#core/foods'
import type { Salt } from '#core/sorption'

/** The invented household: nobody lives there. */
export const HOUSEHOLD = { name: 'Fennick Lane kitchen' }

/** Who cuts. */
export const COOKS = ['Wren', 'Tobin'] as const

/** `places`: how each level dries against the middle, top to bottom; `dialOffC`: what a thermometer shows above the dial. */
export const MACHINES = {
  cabinet: { name: 'Tall cabinet', kind: 'dehydrator', trays: 9, trayAreaM2: 0.14, trayTareG: 310, watts: 800, lowC: 30, highC: 74, pace: 1.12, dialOffC: -3, places: [0.9, 0.95, 1, 1.02, 1.04, 1.06, 1.06, 1.02, 0.96] },
  stack: { name: 'Round stack', kind: 'dehydrator', trays: 5, trayAreaM2: 0.075, trayTareG: 145, watts: 260, lowC: 35, highC: 70, pace: 0.94, dialOffC: 2, places: [0.84, 0.93, 1, 1.08, 1.18] },
  oven: { name: 'Kitchen oven', kind: 'oven', trays: 3, trayAreaM2: 0.16, trayTareG: 620, watts: 2400, lowC: 50, highC: 120, pace: 1.05, dialOffC: 4, places: [1.1, 1, 0.92] },
  smoker: { name: 'Yard smoker', kind: 'smoker', trays: 4, trayAreaM2: 0.12, trayTareG: 480, watts: 800, lowC: 60, highC: 120, pace: 1, dialOffC: 0, places: [0.95, 1, 1.05, 1.1] },
  freezer: { name: 'Cold chest', kind: 'freeze-dryer', trays: 4, trayAreaM2: 0.12, trayTareG: 540, watts: 1100, lowC: 20, highC: 60, iceG: 5500, pace: 0.96, dialOffC: 0, places: [1.02, 1, 1, 0.97] },
  racks: { name: 'South wall racks', kind: 'sun', trays: 6, trayAreaM2: 0.3, trayTareG: 700, watts: 1, lowC: 10, highC: 60, pace: 1.05, dialOffC: 0, places: [1, 1, 1, 1, 1, 1] },
  loft: { name: 'Airing loft', kind: 'air', trays: 8, trayAreaM2: 0.25, trayTareG: 0, watts: 1, lowC: 10, highC: 45, pace: 1, dialOffC: 0, places: [1, 1, 1, 1, 1, 1, 1, 1] },
} as const
export type MachineName = keyof typeof MACHINES

/** The jar hygrometer, as it read over two salts. */
export const HYGROMETER = {
  name: 'Jar hygrometer, the white one',
  readings: [{ salt: 'magnesium-chloride', shown: 0.36 }, { salt: 'sodium-chloride', shown: 0.77 }] satisfies { salt: Salt, shown: number }[],
}

/** Grinders and sieves of the household. */
export const TOOLS = [
  { kind: 'grinder', name: 'Little spice mill', cupMl: 120, watts: 150, cupCm: 7, fineness: 'fine', dedicated: true },
  { kind: 'grinder', name: 'Jug blender', cupMl: 1500, watts: 900, cupCm: 22, fineness: 'coarse' },
  { kind: 'sieve', name: 'Tea strainer', openingUm: 600 },
  { kind: 'sieve', name: 'Flour sieve', openingUm: 250 },
] as const

/** What the shelf should hold at least, g, and what the shop asks a kilogram. */
export const WISHES = [
  { foodKey: 'onion', leastG: 400, shopPerKg: 28 }, { foodKey: 'garlic', leastG: 150, shopPerKg: 34 }, { foodKey: 'tomato', shopPerKg: 46 }, { foodKey: 'beetroot', shopPerKg: 38 }, { foodKey: 'mushroom', shopPerKg: 95 },
] as const

export const PLACES = ['Pantry, top board', 'Pantry, middle board', 'Pantry, low board', 'Cellar shelf'] as const

/** One batch of the year: what came in, how long ago, and how far it has come by now. */
export interface Chapter {
  /** Chance of its own; the others count on from 1000, so that a new chapter leaves theirs as they were. */
  seed?: number
  food: string
  card: string
  purpose: Purpose
  cultivar?: string
  source: string
  rawG: number
  /** Days before the demo is made. */
  daysAgo: number
  machine: MachineName
  /** After the smoke: the machine that dries it on. */
  then?: MachineName
  /** Leaf the quick way: ground half dry, dried an hour more, ground again. */
  twice?: boolean
  plant?: string
  place: number
  packageKey?: PackageKey
  /** Share of the jars' content that has been used since. */
  used?: number
  /** School B: ground straight from the machine. */
  noRest?: boolean
  /** A word for next time, said when the first jar was tasted. */
  word?: { again: 'yes' | 'changed' | 'no', colour?: number, taste?: number, text?: string }
  /** Where an unfinished one stands; finished when missing. */
  until?: Unfinished
}

export type Unfinished
  = | { stage: 'intake' }
    | { stage: 'prep', hoursAgo: number }
  /** Loaded so many hours ago; weighed at these hours after loading, once before with a slip of the finger. */
    | { stage: 'drying', loadedHoursAgo: number, weighedAt: number[], mistypedAt?: number, positions: number[], byTray?: boolean, joins?: boolean }
    /** `jarAir`: what the hygrometer in the jar showed on the second day, 0–1. */
    | { stage: 'resting', days: number, looks: number, jarAir?: number }
    | { stage: 'grinding', packedShare: number }

/** A year of work, oldest first. Foods come in when a garden or a market has them, whatever the month. */
export const YEAR: readonly Chapter[] = [
  { food: 'onion', card: 'rings-5', purpose: 'flakes', source: 'Market, a net', rawG: 2600, daysAgo: 338, machine: 'cabinet', place: 1, used: 0.9 },
  { food: 'carrot', card: 'slices-3', purpose: 'powder', source: 'Own garden', cultivar: 'Lantern', rawG: 3400, daysAgo: 322, machine: 'cabinet', place: 0, used: 0.85 },
  { food: 'celery', card: 'slices-6', purpose: 'powder', source: 'Market', rawG: 2900, daysAgo: 301, machine: 'cabinet', place: 0, used: 0.7, word: { again: 'yes', taste: 5, text: 'Leaves in as well' } },
  { food: 'apple', card: 'rings-5', purpose: 'pieces', source: 'Neighbour', cultivar: 'Harbour Russet', rawG: 4100, daysAgo: 287, machine: 'cabinet', place: 2, packageKey: 'bag', used: 0.95 },
  { food: 'mushroom', card: 'slices-6', purpose: 'powder', source: 'Market, end of day', rawG: 2200, daysAgo: 266, machine: 'stack', place: 3, packageKey: 'vacuum-jar', used: 0.5 },
  { food: 'kale', card: 'leaves', purpose: 'powder', source: 'Own garden', cultivar: 'Black Ragged', rawG: 1500, daysAgo: 251, machine: 'cabinet', place: 1, used: 0.6 },
  { food: 'beetroot', card: 'slices-3', purpose: 'powder', source: 'Own garden', cultivar: 'Dusk Globe', rawG: 3700, daysAgo: 238, machine: 'cabinet', place: 0, used: 0.75, word: { again: 'changed', colour: 5, taste: 4, text: 'Slice it 2 mm: the thick ones held up the tray' } },
  { food: 'parsley', card: 'leaves', purpose: 'flakes', source: 'Own garden', rawG: 520, daysAgo: 226, machine: 'stack', place: 1, used: 0.5, noRest: true },
  { food: 'strawberry', card: 'slices-6', purpose: 'powder', source: 'Picked at the farm', rawG: 2400, daysAgo: 203, machine: 'cabinet', place: 2, packageKey: 'foil-bag', used: 0.3 },
  { food: 'strawberry', card: 'slices-6', purpose: 'pieces', source: 'Picked at the farm', rawG: 1900, daysAgo: 196, machine: 'stack', place: 2, used: 0.4 },
  { food: 'garlic', card: 'slices-3', purpose: 'powder', source: 'Own garden', cultivar: 'Rook’s Bulb', rawG: 1300, daysAgo: 184, machine: 'stack', place: 0, used: 0.35, word: { again: 'changed', taste: 5, text: 'Outdoors: the house smelt for a week' } },
  { food: 'zucchini', card: 'slices-6', purpose: 'powder', source: 'Own garden', rawG: 4300, daysAgo: 171, machine: 'cabinet', place: 1, used: 0.2 },
  { food: 'tomato', card: 'slices-6', purpose: 'powder', source: 'Own garden', cultivar: 'Ember Plum', rawG: 4800, daysAgo: 160, machine: 'cabinet', place: 0, used: 0.55, word: { again: 'yes', colour: 4, taste: 5 } },
  { food: 'onion', card: 'rings-5', purpose: 'powder', source: 'Own garden', rawG: 3100, daysAgo: 152, machine: 'cabinet', place: 0, used: 0.4 },
  { food: 'zucchini', card: 'shreds', purpose: 'flakes', source: 'Own garden', rawG: 3600, daysAgo: 143, machine: 'cabinet', place: 1, packageKey: 'plastic-lid', used: 0.15 },
  { food: 'tomato', card: 'slices-6', purpose: 'powder', source: 'Own garden', cultivar: 'Ember Plum', rawG: 5200, daysAgo: 131, machine: 'cabinet', place: 0, used: 0.25 },
  { food: 'hot-chili', card: 'pieces-25', purpose: 'powder', source: 'Own garden', cultivar: 'Sparrow Tongue', rawG: 1400, daysAgo: 122, machine: 'stack', place: 2, used: 0.2 },
  { seed: 2001, food: 'mint', card: 'bunches', purpose: 'flakes', source: 'Own garden', plant: 'By the rain barrel', rawG: 640, daysAgo: 149, machine: 'loft', place: 1, used: 0.3 },
  { seed: 2002, food: 'hot-chili', card: 'halves', purpose: 'flakes', source: 'Own garden', cultivar: 'Sparrow Tongue', plant: 'South bed', rawG: 1900, daysAgo: 118, machine: 'racks', place: 2, used: 0.2 },
  { food: 'sweet-pepper', card: 'pieces-25', purpose: 'powder', source: 'Market, a crate', rawG: 3900, daysAgo: 112, machine: 'cabinet', place: 2, used: 0.3 },
  { food: 'mushroom', card: 'slices-6', purpose: 'powder', source: 'Market', rawG: 2500, daysAgo: 98, machine: 'cabinet', place: 3, packageKey: 'vacuum-jar', used: 0.15 },
  { food: 'pumpkin', card: 'sheet', purpose: 'powder', source: 'Neighbour', cultivar: 'Grey Lantern', rawG: 5600, daysAgo: 84, machine: 'cabinet', place: 2, used: 0.2, word: { again: 'changed', colour: 3, taste: 3, text: 'Drain the purée overnight first' } },
  { seed: 2003, food: 'jalapeno', card: 'halves', purpose: 'powder', source: 'Market, a crate', rawG: 2200, daysAgo: 78, machine: 'smoker', then: 'stack', place: 2, used: 0.15 },
  { food: 'apple', card: 'rings-5', purpose: 'pieces', source: 'Own tree', cultivar: 'Harbour Russet', rawG: 3300, daysAgo: 70, machine: 'cabinet', place: 2, used: 0.3 },
  { food: 'hot-chili', card: 'halves', purpose: 'flakes', source: 'Own garden', cultivar: 'Sparrow Tongue', rawG: 1700, daysAgo: 58, machine: 'stack', place: 2, used: 0.1 },
  { seed: 2004, food: 'hot-chili', card: 'pieces-25', purpose: 'powder', source: 'Own garden', cultivar: 'Sparrow Tongue', plant: 'South bed', rawG: 900, daysAgo: 64, machine: 'oven', place: 2, used: 0.1 },
  { seed: 2005, food: 'milk-whole', card: 'liquid', purpose: 'powder', source: 'Dairy at the ford', rawG: 5200, daysAgo: 52, machine: 'freezer', place: 3, packageKey: 'foil-bag', used: 0.1 },
  { seed: 2006, food: 'chicken-cooked', card: 'mince', purpose: 'pieces', source: 'Market', rawG: 1400, daysAgo: 48, machine: 'stack', place: 3, packageKey: 'foil-bag', used: 0.2 },
  { food: 'celery', card: 'slices-6', purpose: 'powder', source: 'Market', rawG: 3000, daysAgo: 45, machine: 'cabinet', place: 0, used: 0.05 },
  { food: 'beetroot', card: 'slices-3', purpose: 'powder', source: 'Own garden', cultivar: 'Dusk Globe', rawG: 4000, daysAgo: 33, machine: 'cabinet', place: 0, used: 0.05, word: { again: 'yes', colour: 4, taste: 4 } },
  { seed: 2007, food: 'dried-mild-chili', card: 'crisp', purpose: 'powder', source: 'Spice stall', rawG: 420, daysAgo: 28, machine: 'oven', place: 2, noRest: true, used: 0.1 },
  { food: 'kale', card: 'leaves', purpose: 'powder', source: 'Own garden', cultivar: 'Black Ragged', rawG: 1700, daysAgo: 24, machine: 'cabinet', place: 1 },
  { seed: 2008, food: 'parsley', card: 'stalked', purpose: 'powder', source: 'Own garden', plant: 'Kitchen step', rawG: 780, daysAgo: 19, machine: 'stack', twice: true, noRest: true, place: 1 },
  { food: 'carrot', card: 'shreds', purpose: 'powder', source: 'Market', rawG: 3500, daysAgo: 14, machine: 'cabinet', place: 1, until: { stage: 'grinding', packedShare: 0.55 } },
  { food: 'tomato', card: 'slices-6', purpose: 'powder', source: 'Greenhouse, the last', cultivar: 'Ember Plum', rawG: 3800, daysAgo: 9.2, machine: 'cabinet', place: 0, until: { stage: 'resting', days: 7, looks: 6 } },
  { food: 'garlic', card: 'slices-3', purpose: 'powder', source: 'Own garden', cultivar: 'Rook’s Bulb', rawG: 1100, daysAgo: 4.6, machine: 'stack', place: 0, until: { stage: 'resting', days: 3, looks: 2, jarAir: 0.22 } },
  { food: 'hot-chili', card: 'halves', purpose: 'powder', source: 'Own garden, the last', cultivar: 'Sparrow Tongue', rawG: 1250, daysAgo: 1, machine: 'stack', place: 2, until: { stage: 'drying', loadedHoursAgo: 15.5, weighedAt: [11], positions: [1, 2, 3, 4] } },
  { food: 'beetroot', card: 'slices-3', purpose: 'powder', source: 'Own garden, clamp', cultivar: 'Dusk Globe', rawG: 3420, daysAgo: 0.6, machine: 'cabinet', place: 0, until: { stage: 'drying', loadedHoursAgo: 8.6, weighedAt: [2, 4, 6.1, 8], positions: [1, 2, 3, 5, 6], byTray: true } },
  { food: 'pumpkin', card: 'sheet', purpose: 'powder', source: 'Neighbour', cultivar: 'Grey Lantern', rawG: 2300, daysAgo: 0.4, machine: 'cabinet', place: 2, until: { stage: 'drying', loadedHoursAgo: 3.4, mistypedAt: 1.2, weighedAt: [2.6], positions: [7, 8, 9], joins: true } },
  { seed: 2009, food: 'plum', card: 'halves', purpose: 'pieces', source: 'Own tree', cultivar: 'Late Bell', rawG: 5200, daysAgo: 1.2, machine: 'racks', place: 2, until: { stage: 'drying', loadedHoursAgo: 26, weighedAt: [7], positions: [1, 2, 3, 4] } },
  { seed: 2010, food: 'raspberry', card: 'whole', purpose: 'powder', source: 'Picked at the farm', rawG: 2300, daysAgo: 1.3, machine: 'freezer', place: 2, until: { stage: 'drying', loadedHoursAgo: 31, weighedAt: [28, 30.2], positions: [1, 2, 3, 4], byTray: true } },
  { food: 'celery', card: 'slices-6', purpose: 'powder', source: 'Market', rawG: 2850, daysAgo: 0.1, machine: 'stack', place: 0, until: { stage: 'prep', hoursAgo: 0.6 } },
  { food: 'zucchini', card: 'shreds', purpose: 'flakes', source: 'Own garden', rawG: 4200, daysAgo: 0.05, machine: 'cabinet', place: 1, until: { stage: 'intake' } },
]
