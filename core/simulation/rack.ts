import type { Air } from '../air'
import { wetBasis } from '../mass'
import { activityCurve, type Isotherm } from '../sorption'
import { randomSource } from '../stats'
import { FaceBalance } from './face'
import { Piece, type PieceSettings } from './piece'
import { waterActivityOf } from './oswin'

const { exp, max, min } = Math

/** A machine's air during a step, as somebody set it. */
export interface RackAir {
  /** What the dial says, °C; null while it is off. */
  setC: number | null
  room: Air
  /** Share of the usual draught, 1 as the machine has it. */
  fan?: number
}

export interface RackSettings {
  /** Net weight at the start of each tray, g, in the order of their places. */
  trayWeightsG: readonly number[]
  /** How each place dries against the middle of the machine; 1 for all where missing. */
  placePaces?: readonly number[]
  /** True dry-matter share at loading. */
  solids: number
  /** One piece of the middle size, at the reference heat. */
  piece: Omit<PieceSettings, 'startX'>
  /** Evaporation of a wet face of the middle size at the reference heat in a usual room, in units of X·(way out)/h. */
  evaporationRate: number
  /** Heat at which both rates are meant, °C. */
  referenceC: number
  /** How the food holds water; Oswin's curve where missing. */
  isotherm?: Isotherm
  /** Standard deviation of the logarithm of thickness from piece to piece, and of a tray's own pace. */
  thicknessSpread: number
  traySpread: number
  /** What lies heaped: wet food on a square metre, kg, in so many layers; a single layer in plenty of air where missing. */
  heap?: { loadKgM2: number; layers: number }
  seed: number
}

/** Sizes that stand for all pieces of a tray: thin, middle, thick and the thickest one, in standard deviations, with their shares. */
const SIZES = [
  { at: -1.2, share: 0.3 },
  { at: 0, share: 0.4 },
  { at: 1.2, share: 0.25 },
  { at: 2.2, share: 0.05 },
] as const

/** Still air takes so much of what the fan does. */
const STILL = 0.12
/** Above this warmth a face of a food that hardens closes twice as fast for every so many degrees more. */
const HARDENING_STEP_C = 5
/**
 * Air that goes through a heap, kg an hour for a square metre of tray: set so that two layers take what the trade says in the middle of all
 * cuts. It is half of what a household's fan of a cubic metre a minute moves over three quarters of a square metre (common practice).
 */
const THROUGH_KG_M2H = 50
/** Vapour by its share of air's mass and pressure: the molar masses of water and air. */
const MOLAR = 0.622
const AIR_KPA = 101.325
/** Layers of a heap take their air from the one above: for so long at a time it is taken as it is. */
const HEAP_STEP_H = 0.25
/** Airs that are kept. */
const MOST_AIRS = 100
/** Warmth for which a curve of the food's isotherm is kept, °C. */
const CURVE_STEP_C = 0.5

/** Pieces of one size on a tray: one of them stands for all. */
export interface RackPieces {
  piece: Piece
  /** Thickness against the middle size. */
  thickness: number
  /** Share of the tray's dry matter. */
  share: number
}

export interface RackTray {
  /** Dry matter, g. */
  solidsG: number
  /** Its own pace, wherever it stands. */
  own: number
  /** Where it stands, from 0 as loaded. */
  place: number
  /** Taken out, it stands covered on the table and keeps its water. */
  out: boolean
  pieces: RackPieces[]
}

/**
 * A load in a machine, dried on paper by whoever sets the dial: every tray with its own place and spread, pieces of several sizes on it,
 * the room's air warmed, every face in balance of heat, water taken back while it is off. One may look inside every piece. In a heap
 * the air goes down from layer to layer, and what is below waits for what is above.
 *
 * As simple as this: a tray's air is the machine's, not what the tray before has made of it; a piece has one warmth; sizes keep
 * their shape while they shrink.
 */
export class Rack {
  readonly trays: RackTray[]
  /** Hours since it was loaded. */
  hours = 0
  private readonly curves = new Map<number, (x: number) => number>()

  constructor(private readonly settings: RackSettings) {
    const source = randomSource(settings.seed)
    const startX = (1 - settings.solids) / settings.solids
    const layers = settings.heap?.layers ?? 1
    this.trays = settings.trayWeightsG.map((grams, place) => ({
      solidsG: grams * settings.solids,
      own: exp(settings.traySpread * source.normal()),
      place,
      out: false,
      // Layer by layer from the top.
      pieces: Array.from({ length: layers }, () =>
        SIZES.map(({ at, share }) => {
          const thickness = exp(settings.thicknessSpread * at)
          const diffusionRate = settings.piece.diffusionRate / thickness ** 2
          return { piece: new Piece({ ...settings.piece, startX, diffusionRate }), thickness, share: share / layers }
        }),
      ).flat(),
    }))
  }

  /** Net weight of each tray, g, in the order in which they were loaded. */
  get trayWeightsG(): number[] {
    return this.trays.map(weightOf)
  }
  get weightG(): number {
    return this.trays.reduce((sum, tray) => sum + weightOf(tray), 0)
  }
  /** Moisture of the whole load, wet basis. */
  get moisture(): number {
    const solidsG = this.trays.reduce((sum, tray) => sum + tray.solidsG, 0)
    return 1 - solidsG / this.weightG
  }
  /** Moisture of the wettest piece of all, wet basis, and of its middle: what a jar would draw on. */
  get wettest(): { tray: number; whole: number; core: number } {
    let found = { tray: 0, whole: 0, core: 0 }
    this.trays.forEach(({ pieces }, tray) => {
      for (const { piece } of pieces) {
        const whole = wetBasis(piece.meanX)
        if (whole > found.whole) found = { tray, whole, core: wetBasis(max(...piece.x)) }
      }
    })
    return found
  }

