import { proxy, wrap } from 'comlink'
import type { PlanProblem, PlanStep } from '#core/plan'
import type { PlanDesk } from '~/workers/plan.worker'

/** So long better plans are looked for, ms. */
const LOOK_MS = 10_000

export const planWorker = () => new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' })

/** The best plan so far of a problem, with the problem that it is of; it gets better in sight, and is begun anew when that changes. */
export function usePlan(problem: () => PlanProblem | undefined) {
  const found = shallowRef<{ problem: PlanProblem } & PlanStep>()
  const refused = ref('')
  const looking = ref(false)
  let worker: Worker | undefined
  const end = () => {
    worker?.terminate()
    worker = undefined
    looking.value = false
  }
  // Asked again and unchanged it is not planned anew.
  watch(
    () => JSON.stringify(problem()),
    async text => {
      end()
      refused.value = ''
      if (!text) return
      const asked = JSON.parse(text) as PlanProblem
      const own = planWorker()
      worker = own
      looking.value = true
      try {
        const tell = proxy((step: PlanStep) => {
          if (worker === own) found.value = { problem: asked, ...step }
        })
        await wrap<PlanDesk>(own).improve(asked, LOOK_MS, tell)
      } catch (error) {
        if (worker === own) refused.value = (error as Error).message
      }
      if (worker === own) end()
    },
    { immediate: true },
  )
  onScopeDispose(end)
  return { found, refused, looking, stop: end }
}
