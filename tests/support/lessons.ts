import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { readLesson, type Lesson } from '#core/practice'
import { findFood } from './foods'

const folder = join(import.meta.dirname, '../../core/practice/lessons')

/** The lessons that ship, in order, as their files have them. */
export const LESSON_FILES = readdirSync(folder)
  .sort()
  .map(name => ({ name, text: readFileSync(join(folder, name), 'utf8') }))

/** The same, read; one that cannot be read ends the tests in its own words. */
export const LESSONS: readonly Lesson[] = LESSON_FILES.map(({ name, text }) => {
  const read = readLesson(text, findFood)
  if (!read.lesson)
    throw new Error(`${name}: ${read.problems.map(problem => `${problem.line} ${problem.field} ${problem.message}`).join('; ')}`)
  return read.lesson
})
