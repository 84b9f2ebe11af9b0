import {
  bestByDates,
  bestByWindow,
  DAMP_LIMITS,
  dampDays,
  dampOf,
  leakOf,
  MONTH_MS,
  type BestBy,
  type Damp,
  type DampQuestion,
} from '../keeping'
import { moistureOf, type FindLot, type Jar } from '../log'
import { wetBasis } from '../mass'
import { activityOfTarget, isothermOf, moistureAt } from '../sorption'
import { DAY } from '../time'

/** Where jars stand that nobody put elsewhere: its warmth, and its air where that was measured, 0–1. */
export interface Pantry {
  celsius: number
  humidity?: number
}

/** What eyes or nose found in a jar against all reckoning. */
export interface SeenWrong {
  at: number
  what: 'clumps' | 'moisture' | 'mould' | 'insects' | 'rancid' | 'musty'
}

/** The newest look or smell that says a jar is not as it should be; undefined where the newest say that it is, or nobody looked. */
function seenWrong({ looks, smells }: Pick<Jar, 'looks' | 'smells'>): SeenWrong | undefined {
  const look = looks.at(-1)
  const smell = smells.at(-1)
  if (smell?.smell === 'rancid' || smell?.smell === 'musty') return { at: smell.at, what: smell.smell }
  return look && look.saw !== 'loose' && look.saw !== 'packed' ? { at: look.at, what: look.saw } : undefined
}

/** Water of a jar's food, wet basis, and the air that is in balance with it, 0–1. */
export interface JarWater {
  moisture: number
  activity: number
  /** A look says that it is at least so damp, or was warm; the reckoning said less. */
  seen?: SeenWrong['what']
}

/** Air that a jar in which something was seen has at least (common practice): powder clumps from 40 %, beads and moulds come with more. */
const SEEN_ACTIVITY: Partial<Record<SeenWrong['what'], number>> = { clumps: 0.45, musty: 0.65, mould: 0.75, moisture: 0.8 }

/** How damp a jar is: by balance over its parts, or by what was seen in it where that says more. */
export function jarWater(jar: Jar, find: FindLot): JarWater {
  const lot = jar.parts.map(part => find(part.lotId)).find(Boolean)
  const moisture = moistureOf(jar)
  if (!lot) return { moisture, activity: 0 }
  const isotherm = isothermOf(lot.food)
  const activity = activityOfTarget(isotherm, moisture)
  const wrong = seenWrong(jar)
  const least = wrong && SEEN_ACTIVITY[wrong.what]
  if (!wrong || least === undefined || activity >= least) return { moisture, activity }
  return { moisture: wetBasis(moistureAt(isotherm, least, USUAL_C)), activity: least, seen: wrong.what }
}
const USUAL_C = 20

export interface JarBest extends BestBy {
  from: number
  to: number
  /** Which comes first: fading, the damp that its package lets in, what was seen or smelt in it, or that it stood too long in the warm before it was dry. */
  limit: 'fading' | 'damp' | 'seen' | 'warm'
  /** When the oldest part was first packed. */
  oldestAt: number
}

const SEEN_WORDS: Record<SeenWrong['what'], string> = {
  clumps: 'It was seen clumping: damp got in, or it stood warm. Dry it again, and keep it cool and closed.',
  moisture: 'Moisture was seen in it: dry it again the same day.',
  mould: 'Mould was seen in it: discard all of it, untasted.',
  insects: 'Insects were seen in it: discard it, and look at the jars beside it.',
  rancid: 'It smelt rancid: its oil has turned, and nothing brings that back.',
  musty: 'It smelt musty: discard it untasted.',
}

const WARM_WORDS = 'It stood too long in the warm before it was dry: discard it, untasted.'

/**
 * When a jar is at its best: what was seen or smelt in it ends that, whatever was reckoned.
 */
export function jarBest(jar: Jar, find: FindLot, pantry: Pantry): JarBest {
  const reckoned = reckonedBest(jar, find, pantry)
  if (jar.parts.some(part => find(part.lotId)?.warm))
    return { ...reckoned, from: jar.packedAt, to: jar.packedAt, limit: 'warm', reason: WARM_WORDS }
  const wrong = seenWrong(jar)
  if (!wrong || wrong.at >= reckoned.to) return reckoned
  return { ...reckoned, from: Math.min(reckoned.from, wrong.at), to: wrong.at, limit: 'seen', reason: SEEN_WORDS[wrong.what] }
}

