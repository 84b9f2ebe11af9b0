import { CRACKS_K, DAMP_ACTIVITY, LEATHER_K, SNAPS_K } from '../hands'
import { FEEL_QUESTIONS, type FeelCheck, type FeelVote } from '../dryness'
import type { FeelForm, Food } from '../foods'
import { glassOf, softensAtC } from '../grinding'
import { activityAt, isothermOf } from '../sorption'
import { wetBasis } from '../mass'

/** A piece in the hand: its water from the middle to the face, dry basis, and how warm it is. */
export interface PieceInHand {
  x: ArrayLike<number>
  celsius: number
  /** Share of ice that is left in it. */
  ice?: number
}

/** A middle that holds so much more water than the rim is darker; with so much activity it is damp to the finger. */
const DARKER_BY_X = 0.05
/** In a warm piece the middle is as soft as the rim: only what drips is noticed. */
const WARM_C = 35
const WARM_DAMP_ACTIVITY = 0.96

/** How soft a layer is: warmth above its glass transition, K. */
function softness(food: Food, x: number, celsius: number): number {
  return celsius - softensAtC(glassOf(food), wetBasis(x))
}

/** What one piece tells the fingers: answers to the questions of its form. It comes from its own layers, not from a mean. */
export function feelOfPiece(food: Food, form: FeelForm, { x, celsius, ice = 0 }: PieceInHand): Record<string, string> {
  const cells = x.length
  const mean = (from: number, to: number) => {
    let sum = 0
    for (let i = from; i < to; i++) sum += x[i]!
    return sum / Math.max(1, to - from)
  }
  const half = Math.floor(cells / 2)
  // A bent piece breaks from its outside: the outer half decides, and a hard skin snaps over a wet core.
  const outer = mean(half, cells)
  const core = mean(0, Math.max(1, Math.floor(cells / 4)))
  const rim = mean(cells - Math.max(1, Math.floor(cells / 4)), cells)
  const soft = softness(food, outer, celsius)
  const warm = celsius >= WARM_C
  const activity = activityAt(isothermOf(food), core, 20)
  const middle =
    activity > (warm ? WARM_DAMP_ACTIVITY : DAMP_ACTIVITY) ? 'wet' : !warm && core - rim > DARKER_BY_X && activity > 0.5 ? 'darker' : 'even'
  switch (form) {
    case 'pieces':
      return {
        bend: soft < SNAPS_K ? 'snaps' : soft < CRACKS_K ? 'cracks' : soft < LEATHER_K ? 'leathery' : 'soft',
        middle: middle === 'wet' ? 'damp' : middle,
      }
    case 'leaves':
      return {
        crumble: soft < SNAPS_K ? 'crumbles' : soft < CRACKS_K ? 'flakes' : soft < LEATHER_K ? 'folds' : 'limp',
        stem: softness(food, core, celsius) < CRACKS_K ? 'snaps' : 'bends',
      }
    case 'sheet':
      return {
        peel: soft < CRACKS_K ? 'breaks' : soft < LEATHER_K ? 'bends' : 'sticks',
        middle: middle === 'wet' ? 'tacky' : middle,
      }
    case 'shreds':
      return { crunch: soft < SNAPS_K ? 'crunches' : soft < LEATHER_K ? 'springs' : 'clings', mesh: soft < CRACKS_K ? 'fall' : 'stay' }
    case 'foam':
      return {
        touch: ice > 0.01 ? 'cold' : wetBasis(core) > 0.07 ? 'chewy' : 'chalky',
        middle: ice > 0.01 ? 'ice' : core - rim > DARKER_BY_X ? 'darker' : 'even',
      }
  }
}

const WORST: readonly FeelVote[] = ['veto', 'wet', 'pliable', 'dry']

/** Several pieces in one answer, as the form takes it: for each question what the worst of them says. */
export function feelTogether(form: FeelForm, pieces: readonly Record<string, string>[], cooled: boolean, places: number): FeelCheck {
  const answers = Object.fromEntries(
    FEEL_QUESTIONS[form].map(({ key, answers: offered }) => {
      const given = pieces.flatMap(piece => offered.filter(answer => answer.key === piece[key]))
      const worst = WORST.map(vote => given.find(answer => answer.vote === vote)).find(answer => answer !== undefined)
      return [key, worst?.key ?? offered[0]!.key]
    }),
  )
  return { form, answers, cooled, places: Math.min(3, places) }
}
