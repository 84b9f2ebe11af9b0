import { uuidv7 } from 'uuidv7'
import { jarsHolding } from '#server/db/jars'
import { logOnJar } from '#server/services/writeLog'
import type { NewJarEntry } from '#shared/contracts'
import type { Deed, Stage } from './write'

const DAY = 86_400_000

/** What happens at the shelf itself in the last weeks: a spoon weighed, a jar split, rests poured together, one moved to the cold. */
export function* atTheShelf({ context, now }: Stage): Generator<Deed> {
  const onJar = (
    daysAgo: number,
    foodKey: string,
    purpose: string,
    body: (jars: ReturnType<typeof jarsHolding>) => NewJarEntry['body'] | undefined,
  ): Deed => {
    const at = Math.round(now - daysAgo * DAY)
    return {
      at,
      act: () => {
        const wanted = body(jarsHolding(context.db, foodKey, purpose, 99).sort((a, b) => a.oldest_at - b.oldest_at))
        if (wanted && 'jarId' in wanted) logOnJar(context, wanted.jarId!, { id: uuidv7(), at, body: wanted })
      },
    }
  }
  yield onJar(40, 'beetroot', 'powder', ([jar]) => jar && { kind: 'measure', jarId: jar.jar_id, ml: 15, weightG: 8.4 })
  yield onJar(26, 'beetroot', 'powder', ([jar]) =>
    jar && jar.left_g > 30
      ? {
          kind: 'fill',
          jarId: uuidv7(),
          from: [{ jarId: jar.jar_id, weightG: 25 }],
          packageKey: 'screw-jar',
          place: 'By the stove',
          sizeMl: 50,
        }
      : undefined,
  )
  yield onJar(18, 'hot-chili', 'flakes', ([old, ...newer]) => {
    const from = newer.at(-1)
    return old && from && from.left_g > 12 ? { kind: 'pour', jarId: old.jar_id, from: { jarId: from.jar_id, weightG: 12 } } : undefined
  })
  yield onJar(9, 'milk-whole', 'powder', ([jar]) => jar && { kind: 'moveJar', jarId: jar.jar_id, place: 'Cellar shelf', storageC: 11 })
}