/**
 * When a jar is at its best: a topped-up one is as old as its oldest part, and damp may end it sooner
 * than fading does.
 */
function reckonedBest(jar: Jar, find: FindLot, pantry: Pantry): JarBest {
  const held = jar.parts.filter(part => part.grams > 0)
  const parts = (held.length > 0 ? held : jar.parts).flatMap(part => {
    const lot = find(part.lotId)
    if (!lot) return []
    if (lot.bestTo !== undefined)
      return [
        {
          best: { months: { low: 0, high: 0 }, reason: 'The date printed on the packet.', source: 'its maker' },
          from: lot.bestTo,
          to: lot.bestTo,
          part,
        },
      ]
    const best = bestByWindow({
      food: lot.food,
      purpose: jar.purpose,
      packageKey: jar.packageKey,
      storageC: jar.storageC ?? pantry.celsius,
      rested: lot.rested,
      said: lot.keeps,
      inOil: jar.inOil,
    })
    const left = { low: best.months.low * (1 - part.used), high: best.months.high * (1 - part.used) }
    return [{ best, ...bestByDates(part.since, { months: left }), part }]
  })
  const oldest = parts.reduce((a, b) => (b.to < a.to ? b : a), parts[0]!)
  if (!oldest)
    return {
      months: { low: 0, high: 0 },
      reason: 'Nothing is known of what is in it.',
      source: '',
      from: jar.packedAt,
      to: jar.packedAt,
      limit: 'fading',
      oldestAt: jar.packedAt,
    }
  const reason = parts.length > 1 ? `As old as its oldest part. ${oldest.best.reason}` : oldest.best.reason
  const fading: JarBest = {
    ...oldest.best,
    reason,
    from: oldest.from,
    to: oldest.to,
    limit: 'fading',
    oldestAt: Math.min(...parts.map(({ part }) => part.packedAt)),
  }
  const question = dampQuestion(jar, find, pantry, moistureOf(jar))
  const limitDays = question && dampDays(question, jar.purpose === 'pieces' ? DAMP_LIMITS.mould : question.clumpsAt)
  if (limitDays === undefined) return fading
  // Infinity where the pantry's air never brings it there.
  const end = Math.round(jar.filledAt + limitDays * DAY)
  if (end >= fading.to) return fading
  return {
    ...fading,
    to: end,
    from: Math.min(fading.from, end),
    limit: 'damp',
    months: { low: Math.min(fading.months.low, (end - jar.filledAt) / MONTH_MS), high: (end - jar.filledAt) / MONTH_MS },
    reason: `${fading.reason} Damp comes first: by then its package has let in enough to ${jar.purpose === 'pieces' ? 'let mould grow' : 'clump it'}.`,
  }
}

/** How the jar takes up the pantry's damp since it was last filled; undefined in the cold, or where its lid's leak is not known. */
export function jarDamp(jar: Jar, find: FindLot, pantry: Pantry): Damp | undefined {
  const question = dampQuestion(jar, find, pantry, jarWater(jar, find).moisture)
  return question && dampOf(question)
}

/** What stands loose as it was sold clumps where its air has become damper by so much (common practice). */
const LOOSE_ABOVE = 0.12

function dampQuestion(
  jar: Jar,
  find: FindLot,
  { celsius, humidity }: Pantry,
  moisture: number,
): (DampQuestion & { clumpsAt: number }) | undefined {
  const lot = jar.parts.map(part => find(part.lotId)).find(Boolean)
  const leak = leakOf(jar.packageKey, jar.leakGDayKPa)
  // Under oil no damp comes in.
  if (!lot || leak === undefined || jar.inG <= 0 || jar.inOil) return undefined
  // It was fuller before: what takes up the damp is about the mean of full and now.
  return {
    food: lot.food,
    purpose: jar.purpose,
    netG: (jar.inG + jar.leftG) / 2,
    gPerDayKPa: leak,
    celsius: jar.storageC ?? celsius,
    humidity,
    moisture: moisture || undefined,
    clumpsAt: lot.sold
      ? Math.max(DAMP_LIMITS.clumps, activityOfTarget(isothermOf(lot.food), lot.moisture) + LOOSE_ABOVE)
      : DAMP_LIMITS.clumps,
  }
}
