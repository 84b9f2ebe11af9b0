import { refuse } from '../errors'
import { waterActivityOf } from './slab'

const { abs, exp, max, min } = Math

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
  /** What drives evaporation: `sorption` (default) the water activity of the face, `linear` its moisture, as in Crank's closed forms. */
  face?: 'sorption' | 'linear'
  /** How fast a face that dries while the inside is wet closes, in ways out an hour: see `SKIN`. 0 (default) for food that does not. */
  hardening?: number
  /** Volumes from the middle to the face, default 16. */
  cells?: number
}

/** The air at the face during a step. */
export interface FaceAir {
  /** Evaporation at full water activity, in units of X·(way out)/h. */
  evaporationRate: number
  /** Relative humidity, 0–1; with a linear face the moisture X in balance with it. */
  humidity: number
  /** Share of the diffusion that its warmth leaves, 1 as in `diffusionRate`. */
  warmth?: number
  /** Water activity of food with a moisture X: Oswin's curve where missing. */
  activity?: (x: number) => number
}

/**
 * A skin: while the face is under this moisture and the whole above that, its resistance grows by `hardening` an hour. It is as simple
 * as that: no glass, no cracks, and it does not soften. Common practice knows it as leather outside and wet within.
 */
const SKIN = { faceBelowX: 0.1, meanAboveX: 0.5 }

/** The face is found to this share of its own moisture; its curve is steep where it is dry, and flat where it is wet. */
const FACE_WITHIN = 1e-9
const MOST_NEWTON = 60
/** A step that goes past what the air can do is halved, so often at most. */
const MOST_HALVINGS = 14
/** No food holds more, g a gram. */
const MOST_X = 1000
/** Past balance by less than this water activity is rounding. */
const PAST = 0.02

