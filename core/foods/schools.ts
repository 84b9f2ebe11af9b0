import { capital } from '../text'
import { parseRange } from './amounts'
import type { QuestionSource } from './source'
import type { WayKey } from '../ways'
import type { Food, MethodCard, PrepStepName, Purpose, School, SchoolEffects, SchoolQuestion } from './types'

/** Questions as they are used, from their file. */
export function questionsFrom(file: Readonly<Record<string, QuestionSource>>): SchoolQuestion[] {
  return Object.entries(file).map(([key, question]) => ({
    key,
    ...question,
    schools: question.schools.map(({ effects, ...school }) => ({ ...school, ...(effects && { effects: effectsFrom(effects) }) })),
  }))
}

function effectsFrom({ trim, months, mostWater, ...effects }: NonNullable<QuestionSource['schools'][number]['effects']>): SchoolEffects {
  return {
    ...effects,
    ...(trim !== undefined && { trim: trim / 100 }),
    ...(months && { months: parseRange(months) }),
    ...(mostWater && { mostWater: mostWater / 100 }),
  }
}

/** The questions that concern a food, cut and purpose, with the schools that suit it, its own default first. */
export function questionsOf(
  questions: readonly SchoolQuestion[],
  food: Pick<Food, 'schools' | 'traits' | 'group' | 'prefer' | 'forbids' | 'cards'>,
  use: Use = {},
): SchoolQuestion[] {
  return questions.filter(question => concerns(question, food, use)).map(question => ({ ...question, schools: schoolsOf(question, food) }))
}

/** What is known of a batch: its cut, what it is meant for, and how it is dried, once it is. */
interface Use {
  card?: Pick<MethodCard, 'feelForm'> & Partial<Pick<MethodCard, 'key'>>
  purpose?: Purpose
  way?: WayKey
}

function concerns({ key, of }: SchoolQuestion, food: Pick<Food, 'schools' | 'traits' | 'cards'>, use: Use) {
  const way = (kind: WayKey) => (use.way ? use.way === kind : food.cards.some(card => card.ways.some(item => item.way === kind)))
  if (of?.ways) return of.ways.some(way)
  if (food.schools.includes(key)) return true
  if (!of) return false
  const has = (traits: SchoolQuestion['of'] & object, which: 'traits' | 'not') => traits[which]!.some(trait => food.traits.includes(trait))
  return (
    (!of.forms || food.cards.some(item => isOfForm(item, of.forms!) && (!use.card || item.key === use.card.key))) &&
    (!of.traits || has(of, 'traits')) &&
    !(of.not && has(of, 'not')) &&
    (!of.purposes || !use.purpose || of.purposes.includes(use.purpose)) &&
    (!of.feel || !use.card || of.feel.includes(use.card.feelForm))
  )
}

const isOfForm = ({ key }: Pick<MethodCard, 'key'>, forms: readonly string[]) =>
  forms.some(form => key === form || key.startsWith(`${form}-`))

function schoolsOf({ key, schools }: SchoolQuestion, { group, prefer, forbids }: Pick<Food, 'group' | 'prefer' | 'forbids'>): School[] {
  const offered = schools.filter(school => (!school.groups || school.groups.includes(group)) && !forbids[key]?.includes(school.key))
  const wanted = offered.find(school => school.key === prefer[key])
  if (!wanted || wanted === offered[0]) return offered
  // What the file calls the default is not this food’s.
  return [
    { ...wanted, reason: `The default here. ${wanted.reason}` },
    ...offered
      .filter(school => school !== wanted)
      .map(school => ({ ...school, reason: capital(school.reason.replace(/^The default(?: for|:) /, '')) })),
  ]
}

/** The question that a step of preparing answers. */
export const QUESTION_OF_STEP: Partial<Record<PrepStepName, string>> = {
  seed: 'seeds',
  blanch: 'blanch',
  roast: 'roast',
  puree: 'puree',
  char: 'charPeel',
  dip: 'dip',
  drain: 'saltDraw',
  peel: 'skins',
  toast: 'toast',
  wash: 'mushroomWash',
  trim: 'stalks',
}

/** Schools that were chosen for a batch, by question. */
export type Choices = Readonly<Record<string, string>>

/** All that follows from what was chosen: factors multiplied, shares added; of rest and keeping the last word. */
export function effectsOfChoices(
  { schoolEffects }: Pick<Food, 'schoolEffects'>,
  choices: Choices,
): SchoolEffects & { hours: number; trim: number; recovery: number } {
  const sum = { hours: 1, trim: 0, recovery: 1 } as ReturnType<typeof effectsOfChoices>
  for (const [question, school] of Object.entries(choices)) {
    const { hours = 1, trim = 0, recovery = 1, ...last } = schoolEffects[`${question}/${school}`] ?? {}
    Object.assign(sum, last, { hours: sum.hours * hours, trim: sum.trim + trim, recovery: sum.recovery * recovery })
  }
  return sum
}

/** A card with the steps that follow from what was chosen, before it is cut. */
export function chosenCard(card: MethodCard, food: Pick<Food, 'schoolEffects'>, choices: Choices): MethodCard {
  const { steps = [] } = effectsOfChoices(food, choices)
  if (steps.length === 0) return card
  const cut = card.steps.findIndex(({ step }) => step === 'cut')
  const before = cut < 0 ? card.steps.length : cut
  return { ...card, steps: [...card.steps.slice(0, before), ...steps, ...card.steps.slice(before)] }
}
