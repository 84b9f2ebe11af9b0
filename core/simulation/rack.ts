import { wetBasis } from '../mass'
import { pacePerHour } from '../kinetics'
import { heatedHumidity, saturationKPa, wetBulbC, type Air } from '../air'
import { activityCurve, type Isotherm } from '../sorption'
import { randomSource } from '../stats'
import { Piece, type PieceSettings } from './piece'
import { waterActivityOf } from './slab'

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
  /** Evaporation of the middle size at the reference heat, in units of X·(way out)/h. */
  evaporationRate: number
  /** Heat at which both rates are meant, °C. */
  referenceC: number
  /** How the food holds water; Oswin's curve where missing. */
  isotherm?: Isotherm
  /** Standard deviation of the logarithm of thickness from piece to piece, and of a tray's own pace. */
  thicknessSpread: number
  traySpread: number
  /** Hours of a step once the quick beginning is over; a tenth where missing. */
  stepH?: number
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
/** Hours of a step: short while much changes. */
const STEP_H = 0.05
const LATER_STEP_H = 0.1
const LATER_H = 3
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
 * the room's air warmed, wet bulb while the faces are wet, water taken back while it is off. One may look inside every piece.
 *
 * As simple as this: a tray's air is the machine's, not what the tray before has made of it; a piece has one warmth; sizes keep
 * their shape while they shrink.
 */
export class Rack {
  readonly trays: RackTray[]
  /** Hours since it was loaded. */
  hours = 0
  private met?: { key: string; airC: number; humidity: number; wetC: number; evaporation: number; hardening: number }
  private readonly curves = new Map<number, (x: number) => number>()

  constructor(private readonly settings: RackSettings) {
    const source = randomSource(settings.seed)
    const startX = (1 - settings.solids) / settings.solids
    this.trays = settings.trayWeightsG.map((grams, place) => ({
      solidsG: grams * settings.solids,
      own: exp(settings.traySpread * source.normal()),
      place,
      out: false,
      pieces: SIZES.map(({ at, share }) => {
        const thickness = exp(settings.thicknessSpread * at)
        const diffusionRate = settings.piece.diffusionRate / thickness ** 2
        return { piece: new Piece({ ...settings.piece, startX, diffusionRate }), thickness, share }
      }),
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

  /** What the faces meet in an air: worked out once for as long as the air stays. */
  private facing({ setC, room, fan = 1 }: RackAir) {
    const key = `${setC} ${room.celsius} ${room.humidity} ${room.pressureKPa} ${fan}`
    if (this.met?.key === key) return this.met
    const { settings } = this
    const on = setC !== null
    const airC = setC ?? room.celsius
    const draught = on ? fan : STILL
    this.met = {
      key,
      airC,
      humidity: on ? heatedHumidity(room, airC) : room.humidity,
      // A wet face is as warm as the wet bulb, a dry one as the air: warmth follows how dry the face is.
      wetC: wetBulbC(room, airC),
      evaporation: (settings.evaporationRate * draught * saturationKPa(airC)) / saturationKPa(settings.referenceC),
      hardening: (settings.piece.hardening ?? 0) * (on ? 2 ** ((airC - settings.referenceC) / HARDENING_STEP_C) : 0),
    }
    return this.met
  }

  /** Lets so many hours go by. */
  advance(hours: number, air: RackAir): void {
    const { settings } = this
    const { airC, wetC, humidity, evaporation, hardening } = this.facing(air)
    const activity = this.curveAt(airC)
    const laterStepH = settings.stepH ?? LATER_STEP_H
    for (let left = hours; left > 1e-9;) {
      const step = min(this.hours < LATER_H - 1e-6 ? STEP_H : laterStepH, left)
      for (const tray of this.trays) {
        if (tray.out) continue
        const pace = tray.own * (settings.placePaces?.[tray.place] ?? 1)
        for (const { piece, thickness } of tray.pieces) {
          const dry = max(0, 1 - piece.faceX)
          const warmth = pacePerHour(wetC + (airC - wetC) * dry, settings.referenceC)
          piece.hardening = hardening
          piece.step({ evaporationRate: (pace * evaporation) / thickness, humidity, warmth: pace * warmth, activity }, step)
        }
      }
      this.hours += step
      left -= step
    }
  }
}

const meanOf = (pieces: readonly RackPieces[]) => pieces.reduce((sum, { piece, share }) => sum + share * piece.meanX, 0)
/** Net weight of a tray, g. */
export const weightOf = ({ solidsG, pieces }: RackTray) => solidsG * (1 + meanOf(pieces))
