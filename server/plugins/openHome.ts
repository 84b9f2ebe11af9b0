import { Socket } from 'node:net'
import { toNodeListener, type H3Event } from 'h3'
import { isLoopback } from '#server/home/addresses'
import { LOOPBACK_BOUNDS } from '#server/home/bounds'
import { turnedAway } from '#server/home/door'
import { contentPolicy, guardHeaders, scriptHashes } from '#server/home/headers'
import { CannotOpen } from '#server/db/opening'
import type { Ports } from '#server/home/home'
import { makeHome } from '../utils/useHome'

/**
 * The door before all that is answered, static files too: what every answer says to the browser, by what names Dulse is asked, and who
 * asks. Then the listeners of the house, where the household wants them.
 */
export default defineNitroPlugin(nitro => {
  const { h3App } = nitro
  endUnlessHere(process.env.NITRO_HOST ?? process.env.HOST)
  const home = orEnd(() => makeHome(toNodeListener(h3App), { ports: portsAsked() }))
  h3App.use(defineEventHandler(event => door(event, home)))
  h3App.stack.unshift(h3App.stack.pop()!)
  nitro.hooks.hook('render:response', response => {
    const body = String(response.body)
    response.headers = {
      ...response.headers,
      'content-security-policy': contentPolicy(scriptHashes(body)),
      // With what it would ask for first: nobody else's cache keeps it.
      'cache-control': 'no-store',
    }
    delete response.headers['x-powered-by']
  })
  // Without a passphrase nothing is to be opened yet: whoever starts it is asked for one.
  if (home.keys.hasPassphrase && (home.keys.open || process.env.DULSE_HOME === '1'))
    void home.open().catch(error => {
      setHomeProblem(error instanceof CannotOpen ? error.message : 'It cannot listen in the house; the server’s own words say why.')
      console.error(error instanceof CannotOpen ? error.message : error)
    })
  nitro.hooks.hook('close', () => home.end())
})

/** What whoever started it can mend is said in a sentence. */
function orEnd<Made>(make: () => Made): Made {
  try {
    return make()
  } catch (error) {
    console.error(error instanceof CannotOpen ? error.message : error)
    process.exit(1)
  }
}

/** A listener without TLS and passphrase is for this machine alone. */
function endUnlessHere(host: string | undefined): void {
  if (import.meta.dev || (host !== undefined && (host === 'localhost' || isLoopback(host)))) return
  console.error(
    `HOST is ${host ?? 'not set'}, which would open the logbook to everybody who reaches this machine: set HOST to 127.0.0.1, and open it to the house by “npm start -- --home”.`,
  )
  process.exit(1)
}

/** `DULSE_HOME_PORTS`, such as 4443,4480. */
function portsAsked(): Ports | undefined {
  const asked = process.env.DULSE_HOME_PORTS
  if (!asked) return undefined
  const [tls, plain] = asked.split(',').map(Number)
  const isPort = (port: number | undefined) => Number.isInteger(port) && port! >= 0 && port! < 65_536
  if (isPort(tls) && isPort(plain)) return { tls: tls!, plain: plain! }
  console.error(`DULSE_HOME_PORTS is “${asked}”: write two ports with a comma, such as 4443,4480.`)
  process.exit(1)
}

async function door(event: H3Event, home: ReturnType<typeof useHome>): Promise<unknown> {
  const { req, res } = event.node
  await new Promise<void>(resolve => guardHeaders(req, res, () => resolve()))
  res.setHeader('content-security-policy', contentPolicy())
  // What the house logs is kept by the page that it is for, and by no cache on the way.
  if (event.path.startsWith('/api/')) res.setHeader('cache-control', 'no-store')
  const fromHouse = home.isFromHouse(req)
  const away = turnedAway({ method: req.method ?? 'GET', fromHouse, headers: req.headers }, home.names)
  if (away) {
    setResponseStatus(event, away.statusCode)
    return { ...away, problems: [{ field: 'request', code: 'turned-away', message: away.message }] }
  }
  // The framework asks itself for the page of an error: that is no connection, and nobody who may anything.
  const isInner = !(req.socket instanceof Socket)
  if (!fromHouse && !isInner && !boundHere(event, home)) return ''
  event.context.who = isInner ? { kind: 'unknown' } : await whoAsks(event)
}

const counted = new WeakSet<object>()
/** This machine's own connections have their bounds too: a page of another site opens them as well. */
function boundHere({ node: { req, res } }: H3Event, home: ReturnType<typeof useHome>): boolean {
  const { socket } = req
  if (counted.has(socket)) return true
  const end = home.here.connections.take('here', LOOPBACK_BOUNDS.connections, LOOPBACK_BOUNDS.allConnections)
  if (!end) {
    res.writeHead(503, { 'retry-after': '1', connection: 'close' }).end()
    return false
  }
  counted.add(socket)
  socket.once('close', end)
  return true
}
