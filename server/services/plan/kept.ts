import { InputError } from '#core/errors'
import { breachesOf, isMild, optionOf, type Breach, type Plan } from '#core/plan'
import { HOUR } from '#core/time'
import { STAGES } from '#core/log'
import type { PlanAnswer } from '#shared/contracts'
import { findBatch, listBatchViews } from '#server/db/batches'
import { replaceKeptRuns, type KeptRow } from '#server/db/plan'
import type { Context } from '../context'
import { project } from '../projections'
import { planProblem } from './problem'

/** So late a plan may be taken: what was to begin meanwhile is begun now. */
const LATE = HOUR

const WORDS: Record<Breach['kind'], string> = {
  'no-way': 'goes a way that it has not',
  'too-early': 'is not there yet',
  'too-late': 'would be spoiled by then',
  past: 'would begin before now',
  'nobody-prepares': 'would be prepared while nobody is up and at home',
  'nobody-watches': 'would run while nobody is up and at home to watch',
  'no-place': 'finds no place',
  closed: 'meets hours in which nothing dries in that machine',
  'two-heats': 'wants another heat than what stands there',
  smell: 'would take or give a smell',
  'no-hands': 'takes more minutes than the day has',
  'no-sun': 'goes out while there is no sun',
  wakes: 'ends at night',
  'wish-late': 'is late for a wish',
}

/**
 * A plan is taken to work by: its runs stand beside the log, and what is to be done with each basket is dated by them.
 * @throws InputError naming each run that breaks a rule as things stand now
 */
export async function takePlan(context: Context, plan: Plan): Promise<PlanAnswer> {
  const { db } = context
  const { problem } = await planProblem(context)
  const known = plan.runs.filter(run => problem.baskets.some(basket => basket.id === run.basketId))
  const problems = [
    ...plan.runs.flatMap((run, i) =>
      known.includes(run)
        ? []
        : [
            {
              field: `plan.runs.${i}.basketId`,
              code: 'unknown-basket',
              message: 'There is no such basket any more: look at the plan anew.',
            },
          ],
    ),
    ...breachesOf(problem, known)
      .filter(breach => !isMild(breach))
      // Between looking and taking half an hour goes by.
      .filter(({ kind, basketId }) => !(kind === 'past' || kind === 'too-early') || problem.from - prepareAt(known, basketId) > LATE)
      .map(({ kind, basketId }) => ({
        field: `plan.runs.${plan.runs.findIndex(run => run.basketId === basketId)}`,
        code: kind,
        message: `${problem.baskets.find(basket => basket.id === basketId)?.title ?? basketId} ${WORDS[kind]}.`,
      })),
  ]
  if (problems.length > 0) throw new InputError(problems)
  const takenAt = context.now()
  const rows = known.map((run): KeptRow => {
    const basket = problem.baskets.find(item => item.id === run.basketId)!
    const option = optionOf(basket, run.machineId, run.cardKey)!
    const batchId = basket.expected ? undefined : run.basketId.split('#')[0]!
    return {
      basketId: run.basketId,
      batchId: batchId !== undefined && findBatch(db, batchId) ? batchId : undefined,
      takenAt,
      run: {
        ...run,
        title: basket.title,
        machineName: problem.machines.find(machine => machine.id === run.machineId)!.name,
        cut: option.cut,
        foodKey: basket.foodKey,
        weightG: basket.weightG,
        minutes: option.handsMinutes,
        ...(option.rotates && { rotates: true }),
      },
    }
  })
  db.transaction(() => {
    replaceKeptRuns(db, rows)
    dateAnew(context)
  }).immediate()
  return planProblem(context)
}

/** Nobody works by it any more. */
export async function dropPlan(context: Context): Promise<PlanAnswer> {
  context.db
    .transaction(() => {
      replaceKeptRuns(context.db, [])
      dateAnew(context)
    })
    .immediate()
  return planProblem(context)
}

const prepareAt = (runs: Plan['runs'], basketId: string) => runs.find(run => run.basketId === basketId)?.prepareAt ?? 0

/** What waits for a machine is due when the plan says. */
function dateAnew(context: Context): void {
  for (const stage of STAGES.filter(name => name === 'intake' || name === 'prep'))
    for (const { batch_id: batchId } of listBatchViews(context.db, { stage, limit: 10_000 })) project(context, batchId)
}
