let problem: string | undefined

/** Why it does not listen in the house though it should, as it was found at the start. */
export const homeProblem = () => (useHome().listening ? undefined : problem)
export function setHomeProblem(words: string): void {
  problem = words
}
