import { InputError, problem } from '../errors'

/** Opening of sieves by their number, µm (ASTM E11). */
export const MESH_UM: Readonly<Record<number, number>> = {
  10: 2000,
  12: 1700,
  14: 1400,
  16: 1180,
  18: 1000,
  20: 850,
  25: 710,
  30: 600,
  35: 500,
  40: 425,
  45: 355,
  50: 300,
  60: 250,
  70: 212,
  80: 180,
  100: 150,
  120: 125,
  140: 106,
  170: 90,
  200: 75,
}

/** Opening of a kitchen strainer, µm, from its wires counted along a ruler and their thickness. */
export function openingUm(wires: number, alongMm: number, wireMm: number): number {
  const opening = alongMm / wires - wireMm
  if (!(wires > 0 && alongMm > 0 && wireMm > 0))
    throw new InputError([{ field: 'wires', code: 'not-above-zero', message: 'must be above zero, as the length and the wire' }])
  if (!(opening > 0))
    throw new InputError([
      {
        field: 'wireMm',
        code: 'no-opening-left',
        message: 'the wires would leave no opening: count them again over a longer stretch',
      },
    ])
  return opening * 1000
}

/** The number of the sieve that is nearest to an opening. */
export function nearestMesh(um: number): number {
  return Number(Object.entries(MESH_UM).sort((a, b) => Math.abs(Math.log(a[1] / um)) - Math.abs(Math.log(b[1] / um)))[0]![0])
}

/** One pass over a sieve: what fell through and what stayed on top, g. */
export interface SievePass {
  openingUm: number
  throughG: number
  overG: number
}

export interface SieveSum {
  /** Share of what was put on that is through by now. */
  through: number
  /** Passes more, with what stays put back through the grinder, until the share wanted is through; undefined where passes bring nothing. */
  passesLeft?: number
}

/**
 * What passes over one sieve have come to, and how many more a share takes.
 * @throws InputError where a later pass is over a coarser sieve, or finds more on top than there was
 */
export function sumPasses(passes: readonly SievePass[], wanted = 0.95): SieveSum {
  passes.forEach((pass, i) => {
    const before = passes[i - 1]
    if (!before) return
    if (pass.openingUm > before.openingUm)
      throw new InputError([
        {
          field: `passes.${i}.openingUm`,
          code: 'finer-after-coarser',
          message: `a sieve of ${Math.round(pass.openingUm)} µm after one of ${Math.round(before.openingUm)}: go from coarse to fine`,
        },
      ])
    if (pass.openingUm === before.openingUm && pass.throughG + pass.overG > before.overG * 1.02 + 1)
      throw new InputError([
        problem(`passes.${i}.overG`, 'more-than-there-is', '{isG} is more than the {thereG} that stayed on top before', {
          isG: pass.throughG + pass.overG,
          thereG: before.overG,
        }),
      ])
  })
  const last = passes.at(-1)
  if (!last) return { through: 0 }
  const same = passes.filter(pass => pass.openingUm === last.openingUm)
  const onG = same[0]!.throughG + same[0]!.overG
  const throughG = same.reduce((sum, pass) => sum + pass.throughG, 0)
  const through = throughG / onG
  if (through >= wanted) return { through, passesLeft: 0 }
  // Each pass leaves about the same share of what is put on it.
  const leaves = last.overG / (last.throughG + last.overG)
  return { through, passesLeft: leaves >= 1 ? undefined : Math.ceil(Math.log((1 - wanted) / (1 - through)) / Math.log(leaves)) }
}
