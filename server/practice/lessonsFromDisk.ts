import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** The lessons as the build carries them, read from their folder: for tests and the bench. */
const folder = join(process.cwd(), 'core/practice/lessons')

export const lessons: readonly { name: string; text: string }[] = readdirSync(folder)
  .sort()
  .map(name => ({ name, text: readFileSync(join(folder, name), 'utf8') }))
