import { gather, InputError } from '../errors'
import { checkEnvelope, inForce, kindOf, type Entry, type FindLot, type JarItem } from '../log'
import { replayJars } from './replay'

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
  const { problems, say } = gather()
  const { jars } = kindOf(entry.body.kind)
  if (jars) {
    const before = (inForce(others) as JarItem[]).filter(item => item.id !== entry.replaces && item.at <= entry.at)
    const earlier = entry.replaces === undefined ? undefined : others.find(item => item.id === entry.replaces)
    if (earlier && 'jarId' in earlier.body && 'jarId' in entry.body && earlier.body.jarId !== entry.body.jarId)
      say('jarId', 'other-jar', 'A correction is of the same jar.')
    jars.check(entry.body, { at: entry.at, jars: replayJars(before, context.find).jars, find: context.find, batchId: entry.batchId, say })
  }
  if (problems.length > 0) throw new InputError(problems)
  replayJars([...others, entry], context.find, true)
}

/** Jars that an entry is about or draws on. */
export function jarsNamed({ body }: Pick<Entry, 'body'>): string[] {
  return kindOf(body.kind).jars?.names(body) ?? []
}
