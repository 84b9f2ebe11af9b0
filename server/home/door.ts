import { isLoopback, type Names } from './addresses'

/** What of a request says where it comes from. */
export interface Caller {
  method: string
  /** Whether it came by the house's own listener, with TLS. */
  fromHouse: boolean
  headers: Record<string, string | string[] | undefined>
}

const one = (value: string | string[] | undefined) => (Array.isArray(value) ? value[0] : value)

/**
 * Whether a request is turned away before anything is asked of it, and why. A page of another site can make a browser send requests here,
 * and by a name that it points to this machine it could read the answers as its own (rebinding): so that Dulse answers only to what it is
 * called, writes only for its own pages, and gives its answers to no page of another's.
 */
export function turnedAway({ method, fromHouse, headers }: Caller, names: Names): { statusCode: number; message: string } | undefined {
  const host = one(headers.host)
  const name = hostnameOf(`http://${host}`)
  if (!host || name === undefined || !isCalled(name, fromHouse, names))
    return {
      statusCode: 421,
      message: `This Dulse is not called “${(host ?? '').slice(0, 80)}”: open it by an address that it names itself.`,
    }
  const origin = one(headers.origin)
  if (origin !== undefined && origin !== `${fromHouse ? 'https' : 'http'}://${host}`)
    return { statusCode: 403, message: 'A page of another site asked this: it was refused.' }
  const site = one(headers['sec-fetch-site'])
  if (site !== 'cross-site' && site !== 'same-site') return undefined
  // A link from elsewhere may open a page; nothing else from elsewhere is answered.
  const opens = method === 'GET' && one(headers['sec-fetch-mode']) === 'navigate' && one(headers['sec-fetch-dest']) === 'document'
  return opens ? undefined : { statusCode: 403, message: 'Another site asked this: it was refused.' }
}

function hostnameOf(address: string): string | undefined {
  try {
    return new URL(address).hostname.toLowerCase()
  } catch {
    return undefined
  }
}

function isCalled(name: string, fromHouse: boolean, { names, addresses }: Names): boolean {
  const bare = name.replace(/^\[|\]$/g, '')
  if (bare === 'localhost' || (/^[\d.]+$|:/.test(bare) && isLoopback(bare))) return true
  return fromHouse && (names.includes(bare) || addresses.includes(bare))
}
