import { shelfFluxWM2, SUBLIMATION_MJ_KG } from '../freezing'

const { exp, max, min, sqrt } = Math

/** The dried layer stands between heat and ice: at the end the ice gets this much less of it (1 + HINDERS times). */
const HINDERS = 1.5
/** Water that never froze, dry basis, and what a cold shelf leaves of it in the end (from memory: 0.2 to 0.35, and 1 to 3 %). */
const BOUND_X = 0.24
const LEAST_X = 0.015
/** It leaves a dried layer by half in so many hours of vacuum and warmth: a final dry of five to seven hours (common practice). */
const BOUND_H = 2.4

/** A frozen layer on one tray of a freeze dryer. */
export interface IceTraySettings {
  /** Dry matter on it, g, and its water at the start, dry basis. */
  solidsG: number
  startX: number
  areaM2: number
  thicknessMm: number
  /** How its place is warmed against the middle of the machine, and sugar that keeps the shelves cool. */
  pace?: number
  cells?: number
}

/**
 * Ice that leaves from the top down: a sharp front, as fast as heat comes through to it, and behind it what never froze, leaving slowly.
 * The front's time has a closed form (after Plank: W·((1−s) + b(1−s)²/2)/q), which the tests hold it against.
 */
export class IceTray {
  /** Share of the ice that is left. */
  ice = 1
  /** Hours of vacuum and warmth. */
  hours = 0
  readonly solidsG: number
  /** Water of each layer from the tray's floor to the top, dry basis. */
  readonly x: Float64Array
  private readonly frozenX: number
  private readonly rate: number
  private readonly passedAt: Float64Array

  constructor(settings: IceTraySettings) {
    const cells = settings.cells ?? 12
    this.solidsG = settings.solidsG
    this.x = new Float64Array(cells).fill(settings.startX)
    this.passedAt = new Float64Array(cells).fill(Infinity)
    this.frozenX = max(0, settings.startX - BOUND_X)
    const flux = shelfFluxWM2(settings.thicknessMm) * (1 + HINDERS / 2) * (settings.pace ?? 1)
    const iceG = settings.solidsG * this.frozenX
    /** Share of the ice an hour that the bare front loses. */
    this.rate = iceG > 0 ? (flux * settings.areaM2 * 3600) / (iceG * SUBLIMATION_MJ_KG * 1000) : 0
  }

  get meanX(): number {
    return this.x.reduce((sum, value) => sum + value, 0) / this.x.length
  }
  get weightG(): number {
    return this.solidsG * (1 + this.meanX)
  }
  /** What a hand finds: the floor of the tray, where ice is last, and its top. */
  get coreX(): number {
    return this.x[0]!
  }
  get faceX(): number {
    return this.x.at(-1)!
  }

  advance(hours: number): void {
    const cells = this.x.length
    const gone = 1 - this.ice
    // (1−s) + b(1−s)²/2 grows evenly with time.
    const done = gone + (HINDERS * gone ** 2) / 2 + this.rate * hours
    const goneNow = this.rate > 0 ? min(1, (sqrt(1 + 2 * HINDERS * done) - 1) / HINDERS) : 1
    for (let i = 0; i < cells; i++) {
      const fromTop = cells - 1 - i
      // Share of this layer that the front has passed.
      const dried = min(1, max(0, goneNow * cells - fromTop))
      if (dried >= 1 && this.passedAt[i] === Infinity) {
        const at = (fromTop + 1) / cells
        const needed = (at - gone + (HINDERS * (at ** 2 - gone ** 2)) / 2) / this.rate
        this.passedAt[i] = this.hours + (this.rate > 0 ? max(0, needed) : 0)
      }
      const since = max(0, this.hours + hours - this.passedAt[i]!)
      const bound = this.passedAt[i] === Infinity ? BOUND_X : LEAST_X + (BOUND_X - LEAST_X) * exp((-Math.LN2 * since) / BOUND_H)
      this.x[i] = (1 - dried) * this.frozenX + bound
    }
    this.ice = 1 - goneNow
    this.hours += hours
  }
}
