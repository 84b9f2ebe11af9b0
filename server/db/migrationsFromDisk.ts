import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** The migrations as the build carries them, read from their folder: for tests, the demo and the bench. */
const folder = join(process.cwd(), 'server/db/migrations')

export const migrations: { name: string; sql: string }[] = readdirSync(folder)
  .filter(name => name.endsWith('.sql'))
  .sort()
  .map(name => ({ name, sql: readFileSync(join(folder, name), 'utf8') }))
