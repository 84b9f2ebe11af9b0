import type { Say } from '../errors'
import { bestByWindow, leakOf, MONTH_MS, type PackageKey } from '../keeping'
import { stopsAtPacking } from '../safety'
import type { JarScene } from './define'
import type { JarDraw } from './fields'
import { moistureOf, SCALE_G, type FindLot, type Jar, type JarPart, type Lot } from './jar'

/** So much damper may an addition be, by what can be told. */
const DAMPER = 0.005
/** Water that differs by less is the same figure, told twice. */
const SAME_SHARE = 1e-6

/** Says so where a jar is not there, empty or discarded. */
export function standing(jar: Jar | undefined, say: Say, field = 'jarId'): boolean {
  if (!jar) say(field, 'unknown-jar', 'There is no such jar.')
  else if (jar.leftG <= 0 && jar.discarded === undefined) say(field, 'empty', 'This jar is empty.')
  else if (jar.leftG <= 0) say(field, 'discarded', 'This jar has been discarded.')
  else return true
  return false
}

/** For what is only noted on a jar, if on one. */
export function checkKnown(body: { jarId?: string }, { jars, say }: JarScene): void {
  if (body.jarId !== undefined && !jars.has(body.jarId)) say('jarId', 'unknown-jar', 'There is no such jar.')
}

/** Whether so much may be drawn from each of these jars. */
export function checkSources(
  sources: readonly JarDraw[],
  field: string | undefined,
  scene: Pick<JarScene, 'at' | 'jars' | 'find' | 'say'>,
): void {
  const { jars, find, say } = scene
  const at = (name: string) => (field === undefined ? name : `${field}.${name}`)
  if (new Set(sources.map(source => source.jarId)).size < sources.length) say(at('jarId'), 'jar-twice', 'A jar is named twice.')
  for (const { jarId, weightG } of sources) {
    const jar = jars.get(jarId)
    if (!standing(jar, say, at('jarId'))) continue
    if (isMouldy(jar!)) say(at('jarId'), 'mould', 'Mould was seen in this jar: discard the whole of it, untasted.')
    else if (isWarm(jar!, find))
      say(at('jarId'), 'stop-too-warm', 'What is in this jar stood too long in the warm before it was dry: discard it, untasted.')
    else if (isOilOver(jar!, scene)) say(at('jarId'), 'oil-over', OIL_OVER)
    else if (weightG > jar!.leftG + SCALE_G)
      say(at('weightG'), 'more-than-is-left', 'Only {leftG} are left in this jar.', { leftG: jar!.leftG })
  }
}

const isMouldy = (jar: Jar) => jar.looks.some(look => look.saw === 'mould')
/** What stood in oil longer than it may: four days cold in all, months frozen. */
export const isOilOver = (jar: Jar, { at, find }: Pick<JarScene, 'at' | 'find'>) =>
  jar.inOil && jar.leftG > 0 && jar.parts.some(part => part.grams > 0 && at > oilUntil(jar, part, find))
export const OIL_OVER = 'This jar is in oil, and its days are over: botulism cannot be seen or smelt. Discard it, untasted.'

const isWarm = (jar: Jar, find: FindLot) => jar.parts.some(part => part.grams > 0 && find(part.lotId)?.warm)

/** What goes onto what is in a jar. */
type Addition = Pick<Jar, 'foodKey' | 'purpose' | 'inOil' | 'leftG'> & { parts: readonly Wet[] }
type Wet = Pick<JarPart, 'lotId' | 'moisture' | 'grams'>

/** Like goes to like, and never damper to drier: refused where that is certain, not where one of two is a guess. */
export function checkAddition(jar: Jar, addition: Addition, find: FindLot, say: Say): void {
  if (jar.discarded) return say('jarId', 'discarded', 'This jar has been discarded.')
  if (isMouldy(jar)) return say('jarId', 'mould', 'Mould was seen in this jar: nothing goes into it.')
  if (addition.foodKey !== jar.foodKey || addition.purpose !== jar.purpose || addition.inOil !== jar.inOil)
    return say('jarId', 'unlike', 'This jar holds something else: only like goes to like.')
  const additionShare = waterWithin(addition, 'driest', find)
  const isShare = waterWithin(jar, 'wettest', find)
  if (jar.leftG > 0 && additionShare > isShare + DAMPER)
    say(
      'moisture',
      'damper',
      'The addition holds {additionShare} water and the jar {isShare}: dry it as far first, or give it a jar of its own.',
      { additionShare, isShare },
    )
}

/** The least or the most water that all of it may hold together: of what was measured that, of the rest what is believed. */
const waterWithin = ({ parts, leftG }: Pick<Addition, 'parts' | 'leftG'>, end: 'driest' | 'wettest', find: FindLot): number =>
  moistureOf({ parts: parts.map(part => ({ ...part, moisture: waterOfPart(part, end, find(part.lotId)) })), leftG })

/** What was measured at packing is known; what follows from the batch alone may be drier or wetter. */
const waterOfPart = (part: Pick<JarPart, 'moisture'>, end: 'driest' | 'wettest', lot: Lot | undefined): number =>
  lot && Math.abs(part.moisture - lot.moisture) < SAME_SHARE ? (lot[end] ?? part.moisture) : part.moisture

/** Nobody can say how long a jar keeps whose lid nobody knows. */
export function checkLid(packageKey: PackageKey, measured: number | undefined, say: Say): void {
  if (leakOf(packageKey, measured) === undefined)
    say(
      'leakGDayKPa',
      'unknown-lid',
      'Nobody knows what this lid lets in, so nobody can say how long the jar keeps. Measure it with silica gel, give its film’s figure, or choose another lid.',
    )
}

/** Until when a part of a jar in oil may be eaten, as the jar stands now. */
function oilUntil(jar: Jar, part: JarPart, find: FindLot): number {
  const lot = find(part.lotId)
  if (!lot) return Infinity
  const { purpose, packageKey, storageC } = jar
  const { months } = bestByWindow({ food: lot.food, purpose, packageKey, storageC, inOil: true })
  return part.since + (1 - part.used) * months.high * MONTH_MS
}

/** How something stands in its jar, or is about to. */
type Stands = Pick<Jar, 'packageKey' | 'storageC' | 'inOil' | 'absorber'> & { parts: readonly Pick<JarPart, 'lotId' | 'moisture'>[] }

/** Stops what may not stand so: without oxygen while it may be wet, or in oil in the warm. */
export function checkStanding(
  { parts, packageKey, storageC, inOil, absorber }: Stands,
  { find, say }: Pick<JarScene, 'find' | 'say'>,
): void {
  const told = new Set<string>()
  for (const part of parts) {
    const lot = find(part.lotId)
    if (!lot) continue
    const moisture = waterOfPart(part, 'wettest', lot)
    for (const { rule, message } of stopsAtPacking(lot.food, { packageKey, storageC, inOil, absorber, moisture })) {
      if (told.has(rule.key)) continue
      told.add(rule.key)
      say(rule.key === 'oil' ? 'storageC' : 'packageKey', `stop-${rule.key}`, message)
    }
  }
}
