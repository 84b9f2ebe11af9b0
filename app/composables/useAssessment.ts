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

/**
 * Estimate, window and verdict of a batch, worked out anew in the worker whenever its log changes.
 * The last answer stays until the next is there; an older answer never overtakes a newer one.
 */
export function useAssessment(entries: Ref<readonly Entry[]>, food: Ref<Food | undefined>, now: Ref<number>) {
  const assessment = shallowRef<Assessment>()
  const working = ref(false)
  const problem = ref<string>()
  let asked = 0
  watch(
    [entries, now],
    async ([log]) => {
      const turn = ++asked
      if (log.length === 0 || !food.value) return
      working.value = true
      try {
        // Through JSON: reactive wrappers cannot be cloned to the worker.
        const answer = await dryingDesk().assess(JSON.parse(JSON.stringify(log)) as Entry[], food.value, now.value)
        if (turn === asked) {
          assessment.value = answer
          problem.value = undefined
        }
      } catch (error) {
        if (turn === asked) problem.value = error instanceof Error ? error.message : String(error)
      } finally {
        if (turn === asked) working.value = false
      }
    },
    { immediate: true },
  )
  return { assessment, working, problem }
}
