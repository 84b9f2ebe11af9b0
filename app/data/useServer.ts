import { useQuery } from '@pinia/colada'
import { addressOf, type AnswerOf, type AnyCall, type CallOf } from '#shared/api'
import { callServer, keptSince, OutOfTouch, Refused } from './call'
import { keyOf, noteTurn, type Asked } from './touched'
import { wording, worded } from './worded'
import { MINUTE } from '#core/time'

/** The server could not be asked: what stands on the page may be old. */
export const outOfTouch = ref(false)

async function ask(address: string, signal: AbortSignal): Promise<unknown> {
  try {
    const answer = await callServer(address, { signal, ofTurn: turn => noteTurn(address, turn) })
    outOfTouch.value = keptSince.value !== undefined
    return answer
  } catch (error) {
    if (error instanceof OutOfTouch && !signal.aborted) outOfTouch.value = true
    throw error
  }
}

/** So often a page that opens asks for what it cannot do without. */
const MOST_TRIES = 5

/** Asks again at the latest after so long, ms; what others write is followed at once. */
const STALE_MS = 30_000

/**
 * What the server answers to a question, kept true while the caller stands: it is asked again when something was written,
 * and when what is asked for changes. The last answer stays until the next is there; an older one never overtakes a newer.
 * @param given parameters and query, as a getter where they change; undefined asks nothing yet
 */
export function useServer<Name extends Asked>(name: Name, given: () => CallOf<Name> | undefined = () => ({}) as CallOf<Name>) {
  const asked = computed(() => {
    const what = given() as AnyCall
    return what && addressOf(name, what)
  })
  const query = useQuery({
    key: () => keyOf(name, asked.value ?? ''),
    query: ({ signal }) => ask(asked.value!, signal) as Promise<AnswerOf<Name>>,
    enabled: () => asked.value !== undefined,
    placeholderData: before => before,
    staleTime: STALE_MS,
    gcTime: MINUTE,
  })
  const answer = computed(() => {
    const data = query.data.value as AnswerOf<Name> | undefined
    return data === undefined || !wording.value ? data : worded(data, wording.value)
  })
  return {
    answer,
    /** Why there is none. Out of touch the last answer stays; that it may be old is said for all pages at once. */
    problem: computed(() => {
      const { error, data } = query.state.value
      return error && (data === undefined || error instanceof Refused) ? error.message : ''
    }),
    asking: computed(() => query.asyncStatus.value === 'loading'),
    /** Waits for an answer; one that is known and not stale serves. What was broken off, since something was written meanwhile, is asked again. */
    ready: async () => {
      for (let i = 0; i < MOST_TRIES && asked.value !== undefined; i++) {
        const { status } = await query.refresh()
        if (status !== 'pending') return
      }
    },
    /** Asks again. */
    load: async () => void (await query.refetch()),
  }
}
