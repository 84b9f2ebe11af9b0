import { createServer as createPlain, type IncomingMessage, type RequestListener, type Server as PlainServer } from 'node:http'
import { createServer as createTls, type Server as TlsServer } from 'node:https'
import { isIPv6, type AddressInfo, type Socket } from 'node:net'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { DAY, HOUR, MINUTE } from '#core/time'
import { CannotOpen } from '../db/opening'
import { hostOf, isLoopback, namesOfMachine, type Names } from './addresses'
import { fingerprintOf, type Sealed } from './certificates'
import { Counted, HOUSE_BOUNDS, ReadTime } from './bounds'
import { PairingCodes } from './codes'
import { Keyring } from './keyring'
import { trustPage } from './trustPage'

/** Where the house finds Dulse: with TLS, and without it the page that leads there. */
export interface Ports {
  tls: number
  plain: number
}
/** Kept the same, since phones keep the address. */
const HOME_PORTS: Ports = { tls: 4443, plain: 4480 }

/** So often this machine's names and the certificate are looked at again: a router may give another address. */
const LOOK_AGAIN_MS = 5 * MINUTE
/** A passphrase is tried so often from one network in a quarter of an hour, and so often in an hour by the whole house before it gets slow. */
const TRIES = 5
const ALL_TRIES = 60

/** What makes certificates is large and seldom needed: it is loaded when the house is opened. */
const making = async () => {
  // What its package injects by must be there before it, and the bundle does not keep the order of imports.
  await import('reflect-metadata')
  return import('./authority')
}

/** What stands open to the house. */
interface Opened {
  tls: TlsServer
  plain: PlainServer
  authority: Sealed
  ports: Ports
}

/** The door of this Dulse to its house: who may in, by which addresses, and what one address may take. */
export class Home {
  readonly keys: Keyring
  readonly codes = new PairingCodes()
  /** What is open, of the house and of this machine itself: neither can use up the other's. */
  readonly house = { streams: new Counted(), connections: new Counted() }
  readonly here = { streams: new Counted(), connections: new Counted() }
  readonly readTime = new ReadTime()
  readonly readsWaiting = new Counted()
  private readonly triesOf = new RateLimiterMemory({ points: TRIES, duration: (15 * MINUTE) / 1000 })
  private readonly allTries = new RateLimiterMemory({ points: ALL_TRIES, duration: HOUR / 1000 })
  /** Lines that stand open to a device, cut when it is taken off. */
  private readonly lines = new Map<string, Set<() => void>>()
  private readonly ofHouse = new WeakSet<IncomingMessage>()
  private opened?: Opened
  private opening?: Promise<void>
  private watch?: NodeJS.Timeout
  names: Names

  constructor(
    private readonly folder: string,
    private readonly listener: RequestListener,
    private readonly options: { ports?: Ports; names?: () => Names; now?: () => number; slowMs?: number } = {},
  ) {
    this.keys = new Keyring(folder, id => this.cut(id))
    this.names = this.namesNow()
  }

  private namesNow(): Names {
    return (this.options.names ?? namesOfMachine)()
  }
  private now(): number {
    return (this.options.now ?? Date.now)()
  }

  /** Whether a request came by the house's listener. */
  isFromHouse(request: IncomingMessage): boolean {
    return this.ofHouse.has(request)
  }

  /** Where it listens for the house; undefined while it does not. */
  get listening(): Ports | undefined {
    return this.opened?.ports
  }
  get fingerprint(): string | undefined {
    return this.opened && fingerprintOf(this.opened.authority.cert)
  }
  /** Links by which the house finds it, most useful first. */
  get links(): string[] {
    return this.linksAt('https', this.opened?.ports.tls)
  }
  /** The same of the page that needs no trust. */
  get trustLinks(): string[] {
    return this.linksAt('http', this.opened?.ports.plain)
  }
  /** A name that somebody gave outlasts an address that a router gave; a name that the machine has of itself is not found by every phone. */
  private linksAt(scheme: string, port: number | undefined): string[] {
    const { given, names, addresses } = this.names
    return port === undefined ? [] : [...new Set([...given, ...addresses, ...names])].map(name => `${scheme}://${hostOf(name)}:${port}`)
  }

  /**
   * Opens it to the house.
   * @throws CannotOpen without a passphrase, or where a port is taken
   */
  async open(): Promise<void> {
    if (this.opened) return
    this.opening ??= this.listen().finally(() => (this.opening = undefined))
    return this.opening
  }

  private async listen(): Promise<void> {
    if (!this.keys.hasPassphrase) throw new CannotOpen('Choose the household’s passphrase first: nothing listens in the house without one.')
    this.names = this.namesNow()
    const { authorityOf, certificateOf } = await making()
    const authority = await authorityOf(this.folder, this.now(), this.names)
    const sealed = await certificateOf(this.folder, authority, this.names, this.now())
    const tls = createTls({ ...withAuthority(sealed, authority), minVersion: 'TLSv1.2', handshakeTimeout: 10_000 }, (request, answer) => {
      this.ofHouse.add(request)
      this.listener(request, answer)
    })
    // Who sends a head or a body drop by drop is let go of.
    tls.headersTimeout = 15_000
    tls.requestTimeout = 5 * MINUTE
    const plain = createPlain((request, answer) => this.lead(request.url ?? '/', answer))
    plain.headersTimeout = plain.requestTimeout = 10_000
    plain.keepAliveTimeout = 1000
    for (const server of [tls, plain]) server.on('connection', (socket: Socket) => this.boundConnection(socket))
    tls.on('tlsClientError', (_error, socket) => socket.destroy())
    const ports = this.options.ports ?? HOME_PORTS
    try {
      this.opened = {
        tls,
        plain,
        authority,
        ports: { tls: await listenAt(tls, ports.tls), plain: await listenAt(plain, ports.plain) },
      }
    } catch (error) {
      tls.close()
      plain.close()
      throw error
    }
    this.watch = setInterval(
      () => void this.lookAgain().catch(error => console.error('The certificate was not renewed:', error)),
      LOOK_AGAIN_MS,
    )
    this.watch.unref()
  }

