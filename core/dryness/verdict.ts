import type { Purpose } from '../foods'
import { Z_90, type Interval } from '../stats'
import type { ConstantWeight } from './constantWeight'
import { judgeFeel, type FeelCheck } from './feel'

/** What to do, from wettest to driest. */
export type VerdictLevel = 'keep-drying' | 'cool-and-check' | 'rest' | 'grind' | 'seal'

export const VERDICT_WORDS: Record<VerdictLevel, string> = {
  'keep-drying': 'Keep drying',
  'cool-and-check': 'Cool some and check again',
  rest: 'Dry enough to rest',
  grind: 'Dry enough to grind',
  seal: 'Dry enough to seal',
}

/** What one witness says, or what it would need to say something. */
export interface Witness {
  name: 'weight' | 'feel' | 'jarAir' | 'rest'
  says: 'dry' | 'unsure' | 'wet' | 'nothing'
  headline: string
  detail: string
}

export interface DrynessEvidence {
  purpose: Purpose
  targetMoisture: number
  /** Fruit kept as pieces may stop at pliable. */
  pliableIsDone?: boolean
  /** From `estimateDrying`; undefined when nothing was weighed since loading. */
  weight?: {
    probabilityDry: number
    moistureNow: Interval
    constant?: ConstantWeight
    weighIns: number
    /** Whether its heat can bring it to the target in its room, and whether somebody measured that. */
    reach?: { chance: number; known: boolean }
    /** The last weight is newer than the look by hand. */
    sinceFeel?: boolean
    /** Hours since the last weight, where the figure is of later than that: taken out unweighed, or left without heat. */
    unweighedH?: number
  }
  /** The newest look by hand; `weighingsSince` tells whether it is older than the weight. */
  feel?: FeelCheck
  /** Air read in a closed jar: corrected humidity 0–1 with its doubt, hours closed, the moisture it means, and the humidity that the target means. */
  jarAir?: { humidity: number; sd?: number; closedHours: number; moisture: Interval; sealBelow: number }
  /** Days in the closed jar, how many are enough (a week, if not said), and what was seen: nothing where nobody looked, or not at every jar. */
  rest?: { days: number; needed?: number; lastSaw: 'dry' | 'moisture' | 'clumps' | 'mould' | 'nothing' }
}

/**
 * What follows: weigh it, feel it cold, log the room's air, read the air of a closed jar, take it out, look at the jar, dry it again, grind
 * or pack it, or throw it away; or leave it closed.
 */
export type VerdictAsk = 'weigh' | 'feel' | 'air' | 'jarAir' | 'unload' | 'look' | 'load' | 'grind' | 'pack' | 'discard' | 'wait'

export interface DrynessVerdict {
  level: VerdictLevel
  /** The deed that the reason asks for: whoever draws a button draws this one. */
  ask: VerdictAsk
  headline: string
  /** One or two sentences: why. */
  reason: string
  witnesses: Witness[]
  /** Set when witnesses contradict one another: the likely cause, and what would tell. */
  disagreement?: string
  /** Mould: nothing else counts. */
  discard?: boolean
}

/** Probability from which the weight counts as saying dry, and below which as saying wet. */
const SAYS_DRY = 0.8
const SAYS_WET = 0.2

/** Days of rest after which a jar without moisture may be ground (extension guidance: 7–10 days). */
export const REST_DAYS = 7

/** What each witness says, and how it is put into a verdict. */
interface Heard {
  evidence: DrynessEvidence
  weight: Witness
  feel: Witness
  /** A wet place was found by hand. */
  veto: boolean
  jarAir: Witness
  answer: (level: VerdictLevel, ask: VerdictAsk, reason: string, more?: Partial<DrynessVerdict>) => DrynessVerdict
}

function hear(evidence: DrynessEvidence): Heard {
  const weight = weightWitness(evidence)
  const { witness: feel, veto } = feelWitness(evidence)
  const jarAir = jarAirWitness(evidence)
  const rest = restWitness(evidence)
  const witnesses = [weight, feel, jarAir, ...(rest ? [rest] : [])]
  return {
    evidence,
    weight,
    feel,
    veto,
    jarAir,
    answer: (level, ask, reason, more = {}) => ({ level, ask, headline: VERDICT_WORDS[level], reason, witnesses, ...more }),
  }
}

