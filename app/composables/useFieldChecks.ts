type Check = () => string | undefined

const FIELDS: InjectionKey<Set<Check>> = Symbol('fields of a form')

/**
 * For a form: gathers the fields within it that know whether what was typed makes sense.
 * @returns asks all of them; each shows its own words, and the first problem is given back
 */
export function useFieldChecks(): Check {
  const checks = new Set<Check>()
  provide(FIELDS, checks)
  return () => [...checks].map(check => check()).find(problem => problem !== undefined)
}

/** For a field: joins the form around it, so that nonsense is never sent as if nothing had been typed. */
export function useFieldCheck(check: Check): void {
  const checks = inject(FIELDS, undefined)
  checks?.add(check)
  onBeforeUnmount(() => checks?.delete(check))
}
