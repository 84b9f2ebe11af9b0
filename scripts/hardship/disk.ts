import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startDulse } from '../../tests/e2e/support/server'
import { beginBatch, note, notesOf, send, type Found } from './campaign'

/** A disk of six megabytes is filled to its end while notes are written, and room is made again. */
export async function disk(size: number): Promise<Found> {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-disk-'))
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', folder], { stdio: 'ignore' }).status === 0
  if (!mounted) return { figures: 'SKIPPED: a small disk can only be made by whoever may mount one (root)', faults: [] }
  const faults: string[] = []
  const kept: string[] = []
  let refused = 0
  try {
    let server = await startDulse(folder)
    const batchId = await beginBatch(server)
    for (let round = 0; round < size; round++) {
      const ballast = join(folder, 'ballast')
      const { bavail, bsize } = statfsSync(folder)
      writeFileSync(ballast, Buffer.alloc(Math.max(0, bavail * bsize - 64 * 1024)))
      let full = false
      for (let i = 0; i < 200 && !full; i++) {
        const text = `round ${round} note ${i} ${'x'.repeat(900)}`
        const answer = await note(server, batchId, text)
        if (answer.ok) kept.push(text)
        else {
          full = true
          refused++
          const { message } = (await answer.json()) as { message: string }
          if (answer.status !== 507 || !/disk is full.*Make room/.test(message))
            faults.push(`a full disk was answered with ${answer.status}: ${message}`)
        }
      }
      if (!full) faults.push(`round ${round}: the disk never became full`)
      if (!(await send(server, 'GET', '/api/now')).ok) faults.push('Now was not answered while the disk was full')
      // Struck down with the disk full, too.
      if (round % 2 === 1) {
        await server.kill()
        rmSync(ballast)
        server = await startDulse(folder)
      } else rmSync(ballast)
      const after = await note(server, batchId, `round ${round} after`)
      if (after.ok) kept.push(`round ${round} after`)
      else faults.push(`with room again a note was answered with ${after.status}`)
    }
    const there = new Set(await notesOf(server, batchId))
    for (const text of kept) if (!there.has(text)) faults.push(`“${text.slice(0, 30)}” was acknowledged and is gone`)
    await server.stop()
  } finally {
    spawnSync('umount', [folder])
    rmSync(folder, { recursive: true, force: true })
  }
  return {
    figures: `${size} times full, ${kept.length} entries acknowledged, ${refused} refused with 507, ${faults.length} faults`,
    faults,
  }
}
