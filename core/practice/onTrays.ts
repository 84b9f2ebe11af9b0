import type { Air } from '../air'
import { activityAt, isothermOf } from '../sorption'
import type { Food } from '../foods'
import { IceTray, Rack, weightOf, type RackSettings } from '../simulation'
import type { PieceInHand } from './hands'

const { max } = Math

/** What lies on the trays of a machine, whatever the machine: pieces that dry in warm air, or layers of ice. Trays count from 0. */
export interface OnTrays {
  /** Net weight of each tray, g, and of all. */
  readonly weightsG: number[]
  readonly weightG: number
  /** Water of all of it, wet basis. */
  readonly moisture: number
  /** Water activity of the piece that holds most. */
  readonly wettestActivity: number
  /** Water of a few thick pieces from all trays, dry basis: what goes into a small jar with a hygrometer. */
  readonly thickX: number
  /** Nothing of it is frozen. */
  readonly thawed: boolean
  /** Trays that are in the machine. */
  readonly present: number[]
  takeOut(trays: readonly number[]): void
  putBack(): void
  advance(hours: number, air: { setC: number | null; room: Air }): void
  /** The inside of every piece, by tray and size. */
  profiles(): Float32Array[][]
  /** A piece of a size from a tray, from thin (0) to the thickest (3). */
  piece(tray: number, size: number): Omit<PieceInHand, 'celsius'>
}

/** Thick, if not the very thickest. */
const THICK = 2

/** Pieces in warm air. */
export class PiecesOnTrays implements OnTrays {
  readonly rack: Rack
  constructor(
    private readonly food: Food,
    readonly settings: RackSettings,
  ) {
    this.rack = new Rack(settings)
  }
  get weightsG() {
    return this.rack.trays.map(weightOf)
  }
  get weightG() {
    return this.rack.weightG
  }
  get moisture() {
    return this.rack.moisture
  }
  get wettestActivity() {
    const x = max(...this.rack.trays.flatMap(({ pieces }) => pieces.map(({ piece }) => piece.meanX)))
    return activityAt(isothermOf(this.food), x, 20)
  }
  get thickX() {
    const { trays } = this.rack
    return trays.reduce((sum, { pieces }) => sum + pieces[THICK]!.piece.meanX, 0) / trays.length
  }
  get thawed() {
    return true
  }
  get present() {
    return this.rack.trays.flatMap((tray, i) => (tray.out ? [] : [i]))
  }
  takeOut(trays: readonly number[]) {
    for (const tray of trays) this.rack.trays[tray]!.out = true
  }
  putBack() {
    for (const tray of this.rack.trays) tray.out = false
  }
  swap(one: number, other: number) {
    this.rack.swap(one, other)
  }
  turn() {
    this.rack.turn()
  }
  advance(hours: number, air: { setC: number | null; room: Air }) {
    this.rack.advance(hours, air)
  }
  profiles() {
    return this.rack.trays.map(tray => tray.pieces.map(({ piece }) => Float32Array.from(piece.x)))
  }
  piece(tray: number, size: number) {
    return { x: this.rack.trays[tray]!.pieces[size]!.piece.x }
  }
}

/** Hours of final dry that the machine's own programme puts after what it takes for the end of the ice (common practice: some hours). */
const AFTER_ICE_H = 3
const MOST_H = 200
const STEP_H = 0.5

/** Layers of ice under vacuum. */
export class IceOnTrays implements OnTrays {
  private readonly layers: IceTray[]
  private out: number[] = []
  /** Hours after which the machine says that it is done. */
  readonly saysDoneH: number

  /** @param paces of the places, against the middle of the machine; its sensor knows the middle only */
  constructor(
    private readonly food: Food,
    load: { traysG: readonly number[]; water: number; areaM2: number; hours: number; saysDone: number; paces?: readonly number[] },
  ) {
    const layer = (grams: number, pace: number) =>
      new IceTray({
        solidsG: grams * (1 - load.water),
        startX: load.water / (1 - load.water),
        areaM2: load.areaM2,
        thicknessMm: grams / load.areaM2 / 1000,
        pace: pace / load.hours,
      })
    this.layers = load.traysG.map((grams, i) => layer(grams, load.paces?.[i] ?? 1))
    const even = load.traysG.map(grams => layer(grams, 1))
    while (even.some(({ ice }) => ice > 0) && even[0]!.hours < MOST_H) for (const one of even) one.advance(STEP_H)
    this.saysDoneH = load.saysDone * (even[0]!.hours + AFTER_ICE_H)
  }
  get weightsG() {
    return this.layers.map(({ weightG }) => weightG)
  }
  get weightG() {
    return this.layers.reduce((sum, { weightG }) => sum + weightG, 0)
  }
  get moisture() {
    return 1 - this.layers.reduce((sum, { solidsG }) => sum + solidsG, 0) / this.weightG
  }
  get wettestActivity() {
    return activityAt(isothermOf(this.food), this.thickX, 20)
  }
  get thickX() {
    return max(...this.layers.map(({ meanX }) => meanX))
  }
  get thawed() {
    return this.layers.every(({ ice }) => ice === 0)
  }
  get present() {
    return this.layers.flatMap((_, i) => (this.out.includes(i) ? [] : [i]))
  }
  /** Its own opinion, whatever the last tray holds. */
  get saysDone() {
    return this.layers.some(({ hours }) => hours >= this.saysDoneH)
  }
  takeOut(trays: readonly number[]) {
    this.out.push(...trays)
  }
  putBack() {
    this.out = []
  }
  advance(hours: number, { setC }: { setC: number | null }) {
    if (setC === null) return
    for (const [i, layer] of this.layers.entries()) if (!this.out.includes(i)) layer.advance(hours)
  }
  profiles() {
    return this.layers.map(({ x }) => [Float32Array.from(x)])
  }
  piece(tray: number) {
    const { x, ice } = this.layers[tray]!
    return { x, ice }
  }
}
