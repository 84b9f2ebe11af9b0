import { pacePerHour, roomPacePerHour, WET_SHARE, wetPacePerHour } from '../kinetics'
import type { Air } from '../air'
import type { Food, MethodCard } from '../foods'
import { WAYS, type WayKey } from '../ways'

/**
 * How hours grow with thickness where the food's cards do not say it: about in proportion, as they do on average. Diffusion alone would
 * square them, the air alone not change them (common practice).
 */
const THICKNESS_POWER = 1
/** By the food's own cards of two thicknesses, within what air and diffusion allow. */
const POWER = { least: 0.3, most: 2 }
/** Beyond this the card no longer speaks of the same cut. */
const THICKNESS = { least: 0.5, most: 2.5 }

/** Hours at the thickness that was cut, over those of the card's, 0.5 to 2.5: 1 where either is not known. */
export function thicknessLaw(food: Food, card: MethodCard, thicknessMm: number | undefined): number {
  if (!card.thicknessMm || !thicknessMm) return 1
  const factor = (thicknessMm / card.thicknessMm) ** powerOf(food, card, thicknessMm)
  return Math.min(THICKNESS.most, Math.max(THICKNESS.least, factor))
}

/** By the food's other card of the same form that is nearest to the thickness, where there is one. */
function powerOf({ cards }: Food, card: MethodCard, thicknessMm: number): number {
  const form = ({ key }: MethodCard) => key.split('-')[0]
  const far = (other: MethodCard) => Math.abs(Math.log(other.thicknessMm! / thicknessMm))
  const nearest = cards
    .filter(other => other.key !== card.key && form(other) === form(card) && other.thicknessMm && other.thicknessMm !== card.thicknessMm)
    .sort((a, b) => far(a) - far(b))[0]
  if (!nearest) return THICKNESS_POWER
  const middle = ({ usualHours: { value } }: MethodCard) => 0.5 * Math.log(value.low * value.high)
  const power = (middle(nearest) - middle(card)) / Math.log(nearest.thicknessMm! / card.thicknessMm!)
  return Math.min(POWER.most, Math.max(POWER.least, power))
}

/** What lies in one layer as it is cut, kg a square metre: thicker pieces weigh more, and are one layer all the same. */
export const layerKgM2 = ({ trayLoadKgM2, thicknessMm: usualMm }: MethodCard, thicknessMm = usualMm): number =>
  trayLoadKgM2.mean * (usualMm && thicknessMm ? thicknessMm / usualMm : 1)

/** So much over one layer is nowhere felt: full trays differ by it (common practice). */
const A_LAYER = 1.25
/** Deeper than this nothing is known: it sours before it dries. */
const HEAP_MOST = 8

/**
 * Hours of what lies on the trays over those of one layer: less than a layer changes nothing, a heap goes as its depth, since one draught
 * has so much more water to carry (common practice: two layers take about twice as long, or are turned over and over). Range 1 to 8.
 * @param loadKgM2 wet food on a square metre; undefined where nobody knows
 */
export function loadLaw(card: MethodCard, loadKgM2: number | undefined, thicknessMm = card.thicknessMm): number {
  if (loadKgM2 === undefined) return 1
  return Math.min(HEAP_MOST, Math.max(1, loadKgM2 / (layerKgM2(card, thicknessMm) * A_LAYER)))
}

/**
 * An outside closes where the air is hotter than the card by more than `aboveK`, fully from `fullK`, in pieces of `fromMm` and more: what is
 * still inside takes up to `share` longer then. Set so that 15 K too hot cost a sixth of the whole: drying runs of slices get shorter still
 * up to 70 or 80 °C (published widely; from memory), while practice warns of the outside.
 */
const HARDENS = { aboveK: 5, fullK: 15, share: 0.25, fromMm: 4 }

/** Hours of what the inside gives off through an outside that such heat has closed, over those through an open one: 1 to 1.25. */
function hardeningLaw(overK: number, thicknessMm: number | undefined): number {
  if (thicknessMm === undefined || thicknessMm < HARDENS.fromMm) return 1
  return 1 + HARDENS.share * Math.min(1, Math.max(0, (overK - HARDENS.aboveK) / (HARDENS.fullK - HARDENS.aboveK)))
}

/** The room's air counts for the inside by this power of what it counts for a wet face: set by the heat balance of `core/simulation`. */
const ROOM_INSIDE = 0.5

/** What a load meets: its pieces' thickness, and the room's air where somebody measured it. */
export interface Meets {
  thicknessMm?: number
  room?: Air
}

/** How much faster than at the card's heat in a usual room a load dries once its face is dry: by diffusion, the outside, and the room. */
export const insidePace = (celsius: number, cardC: number, { thicknessMm, room }: Meets): number =>
  (pacePerHour(celsius, cardC) * roomPacePerHour(celsius, room) ** ROOM_INSIDE) / hardeningLaw(celsius - cardC, thicknessMm)

/**
 * Hours at a heat over those at the card's, held from the loading on: by the wet bulb while the face is wet, by diffusion from then on, and
 * by the outside that closes. 1 where there is no dial to turn. Range: 35 to 80 °C.
 */
export function heatLaw(way: WayKey, celsius: number, cardC: number, meets: Meets = {}): number {
  if (!WAYS[way].plainHeat) return 1
  return WET_SHARE / wetPacePerHour(celsius, cardC, meets.room) + (1 - WET_SHARE) / insidePace(celsius, cardC, meets)
}