  /** The same food as it is now, on a clock that runs so many times as fast. */
  paced(times: number): Rack {
    const { settings } = this
    const next = new Rack({
      ...settings,
      evaporationRate: settings.evaporationRate * times,
      piece: { ...settings.piece, diffusionRate: settings.piece.diffusionRate * times },
    })
    next.trays.forEach((tray, i) => {
      const from = this.trays[i]!
      Object.assign(tray, { own: from.own, place: from.place, out: from.out })
      tray.pieces.forEach(({ piece }, j) => piece.takeFrom(from.pieces[j]!.piece))
    })
    return next
  }

  /** Two trays change places. */
  swap(one: number, other: number): void {
    const [a, b] = [this.trays[one]!, this.trays[other]!]
    ;[a.place, b.place] = [b.place, a.place]
  }
  /** All sheets are turned over. */
  turn(): void {
    for (const { pieces } of this.trays) for (const { piece } of pieces) piece.turn()
  }

  /** Water activity of its food by moisture, at a warmth: a curve for each half degree is kept. */
  curveAt(celsius: number): (x: number) => number {
    const { isotherm } = this.settings
    if (!isotherm) return waterActivityOf
    const key = Math.round(celsius / CURVE_STEP_C)
    const curve = this.curves.get(key) ?? activityCurve(isotherm, key * CURVE_STEP_C)
    this.curves.set(key, curve)
    return curve
  }

  /** Lets so many hours go by. */
  advance(hours: number, { setC, room, fan = 1 }: RackAir): void {
    const { settings } = this
    const on = setC !== null
    const airC = setC ?? room.celsius
    const balance = balanceOf(room, airC, settings.referenceC)
    const activity = this.curveAt(airC)
    const hardening = (settings.piece.hardening ?? 0) * (on ? 2 ** ((airC - settings.referenceC) / HARDENING_STEP_C) : 0)
    const evaporationRate = settings.evaporationRate * (on ? fan : STILL)
    for (const tray of this.trays) {
      if (tray.out) continue
      const pace = tray.own * (settings.placePaces?.[tray.place] ?? 1)
      for (const { piece } of tray.pieces) piece.hardening = hardening
      const meets: Meets = { evaporationRate: pace * evaporationRate, pace, balance, activity }
      if (!settings.heap || settings.heap.layers === 1) for (const pieces of tray.pieces) dry(pieces, hours, meets)
      else this.dryHeap(tray, hours, meets)
    }
    this.hours += hours
  }

  /** Layers from the top down: each meets the air as the ones above left it, damper and cooler. */
  private dryHeap({ pieces }: RackTray, hours: number, meets: Meets): void {
    const { heap, solids } = this.settings
    const { loadKgM2, layers } = heap!
    // Water an hour that the air carries off a square metre for each unit of its drive.
    const carriesKg = (THROUGH_KG_M2H * MOLAR * meets.balance.unitKPa) / AIR_KPA
    const solidsKgM2 = loadKgM2 * solids
    for (let left = hours; left > 1e-9; left -= HEAP_STEP_H) {
      const step = min(HEAP_STEP_H, left)
      let used = 0
      for (let layer = 0; layer < layers; layer++) {
        const its = pieces.slice(layer * SIZES.length, (layer + 1) * SIZES.length)
        // A layer cannot give its air more than it takes: what it would draw from fresh air falls on the way through it.
        const units = its.reduce((sum, { piece, share, thickness }) => sum + (share * piece.opensTo * meets.evaporationRate) / thickness, 0)
        const through = (units * solidsKgM2) / carriesKg
        const evaporationRate = meets.evaporationRate * (through > 1e-9 ? (1 - exp(-through)) / through : 1)
        const before = waterOf(its)
        for (const item of its) dry(item, step, { ...meets, evaporationRate, used })
        used += ((before - waterOf(its)) * solidsKgM2) / step / carriesKg
      }
    }
  }
}

/** What the faces of a tray meet. */
interface Meets {
  evaporationRate: number
  pace: number
  balance: FaceBalance
  activity: (x: number) => number
  /** Share of the drive that the air above has used up. */
  used?: number
}

function dry({ piece, thickness }: RackPieces, hours: number, { evaporationRate, pace, balance, activity, used = 0 }: Meets): void {
  piece.step(
    {
      evaporationRate: evaporationRate / thickness,
      pull: x => balance.drive(activity(x)) - used,
      warmth: x => pace * balance.warmth(activity(x)),
    },
    hours,
  )
}

const balances = new Map<string, FaceBalance>()
/** Worked out once for as long as an air is met. */
function balanceOf(room: Air, airC: number, referenceC: number): FaceBalance {
  const key = [room.celsius, room.humidity, room.pressureKPa, airC, referenceC].join()
  const known = balances.get(key)
  if (known) return known
  if (balances.size >= MOST_AIRS) balances.clear()
  const balance = new FaceBalance(room, airC, referenceC)
  balances.set(key, balance)
  return balance
}

/** Water of some of a tray's pieces, by the dry matter of the whole tray. */
const waterOf = (pieces: readonly RackPieces[]) => pieces.reduce((sum, { piece, share }) => sum + share * piece.meanX, 0)
/** Net weight of a tray, g. */
export const weightOf = ({ solidsG, pieces }: RackTray) => solidsG * (1 + waterOf(pieces))
