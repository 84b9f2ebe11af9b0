import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

/** A server's clock that can be moved while it runs: started with `env`, it is off by so many ms as was set last. */
export function movedClock(ms = 0) {
  const path = join(mkdtempSync(join(tmpdir(), 'dulse-clock-')), 'off')
  const set = (off: number) => writeFileSync(path, String(off))
  set(ms)
  const module = pathToFileURL(join(process.cwd(), 'scripts/hardship/movedClock.mjs')).href
  return { path, set, read: () => readFileSync(path, 'utf8'), env: { DULSE_CLOCK: path, NODE_OPTIONS: `--import ${module}` } }
}
