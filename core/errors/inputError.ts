/** One thing that is wrong with an input: which field, and what would mend it. */
export interface Problem {
  /** Path of the field, in the words of the contract, such as `weighIns.2.weightG`. */
  field: string
  /** A sentence that says what is wrong and what would mend it. */
  message: string
}

/**
 * Thrown by every public function of `core/` that refuses its input.
 * Carries all problems found, so that a person can mend them in one go.
 */
export class InputError extends Error {
  readonly problems: readonly Problem[]

  constructor(problems: readonly Problem[]) {
    super(problems.map(problem => `${problem.field}: ${problem.message}`).join('; '))
    this.name = 'InputError'
    this.problems = problems
  }
}
