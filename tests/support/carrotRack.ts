import type { RackSettings } from '#core/simulation'

/** Carrot slices on nine trays, as a load of a card is: dry within a working day. */
export const CARROTS: RackSettings = {
  trayWeightsG: Array.from({ length: 9 }, () => 400),
  solids: 0.12,
  piece: { shape: 'slab', diffusionRate: 0.5, slowing: 0.12 },
  evaporationRate: 3,
  referenceC: 57,
  thicknessSpread: 0.15,
  traySpread: 0.08,
  seed: 4,
}
