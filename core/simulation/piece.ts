import { waterActivityOf } from './oswin'

const { abs, exp, max, min, sqrt } = Math

/** Slices and sheets, beans and stalks, berries: how area and volume go with the distance from the middle. */
export const SHAPES = ['slab', 'cylinder', 'sphere'] as const
export type PieceShape = (typeof SHAPES)[number]
const POWER: Record<PieceShape, number> = { slab: 0, cylinder: 1, sphere: 2 }

export interface PieceSettings {
  shape: PieceShape
  /** Dry-basis moisture at the start, g/g, the same throughout. */
  startX: number
  /**
   * Diffusivity over the square of the way out, 1/h, in the wet food: half the thickness of a slice, the whole of a sheet that lies on
   * something tight, the radius of a berry.
   */
  diffusionRate: number
  /** How strongly diffusion slows as the food dries: D = D0·exp(−slowing/(X + 0.3)), dimensionless. */
  slowing: number
  /** How fast a face that dries while the inside is wet closes, in ways out an hour: see `SKIN`. 0 (default) for food that does not. */
  hardening?: number
  /** Volumes from the middle to the face, default 16. */
  cells?: number
}

/** The air at the face. */
export interface FaceAir {
  /** Evaporation of a face that is drawn at with one, in units of X·(way out)/h. */
  evaporationRate: number
  /** What draws at a face of a moisture X, growing with it; below nothing the face takes water up. */
  pull: (x: number) => number
  /** Share of the diffusion that the warmth of such a face leaves, 1 as in `diffusionRate`. */
  warmth?: (x: number) => number
}

/** Air as warm as the food, of a humidity: what draws is the difference to the face's water activity (Oswin's curve where missing). */
export const evenAir = (air: { evaporationRate: number; humidity: number; warmth?: number; activity?: (x: number) => number }): FaceAir => {
  const { evaporationRate, humidity, warmth = 1, activity = waterActivityOf } = air
  return { evaporationRate, pull: x => activity(x) - humidity, warmth: () => warmth }
}

/**
 * A skin: while the face is under `faceX` and the whole above `meanX`, it closes, the drier and the wetter within the faster, up to `most`
 * ways out; where water comes back to the face (rest, a damp night) it softens by half in so many hours. Set so, not measured: common
 * practice knows it as leather outside and wet within, that a rest mends.
 */
const SKIN = { faceX: 0.12, meanX: 0.4, most: 0.6, softensFromX: 0.14, softensH: 3 }

/** The face is found to this share of its own moisture; its curve is steep where it is dry, and flat where it is wet. */
const FACE_WITHIN = 1e-9
const MOST_NEWTON = 60
/** No food holds more, g a gram. */
const MOST_X = 1000
/** Diffusion goes by the moisture that a step ends in: found again until nothing moves by more than this share of a gram a gram. */
const SETTLED = 1e-6
const MOST_SETTLING = 12
/** A step may err by so much of a place's moisture and so much beside; its length follows. */
const MAY_ERR = { share: 4e-3, x: 4e-4 }
/** Hours of the very first step, and of the shortest. */
const FIRST_H = 0.002
const SHORTEST_H = 1e-6
const LONGEST_H = 6

/** What a step changes. */
interface Inside {
  x: Float64Array
  lost: number
  faceX: number
  skin: number
}

/**
 * One piece of food with the moisture within it: finite volumes that keep what they hold, implicit in time and in diffusivity, the face
 * balanced between what comes out and what the air takes. Each step is taken whole and in halves; what parts the two sets its length, and
 * the two together are right to the second order.
 */
export class Piece {
  /** Dry-basis moisture from the middle (or the closed side) to the face. */
  readonly x: Float64Array
  /** Dry-basis moisture that has left, g/g of the whole. */
  lost = 0
  /** Dry-basis moisture of the very face, as the last step left it: what a finger feels. */
  faceX: number
  /** Resistance of the skin, as so much more of the way out through the outermost food. */
  skin = 0
  private readonly volumes: Float64Array
  private readonly areas: Float64Array
  private readonly lower: Float64Array
  private readonly diagonal: Float64Array
  private readonly right: Float64Array
  private readonly between: Float64Array
  private readonly whole: Inside
  private readonly half: Inside
  private readonly halves: Inside
  private stepH = FIRST_H

  /** As in the settings; a hotter air closes it faster. */
  hardening: number

