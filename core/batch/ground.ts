import { SCALE_SHARE, type BatchState, type EntryOf } from '../log'

/** What the mill had and gave since the food last left a machine. */
export interface Ground {
  /** Dry pieces that went into the cup, g: powder that was ground once more is not counted again. */
  piecesInG: number
  /** Dry pieces that were not ground yet, g; undefined where it is not known how much came out. */
  piecesLeftG?: number
  /** Powder there is, g, packed or not. */
  powderG: number
}

/** What an entry at the mill takes: dry pieces, and powder that is ground once more. */
interface GrindTake {
  piecesG: number
  powderG: number
}

/** Two weights this near are the same bowl of powder. */
const SAME_BOWL = 0.05

/**
 * What a grinding took of what there was: pieces first, powder where no pieces are left or where it says so itself. Where nobody weighed
 * what came out, a cup of just the powder that there is is that powder.
 */
function grindTake({ dryInG, again }: { dryInG: number; again?: boolean }, { piecesLeftG, powderG }: Ground): GrindTake {
  if (again) return { piecesG: 0, powderG: dryInG }
  if (piecesLeftG === undefined) {
    const isSameBowl = powderG > 0 && Math.abs(dryInG - powderG) <= 1 + SAME_BOWL * powderG
    return isSameBowl ? { piecesG: 0, powderG: dryInG } : { piecesG: dryInG, powderG: 0 }
  }
  const piecesG = dryInG <= piecesLeftG * (1 + SCALE_SHARE) + 1 ? dryInG : Math.min(dryInG, piecesLeftG)
  return { piecesG, powderG: dryInG - piecesG }
}

/**
 * Follows the mill: every grinding takes what is there in its present form, and powder that is ground or dried once more replaces itself.
 * @param driedG the dry pieces that came out, g, where that was weighed
 * @param powderG powder to begin with, g
 */
export function groundOf(
  grinds: readonly EntryOf<'grind'>[],
  powderDries: readonly EntryOf<'powderDry'>[],
  driedG: number | undefined,
  powderG = 0,
): Ground {
  let ground: Ground = { piecesInG: 0, piecesLeftG: driedG, powderG }
  const turns = [...grinds, ...powderDries].sort((a, b) => a.at - b.at || a.seq - b.seq)
  for (const { body } of turns) {
    if (body.kind === 'grind') {
      const take = grindTake(body, ground)
      const leftG = ground.piecesLeftG === undefined ? undefined : ground.piecesLeftG - take.piecesG
      ground = {
        piecesInG: ground.piecesInG + take.piecesG,
        // What the scale is out by is no piece of food.
        piecesLeftG: leftG === undefined ? undefined : leftG <= 1 + SCALE_SHARE * driedG! ? 0 : leftG,
        powderG: Math.max(0, ground.powderG - take.powderG) + body.powderOutG,
      }
    } else if (body.afterG !== undefined) {
      ground = { ...ground, powderG: Math.max(0, ground.powderG - Math.max(0, (body.beforeG ?? ground.powderG) - body.afterG)) }
    }
  }
  return ground
}

type Milled = Pick<BatchState, 'piecesLeftG' | 'piecesInG' | 'powderG' | 'packedG' | 'dryG'>

/** Whether the next grinding is of powder, once more: no dry pieces are known to be left. */
export const grindsAgain = ({ piecesLeftG, piecesInG, powderG, packedG }: Milled): boolean =>
  powderG - packedG > 1 && (piecesLeftG === undefined ? piecesInG > 0 : piecesLeftG === 0)

/** What there is to grind, whole grams: dry pieces, or powder once more; undefined where nobody weighed it. */
export function toGrindG({ piecesLeftG, piecesInG, powderG, packedG, dryG }: Milled, again: boolean): number | undefined {
  const grams = again ? Math.max(0, powderG - packedG) : (piecesLeftG ?? (piecesInG > 0 ? undefined : dryG))
  return grams === undefined ? undefined : Math.round(grams)
}
