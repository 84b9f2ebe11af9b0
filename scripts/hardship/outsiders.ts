import { readFileSync } from 'node:fs'
import { Agent, request } from 'node:https'
import { join } from 'node:path'
import { connect, type Socket } from 'node:net'
import { openHouse } from '../../tests/e2e/support/house'
import { startDulse } from '../../tests/e2e/support/server'
import { beginBatch, note, send, type Found } from './campaign'

/** Somebody who is not let in asks the house's port for what is not there, and holds connections open: this machine's own page answers. */
export async function outsiders(size: number): Promise<Found> {
  const server = await startDulse()
  const batchId = await beginBatch(server)
  const house = new URL(await openHouse(server))
  const agent = new Agent({ ca: readFileSync(join(server.folder, 'home/authority.crt')), keepAlive: true, maxSockets: 8 })
  const faults: string[] = []
  const shown: string[] = []
  const asked = (path: string) =>
    new Promise<number>((resolve, reject) => {
      const headers = { host: house.host, accept: 'text/html' }
      const sent = request({ host: '127.0.0.1', servername: 'localhost', port: house.port, path, agent, headers }, answer => {
        let text = ''
        answer.on('data', part => (text += part))
        answer.once('end', () => {
          shown.push(text)
          resolve(answer.statusCode!)
        })
      })
      sent.setTimeout(10_000, () => sent.destroy(new Error('hung')))
      sent.once('error', reject).end()
    })
  for (let i = 0; i < size; i += 20)
    await Promise.all(
      Array.from({ length: 20 }, (_, k) => asked(`/_nuxt/not-there-${i + k}.js`).catch(error => faults.push(String(error)))),
    )
  // What a page of an error carries of the logbook is nothing.
  if (shown.some(text => text.includes('kale') || text.includes(batchId)))
    faults.push('somebody who was not let in was shown of the logbook')
  const idle = await Promise.all(
    Array.from(
      { length: 600 },
      () =>
        new Promise<Socket>(resolve => {
          const socket = connect({ host: '127.0.0.1', port: Number(house.port) })
          for (const event of ['connect', 'error', 'close']) socket.once(event, () => resolve(socket))
        }),
    ),
  )
  for (const path of ['/', '/api/now', '/api/home/me']) {
    const { status } = await send(server, 'GET', path)
    if (status !== 200) faults.push(`this machine’s own ${path} was answered with ${status}`)
  }
  if (!(await note(server, batchId, 'amid it')).ok) faults.push('this machine could not write')
  idle.forEach(socket => socket.destroy())
  agent.destroy()
  await server.stop()
  return { figures: `${size} requests of an outsider and ${idle.length} idle connections, ${faults.length} faults`, faults }
}
