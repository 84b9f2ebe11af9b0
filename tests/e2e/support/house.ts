import { createHash, X509Certificate } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Browser, type BrowserContext } from '@playwright/test'
import { BROWSER_ARGS, findChromium } from '../../../scripts/steps.mjs'
import type { RunningServer } from './server'

export const PASSPHRASE = 'kettle willow barn ink'

interface HomeTold {
  links: string[]
  trustLinks: string[]
  listening: boolean
}

/** Opens a server to the house, as its keeper does, and says by what address a phone of this machine finds it. */
export async function openHouse(server: RunningServer): Promise<string> {
  const put = async (path: string, body: object) =>
    (await (
      await fetch(server.address + path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
    ).json()) as HomeTold
  await put('/api/home/passphrase', { passphrase: PASSPHRASE })
  return houseAddress(await put('/api/home', { open: true }))
}

/** By its own name a machine need not find itself; by this one it does, and the certificate holds for it too. */
export function houseAddress({ links }: { links: string[] }): string {
  return `https://localhost:${new URL(links[0]!).port}`
}

/** A browser that trusts the household's authority, as a phone does after it was told to, and nothing else. */
export async function trusting(server: RunningServer): Promise<Browser> {
  const authority = new X509Certificate(readFileSync(join(server.folder, 'home/authority.crt')))
  const pin = createHash('sha256')
    .update(authority.publicKey.export({ type: 'spki', format: 'der' }))
    .digest('base64')
  return chromium.launch({ executablePath: findChromium(), args: [...BROWSER_ARGS, `--ignore-certificate-errors-spki-list=${pin}`] })
}

/** A code for one device. */
export async function codeFor(server: RunningServer, role: 'cook' | 'keeper' = 'cook'): Promise<string> {
  const answer = await fetch(`${server.address}/api/home/codes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ role }),
  })
  return ((await answer.json()) as { code: string }).code
}

/** A phone of the house that was let in under a name. */
export async function phone(
  browser: Browser,
  server: RunningServer,
  address: string,
  name: string,
  role: 'cook' | 'keeper' = 'cook',
): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, serviceWorkers: 'allow' })
  const answer = await context.request.post(`${address}/api/home/pair`, {
    data: { code: await codeFor(server, role), name },
    ignoreHTTPSErrors: true,
  })
  if (!answer.ok()) throw new Error(await answer.text())
  return context
}
