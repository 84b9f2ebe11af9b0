import { effectsOfChoices, PURPOSES, type Purpose } from '../foods'
import { dryFormOf, SCALE_SHARE, type BatchState, type DryForms, type EntryOf } from '../log'

/** What may be made at the mill. */
export type GroundForm = Exclude<Purpose, 'pieces'>

/** What became of the dry food since it last left a machine, form by form: ground, packed, eaten or given away. */
export interface DryFood {
  /** Dry pieces that went into the cup, g: powder that was ground once more is not counted again. */
  piecesInG: number
  /** Flakes and powder that there are, g, packed or not. */
  powderG: number
  /** In no jar yet, g. Pieces are missing where nobody weighed what came out. */
  left: DryForms
  /** What there was to pack or to lose in each form: what came of it, less what was ground of it. */
  had: DryForms
  /** In jars. */
  packed: DryForms
  /** Eaten, given away, or batches of their own. */
  gone: DryForms
}

/** The entries that take dry food in its form, or change it. */
export type DryTurn = EntryOf<'grind'> | EntryOf<'powderDry'> | EntryOf<'pack'> | EntryOf<'split'>

/** Two weights this near are the same bowl of powder. */
const SAME_BOWL = 0.05

/** What a grinding makes: what it says, else what the batch is for; powder of one that was meant to stay in pieces. */
export const formMade = ({ makes }: Pick<EntryOf<'grind'>['body'], 'makes'>, purpose: Purpose): GroundForm =>
  makes ?? (purpose === 'flakes' ? 'flakes' : 'powder')

/** What goes into a jar: what the packing says, else what the batch is for. */
export const formPacked = ({ form }: Pick<EntryOf<'pack'>['body'], 'form'>, purpose: Purpose): Purpose => form ?? purpose

interface GrindTake {
  pieces: number
  flakes: number
  powder: number
}

/**
 * What a grinding took of what there was: pieces first, ground food where no pieces are left or where it says so itself: flakes before
 * powder, where powder is made. Where nobody weighed what came out, a cup of just the powder that there is is that powder.
 */
function takenBy({ dryInG, again }: EntryOf<'grind'>['body'], makes: GroundForm, { pieces, flakes = 0, powder = 0 }: DryForms): GrindTake {
  const ofGround = (grams: number): GrindTake => {
    const first = makes === 'powder' && flakes > 0 ? 'flakes' : makes
    const firstG = Math.min(grams, first === 'flakes' ? flakes : Infinity)
    const rest = grams - firstG
    return first === 'flakes' ? { pieces: 0, flakes: firstG, powder: rest } : { pieces: 0, flakes: rest, powder: firstG }
  }
  if (again) return ofGround(dryInG)
  if (pieces === undefined) {
    const ground = flakes + powder
    return ground > 0 && Math.abs(dryInG - ground) <= 1 + SAME_BOWL * ground ? ofGround(dryInG) : { pieces: dryInG, flakes: 0, powder: 0 }
  }
  const ofPieces = dryInG <= pieces * (1 + SCALE_SHARE) + 1 ? dryInG : Math.min(dryInG, pieces)
  return ofPieces === dryInG ? { pieces: dryInG, flakes: 0, powder: 0 } : { ...ofGround(dryInG - ofPieces), pieces: ofPieces }
}

/**
 * Follows dry food through mill and jars: every entry takes what is there in its present form, and powder that is ground or dried once more
 * replaces itself.
 * @param turns in any order
 * @param start the dry pieces that came out, g, where that was weighed; or ground food to begin with
 */
