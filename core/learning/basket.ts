import type { Finding, Interval } from '../stats'
import { learnEffects, type Effects, type EffectsModel } from './effects'

/** What a finished batch of a food teaches of its next basket; each over what the reference says. */
export interface BasketLesson {
  id?: string
  solids?: Finding
  prep?: Finding
  dry?: Finding
  recovery?: Finding
  card: string
  /** What was done to it beside trimming and cutting, such as "roast". */
  path: string
  purpose: string
  cultivar?: string
  /** Whence it came: a garden, a market. */
  source?: string
}

/** How far lots of a food lie from the reference, as standard deviations of the logarithm. */
export interface BasketSpread {
  solids: number
  prep: number
}

/** A factor on the reference's figure for the next lot, and how many own ones it comes from. */
export interface BasketFactor {
  factor: Interval
  lots: number
}

export interface BasketLearned {
  /** Solids of the raw food. */
  solids: (of: Pick<BasketLesson, 'card' | 'cultivar' | 'source'>) => BasketFactor | undefined
  /** Prepared over raw, and dry over raw, as the newest of this card was prepared. */
  prep: (card: string) => BasketFactor | undefined
  dry: (card: string) => BasketFactor | undefined
  /** Powder over dry. */
  recovery: (purpose: string) => BasketFactor | undefined
}

/** Two lots of one garden are not the same (common practice). */
const LOTS: EffectsModel<string>['scatters'] = [
  [0.03, 0.3],
  [0.05, 0.37],
  [0.08, 0.25],
  [0.15, 0.08],
]
const LOT_SD = 0.05
/** Knives, cups and sieves repeat themselves better. */
const HANDS: EffectsModel<string>['scatters'] = [
  [0.01, 0.2],
  [0.02, 0.35],
  [0.04, 0.3],
  [0.1, 0.15],
]
const SCALES: EffectsModel<string>['scales'] = [
  [0.6, 0.3],
  [1, 0.45],
  [2, 0.25],
]
/** Where the reference is sure of a figure a household may still differ by so much. */
const LEAST = 0.04
/** A step that takes water off, or lays something on, may change a weight by so much. */
const PATH = 0.3
const DOUBTED = 2.5
const common = { scales: SCALES, doubted: DOUBTED } as const

/**
 * What a household's own lots of one food teach of the next basket.
 * @param lessons newest first
 * @param spread of the reference, from lot to lot
 */
export function learnBasket(lessons: readonly BasketLesson[], spread: BasketSpread): BasketLearned {
  const between = (sd: number, lot: number) => Math.sqrt(Math.max(LEAST ** 2, sd ** 2 - lot ** 2))
  const of = <Kind extends string>(
    what: 'solids' | 'prep' | 'dry' | 'recovery',
    ofLesson: (lesson: BasketLesson) => Partial<Record<Kind, string>>,
    model: EffectsModel<Kind>,
  ) => {
    const found = lessons.flatMap(lesson => {
      const finding = lesson[what]
      return finding ? [{ id: lesson.id, log: finding.log, doubt: finding.doubt, of: ofLesson(lesson) }] : []
    })
    return found.length > 0 ? learnEffects(found, model) : undefined
  }
  const told = <Kind extends string>(effects: Effects<Kind> | undefined, ask: Partial<Record<Kind, string>>): BasketFactor | undefined =>
    effects && { factor: effects.next(ask), lots: effects.count }

  const solids = of<'cultivar' | 'food' | 'source' | 'card'>(
    'solids',
    ({ card, cultivar, source }) => ({ food: '', cultivar, source, card }),
    {
      ...common,
      nested: ['cultivar', 'food'],
      crossed: ['source', 'card'],
      spread: kind => ({ food: between(spread.solids, LOT_SD), cultivar: 0.1, source: 0.05, card: 0.03 })[kind],
      scatters: LOTS,
    },
  )
  const pathed = ({ card, path }: Pick<BasketLesson, 'card' | 'path'>) => ({ food: '', card: `${card}/${path}` })
  const step = (key: string) => (key.endsWith('/') ? 0 : PATH)
  const prep = of<'card' | 'food'>('prep', pathed, {
    ...common,
    nested: ['card', 'food'],
    crossed: [],
    spread: (kind, key) => (kind === 'food' ? between(spread.prep, 0.03) : Math.hypot(0.5 * between(spread.prep, 0), step(key))),
    scatters: HANDS,
  })
  const dry = of<'card' | 'food'>('dry', pathed, {
    ...common,
    nested: ['card', 'food'],
    crossed: [],
    spread: (kind, key) => (kind === 'food' ? between(Math.hypot(spread.solids, spread.prep), LOT_SD) : Math.hypot(0.04, 0.3 * step(key))),
    scatters: LOTS,
  })
  const recovery = of<'purpose' | 'food'>('recovery', ({ purpose }) => ({ food: '', purpose }), {
    ...common,
    nested: ['purpose', 'food'],
    crossed: [],
    spread: () => 0.025,
    scatters: HANDS,
  })
  const asLast = (card: string) => pathed({ card, path: lessons.find(lesson => lesson.card === card)?.path ?? '' })
  return {
    solids: ask => told(solids, { food: '', ...ask }),
    prep: card => told(prep, asLast(card)),
    dry: card => told(dry, asLast(card)),
    recovery: purpose => told(recovery, { food: '', purpose }),
  }
}

/** A level spoon is not always the same (common practice). */
const SPOON_DOUBT = 0.05

/**
 * What weighed spoons say of a food's powder, over the reference's density.
 * @param ratios newest first
 * @param sdLog of the reference from grinding to grinding
 */
export function learnDensity(ratios: readonly number[], sdLog: number): BasketFactor | undefined {
  if (ratios.length === 0) return undefined
  const learned = learnEffects<'food'>(
    ratios.map(ratio => ({ log: Math.log(ratio), doubt: SPOON_DOUBT, of: { food: '' } })),
    { ...common, nested: ['food'], crossed: [], spread: () => Math.max(LEAST, sdLog), scatters: LOTS },
  )
  return { factor: learned.next({ food: '' }), lots: ratios.length }
}
