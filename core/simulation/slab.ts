import { waterActivityOf } from './oswin'

// Taken out once: the inner loops call these millions of times, and a look-up by name is slow in sandboxes.
const { exp, max, min } = Math

/**
 * A tray of food as physics sees it: a slab that dries from both faces by diffusion within and
 * evaporation at the face. It shares nothing with the curve that `core/kinetics` fits, so that it
 * may stand in for a real tray in demo data, devices and wherever the estimate is judged.
 */
export interface SlabSettings {
  /** Dry-basis moisture at the start, g/g. */
  startX: number
  /** Diffusivity over half thickness squared in the wet food, 1/h. */
  diffusionRate: number
  /** How strongly diffusion slows as the food dries: D = D0·exp(−slowing/(X + 0.3)), dimensionless. */
  slowing: number
  /** Evaporation from the face at full water activity, in units of X·(half thickness)/h. */
  evaporationRate: number
  /** Relative humidity of the drying air, 0–1; with a linear face the moisture X in balance with it. */
  airHumidity: number
  /**
   * What drives evaporation at the face: `sorption` (default) the water activity there, so that wet food
   * dries at a constant rate first; `linear` the moisture itself, as in Crank's slab with surface resistance.
   */
  face?: 'sorption' | 'linear'
  /** Spells in another air, such as a rack that is switched off: its humidity, and the share of the rates that cold and still air leave. */
  spells?: readonly { fromH: number; toH: number; airHumidity: number; share: number }[]
}

export interface TraySimulation {
  /** Mean dry-basis moisture at each asked hour. */
  meanX: Float64Array
}

/**
 * Mean moisture of a slab at the given hours (ascending, from 0).
 * Finite volumes over the half thickness, implicit in time with the diffusivity of the last step and
 * the face's evaporation linearised (one Newton step a step), solved by the tridiagonal algorithm.
 * @param cells number of volumes, default 16
 * @param stepH time step in hours, default 0.05
 */
export function dryTray(settings: SlabSettings, hours: readonly number[], cells = 16, stepH = 0.05): TraySimulation {
  const dz = 1 / cells
  const x = new Float64Array(cells).fill(settings.startX)
  const lower = new Float64Array(cells)
  const diagonal = new Float64Array(cells)
  const right = new Float64Array(cells)
  const between = new Float64Array(cells)
  const meanX = new Float64Array(hours.length)
  const activity = settings.face === 'linear' ? (value: number) => value : waterActivityOf

  let time = 0
  let before = settings.startX
  let timeBefore = 0
  let next = 0
  while (next < hours.length && hours[next]! <= 0) meanX[next++] = settings.startX
  while (next < hours.length) {
    const spell = settings.spells?.find(item => time >= item.fromH && time < item.toH)
    const rate = spell?.share ?? 1
    const airHumidity = spell?.airHumidity ?? settings.airHumidity
    const evaporationRate = rate * settings.evaporationRate
    for (let i = 1; i < cells; i++) {
      const middle = 0.5 * (x[i]! + x[i - 1]!)
      between[i] = (rate * settings.diffusionRate * exp(-settings.slowing / (middle + 0.3))) / (dz * dz)
    }
    // Face: the outer half cell in series with evaporation, linearised in the face cell's moisture.
    const outer = x[cells - 1]!
    const outerActivity = activity(outer)
    const drive = (evaporationRate * (outerActivity - airHumidity)) / dz
    const slope = (evaporationRate * (activity(outer * 1.001 + 1e-6) - outerActivity)) / (outer * 0.001 + 1e-6) / dz

    for (let i = 0; i < cells; i++) {
      const inward = i > 0 ? between[i]! : 0
      const outward = i < cells - 1 ? between[i + 1]! : 0
      diagonal[i] = 1 + stepH * (inward + outward)
      right[i] = x[i]!
    }
    diagonal[cells - 1]! += stepH * slope
    right[cells - 1]! -= stepH * (drive - slope * outer)

    for (let i = 1; i < cells; i++) {
      const off = -stepH * between[i]!
      lower[i] = off / diagonal[i - 1]!
      diagonal[i]! -= lower[i]! * off
      right[i]! -= lower[i]! * right[i - 1]!
    }
    x[cells - 1] = right[cells - 1]! / diagonal[cells - 1]!
    for (let i = cells - 2; i >= 0; i--) {
      x[i] = (right[i]! + stepH * between[i + 1]! * x[i + 1]!) / diagonal[i]!
    }
    let sum = 0
    for (let i = 0; i < cells; i++) {
      if (x[i]! < 0) x[i] = 0
      sum += x[i]!
    }

    timeBefore = time
    time += stepH
    const now = sum / cells
    while (next < hours.length && hours[next]! <= time + 1e-9) {
      const share = (hours[next]! - timeBefore) / stepH
      meanX[next++] = before + (now - before) * min(1, max(0, share))
    }
    before = now
  }
  return { meanX }
}