/**
 * Puts the witnesses together. A wet place found by hand or moisture in the jar outweighs the weight;
 * a weight that says wet outweighs a dry feel, since a hard skin hides a wet core. The air of a closed jar
 * tells of the whole piece, core and all, but only of the pieces that are in the jar.
 */
export function judgeDryness(evidence: DrynessEvidence): DrynessVerdict {
  const heard = hear(evidence)
  if (evidence.rest) return judgeRest(heard, evidence.rest)
  return whereTheyPart(heard) ?? whereSomeAgree(heard) ?? (heard.feel.says === 'dry' ? byFeelAlone(heard) : byWhatThereIs(heard))
}

/** In its closed jar. */
function judgeRest({ evidence, weight, feel, veto, jarAir, answer }: Heard, rest: NonNullable<DrynessEvidence['rest']>): DrynessVerdict {
  if (rest.lastSaw === 'mould') {
    return answer('keep-drying', 'discard', 'Mould anywhere in the jar: discard all of it, and do not taste it.', {
      headline: 'Discard it',
      discard: true,
    })
  }
  const looked = rest.lastSaw !== 'nothing'
  if (looked && rest.lastSaw !== 'dry')
    return answer('keep-drying', 'load', 'The jar shows moisture: back to the machine the same day, then rest again.')
  if (weight.says === 'wet') {
    const water = percent(evidence.weight!.moistureNow.p50)
    return answer(
      'keep-drying',
      'load',
      `By all that was weighed it holds about ${water} % water, whatever the jar shows: back to the machine.`,
      {
        headline: 'Dry it again',
        disagreement: looked
          ? `Eyes see no moisture and the weights say ${water} % water. Beads come late, or the weight at loading was wrong: weigh what is in the jar, and read its air with a hygrometer.`
          : undefined,
      },
    )
  }
  if (veto || feel.says === 'wet')
    return answer('keep-drying', 'load', 'It was last felt wet, and nothing has dried it since: back to the machine.', {
      headline: 'Dry it again',
    })
  if (jarAir.says === 'wet' && !looked)
    return answer('keep-drying', 'load', 'The jar’s air says that the food is not dry through: back to the machine the same day.', {
      headline: 'Dry it again',
    })
  if (jarAir.says === 'wet') {
    return answer(
      'keep-drying',
      'load',
      'The jar shows no beads, but its air says that the food is not dry through: back to the machine the same day.',
      {
        disagreement: `Eyes say dry and the jar’s air says wet, at ${percent(evidence.jarAir!.humidity)} %. Air speaks before beads do. If the hygrometer is new, try it over salt first.`,
      },
    )
  }
  // One witness never seals: a hygrometer alone may be far off.
  if (!looked && (jarAir.says !== 'dry' || (weight.says !== 'dry' && feel.says !== 'dry')))
    return answer(
      'cool-and-check',
      'look',
      jarAir.says === 'dry'
        ? 'The jar’s air is dry, and nothing else says so: one witness is not enough. Look at the jar: shake it, and look for beads, sticking and clumps.'
        : rest.days < (rest.needed ?? REST_DAYS)
          ? 'Nobody has looked at the jar yet: shake it, and look for beads, sticking and clumps.'
          : `${days(rest.days)} in the jar, and nobody has looked: time alone does not make it dry. Shake it, look for beads, sticking and clumps.`,
      { headline: 'Look at the jar' },
    )
  if (rest.days < (rest.needed ?? REST_DAYS)) {
    return answer(
      'rest',
      'look',
      `${looked ? `No moisture after ${days(rest.days)}` : `${days(rest.days)} in the jar, and its air is dry`}. Water moves slowly from thick to thin pieces: look daily until day ${rest.needed ?? REST_DAYS}.`,
    )
  }
  return answer(
    evidence.purpose === 'pieces' ? 'seal' : 'grind',
    evidence.purpose === 'pieces' ? 'pack' : 'grind',
    `${days(rest.days)} in a closed jar${looked ? ' without moisture' : ', whose air is dry'}.`,
  )
}

