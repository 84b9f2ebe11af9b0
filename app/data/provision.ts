import { addressOf } from '#shared/api'
import { HOUR } from '#core/time'
import { call } from './call'

/** So long after what was written last the answers are fetched that a page without its server would show. */
const QUIET_MS = 20_000

/**
 * Keeps at hand what is looked at while the server is out of reach, though it was not opened before: Now, what is in machines, the
 * shelf, the kitchen, the reference. Fetching is enough: what passes the service worker is kept.
 * @returns whether it is done; where no worker stands there is nothing to do
 */
async function provision(): Promise<boolean> {
  if (!('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return true
  try {
    const [{ batches }] = await Promise.all([
      call('batches', { query: { stage: 'drying' } }),
      ...(['household', 'stages', 'now', 'shelf', 'kitchen', 'recipes', 'foods', 'machines'] as const).map(name => call(name)),
      call('batches', { query: {} }),
    ])
    for (const { batchId } of batches) await call('batch', { params: { batchId } })
    for (const stage of ['prep', 'intake', 'resting', 'grinding'] as const) await fetch(addressOf('batches', { query: { stage } }))
    return true
  } catch {
    return false
  }
}

/** @returns a function that provisions once nothing was written for a while, and at the latest within the hour */
export function useProvision(): () => void {
  const soon = useDebounceFn(
    async () => {
      // A server that is slow or away now is asked again.
      if (!(await provision())) void soon()
    },
    QUIET_MS,
    { maxWait: HOUR },
  )
  return () => void soon()
}
