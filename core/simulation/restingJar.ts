import { saturationKPa, type Air } from '../air'
import { evenAir } from './piece'
import type { RackPieces, RackTray } from './rack'

const { max, min } = Math

/** Still air between pieces, against a machine's fan. */
const STILL = 0.12
/** Tries until the jar's air is told; what is left uneven is owed, and made even in the next step. */
const TRIES = 7
const EVEN = 1e-4

/** A closed jar: what its lid lets in, and where it stands. */
export interface JarAir {
  pantry: Air
  /** Vapour past the lid, g a day for each kPa. */
  gPerDayKPa: number
}

/**
 * Pieces of many trays in one closed jar. They trade water through its air: the thick give, the thin take, until all are even. The air
 * itself holds next to nothing (17 g a cubic metre), so its humidity is whatever makes giving and taking equal, with what the lid lets in.
 */
export class RestingJar {
  /** Relative humidity of its air, as the last step left it. */
  humidity = 0.3
  /** Water that came past the lid, g. */
  entered = 0
  /** Water that left the pieces and is not yet taken by others, g: made even in the next step. */
  owed = 0
  hours = 0
  private readonly all: { pieces: RackPieces; solidsG: number }[]

  constructor(
    trays: readonly RackTray[],
    private readonly evaporationRate: number,
    private readonly curve: (x: number) => number,
    private readonly warmth: number,
  ) {
    this.all = trays.flatMap(({ pieces, solidsG }) => pieces.map(item => ({ pieces: item, solidsG: solidsG * item.share })))
  }

  /** Moisture of all together, dry basis, and the wettest whole piece of them. */
  get meanX(): number {
    const solidsG = this.all.reduce((sum, item) => sum + item.solidsG, 0)
    return this.all.reduce((sum, { pieces, solidsG: grams }) => sum + grams * pieces.piece.meanX, 0) / solidsG
  }
  get wettestX(): number {
    return max(...this.all.map(({ pieces }) => pieces.piece.meanX))
  }
  /** Water in all pieces, g. */
  get waterG(): number {
    return this.all.reduce((sum, { pieces, solidsG }) => sum + solidsG * pieces.piece.meanX, 0)
  }

  /** Lets hours go by, in short steps while much changes. */
  advance(hours: number, { pantry, gPerDayKPa }: JarAir): void {
    const kPa = saturationKPa(pantry.celsius)
    for (let left = hours; left > 1e-9;) {
      const step = min(this.hours < 12 ? 0.5 : this.hours < 72 ? 2 : 6, left)
      const leak = (humidity: number) => (gPerDayKPa / 24) * kPa * (pantry.humidity - humidity)
      // What is given goes down as the air gets damper, until giving, leaking and what is owed come to nothing.
      const surplus = (humidity: number) =>
        this.all.reduce(
          (sum, { pieces: { piece, thickness }, solidsG }) => sum + solidsG * piece.givesAt(this.airAt(humidity, thickness)),
          leak(humidity) + this.owed / step,
        )
      this.humidity = balanced(surplus, this.humidity)
      const inward = leak(this.humidity) * step
      this.entered += inward
      this.owed += inward
      for (const { pieces, solidsG } of this.all) {
        const before = pieces.piece.lost
        pieces.piece.step(this.airAt(this.humidity, pieces.thickness), step)
        this.owed += solidsG * (pieces.piece.lost - before)
      }
      this.hours += step
      left -= step
    }
  }

  private airAt(humidity: number, thickness: number) {
    return evenAir({ evaporationRate: (STILL * this.evaporationRate) / thickness, humidity, warmth: this.warmth, activity: this.curve })
  }
}

/** Where a falling function is nothing, 0–1: false position that lets go of an end that stays (Illinois). */
function balanced(of: (humidity: number) => number, near: number): number {
  let [low, high] = [max(0, near - 0.03), min(1, near + 0.03)]
  let [atLow, atHigh] = [of(low), of(high)]
  if (atLow < 0) [high, atHigh, low, atLow] = [low, atLow, 0, of(0)]
  else if (atHigh > 0) [low, atLow, high, atHigh] = [high, atHigh, 1, of(1)]
  if (atLow <= 0) return low
  if (atHigh >= 0) return high
  let middle = low
  for (let i = 0; i < TRIES && high - low > EVEN; i++) {
    middle = (low * atHigh - high * atLow) / (atHigh - atLow)
    const at = of(middle)
    if (at > 0) {
      ;[low, atLow] = [middle, at]
      atHigh /= 2
    } else {
      ;[high, atHigh] = [middle, at]
      atLow /= 2
    }
  }
  return middle
}
