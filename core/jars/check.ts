import { checkEnvelope, inForce, type Entry, type JarDraw } from '../batch'
import { InputError, type Problem } from '../errors'
import { leakOf, type PackageKey } from '../keeping'
import { moistureOf } from './facts'
import { replayJars, SCALE_G, toastingFault } from './replay'
import type { FindLot, Jar, JarItem } from './types'

/** So much damper may an addition be, by what can be told. */
const DAMPER = 0.005

interface JarContext {
  now: number
  find: FindLot
}

/**
 * Decides whether an entry that touches jars may be added, and whether all jars still add up after it.
 * @param items all entries of the jars it touches, and of jars and batches tied to them
 * @throws InputError naming the field and what would mend it; then nothing is to be written.
 */
export function checkJars(items: readonly JarItem[], entry: JarItem, context: JarContext): void {
  const others = items.filter(item => item.id !== entry.id)
  if (!entry.batchId) checkEnvelope(others, entry, context.now)
  const problems: Problem[] = []
  const say = (field: string, message: string) => problems.push({ field, message })
  if (entry.body.kind !== 'void') {
    const before = (inForce(others) as JarItem[]).filter(item => item.id !== entry.replaces && item.at <= entry.at)
    const earlier = entry.replaces === undefined ? undefined : others.find(item => item.id === entry.replaces)
    if (earlier && 'jarId' in earlier.body && 'jarId' in entry.body && earlier.body.jarId !== entry.body.jarId)
      say('jarId', 'A correction is of the same jar.')
    checkBody(entry, replayJars(before, context.find).jars, context.find, say)
  }
  if (problems.length > 0) throw new InputError(problems)
  replayJars([...others, entry], context.find, true)
}

type Say = (field: string, message: string) => void

function checkBody(entry: JarItem, jars: ReadonlyMap<string, Jar>, find: FindLot, say: Say): void {
  const { body } = entry
  switch (body.kind) {
    case 'intake':
      return checkSources(body.fromJars ?? [], 'fromJars', jars, say)
    case 'grind':
      return body.seed ? checkSources([body.seed], 'seed', jars, say) : undefined
    case 'pack': {
      if (!body.topUp) checkLid(body.packageKey, body.leakGDayKPa, say)
      const jar = jars.get(body.jarId)
      if (jar && !body.topUp) return say('jarId', 'This jar has been packed already: top it up, or take another.')
      if (!body.topUp) return
      const lot = find(entry.batchId!)
      if (!jar) return say('jarId', 'There is no such jar to top up.')
      return lot
        ? checkAddition(jar, { foodKey: lot.food.key, purpose: lot.purpose, moisture: body.moisture ?? lot.moisture }, say)
        : undefined
    }
    case 'fill': {
      if (jars.has(body.jarId)) say('jarId', 'This jar has been filled already: pour into it instead.')
      checkLid(body.packageKey, body.leakGDayKPa, say)
      checkSources(body.from, 'from', jars, say)
      const [first, ...rest] = body.from.flatMap(source => jars.get(source.jarId) ?? [])
      if (body.blend) return checkBlend(body, [...(first ? [first] : []), ...rest], say)
      const strange = first && rest.find(jar => jar.foodKey !== first.foodKey || jar.purpose !== first.purpose)
      if (strange) say('from', 'These jars hold different things: only like goes to like here. Give the blend a name if that is meant.')
      return
    }
    case 'stock':
      if (jars.has(body.jarId)) say('jarId', 'This jar has been filled already: it cannot come in again.')
      checkLid(body.packageKey, body.leakGDayKPa, say)
      if (!find(body.jarId))
        say('foodKey', `“${body.foodKey}” is neither a food nor a bought-in good of the reference. Choose one from the list.`)
      return
    case 'pour': {
      const jar = jars.get(body.jarId)
      const from = jars.get(body.from.jarId)
      if (!jar) return say('jarId', 'There is no such jar.')
      if (body.from.jarId === body.jarId) return say('from.jarId', 'A jar is not poured into itself.')
      checkSources([body.from], 'from', jars, say)
      return from ? checkAddition(jar, { ...from, moisture: moistureOf(from) }, say) : undefined
    }
    case 'take':
      return checkSources([{ jarId: body.jarId, weightG: body.weightG }], undefined, jars, say)
    case 'moveJar':
    case 'discard':
      standing(jars.get(body.jarId), say)
      return
    case 'lookJar':
    case 'smell':
    case 'measure':
    case 'review':
      if (body.jarId !== undefined && !jars.has(body.jarId)) say('jarId', 'There is no such jar.')
  }
}

