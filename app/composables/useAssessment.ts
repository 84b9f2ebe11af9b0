import { wrap, type Remote } from 'comlink'
import type { Assessment } from '#core/batch'
import type { Entry } from '#core/log'
import type { Food } from '#core/foods'
import type { DryingDesk } from '~/workers/drying.worker'

let desk: Remote<DryingDesk> | undefined

/** One worker for the whole application, made at its first use. */
export function dryingDesk(): Remote<DryingDesk> {
  desk ??= wrap<DryingDesk>(new Worker(new URL('../workers/drying.worker.ts', import.meta.url), { type: 'module' }))
  return desk
}

/** Estimate, window and verdict of a batch, worked out anew in the worker whenever its log changes. */
export function useAssessment(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>, now: Ref<number>) {
  // It is fetched while the page is drawn.
  dryingDesk()
  const { latest, working, problem } = useLatest<Assessment | undefined>(
    [entries, food, now],
    async () => {
      if (entries.value.length === 0 || !food.value) return undefined
      // Through JSON: reactive wrappers cannot be cloned to the worker.
      return dryingDesk().assess(JSON.parse(JSON.stringify(entries.value)) as Entry[], food.value, now.value)
    },
    undefined,
  )
  return { assessment: latest, working, problem }
}