  constructor(private readonly settings: PieceSettings) {
    this.hardening = settings.hardening ?? 0
    const cells = settings.cells ?? 16
    const power = POWER[settings.shape]
    this.x = new Float64Array(cells).fill(settings.startX)
    this.faceX = settings.startX
    const edge = (i: number) => i / cells
    this.areas = Float64Array.from({ length: cells + 1 }, (_, i) => edge(i) ** power)
    // Shares of the whole: they sum to one.
    this.volumes = Float64Array.from({ length: cells }, (_, i) => edge(i + 1) ** (power + 1) - edge(i) ** (power + 1))
    const row = () => new Float64Array(cells)
    ;[this.lower, this.diagonal, this.right, this.between] = [row(), row(), row(), row()]
    const inside = (): Inside => ({ x: row(), lost: 0, faceX: 0, skin: 0 })
    ;[this.whole, this.half, this.halves] = [inside(), inside(), inside()]
  }

  /** Moisture of the whole, dry basis. */
  get meanX(): number {
    return this.meanOf(this.x)
  }
  /** How much of the way out a face drains: one of a slab, two of a cylinder, three of a sphere. */
  get opensTo(): number {
    return POWER[this.settings.shape] + 1
  }
  /** What stands in the middle. */
  get coreX(): number {
    return this.x[0]!
  }

  /** Becomes as wet within as another of the same grid. */
  takeFrom({ x, lost, faceX, skin, stepH }: Piece): void {
    this.x.set(x)
    Object.assign(this, { lost, faceX, skin, stepH })
  }

  /** A sheet that is turned over dries from its other side. */
  turn(): void {
    this.x.reverse()
    this.skin = 0
    this.stepH = FIRST_H
  }

  /** Dry-basis moisture that it would give an hour at this instant, of the whole; below nothing it takes. */
  givesAt(air: FaceAir): number {
    const outer = this.x.at(-1)!
    const through = this.diffusivity(outer, air.warmth?.(this.faceX) ?? 1) / (0.5 / this.x.length + this.skin)
    return this.opensTo * faceOf(outer, through, air, outer).flux
  }

  /** Dries (or wets) for so many hours, in steps as short as they need to be. */
  step(air: FaceAir, hours: number): void {
    for (let left = hours; left > 1e-12 * hours;) {
      const step = min(this.stepH, left)
      this.solve(air, step, this, this.whole)
      this.solve(air, step / 2, this, this.half)
      this.solve(air, step / 2, this.half, this.halves)
      const errs = this.apart()
      if (errs > 1 && step > SHORTEST_H) {
        this.stepH = step * max(0.2, 0.8 / sqrt(errs))
        continue
      }
      this.takeBoth()
      left -= step
      // What only the end of the hours cut short says nothing against longer ones.
      const next = step * min(4, 0.85 / sqrt(max(errs, 1e-4)))
      this.stepH = min(LONGEST_H, step < this.stepH ? max(this.stepH, next) : next)
    }
  }

  private diffusivity(x: number, warmth: number): number {
    return warmth * this.settings.diffusionRate * exp(-this.settings.slowing / (x + 0.3))
  }
  private meanOf(x: Float64Array): number {
    let sum = 0
    for (let i = 0; i < x.length; i++) sum += x[i]! * this.volumes[i]!
    return sum
  }

  /** How far the whole step and the two halves lie apart, against what it may err by. */
  private apart(): number {
    const { whole, halves } = this
    let most = 0
    for (let i = 0; i < this.x.length; i++) {
      const x = halves.x[i]!
      most = max(most, abs(whole.x[i]! - x) / (MAY_ERR.share * x + MAY_ERR.x))
    }
    return most
  }

  /** Twice the halves less the whole: right to the second order, and as much water as before; where that is below nothing, the halves. */
  private takeBoth(): void {
    const { whole, halves, x } = this
    let isSound = true
    for (let i = 0; i < x.length && isSound; i++) isSound = 2 * halves.x[i]! >= whole.x[i]!
    const both = (of: number, once: number) => (isSound ? 2 * of - once : of)
    for (let i = 0; i < x.length; i++) x[i] = both(halves.x[i]!, whole.x[i]!)
    this.lost = both(halves.lost, whole.lost)
    this.faceX = max(0, both(halves.faceX, whole.faceX))
    this.skin = max(0, both(halves.skin, whole.skin))
  }