  /** Names that changed and a certificate near its end are seen without a new start. */
  async lookAgain(): Promise<void> {
    if (!this.opened) return
    this.names = this.namesNow()
    const { authority, tls } = this.opened
    const { certificateOf } = await making()
    tls.setSecureContext(withAuthority(await certificateOf(this.folder, authority, this.names, this.now()), authority))
  }

  private boundConnection(socket: Socket): void {
    const { connections, allConnections } = HOUSE_BOUNDS
    const end = this.house.connections.take(socket.remoteAddress ?? '', connections, allConnections)
    if (!end) return void socket.destroy()
    socket.once('close', end)
  }

  /** What is asked without TLS is shown the way, and given the authority's certificate; never the logbook. */
  private lead(url: string, answer: Parameters<RequestListener>[1]): void {
    const cert = this.opened?.authority.cert
    if (!cert) return void answer.writeHead(503).end()
    const common = { 'x-content-type-options': 'nosniff', 'referrer-policy': 'no-referrer', 'cache-control': 'no-store' }
    if (url === '/dulse-at-home.crt') {
      answer.writeHead(200, {
        ...common,
        'content-type': 'application/x-x509-ca-cert',
        'content-disposition': 'attachment; filename="dulse-at-home.crt"',
      })
      return void answer.end(cert)
    }
    answer.writeHead(200, {
      ...common,
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy':
        "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'",
    })
    answer.end(trustPage({ address: this.links[0]! }))
  }

  async close(): Promise<void> {
    clearInterval(this.watch)
    const { opened } = this
    this.opened = undefined
    if (!opened) return
    await Promise.all(
      [opened.tls, opened.plain].map(server => {
        const closed = new Promise<void>(resolve => server.close(() => resolve()))
        server.closeAllConnections()
        return closed
      }),
    )
  }

  end(): Promise<void> {
    return this.close().finally(() => this.keys.close())
  }

  /**
   * Counts a try of a passphrase or a code. Each network and each kind has tries of its own, and this machine too: whoever tries all day
   * locks out nobody but himself. Tries of a whole house beyond what people make are answered slowly, and not refused.
   * @returns seconds to wait where there were too many
   */
  async tryFrom(address: string, kind: Tried): Promise<number | undefined> {
    const network = networkOf(address)
    const refused = await this.triesOf.consume(`${kind} ${network}`).then(
      () => undefined,
      (wait: { msBeforeNext: number }) => wait,
    )
    if (refused) return Math.max(1, Math.ceil(refused.msBeforeNext / 1000))
    const isMany =
      network !== HERE &&
      (await this.allTries.consume(kind).then(
        () => false,
        () => true,
      ))
    if (isMany) await new Promise(resolve => setTimeout(resolve, this.options.slowMs ?? SLOW_MS))
    return undefined
  }
  /** A right one: what was tried wrongly before it is forgotten. */
  async triedWell(address: string, kind: Tried): Promise<void> {
    await this.triesOf.delete(`${kind} ${networkOf(address)}`)
  }

  /** Keeps an open line to a device. @returns forgets it */
  keepLine(deviceId: string, cut: () => void): () => void {
    const lines = this.lines.get(deviceId) ?? new Set()
    this.lines.set(deviceId, lines.add(cut))
    return () => {
      lines.delete(cut)
      if (lines.size === 0) this.lines.delete(deviceId)
    }
  }
  /** A device that was taken off hears nothing more. */
  private cut(deviceId: string): void {
    for (const cut of this.lines.get(deviceId) ?? []) cut()
    this.lines.delete(deviceId)
  }
}

/** What is tried: guesses at the one use up no tries of the other. */
export type Tried = 'passphrase' | 'code'
const HERE = 'here'
/** So long a try waits once a whole house has tried too often. */
const SLOW_MS = 2000

/** Who guesses may change the address within the network that a router gave: of the new kind, the first 64 bits. */
function networkOf(address: string): string {
  if (isLoopback(address)) return HERE
  const plain = address.replace(/^::ffff:/, '').replace(/%.*$/, '')
  if (!isIPv6(plain)) return plain
  // What "::" leaves out are groups of zero: with them the first four are the network, and without it would be the guest's to choose.
  const [head = '', tail] = plain.split('::')
  const groups = (text = '') => text.split(':').filter(Boolean)
  const left = [...groups(head), ...Array<string>(tail === undefined ? 0 : 8 - groups(head).length - groups(tail).length).fill('0')]
  return [...left, ...groups(tail)].slice(0, 4).join(':')
}

/** The authority's certificate goes along: who does not trust it yet is shown by whom it was made. */
const withAuthority = ({ cert, key }: Sealed, authority: Sealed) => ({ key, cert: `${cert.trimEnd()}\n${authority.cert}` })

/** So long a device stays signed in; then it comes in anew. */
export const COOKIE_SECONDS = (180 * DAY) / 1000

function listenAt(server: TlsServer | PlainServer, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? new CannotOpen(
              `Port ${port} is taken by another program: end that one, or set DULSE_HOME_PORTS to two free ports such as 4543,4580.`,
            )
          : error,
      )
    server.once('error', failed)
    // Both of the old and the new kind of address, where the machine has them.
    server.listen(port, () => {
      server.off('error', failed)
      resolve((server.address() as AddressInfo).port)
    })
  })
}