export function followDry(turns: readonly DryTurn[], purpose: Purpose, start: DryForms): DryFood {
  const { pieces: driedG } = start
  // What the scale is out by is no piece of food.
  const crumbsG = driedG === undefined ? 0 : 1 + SCALE_SHARE * driedG
  const left = { pieces: driedG, flakes: start.flakes ?? 0, powder: start.powder ?? 0 }
  const had = { ...left }
  const packed = { pieces: 0, flakes: 0, powder: 0 }
  const gone = { pieces: 0, flakes: 0, powder: 0 }
  let piecesInG = 0
  const piecesLess = (grams: number) => {
    if (left.pieces === undefined) return
    left.pieces -= grams
    if (left.pieces <= crumbsG) left.pieces = 0
  }
  for (const { body } of [...turns].sort((a, b) => a.at - b.at || a.seq - b.seq)) {
    if (body.kind === 'grind') {
      const makes = formMade(body, purpose)
      const take = takenBy(body, makes, left)
      piecesInG += take.pieces
      piecesLess(take.pieces)
      if (had.pieces !== undefined) had.pieces = Math.max(0, had.pieces - take.pieces)
      for (const form of ['flakes', 'powder'] as const) {
        const grams = Math.min(left[form], take[form])
        left[form] -= grams
        had[form] = Math.max(0, had[form] - grams)
      }
      left[makes] += body.powderOutG
      had[makes] += body.powderOutG
    } else if (body.kind === 'powderDry') {
      const form = left.powder > 0 ? 'powder' : 'flakes'
      const lostG = body.afterG === undefined ? 0 : Math.min(left[form], Math.max(0, (body.beforeG ?? left[form]) - body.afterG))
      left[form] -= lostG
      had[form] -= lostG
    } else {
      const form = body.kind === 'pack' ? formPacked(body, purpose) : dryFormOf(body)
      if (form === undefined) continue
      const grams = body.kind === 'pack' ? body.netG : body.weightG
      ;(body.kind === 'pack' ? packed : gone)[form] += grams
      if (form === 'pieces') piecesLess(grams)
      else left[form] = Math.max(0, left[form] - grams)
    }
  }
  return { piecesInG, powderG: had.flakes + had.powder, left, had, packed, gone }
}

type Milled = Pick<BatchState, 'left' | 'piecesInG' | 'dryG'>
const groundLeftG = ({ left: { flakes = 0, powder = 0 } }: Pick<BatchState, 'left'>) => flakes + powder

/**
 * What comes next of two grindings with drying between them, where that is chosen: the powder dried, then ground again; undefined before the
 * first and after the second.
 */
export function betweenGrindings(state: Pick<BatchState, 'food' | 'choices' | 'grinds' | 'run' | 'left'>): 'dry' | 'grind' | undefined {
  const { grinds, run } = state
  if (!run || !effectsOfChoices(state.food, state.choices).grindAt || groundLeftG(state) < 1) return undefined
  // Gone back into a machine as powder it was dried there.
  if (grinds.length === 0) return run.powder ? 'grind' : undefined
  if (grinds.length > 1 || run.powder) return undefined
  return run.powderDries.some(({ at }) => at >= grinds[0]!.at) ? 'grind' : 'dry'
}

/** What waits to be packed, g: pieces or ground food, as the batch is meant for; undefined before there is any. */
export function toPackG({ unpacked: { pieces, flakes, powder }, purpose }: Pick<BatchState, 'unpacked' | 'purpose'>): number | undefined {
  if (purpose === 'pieces') return pieces
  return powder === undefined ? undefined : powder + (flakes ?? 0)
}

/** The forms that may be packed now, what it is meant for first: there is a gram or more of each. */
export function packableForms({ unpacked, purpose }: Pick<BatchState, 'unpacked' | 'purpose'>): Purpose[] {
  return [purpose, ...PURPOSES.filter(form => form !== purpose)].filter(form => (unpacked[form] ?? 0) >= 1)
}

/** Whether the next grinding is of powder, once more: no dry pieces are known to be left. */
export const grindsAgain = (state: Milled): boolean =>
  groundLeftG(state) > 1 && (state.left.pieces === undefined ? state.piecesInG > 0 : state.left.pieces === 0)

/** What there is to grind, whole grams: dry pieces, or powder once more; undefined where nobody weighed it. */
export function toGrindG(state: Milled, again: boolean): number | undefined {
  const { left, piecesInG, dryG } = state
  const grams = again ? groundLeftG(state) : (left.pieces ?? (piecesInG > 0 ? undefined : dryG))
  return grams === undefined ? undefined : Math.round(grams)
}
