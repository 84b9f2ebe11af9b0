import { Composer, isNode, LineCounter, Parser, stringify, YAMLParseError, type CST, type Document } from 'yaml'
import type * as z from 'zod'
import { InputError, type Problem } from '#core/errors'
import { foodFile, MOST_FOODS, type FoodFile } from '#shared/contracts'

/** Letters that are read at one go: some milliseconds. */
const SLICE = 4096

interface ReadFoods {
  file: FoodFile
  lineOf: (field: string) => number | undefined
}

/**
 * Reads a file of foods, YAML or JSON; between two slices others are answered.
 * @throws InputError with the field and the line of every problem
 */
export async function readFoodFile(text: string): Promise<ReadFoods> {
  const reading = inSlices(text)
  for (;;) {
    const step = reading.next()
    if (step.done) return step.value
    await new Promise(setImmediate)
  }
}

function* inSlices(text: string): Generator<undefined, ReadFoods> {
  const lines = new LineCounter()
  const parser = new Parser(lines.addNewLine)
  const tokens: CST.Token[] = []
  for (let at = 0; at < text.length; at += SLICE) {
    tokens.push(...parser.parse(text.slice(at, at + SLICE), at + SLICE < text.length))
    yield
  }
  checkCount(tokens)
  return readDocument(composed(tokens, text, lines), lines)
}

/** As the package's own `parseDocument` does, which reads all of it at one go. */
function composed(tokens: readonly CST.Token[], text: string, lines: LineCounter): Document.Parsed {
  const documents = new Composer({ maxAliasCount: 0 } as ConstructorParameters<typeof Composer>[0]).compose(tokens, true, text.length)
  const { value: document } = documents.next() as { value: Document.Parsed }
  for (const next of documents)
    document.errors.push(new YAMLParseError(next.range.slice(0, 2) as [number, number], 'MULTIPLE_DOCS', 'one document a file'))
  for (const error of document.errors) error.linePos = [lines.linePos(error.pos[0])]
  return document
}

/** Far too many are refused before anything is made of them. */
function checkCount(tokens: readonly CST.Token[]): void {
  const [document] = tokens
  const top = document?.type === 'document' ? document.value : undefined
  if (top?.type !== 'block-map' && top?.type !== 'flow-collection') return
  for (const { value } of top.items) {
    if (!value || !('items' in value)) continue
    // In a list between brackets commas stand as items of their own.
    if (value.items.length > 2 * MOST_FOODS)
      throw new InputError([
        { field: 'foods', code: 'too-many', message: `At most ${MOST_FOODS} foods and as many cards a file: take in several files.` },
      ])
  }
}

function readDocument(document: Document.Parsed, lines: LineCounter): ReadFoods {
  if (document.errors.length > 0) {
    throw new InputError(
      document.errors.slice(0, 20).map((error): Problem => {
        const { line } = lines.linePos(error.pos[0])
        return {
          field: `line ${line}`,
          code: 'not-yaml',
          message: `Line ${line}: this is not YAML: ${error.message.split('\n')[0]!.replace(/ at line .*$/, '')}.`,
        }
      }),
    )
  }
  const lineOf = (field: string) => lineOfPath(document, lines, field === '' ? [] : field.split('.'))
  let value: unknown
  try {
    value = document.toJS({ maxAliasCount: 20 })
  } catch {
    throw new InputError([{ field: 'file', code: 'refers-to-itself', message: 'The file refers to itself too often to be read.' }])
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new InputError([{ field: 'line 1', code: 'line', message: 'Line 1: this is no file of foods: it begins with “dulse: foods 1”.' }])
  const parsed = foodFile.safeParse(value)
  if (parsed.success) return { file: parsed.data, lineOf }
  throw new InputError(
    issuesOf(parsed.error.issues)
      .slice(0, 50)
      .map(({ path, code, message }) => withLine({ field: path.join('.'), code, message }, lineOf)),
  )
}

/** The problem with its line in front. */
export function withLine(problem: Problem, lineOf: (field: string) => number | undefined): Problem {
  const line = lineOf(problem.field)
  return line === undefined ? problem : { ...problem, message: `Line ${line}, ${problem.field || 'file'}: ${problem.message}` }
}

/** Of a choice that fails, the words of the choice that came closest. */
function issuesOf(issues: readonly z.core.$ZodIssue[]): { path: readonly PropertyKey[]; code: string; message: string }[] {
  return issues.flatMap(issue => {
    const code = issue.code.replaceAll('_', '-')
    if (issue.code === 'invalid_union') {
      const closest = issue.errors.find(errors => !errors.some(inner => inner.code === 'invalid_type' && inner.path.length === 0))
      return closest
        ? issuesOf(closest).map(inner => ({ ...inner, path: [...issue.path, ...inner.path] }))
        : [{ path: issue.path, code, message: issue.message }]
    }
    if (issue.code === 'unrecognized_keys')
      return issue.keys.map(name => ({ path: [...issue.path, name], code, message: `“${name}” is not a field of this.` }))
    return [{ path: issue.path, code, message: issue.message }]
  })
}

function lineOfPath(document: Document, lines: LineCounter, path: readonly string[]): number | undefined {
  // A field that is missing is told at the line of what lacks it.
  for (let depth = path.length; depth >= 0; depth--) {
    const found =
      depth === 0
        ? document.contents
        : document.getIn(
            path.slice(0, depth).map(part => (/^\d+$/.test(part) ? Number(part) : part)),
            true,
          )
    if (isNode(found) && found.range) return lines.linePos(found.range[0]).line
  }
  return undefined
}

/** A file of foods in YAML, to be read and edited by people. */
export function writeFoodFile(file: FoodFile): string {
  return `# Foods and cards for Dulse. “a ± b” is a mean with its spread, “a to b” the range of 8 cases in 10.\n${stringify(file, { lineWidth: 0 })}`
}
