import { createHash } from 'node:crypto'
import { copyFileSync, readdirSync, renameSync, truncateSync } from 'node:fs'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { startDulse, type RunningServer } from '../../tests/e2e/support/server'
import { jpeg } from '../../tests/support/pictures'
import { beginBatch, note, notesOf, send, type Found } from './campaign'

/** Sends a picture and hangs it on a batch. @returns its name, where it was acknowledged */
export async function sendPicture(server: RunningServer, batchId: string, bytes: Buffer): Promise<string | { status: number }> {
  const answer = await fetch(`${server.address}/api/pictures`, {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg' },
    body: new Uint8Array(bytes),
  })
  if (!answer.ok) return { status: answer.status }
  const { name } = (await answer.json()) as { name: string }
  const body = { kind: 'picture', picture: name, shows: 'food' }
  await send(server, 'POST', `/api/batches/${batchId}/entries`, { id: uuidv7(), at: Date.now() - 500, body })
  return name
}

/** Whether a picture is served whole. */
export async function isWhole(server: RunningServer, name: string): Promise<boolean> {
  const answer = await fetch(`${server.address}/api/pictures/${name}`)
  if (!answer.ok) return false
  return (
    createHash('sha256')
      .update(new Uint8Array(await answer.arrayBuffer()))
      .digest('hex') === name
  )
}

/** One damaged picture, and a restore that is cut off between its two renames: nothing else is lost, and it is said. */
export async function cuts(size: number): Promise<Found> {
  const faults: string[] = []
  let acknowledged = 0
  for (let round = 0; round < size; round++) {
    let server = await startDulse()
    const batchId = await beginBatch(server)
    const names = (await Promise.all([1, 2, 3].map(i => sendPicture(server, batchId, jpeg(800, 600, 3000 * i + round))))).filter(
      (name): name is string => typeof name === 'string',
    )
    if (names.length < 3) faults.push('a picture was refused')
    truncateSync(join(server.folder, 'pictures', names[1]!), 500 + round)
    const backup = await fetch(`${server.address}/api/backup.sqlite`)
    await backup.arrayBuffer()
    if (!backup.ok || backup.headers.get('dulse-pictures-left-out') !== '1')
      faults.push(`with a damaged picture the backup was answered with ${backup.status}`)
    if (!(await fetch(`${server.address}/api/export/logbook.json`)).ok) faults.push('with a damaged picture there was no export')
    if (await isWhole(server, names[1]!)) faults.push('a damaged picture was served')
    if ((await sendPicture(server, batchId, jpeg(800, 600, 6000 + round))) !== names[1] || !(await isWhole(server, names[1]!)))
      faults.push('sent again it was not replaced')
    const texts = Array.from({ length: 5 }, (_, i) => `round ${round} note ${i}`)
    for (const text of texts) if ((await note(server, batchId, text)).ok) acknowledged++
    await server.kill()
    // As a kill between the two renames of a restore leaves the folder.
    const place = join(server.folder, 'logbook.sqlite')
    const aside = join(server.folder, 'logbook-before-restore-2026-01-01T00-00-00-000Z.sqlite')
    copyFileSync(place, join(server.folder, `trial-${uuidv7()}.sqlite`))
    for (const ending of readdirSync(server.folder).flatMap(name =>
      name.startsWith('logbook.sqlite') ? [name.slice('logbook.sqlite'.length)] : [],
    ))
      if (round % 2 === 0 || ending === '-wal') renameSync(place + ending, aside + ending)
    server = await startDulse(server.folder)
    const kept = new Set(await notesOf(server, batchId).catch(() => []))
    for (const text of texts) if (!kept.has(text)) faults.push(`“${text}” was acknowledged and is gone after a restore that was cut off`)
    await server.stop()
  }
  return { figures: `${size} damaged pictures and cut restores, ${acknowledged} entries acknowledged, ${faults.length} faults`, faults }
}
