import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, statfsSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startDulse } from '../../tests/e2e/support/server'
import { jpeg } from '../../tests/support/pictures'
import { beginBatch, note, notesOf, send, type Found } from './campaign'
import { isWhole, sendPicture } from './cuts'

/** A disk of six megabytes is filled to its end while notes are written, and room is made again. */
export async function disk(size: number): Promise<Found> {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-disk-'))
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', folder], { stdio: 'ignore' }).status === 0
  if (!mounted) return { figures: 'SKIPPED: a small disk can only be made by whoever may mount one (root)', faults: [] }
  const faults: string[] = []
  const kept: string[] = []
  const pictures: string[] = []
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
      // Room for a part of what comes: pictures are taken whole, or refused.
      const { bavail: left, bsize: block } = statfsSync(folder)
      truncateSync(ballast, Math.max(0, statSync(ballast).size - Math.max(0, 180 * 1024 - left * block)))
      for (let i = 0; i < 6; i++) {
        const taken = await sendPicture(server, batchId, jpeg(800, 600, 70_000 + 100 * round + i))
        if (typeof taken === 'string') pictures.push(taken)
        else if (taken.status !== 507) faults.push(`a picture on a full disk was answered with ${taken.status}`)
      }
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
    for (const name of pictures)
      if (!(await isWhole(server, name))) faults.push(`picture ${name.slice(0, 8)} was acknowledged and is not whole`)
    const there = new Set(await notesOf(server, batchId))
    for (const text of kept) if (!there.has(text)) faults.push(`“${text.slice(0, 30)}” was acknowledged and is gone`)
    await server.stop()
  } finally {
    spawnSync('umount', [folder])
    rmSync(folder, { recursive: true, force: true })
  }
  return {
    figures: `${size} times full, ${kept.length} entries and ${pictures.length} pictures acknowledged, ${refused} refused with 507, ${faults.length} faults`,
    faults,
  }
}
