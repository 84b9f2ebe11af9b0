import { saturationKPa, USUAL_ROOM, wetBulbC, type Air } from '../air'
import { pacePerHour } from '../kinetics'

const { abs, max, min } = Math

/** Water activities for which a face's warmth is worked out; between them it is even. */
const NODES = 64
const WITHIN_C = 1e-6
const MOST_NEWTON = 30

/** Water in a room's air, kPa: heating does not change it. */
const vapourKPa = ({ celsius, humidity }: Air) => humidity * saturationKPa(celsius)
/** What draws water out of a wet face, kPa: as much as its air is warmer than the wet bulb. */
function wetDrive(room: Air, airC: number): { wetC: number; drive: number; gamma: number } {
  const wetC = wetBulbC(room, airC)
  const drive = saturationKPa(wetC) - vapourKPa(room)
  return { wetC, drive, gamma: drive / max(1e-6, airC - wetC) }
}

/**
 * The balance of heat at a face: what the air brings it (it is warmer than the face) goes into the water that leaves. So a wet face sits at
 * the wet bulb, one that is dry at the air's warmth, and all others between: aw·p(Ts) − pa = γ(Ta − Ts), with the psychrometric γ by
 * psychrolib's own wet bulb (Lewis' relation; ASHRAE Fundamentals 2017).
 *
 * Air that has passed food already is damper and cooler along the same wet bulb: the face's warmth by its activity stays the same, and what
 * draws is less by what was taken up. So one table serves every layer of a heap.
 */
export class FaceBalance {
  private readonly celsiusAt = new Float64Array(NODES + 1)
  private readonly driveAt = new Float64Array(NODES + 1)
  private readonly warmthAt = new Float64Array(NODES + 1)
  /** What one unit of drive is, kPa: that of a wet face in a usual room's air at the reference heat. */
  readonly unitKPa: number

  /**
   * @param room air before it is heated
   * @param airC warmth at the trays; the room's while the heat is off
   * @param referenceC heat at which a wet face's drive and the food's diffusion are one
   */
  constructor(room: Air, airC: number, referenceC: number) {
    this.unitKPa = wetDrive(USUAL_ROOM, referenceC).drive
    const pa = vapourKPa(room)
    const { wetC, gamma } = wetDrive(room, airC)
    let celsius = airC + pa / gamma
    for (let i = 0; i <= NODES; i++) {
      const activity = i / NODES
      // aw·p(T) + γT grows with T: Newton from above comes down to it.
      for (let n = 0; n < MOST_NEWTON; n++) {
        const kPa = saturationKPa(celsius)
        const wrong = activity * kPa - pa - gamma * (airC - celsius)
        const slope = (activity * (saturationKPa(celsius + 0.01) - kPa)) / 0.01 + gamma
        celsius -= wrong / slope
        if (abs(wrong / slope) < WITHIN_C) break
      }
      if (i === NODES) celsius = wetC
      this.celsiusAt[i] = celsius
      this.driveAt[i] = (gamma * (airC - celsius)) / this.unitKPa
      this.warmthAt[i] = pacePerHour(celsius, referenceC)
    }
  }

  /** What draws water out at a face's water activity (0–1), in units of a wet face in reference air; below nothing it takes water up. */
  drive(activity: number): number {
    return between(this.driveAt, activity)
  }
  /** How warm such a face is, °C. */
  celsius(activity: number): number {
    return between(this.celsiusAt, activity)
  }
  /** Pace of diffusion behind such a face against the reference heat; a piece is as warm as its face, since it is thin. */
  warmth(activity: number): number {
    return between(this.warmthAt, activity)
  }
}

function between(table: Float64Array, activity: number): number {
  const place = min(NODES, max(0, activity * NODES))
  const left = min(NODES - 1, Math.floor(place))
  return table[left]! + (table[left + 1]! - table[left]!) * (place - left)
}
