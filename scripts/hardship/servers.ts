import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startDulse } from '../../tests/e2e/support/server'
import { beginBatch, note, notesOf, type Found } from './campaign'

/** Three servers are started on one folder at the same moment, so many times: one holds it, the others end and say so. */
export async function servers(size: number): Promise<Found> {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-hardship-'))
  const first = await startDulse(folder)
  const batchId = await beginBatch(first)
  await first.stop()
  const faults: string[] = []
  const kept: string[] = []
  for (let i = 0; i < size; i++) {
    const started = Array.from({ length: 3 }, () => bare(folder))
    // Two end by themselves.
    const ended: Awaited<ReturnType<typeof bare>['end']>[] = []
    await Promise.race([
      new Promise<void>(resolve => {
        for (const { end } of started)
          void end.then(told => {
            ended.push(told)
            if (ended.length === 2) resolve()
          })
      }),
      new Promise(resolve => setTimeout(resolve, 15_000)),
    ])
    if (ended.length !== 2) faults.push(`round ${i}: ${3 - ended.length} servers stand on one folder`)
    for (const { code, said } of ended)
      if (code !== 1 || !/is held by/.test(said)) faults.push(`round ${i}: one ended with ${code}: ${said.slice(0, 200)}`)
    for (const { child, end } of started)
      if (child.exitCode === null) {
        child.kill('SIGKILL')
        await end
      }
    const server = await startDulse(folder)
    const text = `round ${i}`
    if ((await note(server, batchId, text)).ok) kept.push(text)
    const there = await notesOf(server, batchId)
    if (!kept.every(item => there.includes(item))) faults.push(`round ${i}: a note is gone`)
    await server.stop()
  }
  return { figures: `${size} times three at once, ${kept.length} entries, ${faults.length} faults`, faults }
}

function bare(folder: string) {
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'ignore', 'pipe'],
    env: { ...process.env, DULSE_DATA: folder, HOST: '127.0.0.1', PORT: '0', NITRO_PORT: '0', NODE_ENV: 'production' },
  })
  let said = ''
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
  const end = new Promise<{ code: number | null; said: string }>(resolve => child.once('exit', code => resolve({ code, said })))
  return { child, end }
}
