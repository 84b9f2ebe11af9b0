import type { Purpose } from '../foods'
import type { Interval } from '../stats'
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
    /** Hours since the last weight, where the figure is of later than that: taken out unweighed, or left without heat. */
    unweighedH?: number
  }
  /** The newest look by hand; `weighingsSince` tells whether it is older than the weight. */
  feel?: FeelCheck
  /** Air read in a closed jar: corrected humidity 0–1, hours closed, the moisture it means, and the humidity that the target means. */
  jarAir?: { humidity: number; closedHours: number; moisture: Interval; sealBelow: number }
  /** Days in the closed jar, how many are enough (a week, if not said), and what was seen: nothing where nobody looked, or not at every jar. */
  rest?: { days: number; needed?: number; lastSaw: 'dry' | 'moisture' | 'clumps' | 'mould' | 'nothing' }
}

export interface DrynessVerdict {
  level: VerdictLevel
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

/**
 * Puts the witnesses together. A wet place found by hand or moisture in the jar outweighs the weight;
 * a weight that says wet outweighs a dry feel, since a hard skin hides a wet core. The air of a closed jar
 * tells of the whole piece, core and all, but only of the pieces that are in the jar.
 */
export function judgeDryness(evidence: DrynessEvidence): DrynessVerdict {
  const weight = weightWitness(evidence)
  const { witness: feel, veto } = feelWitness(evidence)
  const jarAir = jarAirWitness(evidence)
  const rest = restWitness(evidence)
  const witnesses = [weight, feel, jarAir, ...(rest ? [rest] : [])]
  const answer = (level: VerdictLevel, reason: string, more: Partial<DrynessVerdict> = {}): DrynessVerdict => ({
    level,
    headline: VERDICT_WORDS[level],
    reason,
    witnesses,
    ...more,
  })

  if (evidence.rest) {
    if (evidence.rest.lastSaw === 'mould') {
      return answer('keep-drying', 'Mould anywhere in the jar: discard all of it, and do not taste it.', {
        headline: 'Discard it',
        discard: true,
      })
    }
    const looked = evidence.rest.lastSaw !== 'nothing'
    if (looked && evidence.rest.lastSaw !== 'dry')
      return answer('keep-drying', 'The jar shows moisture: back to the machine the same day, then rest again.')
    if (weight.says === 'wet') {
      const water = percent(evidence.weight!.moistureNow.p50)
      return answer(
        'keep-drying',
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
      return answer('keep-drying', 'It was last felt wet, and nothing has dried it since: back to the machine.', {
        headline: 'Dry it again',
      })
    if (jarAir.says === 'wet' && !looked)
      return answer('keep-drying', 'The jar’s air says that the food is not dry through: back to the machine the same day.', {
        headline: 'Dry it again',
      })
    if (jarAir.says === 'wet') {
      return answer(
        'keep-drying',
        'The jar shows no beads, but its air says that the food is not dry through: back to the machine the same day.',
        {
          disagreement: `Eyes say dry and the jar’s air says wet, at ${percent(evidence.jarAir!.humidity)} %. Air speaks before beads do. If the hygrometer is new, try it over salt first.`,
        },
      )
    }
    if (!looked && jarAir.says !== 'dry')
      return answer(
        'cool-and-check',
        evidence.rest.days < (evidence.rest.needed ?? REST_DAYS)
          ? 'Nobody has looked at the jar yet: shake it, and look for beads, sticking and clumps.'
          : `${days(evidence.rest.days)} in the jar, and nobody has looked: time alone does not make it dry. Shake it, look for beads, sticking and clumps.`,
        { headline: 'Look at the jar' },
      )
    if (evidence.rest.days < (evidence.rest.needed ?? REST_DAYS)) {
      return answer(
        'rest',
        `${looked ? `No moisture after ${days(evidence.rest.days)}` : `${days(evidence.rest.days)} in the jar, and its air is dry`}. Water moves slowly from thick to thin pieces: look daily until day ${evidence.rest.needed ?? REST_DAYS}.`,
      )
    }
    return answer(
      evidence.purpose === 'pieces' ? 'seal' : 'grind',
      `${days(evidence.rest.days)} in a closed jar${looked ? ' without moisture' : ', whose air is dry'}.`,
    )
  }

  if (weight.says === 'dry' && jarAir.says === 'wet') {
    return answer('keep-drying', 'The weight says dry, but the air in the closed jar says that these pieces are not.', {
      disagreement:
        'Weight says dry and jar air says wet. Likely the jar holds the wettest tray, the loaded weight is wrong, or the hygrometer is off: try it over salt, and dry on meanwhile.',
    })
  }
  if (weight.says === 'wet' && jarAir.says === 'dry' && !veto && feel.says !== 'wet') {
    return answer('cool-and-check', 'The air in the closed jar says dry, the weight says not yet.', {
      disagreement:
        'Weight says wet and jar air says dry. Likely the jar holds the driest pieces, it was closed too short a time, or the loaded weight is wrong. Fill the jar from the thickest pieces of several trays and read it again.',
    })
  }
  if (weight.says === 'wet' && feel.says === 'dry') {
    return answer(
      'keep-drying',
      'It feels dry, but the weight says it is not: a hard skin over a wet core, most likely. Leave it, then test a thick piece cold.',
      {
        disagreement:
          'Feel says dry and weight says wet. Likely a hard skin over a wet core; else the loaded weight is wrong, or a tray was on the scale. Break the thickest piece: a darker middle settles it.',
      },
    )
  }
  if (weight.says === 'dry' && (veto || feel.says === 'wet')) {
    return answer('keep-drying', 'The weight says dry, but a wet place was found by hand, and that decides.', {
      disagreement:
        'Weight says dry and feel says wet. Likely uneven trays, pieces tested warm, a tray missing from the scale, or food with more solids than usual. Dry on and weigh the wet tray by itself.',
    })
  }
  if (veto || feel.says === 'wet') return answer('keep-drying', 'A piece was not dry through: the wettest piece spoils the jar.')
  if (weight.says === 'dry' && feel.says === 'dry')
    return answer('rest', jarAir.says === 'dry' ? 'Weight, feel and jar air agree.' : 'Weight and feel agree.')
  if (jarAir.says === 'dry' && (weight.says === 'dry' || feel.says === 'dry'))
    return answer('rest', `Jar air and ${weight.says === 'dry' ? 'weight' : 'feel'} agree.`)
  if (jarAir.says === 'wet') return answer('keep-drying', 'The air in the closed jar says that these pieces are not dry.')
  if (weight.says === 'dry')
    return answer('cool-and-check', 'The weight says dry. Cool a few of the thickest pieces and feel them before they leave the machine.')
  if (feel.says === 'dry') {
    return answer(
      'cool-and-check',
      weight.says === 'nothing'
        ? 'It feels dry; nothing was weighed to confirm it. One weight now tells whether the core is.'
        : 'It feels dry and the weight is close. Weigh once more before it leaves the machine.',
    )
  }
  if (feel.says === 'unsure') return answer('cool-and-check', 'The pieces felt dry, but the test was not a full one.')
  if (weight.says === 'unsure')
    return answer(
      'cool-and-check',
      evidence.weight?.unweighedH === undefined
        ? 'By weight it may be dry. Cool a few of the thickest pieces and feel them.'
        : 'By its hours it may be dry, but nobody has weighed it since. Weigh it, and feel a few of the thickest pieces cold.',
    )
  return answer('keep-drying', weight.says === 'nothing' ? 'Nothing says yet that it is dry.' : 'By weight it is not dry.')
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
  if (weight.probabilityDry >= SAYS_DRY)
    return { name: 'weight', says: 'dry', headline, detail: `${needs} ${inTen(weight.probabilityDry)} that it is there.` }
  if (constant?.constant) {
    return {
      name: 'weight',
      says: weight.probabilityDry < SAYS_WET ? 'unsure' : 'dry',
      headline,
      detail: `It lost ${Math.max(0, Math.round(constant.lossG))} g in ${constant.spanH.toFixed(1)} h, within the scale’s ${Math.max(1, Math.round(constant.noiseG))} g: constant weight. It is as dry as this heat and air make it.`,
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
  const { humidity, closedHours, moisture, sealBelow } = jarAir
  const headline = `${percent(humidity)} %, so about ${percent(moisture.p50)} % water`
  const needs = `Sealable below ${percent(sealBelow)} %.`
  if (closedHours < JAR_AIR_HOURS) {
    return { name: 'jarAir', says: 'unsure', headline, detail: `${needs} Closed for ${closedHours} h only: the air has not settled yet.` }
  }
  // Isotherms differ by a fifth and more within a group: dry needs the middle below the target, wet the whole range above.
  const says =
    moisture.p50 <= targetMoisture
      ? moisture.p90 <= 1.3 * targetMoisture
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