/** One witness against another: what decides, the likely cause, and what would tell. */
function whereTheyPart({ weight, feel, veto, jarAir, answer }: Heard): DrynessVerdict | undefined {
  if (weight.says === 'dry' && jarAir.says === 'wet') {
    return answer(
      'keep-drying',
      'jarAir',
      'The weight says dry, but the air in the closed jar says that these pieces are not. Dry on, then read the air of a jar again.',
      {
        disagreement:
          'Weight says dry and jar air says wet. Likely the jar holds the wettest tray, the loaded weight is wrong, or the hygrometer is off: try it over salt, and dry on meanwhile.',
      },
    )
  }
  if (weight.says === 'wet' && jarAir.says === 'dry' && !veto && feel.says !== 'wet') {
    return answer(
      'cool-and-check',
      'jarAir',
      'The air in the closed jar says dry, the weight says not yet. Read the air again, over the thickest pieces of several trays.',
      {
        disagreement:
          'Weight says wet and jar air says dry. Likely the jar holds the driest pieces, it was closed too short a time, or the loaded weight is wrong. Fill the jar from the thickest pieces of several trays and read it again.',
      },
    )
  }
  if (weight.says === 'wet' && feel.says === 'dry') {
    return answer(
      'keep-drying',
      'feel',
      'It feels dry, but the weight says it is not: a hard skin over a wet core, most likely. Leave it, then feel a thick piece cold.',
      {
        disagreement:
          'Feel says dry and weight says wet. Likely a hard skin over a wet core; else the loaded weight is wrong, or a tray was on the scale. Break the thickest piece: a darker middle settles it.',
      },
    )
  }
  if (weight.says === 'dry' && (veto || feel.says === 'wet')) {
    return answer(
      'keep-drying',
      'feel',
      'The weight says dry, but a wet place was found by hand, and that decides. Dry on, then feel the wettest pieces again, cold.',
      {
        disagreement:
          'Weight says dry and feel says wet. Likely uneven trays, pieces tested warm, a tray missing from the scale, or food with more solids than usual. Dry on and weigh the wet tray by itself.',
      },
    )
  }
  return undefined
}

/** Wet by one that decides, dry by two, or by the weight with nobody against it. */
function whereSomeAgree({ weight, feel, veto, jarAir, answer }: Heard): DrynessVerdict | undefined {
  if (veto || feel.says === 'wet')
    return answer(
      'keep-drying',
      'feel',
      'A piece was not dry through: the wettest piece spoils the jar. Dry on, then cool some and feel them again.',
    )
  if (weight.says === 'dry' && feel.says === 'dry')
    return answer('rest', 'unload', jarAir.says === 'dry' ? 'Weight, feel and jar air agree.' : 'Weight and feel agree.')
  if (jarAir.says === 'dry' && (weight.says === 'dry' || feel.says === 'dry'))
    return answer('rest', 'unload', `Jar air and ${weight.says === 'dry' ? 'weight' : 'feel'} agree.`)
  if (jarAir.says === 'wet')
    return answer(
      'keep-drying',
      'jarAir',
      'The air in the closed jar says that these pieces are not dry. Dry on, then read the air of a jar again.',
    )
  if (weight.says === 'dry')
    return answer(
      'cool-and-check',
      'feel',
      'The weight says dry. Cool a few of the thickest pieces and feel them before they leave the machine.',
    )
  return undefined
}

/** Felt dry, and by no other. */
function byFeelAlone({ evidence, weight, answer }: Heard): DrynessVerdict {
  const { places } = evidence.feel!
  if (weight.says === 'nothing') {
    const told = evidence.weight?.probabilityDry ?? 0
    return told >= (places >= BY_HAND_PLACES ? SURE_BY_HAND.wide : SURE_BY_HAND.full)
      ? answer('rest', 'unload', `Dry by hand: ${inTen(told)} by what was felt and its hours. The closed jar will tell: look at it daily.`)
      : answer(
          'cool-and-check',
          'feel',
          `It feels dry; by that and its hours ${inTen(told).toLowerCase()} that it is. Dry it on for a while, then cool the three thickest for ten minutes and break them; a weight would tell sooner.`,
        )
  }
  if (places >= BY_HAND_PLACES)
    return answer('rest', 'unload', `Dry by hand: cooled, in ${places} places. The closed jar will tell: look at it daily.`)
  if (isRoomAsked(evidence))
    return answer(
      'cool-and-check',
      'air',
      'It feels dry and loses no more. Log the room’s air: whether it can be dry enough hangs on that.',
    )
  return evidence.weight!.sinceFeel
    ? answer(
        'cool-and-check',
        'feel',
        `It felt dry and the weight is close. Cool the thickest pieces of ${BY_HAND_PLACES} places and feel them, or dry it for an hour more.`,
      )
    : answer('cool-and-check', 'weigh', 'It feels dry and the weight is close. Weigh it once more before it leaves the machine.')
}

