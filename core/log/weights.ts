import type { Say } from '../errors'
import type { BatchState, RunState } from './state'

/** Tray heavier than loaded by less than this is the scale. */
export const SCALE_SHARE = 0.02

/** The most that a part of a load may weigh, g: what went in, with the scale's doubt, or its own where nobody weighed it. */
export const mostOf = ({ loadedG, loadedSdG = 0 }: Pick<RunState, 'loadedG' | 'loadedSdG'>, partG = loadedG): number =>
  partG * (1 + SCALE_SHARE + (SURE_SDS * loadedSdG) / loadedG)
const SURE_SDS = 3

/** Dry pieces that were taken of what came out, g: ground, packed, eaten or given away. */
export const piecesTakenG = ({ piecesInG, packed, gone }: Pick<BatchState, 'piecesInG' | 'packed' | 'gone'>): number =>
  piecesInG + (packed.pieces ?? 0) + (gone.pieces ?? 0)

/** Dry pieces that there may be at most, g: where nobody weighed what came out, it is less than went on the trays. */
export const mostPiecesG = (state: BatchState): number =>
  state.left.pieces ?? Math.max(0, (state.run?.loadedG ?? state.intake.body.weightG) - piecesTakenG(state))

/** Food in a dryer only gets lighter. */
export function heavierThanLoaded(say: Say, field: string, isG: number, loadedG: number): void {
  const words = '{isG} is more than the {loadedG} that was loaded: food in a dryer only gets lighter. Was the tray on the scale?'
  say(field, 'heavier-than-loaded', words, { isG, loadedG })
}

/** Places of a load's trays at an instant, those still in the machine. */
export const placesOf = (run: RunState, at: number) => run.present.map(tray => run.places.placeAt(tray, at)).sort((a, b) => a - b)

/** What went in on some trays, g. */
export const loadedOn = (run: RunState, positions: readonly number[]) =>
  run.trays.filter(tray => positions.includes(tray.position)).reduce((sum, tray) => sum + tray.weightG, 0)
