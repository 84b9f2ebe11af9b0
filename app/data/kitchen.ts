import { uuidv7 } from 'uuidv7'
import type { KitchenJar, NewJarEntry } from '#shared/contracts'
import { useOutboxStore } from './outbox'
import { useServer } from './useServer'

/** The jars as a cook needs them, for all pages of the kitchen. */
export function useKitchen() {
  const { answer, problem, ready, load } = useServer('kitchen')
  const outbox = useOutboxStore()

  /** Jars from which something may be taken. */
  const jars = computed(() => (answer.value?.jars ?? []).filter(jar => !jar.mould))
  /** Jars to take so much of a food from, the best first: one that has enough, powder before flakes, and of those the one that ends first. */
  function jarsFor(foodKey: string, gramsOf: (jar: KitchenJar) => number, purpose?: KitchenJar['purpose']): KitchenJar[] {
    const rank = (jar: KitchenJar) => Number(jar.leftG < gramsOf(jar)) * 2 + Number(jar.purpose !== 'powder')
    return jars.value
      .filter(jar => jar.foodKey === foodKey && (purpose === undefined || jar.purpose === purpose))
      .sort((a, b) => rank(a) - rank(b) || a.bestTo - b.bestTo)
  }
  const jarOf = (jarId: string | undefined) => jars.value.find(jar => jar.jarId === jarId)

  /** Logs on a jar and looks again. @throws Refused */
  async function log(jar: Pick<KitchenJar, 'jarId' | 'number'>, body: NewJarEntry['body']) {
    await outbox.send({ jarId: jar.jarId, entry: { id: uuidv7(), at: Date.now(), body } }, `jar ${jar.number}`)
    await load()
  }

  return reactive({ answer, problem, jars, jarOf, jarsFor, ready, load, log })
}
