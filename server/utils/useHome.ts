import { dirname } from 'node:path'
import type { H3Event } from 'h3'
import { COOKIE_SECONDS, Home } from '#server/home/home'
import type { Who } from '#server/home/who'

let home: Home | undefined

/** The door to the house; it is made when the server starts. */
export function useHome(): Home {
  if (!home) throw new Error('The door to the house is not there: the server has not started.')
  return home
}

/** Makes the door; what it lets in is heard by `listener`. */
export function makeHome(listener: ConstructorParameters<typeof Home>[1], options?: ConstructorParameters<typeof Home>[2]): Home {
  home = new Home(dirname(logbookPath()), listener, options)
  return home
}

/** Address of whoever asks. */
export const addressOfCaller = (event: H3Event) => event.node.req.socket.remoteAddress ?? ''

interface Session {
  id?: string
  key?: string
}

/**
 * The sealed cookie: unreadable and unforgeable without the server's secret, out of reach of scripts, sent to this server alone. Its name
 * holds the port, since a browser keeps the cookies of one machine's servers together.
 */
function sessionConfig(event: H3Event) {
  const secure = useHome().isFromHouse(event.node.req)
  const port = event.node.req.socket.localPort
  return {
    password: useHome().keys.cookieSecret,
    name: secure ? `__Host-dulse-${port}` : `dulse-${port}`,
    maxAge: COOKIE_SECONDS,
    cookie: { httpOnly: true, secure, sameSite: 'lax' as const, path: '/' },
    sessionHeader: false as const,
  }
}

/** Keeps a device's key in its cookie. */
export async function signIn(event: H3Event, made: { id: string; key: string }): Promise<void> {
  await clearSession(event, sessionConfig(event))
  await updateSession<Session>(event, sessionConfig(event), made)
}
export const signOut = (event: H3Event) => clearSession(event, sessionConfig(event))

/** Who asks. */
export async function whoAsks(event: H3Event): Promise<Who> {
  const home = useHome()
  if (!home.isFromHouse(event.node.req) && !home.keys.askHere) return { kind: 'here' }
  const now = Date.now()
  const key = /^Bearer (\S{20,100})$/.exec(getRequestHeader(event, 'authorization') ?? '')?.[1] ?? keyInQuery(event)
  if (key) {
    const token = home.keys.token(key, now)
    return token ? { kind: 'token', use: token.use, deviceId: token.deviceId } : { kind: 'unknown' }
  }
  const config = sessionConfig(event)
  const sealed = getCookie(event, config.name)
  if (!sealed) return { kind: 'unknown' }
  try {
    const { data } = (await unsealSession(event, config, sealed)) as { data?: Session }
    const device = data?.id && data.key ? home.keys.device(data.id, data.key, now) : undefined
    return device ? { kind: 'device', device } : { kind: 'unknown' }
  } catch {
    return { kind: 'unknown' }
  }
}

/** Programs that subscribe to a calendar take an address and nothing else. */
function keyInQuery(event: H3Event): string | undefined {
  const { key } = getQuery(event)
  return typeof key === 'string' && event.path.startsWith('/api/calendar.ics') ? key : undefined
}
