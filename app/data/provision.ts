import { addressOf } from '#shared/api'
import { HOUR } from '#core/time'
import { call } from './call'

/** So long after what was written last the answers are fetched that a page without its server would show. */
const QUIET_MS = 20_000

/**
 * Keeps at hand what is looked at while the server is out of reach, though it was not opened before: Now, what is in machines, the
 * shelf, the kitchen, the reference. Fetching is enough: what passes the service worker is kept.
 */
export async function provision(): Promise<void> {
  if (!('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return
  try {
    const [{ batches }] = await Promise.all([
      call('batches', { query: { stage: 'drying' } }),
      ...(['household', 'stages', 'now', 'shelf', 'kitchen', 'recipes', 'foods', 'machines'] as const).map(name => call(name)),
      call('batches', { query: {} }),
    ])
    for (const { batchId } of batches) await call('batch', { params: { batchId } })
    for (const stage of ['prep', 'intake', 'resting', 'grinding'] as const) await fetch(addressOf('batches', { query: { stage } }))
  } catch {
    // It is tried again after what is written next.
  }
}

/** @returns a function that provisions once nothing was written for a while, and at the latest within the hour */
export function useProvision(): () => void {
  const soon = useDebounceFn(() => void provision(), QUIET_MS, { maxWait: HOUR })
  return () => void soon()
}
