import { proxy, wrap } from 'comlink'
import type { Plan, PlanProblem, PlanWorth } from '#core/plan'
import type { PlanDesk } from '~/workers/plan.worker'

/** So long better plans are looked for, ms. */
const LOOK_MS = 4000

/** The best plan so far of a problem; it gets better in sight, and is begun anew when the problem changes. */
export function usePlan(problem: () => PlanProblem | undefined) {
  const plan = shallowRef<Plan>()
  const worth = shallowRef<PlanWorth>()
  const refused = ref('')
  const looking = ref(false)
  let worker: Worker | undefined
  const end = () => {
    worker?.terminate()
    worker = undefined
    looking.value = false
  }
  watch(
    problem,
    async asked => {
      end()
      refused.value = ''
      if (!asked) return
      const own = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' })
      worker = own
      looking.value = true
      try {
        await wrap<PlanDesk>(own).improve(
          JSON.parse(JSON.stringify(asked)) as PlanProblem,
          LOOK_MS,
          proxy(step => {
            if (worker !== own) return
            plan.value = step.plan
            worth.value = step.worth
          }),
        )
      } catch (error) {
        if (worker === own) refused.value = (error as Error).message
      }
      if (worker === own) end()
    },
    { immediate: true },
  )
  onScopeDispose(end)
  return { plan, worth, refused, looking, stop: end }
}