  /** One step from an inside to the next. */
  private solve(air: FaceAir, hours: number, from: Inside, to: Inside): void {
    const { volumes, areas, lower, diagonal, right, between, opensTo: scale } = this
    const cells = volumes.length
    const width = 1 / cells
    const { x } = to
    x.set(from.x)
    to.skin = this.closed(from, hours)
    let faceX = from.faceX
    let flux = 0
    for (let settling = 0; settling < MOST_SETTLING; settling++) {
      const warmth = air.warmth?.(faceX) ?? 1
      for (let i = 1; i < cells; i++) between[i] = (scale * areas[i]! * this.diffusivity(0.5 * (x[i]! + x[i - 1]!), warmth)) / width
      const through = this.diffusivity(x[cells - 1]!, warmth) / (0.5 * width + to.skin)
      for (let i = 0; i < cells; i++) {
        const inward = i > 0 ? between[i]! : 0
        const outward = i < cells - 1 ? between[i + 1]! : 0
        diagonal[i] = volumes[i]! + hours * (inward + outward)
        right[i] = volumes[i]! * from.x[i]!
      }
      for (let i = 1; i < cells; i++) {
        const off = -hours * between[i]!
        lower[i] = off / diagonal[i - 1]!
        diagonal[i]! -= lower[i]! * off
        right[i]! -= lower[i]! * right[i - 1]!
      }
      // All that lies within is a way more for the face: what the outermost would hold if nothing left, less what leaves.
      const held = right[cells - 1]! / diagonal[cells - 1]!
      const gives = (hours * scale) / diagonal[cells - 1]!
      ;({ flux, faceX } = faceOf(held, 1 / (gives + 1 / through), air, faceX))
      let moved = settle(x, cells - 1, held - gives * flux)
      for (let i = cells - 2; i >= 0; i--)
        moved = max(moved, settle(x, i, (right[i]! + hours * between[i + 1]! * x[i + 1]!) / diagonal[i]!))
      if (moved <= SETTLED * (1 + x[0]!)) break
    }
    to.faceX = faceX
    to.lost = from.lost + hours * scale * flux
  }

  /** The skin after a step. */
  private closed({ faceX, skin, x }: Inside, hours: number): number {
    if (this.hardening <= 0 && skin <= 0) return skin
    const softens = (Math.LN2 / SKIN.softensH) * min(1, max(0, (faceX - SKIN.softensFromX) / SKIN.softensFromX))
    const dry = max(0, 1 - faceX / SKIN.faceX)
    const wet = min(1, max(0, this.meanOf(x) / SKIN.meanX - 1))
    const closes = this.hardening * dry * wet
    // dS/dt = closes·(1 − S/most) − softens·S, as it comes to its own balance.
    const rate = closes / SKIN.most + softens
    return rate > 0 ? closes / rate + (skin - closes / rate) * exp(-rate * hours) : skin
  }
}

/** Writes a place's moisture, and tells by how much it moved. */
function settle(x: Float64Array, i: number, value: number): number {
  const moved = abs(value - x[i]!)
  x[i] = value
  return moved
}

/**
 * What leaves through a face and how moist it is: what comes out of the food less what the air takes falls with the face's moisture, and its
 * root is kept between two bounds, whatever Newton says.
 * @param held moisture behind it
 * @param through what passes from there to the face for each X between them
 */
function faceOf(held: number, through: number, { evaporationRate, pull }: FaceAir, near: number): { flux: number; faceX: number } {
  let low = 0
  let high = max(held, 0.01)
  while (through * (held - high) > evaporationRate * pull(high) && high < MOST_X) high *= 2
  let face = min(high, max(0, near))
  for (let i = 0; i < MOST_NEWTON; i++) {
    const drawn = pull(face)
    const ahead = face * 0.001 + 1e-6
    const steep = (pull(face + ahead) - drawn) / ahead
    const wrong = through * (held - face) - evaporationRate * drawn
    if (wrong > 0) low = face
    else high = face
    const newton = face + wrong / (through + evaporationRate * steep)
    const next = newton > low && newton < high ? newton : 0.5 * (low + high)
    const moved = abs(next - face)
    face = next
    if (moved <= FACE_WITHIN * (face + 1e-3)) break
  }
  return { flux: through * (held - face), faceX: face }
}
