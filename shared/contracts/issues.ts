import * as z from 'zod'
import type { Problem } from '#core/errors'

const TYPES: Partial<Record<string, string>> = {
  number: 'a number',
  int: 'a whole number',
  string: 'some text',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object with its fields',
  record: 'an object with its fields',
  null: 'nothing (null)',
}

const listed = (values: readonly unknown[]) => values.map(String).join(', ')

/**
 * What is wrong, in a sentence, where a schema has none of its own: a schema library's raw words reach nobody.
 * @returns undefined for what has words already
 */
function plainWords(issue: z.core.$ZodRawIssue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      return `${issue.input === undefined ? 'This is missing: give' : 'Give'} ${TYPES[issue.expected] ?? `what is asked for (${issue.expected})`}.`
    case 'too_small':
      return `${issue.inclusive === false ? 'More than' : 'At least'} ${issue.minimum}${countOf(issue.origin)}.`
    case 'too_big':
      return `${issue.inclusive === false ? 'Less than' : 'At most'} ${issue.maximum}${countOf(issue.origin)}.`
    case 'unrecognized_keys':
      return `There is no field “${issue.keys.join('”, “')}” here.`
    case 'invalid_value':
      return issue.values.length === 1 ? `This must be “${listed(issue.values)}”.` : `Choose one of: ${listed(issue.values)}.`
    case 'invalid_union':
      return issue.discriminator ? `This ${issue.discriminator} is not known here.` : 'This fits none of the forms that it may have.'
    case 'invalid_format':
      return `This is not written as ${issue.format === 'uuid' ? 'a UUID' : `it should be (${issue.format})`}.`
    case 'not_multiple_of':
      return `In steps of ${issue.divisor}.`
    case 'invalid_key':
      return 'This name is not known here.'
    case 'invalid_element':
      return 'Something in this list is not as it should be.'
    case 'custom':
      return 'This cannot be so.'
  }
}

const countOf = (origin: string) => (origin === 'string' ? ' characters' : origin === 'array' || origin === 'set' ? ' of them' : '')

z.config({ customError: plainWords })

/** The faults that a schema found, as refusals: field, code, sentence. */
export function problemsOfIssues(issues: readonly z.core.$ZodIssue[], whole = 'body'): Problem[] {
  return issues.flatMap(issue => {
    const closest = issue.code === 'invalid_union' ? closestOf(issue.errors) : undefined
    if (closest)
      return problemsOfIssues(
        closest.map(inner => ({ ...inner, path: [...issue.path, ...inner.path] }) as typeof inner),
        whole,
      )
    return { field: issue.path.join('.') || whole, code: issue.code.replaceAll('_', '-'), message: issue.message }
  })
}

/** Of a choice that fails, the faults of the form that came closest: the one that has all of its fields, if any has. */
function closestOf(choices: readonly (readonly z.core.$ZodIssue[])[]): readonly z.core.$ZodIssue[] | undefined {
  return choices.find(faults => faults.length > 0 && faults.every(fault => fault.path.length > 1 || fault.code === 'invalid_union'))
}