/** Dust of what is on the sieve may not be more than went over it. */
function checkBlend({ from, blend }: Extract<JarItem['body'], { kind: 'fill' }>, jars: readonly Jar[], say: Say): void {
  const wholeG = from.reduce((sum, { weightG, toastedG }) => sum + (toastedG ?? weightG), 0)
  from.forEach(({ weightG, toastedG }, i) => {
    // How much water there was is found out jar by jar when the log is replayed.
    const fault = toastedG === undefined ? undefined : toastingFault(weightG, toastedG, 1)
    if (fault) say(`from.${i}.toastedG`, fault)
  })
  if (blend!.sifted && blend!.sifted.overG >= wholeG)
    say('blend.sifted.overG', `Only ${Math.round(wholeG * 10) / 10} g went over the sieve: some of it must fall through.`)
  if (jars.some(jar => jar.inOil)) say('from.jarId', 'A jar in oil is kept cold for four days and goes into no blend.')
}

/** Says so where a jar is not there, empty or discarded. */
function standing(jar: Jar | undefined, say: Say, field = 'jarId'): boolean {
  if (!jar) say(field, 'There is no such jar.')
  else if (jar.leftG <= 0) say(field, jar.discarded === undefined ? 'This jar is empty.' : 'This jar has been discarded.')
  else return true
  return false
}

function checkSources(sources: readonly JarDraw[], field: string | undefined, jars: ReadonlyMap<string, Jar>, say: Say): void {
  const at = (name: string) => (field === undefined ? name : `${field}.${name}`)
  if (new Set(sources.map(source => source.jarId)).size < sources.length) say(at('jarId'), 'A jar is named twice.')
  for (const { jarId, weightG } of sources) {
    const jar = jars.get(jarId)
    if (!standing(jar, say, at('jarId'))) continue
    if (isMouldy(jar!)) say(at('jarId'), 'Mould was seen in this jar: discard the whole of it, untasted.')
    else if (weightG > jar!.leftG + SCALE_G) say(at('weightG'), `Only ${Math.round(jar!.leftG * 10) / 10} g are left in this jar.`)
  }
}

const isMouldy = (jar: Jar) => jar.looks.some(look => look.saw === 'mould')

/** Like goes to like, and never damper to drier. */
function checkAddition(jar: Jar, addition: { foodKey: string; purpose: string; moisture: number }, say: Say): void {
  if (jar.discarded) return say('jarId', 'This jar has been discarded.')
  if (isMouldy(jar)) return say('jarId', 'Mould was seen in this jar: nothing goes into it.')
  if (addition.foodKey !== jar.foodKey || addition.purpose !== jar.purpose)
    return say('jarId', 'This jar holds something else: only like goes to like.')
  const is = moistureOf(jar)
  if (jar.leftG > 0 && addition.moisture > is + DAMPER) {
    say(
      'moisture',
      `The addition holds ${percent(addition.moisture)} water and the jar ${percent(is)}: dry it as far first, or give it a jar of its own.`,
    )
  }
}

const percent = (share: number) => `${Math.round(share * 1000) / 10} %`

function checkLid(packageKey: PackageKey, measured: number | undefined, say: Say): void {
  if (leakOf(packageKey, measured) === undefined)
    say(
      'leakGDayKPa',
      'Nobody knows what this lid lets in, so nobody can say how long the jar keeps. Measure it with silica gel, give its film’s figure, or choose another lid.',
    )
}

/** Jars that an entry is about or draws on. */
export function jarsNamed({ body }: Pick<Entry, 'body'>): string[] {
  switch (body.kind) {
    case 'intake':
      return (body.fromJars ?? []).map(source => source.jarId)
    case 'grind':
      return body.seed ? [body.seed.jarId] : []
    case 'fill':
      return [body.jarId, ...body.from.map(source => source.jarId)]
    case 'pour':
      return [body.jarId, body.from.jarId]
    default:
      return 'jarId' in body && body.jarId !== undefined ? [body.jarId] : []
  }
}