/** Nobody says dry yet. */
function byWhatThereIs({ evidence, weight, feel, jarAir, answer }: Heard): DrynessVerdict {
  if (feel.says === 'unsure')
    return answer(
      'cool-and-check',
      'feel',
      'The pieces felt dry, but the test was not a full one. Cool some from several trays and feel them again.',
    )
  if (weight.says === 'unsure') {
    if (isRoomAsked(evidence))
      return answer(
        'cool-and-check',
        'air',
        'It loses no more. Whether it is dry hangs on the room’s air, and nobody measured that: log it, or cool a few of the thickest pieces and feel them.',
      )
    return evidence.weight?.unweighedH === undefined
      ? answer('cool-and-check', 'feel', 'By weight it may be dry. Cool a few of the thickest pieces and feel them.')
      : answer(
          'cool-and-check',
          'weigh',
          'By its hours it may be dry, but nobody has weighed it since. Weigh it, and feel a few of the thickest pieces cold.',
        )
  }
  if (jarAir.says === 'dry' && weight.says === 'nothing')
    return answer(
      'cool-and-check',
      'feel',
      'The air in the closed jar says dry, and nothing else does yet. Cool a few of the thickest pieces and feel them.',
    )
  return weight.says === 'nothing'
    ? answer('keep-drying', 'weigh', 'Nothing says yet that it is dry. Weigh it, or cool a few of the thickest pieces and feel them.')
    : answer('keep-drying', 'weigh', 'By weight it is not dry. Dry on, then weigh it again.')
}

/**
 * Felt dry by a full test, it may rest without a weight where hands and hours make it so likely; a little less does where it was felt widely.
 * A hasty test (one piece, warm) never does: of simulated loads told so by those, 9 in 100 were two points wet, however often they were felt.
 */
const SURE_BY_HAND = { full: 0.8, wide: 0.7 }
/** Felt dry and cold in so many places, a doubtful weight does not keep it (common practice). */
const BY_HAND_PLACES = 4
/**
 * A heat that is this likely to bring it there needs no room measured. More is asked than of a weight: a room is the same load after
 * load, so that its error does not even out.
 */
const SURELY_REACHED = 0.9

const isStopped = ({ weight }: DrynessEvidence) => weight?.constant?.constant === true && weight.unweighedH === undefined
/** It has come to the end of what its heat and air can do, and nobody measured the air. */
const isRoomAsked = (evidence: DrynessEvidence): boolean => {
  const { reach } = evidence.weight ?? {}
  return isStopped(evidence) && reach !== undefined && !reach.known && reach.chance < SURELY_REACHED
}

function days(count: number): string {
  return count === 1 ? '1 day' : `${count} days`
}

const hoursWords = (count: number) => (count === 1 ? '1 hour' : `${count} hours`)
const percent = (fraction: number) => `${Math.round(fraction * 100)}`

function weightWitness({ weight, targetMoisture }: DrynessEvidence): Witness {
  const needs = `Needs ${percent(targetMoisture)} % or less.`
  if (!weight || weight.weighIns === 0) {
    return {
      name: 'weight',
      says: 'nothing',
      headline: 'Not weighed yet',
      detail: `${needs} One weight after two thirds of the usual time already tells much.`,
    }
  }
  const { p10, p50, p90 } = weight.moistureNow
  const figures = `${percent(p50)} % water, ${percent(p10)} to ${percent(p90)}`
  if (weight.unweighedH !== undefined) {
    const wet = weight.probabilityDry <= SAYS_WET
    const since = Math.round(weight.unweighedH)
    return {
      name: 'weight',
      says: wet ? 'wet' : 'unsure',
      headline: `About ${figures}: an estimate`,
      detail: `${needs} Not weighed ${since < 1 ? 'since' : `in the ${since < 48 ? hoursWords(since) : days(Math.round(since / 24))} since`}: a weight now would tell.`,
    }
  }
  const headline = figures
  const constant = weight.constant
  if (weight.probabilityDry >= (weight.reach?.known === false ? SURELY_REACHED : SAYS_DRY))
    return { name: 'weight', says: 'dry', headline, detail: `${needs} ${inTen(weight.probabilityDry)} that it is there.` }
  if (constant?.constant) {
    const reached = (weight.reach?.chance ?? 1) >= SURELY_REACHED
    return {
      name: 'weight',
      says: weight.probabilityDry < SAYS_WET || !reached ? 'unsure' : 'dry',
      headline,
      detail: `It lost no more in ${constant.spanH.toFixed(1)} h than the scale can hide: constant weight. It is as dry as this heat and air make it${reached ? '' : ', and that may not be dry enough'}.`,
    }
  }
  if (weight.probabilityDry <= SAYS_WET)
    return { name: 'weight', says: 'wet', headline, detail: `${needs} ${inTen(weight.probabilityDry)} that it is there.` }
  return { name: 'weight', says: 'unsure', headline, detail: `${needs} ${inTen(weight.probabilityDry)} that it is there.` }
}

