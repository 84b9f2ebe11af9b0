import type { BatchScene } from './define'
import type { BatchState } from './state'

export const isResting = ({ rest }: BatchState) => rest?.startedAt !== undefined && rest.endedAt === undefined

/** Says so where no such jar rests. */
export function checkRestJar(number: number, { state, say }: Pick<BatchScene, 'state' | 'say'>): void {
  const { jars } = state.rest!
  const jar = jars[number - 1]
  if (!jar)
    say('jar', 'unknown-jar', '{there} at rest; there is no number {number}.', {
      there: jars.length === 1 ? 'One jar is' : `${jars.length} jars are`,
      number,
    })
  else if (jar.out) say('jar', 'discarded', 'This jar has been thrown away.')
}
