import { createInterface } from 'node:readline/promises'

const ask = async (address, path, init = {}) => {
  const answer = await fetch(address + path, {
    ...init,
    headers: init.body ? { 'content-type': 'application/json' } : {},
    body: init.body && JSON.stringify(init.body),
  })
  const told = await answer.json()
  if (!answer.ok) throw new Error(told.message)
  return told
}

/**
 * Opens a Dulse that has started to its house, and says where that finds it. Without a passphrase it is asked for here first, or taken
 * from `DULSE_PASSPHRASE` where there is nobody to ask.
 */
export async function sayHome(address) {
  let home = await ask(address, '/api/home').catch(error => console.log(`  ${error.message}\n`))
  // It asks on this machine too: what is told here needs a keeper.
  if (!home) return
  while (!home.hasPassphrase) {
    const passphrase = process.env.DULSE_PASSPHRASE ?? (await typed())
    if (passphrase === undefined) {
      console.log(`  Not open to the house yet: choose the household’s passphrase at ${address}/home\n  (or set DULSE_PASSPHRASE).\n`)
      return
    }
    try {
      home = await ask(address, '/api/home/passphrase', { method: 'PUT', body: { passphrase } })
    } catch (error) {
      console.error(`  ${error.message}`)
      if (process.env.DULSE_PASSPHRASE !== undefined) return
    }
  }
  try {
    if (!home.listening) home = await ask(address, '/api/home', { method: 'PUT', body: { open: true } })
  } catch (error) {
    console.error(`  Not open to the house: ${error.message}\n`)
    return
  }
  const { renderUnicodeCompact } = await import('uqr')
  console.log(`  In the house: ${home.links.join('\n                ')}\n`)
  const [trust] = home.trustLinks
  if (!trust) return console.log('  This machine has no address in a house’s network.\n')
  console.log(
    `  Phones begin at ${trust}\n${renderUnicodeCompact(trust, { border: 1 })}\n  Fingerprint of the certificate:\n  ${home.fingerprint}\n`,
  )
}

/** What is typed at the terminal; nothing where there is none. */
async function typed() {
  if (!process.stdin.isTTY) return undefined
  const line = createInterface({ input: process.stdin, output: process.stdout })
  try {
    return await line.question('  Passphrase of the household (12 letters or more): ')
  } finally {
    line.close()
  }
}
