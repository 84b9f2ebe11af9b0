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
import { DAY } from '../time'

/** Where jars stand that nobody put elsewhere: its warmth, and its air where that was measured, 0–1. */
export interface Pantry {
  celsius: number
  humidity?: number
}

export interface JarBest extends BestBy {
  from: number
  to: number
  /** Which comes first: fading, or the damp that its package lets in. */
  limit: 'fading' | 'damp'
  /** When the oldest part was first packed. */
  oldestAt: number
}

/**
 * When a jar is at its best: a topped-up one is as old as its oldest part, and damp may end it sooner
 * than fading does.
 */
export function jarBest(jar: Jar, find: FindLot, pantry: Pantry): JarBest {
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
  const question = dampQuestion(jar, find, pantry)
  const limitDays = question && dampDays(question, jar.purpose === 'pieces' ? DAMP_LIMITS.mould : DAMP_LIMITS.clumps)
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
  const question = dampQuestion(jar, find, pantry)
  return question && dampOf(question)
}

function dampQuestion(jar: Jar, find: FindLot, { celsius, humidity }: Pantry): DampQuestion | undefined {
  const lot = jar.parts.map(part => find(part.lotId)).find(Boolean)
  const leak = leakOf(jar.packageKey, jar.leakGDayKPa)
  if (!lot || leak === undefined || jar.inG <= 0) return undefined
  // It was fuller before: what takes up the damp is about the mean of full and now.
  return {
    food: lot.food,
    purpose: jar.purpose,
    netG: (jar.inG + jar.leftG) / 2,
    gPerDayKPa: leak,
    celsius: jar.storageC ?? celsius,
    humidity,
    moisture: moistureOf(jar) || undefined,
  }
}
