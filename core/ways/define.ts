/** A line of a list that is gone through by the machine. */
export interface ListItem {
  key: string
  words: string
}

export interface UpkeepTask {
  key: string
  words: string
  /** Hours run after which it is due. */
  everyHours: number
}

/** What a batch asks for while it dries so, in the order in which it is told: `core/planning/agenda.ts` knows how. */
export type WayAsk = 'weather' | 'drying' | 'turning' | 'smoke' | 'rounds' | 'lowering' | 'swapping'

/** A way of drying: what is the same of every machine of its kind, or of every place where food dries without one. */
export interface WayOf<Key extends string> {
  key: Key
  /** "Oven, door ajar": the way; and what stands in the workshop. */
  name: string
  machine: string
  /** The heat that is set on it, or the air that it stands in, °C: the usual range. */
  heat: { lowC: number; highC: number }
  /** Usual air, °C; undefined where the food's own is set. `least`: a food that wants more gets more. */
  celsius?: { value: number; least?: true }
  /**
   * Whence its hours: said of the food (`said`), those times a factor (Arrhenius, 30 kJ/mol; still air slower again), the same
   * for whatever food (`pass`, and then it takes part of the water only), or by load, water and depth (`form`).
   */
  hours: { from: 'said' } | { from: 'factor'; factor: number } | { from: 'pass'; low: number; high: number } | { from: 'form' }
  /** Why its heat is what it is, where not the food decides. */
  reason: string
  start: readonly ListItem[]
  end: readonly ListItem[]
  upkeep: readonly UpkeepTask[]
  asks: readonly WayAsk[]

  /** Under the sky: it comes in for the night, and the weather counts. */
  outdoors: boolean
  /** No heat is set: it goes by the air around. */
  unheated: boolean
  /** Under vacuum and frozen: no air, no smell, no turning; every tray is weighed. */
  underVacuum: boolean
  /** Takes part of the water only; a machine dries it on. */
  partOnly: boolean
  /** Food that stands without heat takes water back from the room. */
  takesWaterBack: boolean
  drawsPower: boolean
  /** Drying goes on at night; else so many hours a day count. */
  nightsCount: boolean
  /** Between a load that is out and the next, h: trays wiped and set anew, or the coil defrosted and drained (common practice). */
  clearH: number
  /** May be left on while people sleep, so that the night is a question. */
  mayRunOvernight: boolean
  /** Never left alone: nobody sleeps or goes out while it is on. */
  attended: boolean
  /** Open to the room, and so to children. */
  doorAjar: boolean
  smokes: boolean
  /** One of the schools begins hotter. */
  hotStart: boolean
  /** Its heat is a figure on a dial, and told as one. */
  plainHeat: boolean
  /** Other heats than the card's that are offered: those of the schools, these, or none. */
  otherHeats: 'schools' | readonly number[]
  /** In so many hours a day its time is told in days, once it is longer than this. */
  toldInDays?: { hoursADay: number; beyondHours: number }

  words: {
    /** "Heat": the button, and what is asked for at loading. */
    verb: string
    ask: string
    /** "of heat": the hours that count. */
    hours: string
    /** What on and off are called; `{t}` is the temperature. */
    on: string
    off: string
    /** The choice at loading; the temperature itself where missing. */
    choose?: string
    wait: string
    form: { label: string; on: string; off: string; set: string; then: string }
    /** Whose air is asked for: "Room". */
    airOf: string
  }
}

export const item = (key: string, words: string): ListItem => ({ key, words })
export const task = (key: string, words: string, everyHours: number): UpkeepTask => ({ key, words, everyHours })

/** What most ways have in common: a heated box indoors. */
export const HEATED = {
  outdoors: false,
  unheated: false,
  underVacuum: false,
  partOnly: false,
  takesWaterBack: true,
  drawsPower: true,
  nightsCount: true,
  clearH: 0.25,
  mayRunOvernight: true,
  attended: false,
  doorAjar: false,
  smokes: false,
  hotStart: false,
  plainHeat: true,
} as const

/** What ends insects and their eggs in what stood open, everywhere the same (NCHFP, from memory: 0 °F for 48 hours, 160 °F for 30 minutes). */
export const INSECTS_HEAT = { airC: 71, minutes: 30 }
export const INSECTS_WORDS = `−18 °C for 48 hours, or ${INSECTS_HEAT.airC} °C for ${INSECTS_HEAT.minutes} minutes in a thin layer`
