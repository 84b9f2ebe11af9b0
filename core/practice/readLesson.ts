import { LineCounter, parseDocument } from 'yaml'
import { lessonSchema, type Lesson } from './lesson'
import type { FindFood } from '../foods'

/** What is wrong with a lesson's file, where it stands. */
export interface LessonProblem {
  field: string
  line?: number
  message: string
}
export type ReadLesson = { lesson: Lesson; problems?: undefined } | { lesson?: undefined; problems: LessonProblem[] }

/** A lesson is a page of text; more is not one. */
const MOST_LETTERS = 40_000

/**
 * Reads a lesson's YAML. It is data alone: no tags, no anchors, no code.
 * @param knows the foods at hand: a lesson on a food that nobody knows is refused
 */
export function readLesson(text: string, knows?: FindFood): ReadLesson {
  if (text.length > MOST_LETTERS) return wrong([{ field: 'lesson', message: 'This is far longer than a lesson: at most 40,000 letters.' }])
  const lines = new LineCounter()
  const document = parseDocument(text, { lineCounter: lines, schema: 'core', uniqueKeys: true })
  if (document.errors.length > 0)
    return wrong(
      document.errors.map(error => ({ field: 'lesson', line: lines.linePos(error.pos[0]).line, message: plainly(error.message) })),
    )
  const lineOf = (path: readonly PropertyKey[]): number | undefined => {
    for (let depth = path.length; depth >= 0; depth--) {
      const node = document.getIn(path.slice(0, depth), true) as { range?: [number, number, number] } | undefined
      if (node?.range) return lines.linePos(node.range[0]).line
    }
    return undefined
  }
  let data: unknown
  try {
    // No aliases: a small text could unfold into gigabytes.
    data = document.toJS({ maxAliasCount: 0 })
  } catch {
    return wrong([{ field: 'lesson', message: 'A lesson has no anchors and no references: write the figures out.' }])
  }
  const read = lessonSchema.safeParse(data)
  if (!read.success)
    return wrong(
      read.error.issues.flatMap(issue => {
        if (issue.code === 'unrecognized_keys')
          return issue.keys.map(key => ({
            field: [...issue.path, key].join('.'),
            line: lineOf([...issue.path, key]),
            message: `A lesson has no “${key}” here: is it a slip of the pen?`,
          }))
        const missing = issue.code === 'invalid_type' && document.getIn(issue.path) === undefined
        const field = issue.path.join('.') || 'lesson'
        return [{ field, line: lineOf(issue.path), message: missing ? `“${field}” is missing. ${issue.message}` : issue.message }]
      }),
    )
  const lesson = read.data
  if (knows) {
    const food = knows(lesson.food)
    if (!food)
      return wrong([{ field: 'food', line: lineOf(['food']), message: `No food has the key “${lesson.food}”: the reference lists them.` }])
    if (!food.cards.some(card => card.key === lesson.card))
      return wrong([
        {
          field: 'card',
          line: lineOf(['card']),
          message: `${food.name} has no card “${lesson.card}”: it has ${food.cards.map(card => card.key).join(', ')}.`,
        },
      ])
  }
  return { lesson }
}

const wrong = (problems: LessonProblem[]): ReadLesson => ({ problems })
/** The package's words end with the place in the text, which stands beside them. */
const plainly = (message: string) => message.split(/ at line \d+/)[0]!.replace(/:$/, '')
