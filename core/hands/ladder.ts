import type { FeelForm } from '../foods'

/**
 * How what fingers say goes with the water of a piece: the answers of a question from dry to wet, and where one passes into the next.
 * By `softness`: warmth above the glass transition of its layer, K (where food at its target snaps: common practice, no measurement);
 * by `activity`: water activity of the layer.
 */
export interface Ladder {
  by: 'softness' | 'activity'
  /** The layer that is asked: a bent piece breaks from its outer half; a middle is looked into. */
  of: 'outer' | 'core'
  answers: readonly string[]
  /** One fewer than the answers. */
  at: readonly number[]
}

/** Above its glass transition by so much food snaps, cracks, bends like leather; softer beyond. */
export const SNAPS_K = 14
export const CRACKS_K = 32
export const LEATHER_K = 60
/** A middle is as pale as its rim, darker, damp to the finger. */
const DARKER_ACTIVITY = 0.5
export const DAMP_ACTIVITY = 0.88

const MIDDLE = (wet: string): Ladder => ({
  by: 'activity',
  of: 'core',
  answers: ['even', 'darker', wet],
  at: [DARKER_ACTIVITY, DAMP_ACTIVITY],
})

/** By form of what lies on the tray, and question. What comes from a vacuum is told by ice and chew: no ladder of its own. */
export const LADDERS: Readonly<Record<FeelForm, Readonly<Record<string, Ladder>>>> = {
  pieces: {
    bend: { by: 'softness', of: 'outer', answers: ['snaps', 'cracks', 'leathery', 'soft'], at: [SNAPS_K, CRACKS_K, LEATHER_K] },
    middle: MIDDLE('damp'),
  },
  leaves: {
    crumble: { by: 'softness', of: 'outer', answers: ['crumbles', 'flakes', 'folds', 'limp'], at: [SNAPS_K, CRACKS_K, LEATHER_K] },
    stem: { by: 'softness', of: 'core', answers: ['snaps', 'bends'], at: [CRACKS_K] },
  },
  sheet: {
    peel: { by: 'softness', of: 'outer', answers: ['breaks', 'bends', 'sticks'], at: [CRACKS_K, LEATHER_K] },
    middle: MIDDLE('tacky'),
  },
  shreds: {
    crunch: { by: 'softness', of: 'outer', answers: ['crunches', 'springs', 'clings'], at: [SNAPS_K, LEATHER_K] },
    mesh: { by: 'softness', of: 'outer', answers: ['fall', 'stay'], at: [CRACKS_K] },
  },
  foam: {},
}
