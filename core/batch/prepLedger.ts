import { effectsOfChoices, type Choices, type Food, type MethodCard } from '../foods'
import { balancePrep, type PrepBalance, type PrepLedger, type PrepStep } from '../mass'
import { dryFormOf, type BatchState, type EntryOf } from '../log'

/** What a step takes off where it was not weighed, share of the weight before it (common practice). */
const USUAL_WATER: Partial<Record<string, { mean: number; sd: number }>> = {
  roast: { mean: 0.25, sd: 0.1 },
  drain: { mean: 0.2, sd: 0.1 },
  char: { mean: 0.12, sd: 0.06 },
  boil: { mean: 0.08, sd: 0.08 },
  cook: { mean: 0.22, sd: 0.08 },
  toast: { mean: 0.06, sd: 0.04 },
}
/** Thickened is as thick as it comes from a tin: about nine tenths water, whatever went before (common practice). */
const THICK = { mean: 0.1, sd: 0.02 }
/** Steps that bring food to what the reference calls cooked. */
const COOKS: readonly string[] = ['cook', 'boil', 'roast']
/** Peels, seeds and husks, where the food's own loss counts for the trimming. */
const USUAL_WASTE: Partial<Record<string, { mean: number; sd: number }>> = { peel: { mean: 0.12, sd: 0.05 }, seed: { mean: 0.1, sd: 0.05 } }

/** Water of what comes back from the shelf to be dried again: dry once, and damp since (common practice). */
const FROM_SHELF = { mean: 0.08, sd: 0.03 }

/** Cut off later and less than this share of a usual trim, it is specks: the stems went before, and nobody wrote it down. */
const SPECKS = 0.35

/**
 * Nobody eats the stems: a trim that was not written down is filled in with the food's usual loss, unless it is said that nothing
 * came off, or that skin and seeds were blended in.
 */
function isTrimmed(prep: readonly EntryOf<'prep'>[], usualG: number): boolean {
  const worked = prep.findIndex(({ body }) => body.effect !== 'waste' && body.step !== 'wash')
  return prep.some(({ body }, i) => {
    if (body.step === 'trim' && body.effect === 'none') return true
    if (body.step === 'puree' && body.school === 'whole') return true
    return body.effect === 'waste' && (worked < 0 || i < worked || body.weightG === undefined || body.weightG > SPECKS * usualG)
  })
}

/** Whether the basket was on the scale before it was cooked: as was said, else as what was cooked off it later shows. */
function weighedUncooked({ body }: EntryOf<'intake'>, prep: readonly EntryOf<'prep'>[], food: Food, card: MethodCard): boolean {
  if (!food.uncooked || body.fromJars || body.prepared) return false
  if (card.raw) return true
  if (body.weighed) return body.weighed === 'uncooked'
  return prep.some(entry => COOKS.includes(entry.body.step) && entry.body.effect !== 'none')
}

/** Water of a basket as it comes in by the reference, wet basis. */
const waterOfBasket = (food: Food, card: MethodCard, uncooked: boolean) =>
  (uncooked && food.uncooked ? food.uncooked : (card.moisture ?? food.rawMoisture)).value

/** Cooked it holds the water that the reference gives, less than before or, as beans do, far more. */
const cooking = ({ rawMoisture: { value } }: Food, name: string, weightG?: number): PrepStep => ({
  kind: 'water',
  name,
  weightG,
  reach: { mean: 1 - value.mean, sd: value.sd },
  swells: true,
})

/** The steps of preparing as the ledger takes them: what was weighed, and the usual share where it was not. */
export function ledgerOf(
  intake: EntryOf<'intake'>,
  prep: readonly EntryOf<'prep'>[],
  splits: readonly EntryOf<'split'>[],
  food: Food,
  card: MethodCard,
  loadedG: number | undefined,
  choices: Choices = {},
): PrepLedger {
  const usual = (card.trimShare ?? food.trimShare).value
  const trim = { ...usual, mean: Math.min(0.97, Math.max(0, usual.mean + effectsOfChoices(food, choices).trim)) }
  const uncooked = weighedUncooked(intake, prep, food, card)
  const stepsOf = (entry: EntryOf<'prep'> | EntryOf<'split'>): PrepStep[] => {
    if (entry.body.kind === 'split') return dryFormOf(entry.body) ? [] : [{ kind: 'waste', name: 'split', weightG: entry.body.weightG }]
    const { step, effect, weightG, added } = entry.body
    if (effect === 'none') return []
    if (effect === 'added') return [{ kind: 'added', name: step, ...added }]
    if (food.uncooked && COOKS.includes(step) && effect === 'water') {
      if (uncooked) return [cooking(food, step, weightG)]
      // It was cooked when it was weighed: what is not said to have left did not.
      if (weightG === undefined) return []
    }
    if (step === 'thicken' && effect === 'water') return [{ kind: effect, name: step, weightG, reach: THICK }]
    const usualShare = effect === 'waste' ? (USUAL_WASTE[step] ?? trim) : (USUAL_WATER[step] ?? { mean: 0.25, sd: 0.12 })
    return [{ kind: effect, name: step, weightG, usualShare }]
  }
  const behindAt = intake.body.prepared?.at ?? -Infinity
  const usualG = trim.mean * intake.body.weightG
  const keptG = splits.reduce((sum, { body }) => sum + (body.form === 'trimmings' ? body.weightG : 0), 0)
  const logged: PrepStep[] = [...prep, ...splits]
    .filter(entry => entry.at > behindAt)
    .sort((a, b) => a.at - b.at || a.seq - b.seq)
    .flatMap(entry => stepsOf(entry).map(step => ({ ...step, entryId: entry.id })))
  const steps = keptG > 0 ? withoutKept(logged, keptG, usualG) : logged
  if (!intake.body.fromJars && !intake.body.prepared && keptG <= SPECKS * usualG && !isTrimmed(prep, usualG))
    steps.unshift({ kind: 'waste', name: 'trim', usualShare: trim })
  // Loaded without a word of it, it was cooked all the same.
  if (uncooked && !card.raw && loadedG !== undefined && !prep.some(({ body }) => COOKS.includes(body.step)))
    steps.push(cooking(food, 'cook'))
  return {
    rawWeightG: intake.body.weightG,
    rawWeightSdG: intake.body.weightSdG,
    rawMoisture: intake.body.prepared ?? waterComingIn(intake, food, card, uncooked),
    steps,
    loadedWeightG: loadedG,
  }
}

