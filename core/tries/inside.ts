import { USUAL_ROOM } from '../air'
import { hoursOfRun, layerKgM2, loadLaw, middleOf } from '../hours'
import { Rack, rackSettings, type PieceShape } from '../simulation'
import { HOUR } from '../time'
import { checkKnobs, NEVER_H, stateOf, type TryKnobs, type TryLoad, type TryResult } from './tries'

const { max, min, round } = Math

/** The inside of pieces at some hours of a try, as the simulation has it. */
export interface TryInside {
  shape: PieceShape
  /** Dry-basis moisture from the middle (or the tray) to the face, of a middle piece and of the one that waits longest. */
  frames: { hours: number; middle: readonly number[]; last: readonly number[] }[]
  /** The one that waits longest lies at the bottom of a heap; else it is the thickest. */
  isHeap: boolean
}

/** When a piece is looked into: shares of the hours until it is dry. */
const LOOKS = [0, 0.2, 0.45, 0.7, 1]

/**
 * An illustration of a try: a tray of such pieces dried by the simulation, its clock set by the hours of the laws, in the heat that the
 * knobs set. It answers nothing beside them: its own end is within a tenth of theirs.
 */
export function insideOf(load: TryLoad, knobs: TryKnobs, { finishH }: Pick<TryResult, 'finishH'>): TryInside {
  const machine = checkKnobs(load, knobs)
  const state = stateOf(load, knobs, machine)
  const run = state.run!
  const { food, card, purpose, thicknessMm } = state
  const depth = loadLaw(card, knobs.loadKgM2, thicknessMm)
  const isHeap = depth > 1
  const settings = rackSettings({
    food,
    cardKey: card.key,
    way: machine.kind,
    purpose,
    trayWeightsG: [1000],
    solids: state.balance.solids.mean,
    hours: middleOf(hoursOfRun(state, run)) / depth,
    traySpread: 0,
    seed: 1,
  })
  const layers = max(2, round(knobs.loadKgM2 / layerKgM2(card, thicknessMm)))
  const rack = new Rack({ ...settings, ...(isHeap && { heap: { loadKgM2: knobs.loadKgM2, layers } }) })
  const { pieces } = rack.trays[0]!
  const room = knobs.room ?? USUAL_ROOM
  const end = Number.isFinite(finishH.p50) ? finishH.p50 : NEVER_H
  const frames = LOOKS.map(share => {
    const hours = share * end
    for (let at = rack.hours; at < hours - 1e-6; at = rack.hours) {
      const now = load.startAt + at * HOUR
      const spell = run.clock.spells.find(item => now >= item.from - 1 && now < (item.to ?? Infinity) - 1)
      const changes = run.clock.spells.flatMap(({ from, to = Infinity }) => [from, to]).filter(item => item > now + 1)
      rack.advance(min(hours - at, (min(...changes, Infinity) - now) / HOUR), { setC: spell?.setC ?? null, room })
    }
    // Layer by layer from the top, thin to thick.
    return { hours, middle: [...pieces[1]!.piece.x], last: [...pieces.at(-1)!.piece.x] }
  })
  return { shape: settings.piece.shape, frames, isHeap }
}
