import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A built Dulse on a logbook of its own. */
export interface RunningServer {
  address: string
  folder: string
  process: ChildProcess
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>
  stop(): Promise<void>
}

function anyPort(): Promise<number> {
  return new Promise(resolve => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0))
    })
  })
}

/** Starts the built server on a folder (a new one when none is given) and waits until it answers. */
export async function startDulse(
  folder = mkdtempSync(join(tmpdir(), 'dulse-e2e-')),
  port?: number,
  homePorts = '0,0',
  more: Record<string, string> = {},
): Promise<RunningServer> {
  const at = port ?? (await anyPort())
  const child = spawn(process.execPath, ['.output/server/index.mjs'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      DULSE_DATA: folder,
      HOST: '127.0.0.1',
      PORT: String(at),
      NITRO_PORT: String(at),
      // For the house, where it is opened to that: any that are free.
      DULSE_HOME_PORTS: homePorts,
      NODE_ENV: 'production',
      ...more,
    },
  })
  // Whoever started it may end without stopping it.
  const orphaned = () => child.kill('SIGKILL')
  process.once('exit', orphaned)
  child.once('exit', () => process.off('exit', orphaned))
  const address = `http://127.0.0.1:${at}`
  const end = (signal: 'SIGKILL' | 'SIGTERM') =>
    new Promise<void>(resolve => {
      if (child.exitCode !== null || child.signalCode !== null) return resolve()
      child.once('exit', () => resolve())
      child.kill(signal)
    })
  for (let i = 0; ; i++) {
    const answer = await fetch(`${address}/api/home/me`).catch(() => undefined)
    if (answer?.ok) break
    if (i > 400) throw new Error('The server did not answer.')
    await new Promise(resolve => setTimeout(resolve, 25))
  }
  return { address, folder, process: child, kill: () => end('SIGKILL'), stop: () => end('SIGTERM') }
}