function inTen(probability: number): string {
  if (probability < 0.05) return 'Hardly any chance'
  if (probability > 0.95) return 'Almost certain'
  // Rounded down, so that the words never say more than the figure.
  return `${Math.max(1, Math.floor(probability * 10))} in 10`
}

function feelWitness({ feel, purpose, pliableIsDone }: DrynessEvidence): { witness: Witness; veto: boolean } {
  if (!feel) {
    return {
      veto: false,
      witness: { name: 'feel', says: 'nothing', headline: 'Not felt yet', detail: 'Cool a few of the thickest pieces from several trays.' },
    }
  }
  const judged = judgeFeel(feel, purpose, pliableIsDone)
  const says = judged.vote === 'dry' ? (judged.shortcomings.length > 0 ? 'unsure' : 'dry') : 'wet'
  return {
    veto: judged.vote === 'veto',
    witness: {
      name: 'feel',
      says,
      headline: judged.words || 'No answer given',
      detail: judged.shortcomings.join(' ') || `${feel.places} places, cooled.`,
    },
  }
}

function restWitness({ rest }: DrynessEvidence): Witness | undefined {
  if (!rest) return undefined
  const words = {
    dry: 'No moisture',
    moisture: 'Beads of moisture',
    clumps: 'Sticking or clumps',
    mould: 'Mould',
    nothing: 'Not looked at yet',
  }[rest.lastSaw]
  const unseen = rest.lastSaw === 'nothing'
  return {
    name: 'rest',
    says: unseen ? 'nothing' : rest.lastSaw === 'dry' ? (rest.days >= (rest.needed ?? REST_DAYS) ? 'dry' : 'unsure') : 'wet',
    headline: words,
    detail: `${days(rest.days)} in a closed jar.`,
  }
}

/** Hours after which the air in a closed jar has settled with its food (common practice: four, better overnight). */
export const JAR_AIR_HOURS = 4

function jarAirWitness({ jarAir, targetMoisture }: DrynessEvidence): Witness {
  if (!jarAir) {
    return {
      name: 'jarAir',
      says: 'nothing',
      headline: 'Not measured',
      detail: `Close a few of the thickest pieces in a jar with a hygrometer for ${JAR_AIR_HOURS} hours.`,
    }
  }
  const { humidity, sd = 0, closedHours, moisture, sealBelow } = jarAir
  const headline = `${percent(humidity)} %, so about ${percent(moisture.p50)} % water`
  const needs = `Sealable below ${percent(sealBelow)} %.`
  if (closedHours < JAR_AIR_HOURS) {
    return { name: 'jarAir', says: 'unsure', headline, detail: `${needs} Closed for ${closedHours} h only: the air has not settled yet.` }
  }
  // Isotherms differ by a fifth and more within a group: dry needs the middle below the target, and the reading with the hygrometer's own
  // doubt below what may be sealed; wet the whole range above.
  const says =
    moisture.p50 <= targetMoisture
      ? moisture.p90 <= 1.3 * targetMoisture && humidity + Z_90 * sd <= sealBelow
        ? 'dry'
        : 'unsure'
      : moisture.p10 > targetMoisture
        ? 'wet'
        : 'unsure'
  return {
    name: 'jarAir',
    says,
    headline,
    detail: `${needs} ${percent(moisture.p10)} to ${percent(moisture.p90)} % water, closed for ${closedHours} h.`,
  }
}
