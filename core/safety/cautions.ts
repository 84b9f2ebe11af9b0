import type { Caution, CautionStep, Food, Trait } from '../foods'
import { WAYS, type WayKey } from '../ways'
import { SAFETY_RULES, type SafetyRule } from './rules'

/** Rules that are told where the circumstance asks for them, not at every food. */
const BY_CIRCUMSTANCE: readonly string[] = [
  'mould',
  'moisture',
  'no-oxygen',
  'oil',
  'sulphite',
  'liquid-unfrozen',
  'raw-frozen',
  'raw-back',
  'shards',
  'left-alone',
  'sachets',
  'lid',
  'selling',
]

/** Groups that are dried in the sun without objection; of the tomato’s kin only what is sour. */
const OUTDOORS: readonly string[] = ['orchard', 'berry', 'chili', 'dried', 'seaweed', 'wateryFruit']
const isForSun = ({ group, traits }: Food) => OUTDOORS.includes(group) && !(group === 'wateryFruit' && traits.includes('lowAcid'))

export interface ToldCautions {
  /** To read. */
  notes: (SafetyRule | (Caution & { key?: undefined }))[]
  /** To accept before the step, once. */
  cares: SafetyRule[]
}

/** What beside the food brings a caution. */
export interface Circumstance {
  way?: WayKey
  liquid?: boolean
  raw?: boolean
  sulphited?: boolean
  /** It may run while nobody is awake or at home. */
  alone?: boolean
  /** Beads were seen in a jar. */
  moist?: boolean
  /** An absorber or gel goes in with it. */
  sachet?: boolean
  /** Its lid may be one of those that canning jars take. */
  canningLid?: boolean
  /** It is to leave the house. */
  sold?: boolean
  /** Keys of rules that were accepted before. */
  accepted?: ReadonlySet<string>
}

/**
 * The cautions of a step: those that its food's traits and the way of drying bring.
 * @param accepted keys of rules that were accepted before, in this batch or an earlier one; they are notes then
 */
export function cautionsAt(step: CautionStep, food: Food, circumstance: Circumstance = {}): ToldCautions {
  const { way, accepted } = circumstance
  const told = SAFETY_RULES.filter(rule => rule.step === step && rule.severity !== 'stop' && concerns(rule, food, way))
    .filter(
      ({ key }) =>
        !BY_CIRCUMSTANCE.includes(key) ||
        (key === 'liquid-unfrozen' && circumstance.liquid) ||
        (key === 'raw-frozen' && circumstance.raw) ||
        (key === 'raw-back' && circumstance.raw) ||
        (key === 'left-alone' && circumstance.alone) ||
        (key === 'moisture' && circumstance.moist) ||
        (key === 'sachets' && circumstance.sachet) ||
        (key === 'lid' && circumstance.canningLid) ||
        (key === 'selling' && circumstance.sold) ||
        (key === 'sulphite' && circumstance.sulphited) ||
        (key === 'shards' && food.cards.some(card => card.feelForm === 'sheet')),
    )
    .filter(({ key }) => key !== 'outdoors-vegetables' || !isForSun(food))
  const open = (rule: SafetyRule) => rule.severity === 'care' && !accepted?.has(rule.key)
  return {
    cares: told.filter(open),
    // What is rare and grave is read first.
    notes: [
      ...told.filter(rule => !open(rule) && rule.grave),
      ...food.cautions.filter(caution => caution.step === step),
      ...told.filter(rule => !open(rule) && !rule.grave),
    ],
  }
}

/** Every rule that concerns a food at some step or way, gravest first: for its page. */
export function cautionsOf(food: Food): SafetyRule[] {
  const ways = food.cards.flatMap(card => card.ways.map(({ way }) => WAYS[way]))
  const order = { stop: 0, care: 1, note: 2 }
  return SAFETY_RULES.filter(rule =>
    rule.traits || rule.groups ? concernsFood(rule, food) && (!rule.ways || rule.severity === 'stop' || ways.some(rule.ways)) : false,
  ).sort((a, b) => order[a.severity] - order[b.severity])
}

function concerns(rule: SafetyRule, food: Food, way: WayKey | undefined): boolean {
  if (rule.ways && (way === undefined || !rule.ways(WAYS[way]))) return false
  if (rule.not?.some(trait => food.traits.includes(trait))) return false
  return concernsFood(rule, food)
}

const concernsFood = ({ traits, groups }: SafetyRule, food: Food) =>
  (!traits && !groups) || (traits?.some((trait: Trait) => food.traits.includes(trait)) ?? groups!.includes(food.group))

/** What is told of a food once it is in its jar: in a few words for its label, in full where it is used. */
export interface ToldAtUse {
  label: string[]
  use: string[]
}

/** @param how `raw`: dried raw; `sold`: bought in, so that nobody here gathered it */
export function toldAtUse(food: Food, { raw = false, sold = false }: { raw?: boolean; sold?: boolean } = {}): ToldAtUse {
  const rules = SAFETY_RULES.filter(
    rule =>
      rule.severity !== 'stop' &&
      !rule.ways &&
      (rule.key === 'raw-back' ? raw : concernsFood(rule, food)) &&
      (rule.key !== 'wild' || !sold) &&
      (rule.key !== 'reheat' || food.group === 'meal') &&
      rule.key !== 'sulphite',
  )
  const own = food.cautions.filter(({ step }) => step === 'use' || step === 'pack')
  return {
    label: [...rules, ...own].flatMap(({ label }) => label ?? []),
    use: [...own, ...rules.filter(({ step, grave, key }) => (step === 'use' && key !== 'rehydrated') || (step === 'pack' && grave))].map(
      ({ text }) => text,
    ),
  }
}
