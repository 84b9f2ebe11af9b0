import type { HomeDevice, Role, TokenUse } from '#shared/contracts'
import type { RouteOf } from '#shared/api'
import { NotAllowed, SignInFirst } from '../services/refusals'

/** Who asks: this machine itself, a device that was let in, a program with its key; nobody known. */
export type Who =
  { kind: 'here' } | { kind: 'device'; device: HomeDevice } | { kind: 'token'; use: TokenUse; deviceId?: string } | { kind: 'unknown' }

/** What it may, as a person; null where it is none, or has to sign in first. */
export function roleOf(who: Who): Role | null {
  return who.kind === 'here' ? 'keeper' : who.kind === 'device' ? who.device.role : null
}

/**
 * @throws SignInFirst, or NotAllowed where it is known and may not
 */
export function admit(who: Who, route: RouteOf): void {
  if (route.who === 'anyone') return
  if (who.kind === 'token') {
    if (route.token !== who.use) throw new NotAllowed(`This key is good for ${who.use} and nothing else.`)
    return
  }
  const role = roleOf(who)
  if (!role) throw new SignInFirst()
  if (route.who === 'keeper' && role !== 'keeper')
    throw new NotAllowed(
      'Only a keeper may do this: ask whoever keeps this Dulse, or have this device made a keeper’s under Set-up, Home network.',
    )
}