/** What came off and was kept is counted once: a trimming took what it weighed less that, and one that nobody weighed was it. */
function withoutKept(steps: readonly PrepStep[], keptG: number, usualG: number): PrepStep[] {
  let toCount = keptG
  return steps.flatMap((step): PrepStep[] => {
    if (step.kind !== 'waste' || step.name === 'split') return [step]
    if (step.weightG === undefined) return keptG > SPECKS * usualG ? [] : [step]
    const counted = Math.min(toCount, step.weightG)
    toCount -= counted
    return counted < step.weightG ? [{ ...step, weightG: step.weightG - counted }] : []
  })
}

/** Water of what came in, wet basis: of the shelf, by the reference as it was weighed, or as own lots taught. */
function waterComingIn({ body }: EntryOf<'intake'>, food: Food, card: MethodCard, uncooked: boolean): { mean: number; sd: number } {
  if (body.fromJars) return FROM_SHELF
  if (uncooked || card.moisture) return waterOfBasket(food, card, uncooked)
  return (food.mixOf ? undefined : body.rawWater) ?? food.rawMoisture.value
}

/** Steps of a card that take water off whatever the food, and are logged so (`PrepForm`). What drips off is in the reference's water already. */
function waterSteps({ steps }: MethodCard, uncooked: boolean): PrepStep[] {
  return steps.flatMap(({ step, school }): PrepStep[] => {
    if (school !== undefined) return []
    if (step === 'thicken') return [{ kind: 'water', name: step, reach: THICK }]
    if (!['roast', 'char', 'toast'].includes(step) || (uncooked && COOKS.includes(step))) return []
    return [{ kind: 'water', name: step, usualShare: USUAL_WATER[step]! }]
  })
}

type Prepared = Pick<BatchState, 'intake' | 'prep' | 'food' | 'card' | 'ledger' | 'balance' | 'beganDry'>

/** Steps of its card that take water off, or bring it in, before it lies on the trays, and that nobody has logged: in their order. */
export function stepsAhead({ intake, prep, food, card, ledger, beganDry }: Prepared): PrepStep[] {
  if (beganDry) return []
  const uncooked = weighedUncooked(intake, prep, food, card)
  const logged = (name: string) => prep.some(({ body }) => body.step === name) || ledger.steps.some(step => step.name === name)
  const cooked = !uncooked || card.raw || prep.some(({ body }) => COOKS.includes(body.step))
  return [...(cooked ? [] : [cooking(food, 'cook')]), ...waterSteps(card, uncooked)].filter(({ name }) => !logged(name))
}

/** What goes on the trays once the steps ahead are done, by their usual losses; what there is now, where there are none. */
export function balanceOnTrays(state: Prepared): PrepBalance {
  const ahead = stepsAhead(state)
  return ahead.length === 0 ? state.balance : balancePrep({ ...state.ledger, steps: [...state.ledger.steps, ...ahead] })
}

/**
 * What a basket comes to that goes through its card's steps with their usual losses, by the reference: trimmed, cooked where it was
 * weighed before, roasted, thickened.
 */
export function trimmedBasket(food: Food, card: MethodCard, weightG: number, weighed?: 'uncooked' | 'cooked'): PrepBalance {
  const uncooked = food.uncooked !== undefined && (card.raw || weighed === 'uncooked')
  return balancePrep({
    rawWeightG: weightG,
    rawMoisture: waterOfBasket(food, card, uncooked),
    steps: [
      { kind: 'waste', name: 'trim', usualShare: (card.trimShare ?? food.trimShare).value },
      ...(uncooked && !card.raw ? [cooking(food, 'cook')] : []),
      ...waterSteps(card, uncooked),
    ],
  })
}
