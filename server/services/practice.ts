import { lessons as files } from '#lessons'
import { InputError } from '#core/errors'
import { readLesson, type Lesson } from '#core/practice'
import type { LessonAnswer, LessonFile } from '#shared/contracts'
import type { Context } from './context'

/** The lessons that ship, in order. Own foods of the household do not change them: they are read once. */
let shipped: { lesson: Lesson; text: string }[] | undefined

/** Every lesson that ships, read and as its file has it. Nothing of the logbook is looked at but its foods. */
export function lessonList({ foods }: Context): LessonAnswer[] {
  shipped ??= files.map(({ name, text }) => {
    const { lesson, problems } = readLesson(text, foods.find)
    if (!lesson) throw new Error(`${name}: ${problems.map(({ field, message }) => `${field}: ${message}`).join('; ')}`)
    return { lesson, text }
  })
  return shipped.map(({ lesson, text }) => ({ lesson, food: foods.find(lesson.food)!, text }))
}

/**
 * Reads a lesson that somebody wrote. It is kept by whoever asked: the server keeps nothing of it.
 * @throws InputError with field and line of every problem
 */
export function lessonOf({ foods }: Context, { text }: LessonFile): LessonAnswer {
  const { lesson, problems } = readLesson(text, foods.find)
  if (!lesson)
    throw new InputError(
      problems.map(({ field, line, message }) => ({
        field,
        code: 'lesson',
        message: line === undefined ? message : `Line ${line}, ${field}: ${message}`,
      })),
    )
  return { lesson, food: foods.find(lesson.food)!, text }
}
