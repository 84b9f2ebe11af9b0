import * as z from 'zod'
import type { Food } from '#core/foods'
import type { Lesson } from '#core/practice'

/** A lesson as somebody wrote it, to be read. */
export const lessonFile = z.strictObject({
  text: z
    .string({ error: 'Send the lesson’s text.' })
    .min(1, 'The file is empty.')
    .max(40_000, 'This is far longer than a lesson: at most 40,000 letters.'),
})
export type LessonFile = z.infer<typeof lessonFile>

/** A lesson that can be played: read, with its food, and as its file has it. */
export interface LessonAnswer {
  lesson: Lesson
  food: Food
  text: string
}
