import { problem, type Problem, type Quantities } from './problem'

/**
 * Thrown by every public function of `core/` that refuses its input.
 * Carries all problems found, so that a person can mend them in one go.
 */
export class InputError extends Error {
  readonly problems: readonly Problem[]

  constructor(problems: readonly Problem[]) {
    super(problems.map(({ field, message }) => `${field}: ${message}`).join('; '))
    this.name = 'InputError'
    this.problems = problems
  }
}

/** Refuses for one reason. @throws InputError, always */
export function refuse(field: string, code: string, template: string, quantities?: Quantities): never {
  throw new InputError([problem(field, code, template, quantities)])
}
