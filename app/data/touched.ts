import { routeOf, ROUTES, type Answers, type RouteName } from '#shared/api'
import type { Changed } from '#shared/contracts'

/** Routes that answer a question in JSON. */
export type Asked = Extract<RouteName, keyof Answers>

type Key = [tag: string, name: Asked, address: string]
/** Under what an answer is kept. */
export const keyOf = (name: Asked, address: string): Key => [ROUTES[name].tag, name, address]

/** Of which turn of the log the answer to each question is. */
const turns = new Map<string, number>()
export const noteTurn = (address: string, turn: number): void => void turns.set(address, turn)

/**
 * Whether what stands under a key may be old by a word of the server's.
 * @param missed the word before it was not heard: what was written then is not known
 */
export function isTouched(key: readonly unknown[], { turn, log }: Changed, missed: boolean): boolean {
  const [, name, address] = key as Key
  // Asked since: it is of that turn.
  if ((turns.get(address) ?? 0) >= turn) return false
  // One batch's log reaches others' pages by what it teaches, leaves in a mill and pours: only what no log changes is left alone.
  return missed || !log || !routeOf(name).apart
}