/**
 * One piece of food with the moisture within it, dried step by step: finite volumes that keep what they hold, implicit in time, with the
 * diffusivity of the step before; the face is balanced between what comes out and what the air takes.
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
    ;[this.lower, this.diagonal, this.right, this.between] = Array.from({ length: 4 }, () => new Float64Array(cells)) as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ]
  }

  /** Moisture of the whole, dry basis. */
  get meanX(): number {
    return this.x.reduce((sum, value, i) => sum + value * this.volumes[i]!, 0)
  }
  /** What stands in the middle. */
  get coreX(): number {
    return this.x[0]!
  }

  /** Becomes as wet within as another of the same grid. */
  takeFrom({ x, lost, faceX, skin }: Piece): void {
    this.x.set(x)
    Object.assign(this, { lost, faceX, skin })
  }

  /** A sheet that is turned over dries from its other side. */
  turn(): void {
    this.x.reverse()
    this.skin = 0
  }

  /** Dry-basis moisture that it would give an hour at this instant, of the whole; below nothing it takes. */
  givesAt({ evaporationRate, humidity, warmth = 1, activity = waterActivityOf }: FaceAir): number {
    const outer = this.x.at(-1)!
    const { settings } = this
    const half = (warmth * settings.diffusionRate * exp(-settings.slowing / (outer + 0.3))) / (0.5 / this.x.length + this.skin)
    return (POWER[settings.shape] + 1) * this.faceFlux(outer, half, { evaporationRate, humidity, activity }).flux
  }

  /**
   * Dries (or wets) for a step of so many hours; a step that would carry the face past its balance with the air is taken in halves.
   * @throws InputError where air and food are so far apart that no step is short enough
   */
  step(air: FaceAir, hours: number): void {
    for (let left = hours, part = hours, halved = 0; left > 1e-12 * hours;) {
      if (this.tryStep(air, min(part, left))) {
        left -= part
        continue
      }
      part /= 2
      if (++halved > MOST_HALVINGS)
        refuse(
          'loadKgM2',
          'beyond-the-simulation',
          'Food so thin in air so strong cannot be reckoned: take more on a tray, less draught or less heat.',
        )
    }
  }

  /** One step, unless it would overshoot: then nothing has changed. */
  private tryStep({ evaporationRate, humidity, warmth = 1, activity = waterActivityOf }: FaceAir, hours: number): boolean {
    const { x, volumes, areas, lower, diagonal, right, between, settings } = this
    const cells = x.length
    const faceBefore = this.faceX
    const width = 1 / cells
    const scale = POWER[settings.shape] + 1
    const diffusivity = (value: number) => warmth * settings.diffusionRate * exp(-settings.slowing / (value + 0.3))
    for (let i = 1; i < cells; i++) between[i] = (scale * areas[i]! * diffusivity(0.5 * (x[i]! + x[i - 1]!))) / width
    const outer = x[cells - 1]!
    const half = diffusivity(outer) / (0.5 * width + this.skin)
    const { flux, slope } = this.faceFlux(outer, half, { evaporationRate, humidity, activity })
    for (let i = 0; i < cells; i++) {
      const inward = i > 0 ? between[i]! : 0
      const outward = i < cells - 1 ? between[i + 1]! : 0
      diagonal[i] = volumes[i]! + hours * (inward + outward)
      right[i] = volumes[i]! * x[i]!
    }
    diagonal[cells - 1]! += hours * scale * slope
    right[cells - 1]! -= hours * scale * (flux - slope * outer)
    for (let i = 1; i < cells; i++) {
      const off = -hours * between[i]!
      lower[i] = off / diagonal[i - 1]!
      diagonal[i]! -= lower[i]! * off
      right[i]! -= lower[i]! * right[i - 1]!
    }
    const next = right[cells - 1]! / diagonal[cells - 1]!
    const isPast =
      settings.face !== 'linear' &&
      (flux > 0 ? activity(max(0, next)) < min(activity(outer), humidity) - PAST : activity(next) > max(activity(outer), humidity) + PAST)
    if (!(next >= 0) || isPast) {
      this.faceX = faceBefore
      return false
    }
    x[cells - 1] = next
    for (let i = cells - 2; i >= 0; i--) x[i] = (right[i]! + hours * between[i + 1]! * x[i + 1]!) / diagonal[i]!
    // What the solved face gave: the same figures that moved the volumes, so that nothing is lost on the way.
    this.lost += hours * scale * (flux + slope * (x[cells - 1]! - outer))
    if (this.hardening > 0 && this.faceX < SKIN.faceBelowX && this.meanX > SKIN.meanAboveX) this.skin += this.hardening * hours
    return true
  }

  /** What leaves through the face and how that goes with the outermost moisture: evaporation and the last half cell in series. */
  private faceFlux(
    outer: number,
    half: number,
    { evaporationRate, humidity, activity: activityOf }: Required<Omit<FaceAir, 'warmth'>>,
  ): { flux: number; slope: number } {
    if (this.settings.face === 'linear') {
      const through = (half * evaporationRate) / (half + evaporationRate)
      this.faceX = outer - (through * (outer - humidity)) / half
      return { flux: through * (outer - humidity), slope: through }
    }
    // What comes out less what the air takes falls with the face's moisture: its root is kept between two bounds, whatever Newton says.
    let low = 0
    let high = max(outer, humidity, 0.01)
    while (half * (outer - high) > evaporationRate * (activityOf(high) - humidity) && high < MOST_X) high *= 2
    let face = min(high, max(0, outer))
    let steep = 0
    for (let i = 0; i < MOST_NEWTON; i++) {
      const activity = activityOf(face)
      steep = (activityOf(face * 1.001 + 1e-6) - activity) / (face * 0.001 + 1e-6)
      const wrong = half * (outer - face) - evaporationRate * (activity - humidity)
      if (wrong > 0) low = face
      else high = face
      const newton = face + wrong / (half + evaporationRate * steep)
      const next = newton > low && newton < high ? newton : 0.5 * (low + high)
      const moved = abs(next - face)
      face = next
      if (moved <= FACE_WITHIN * (face + 1e-3)) break
    }
    this.faceX = face
    const taken = evaporationRate * steep
    return { flux: half * (outer - face), slope: half + taken > 0 ? (half * taken) / (half + taken) : 0 }
  }
}
