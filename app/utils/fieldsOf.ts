import { Refused } from '../data/call'

/** What is wrong by field, `all` for what belongs to none: for forms that show it beside the field. */
export function fieldsOf(error: unknown): Record<string, string> {
  if (!(error instanceof Refused)) return { all: (error as Error).message }
  return Object.fromEntries([
    ...error.problems.map(problem => [problem.field, problem.message]),
    ...(error.problems.length === 0 || error.status === 409 ? [['all', error.message]] : []),
  ])
}
