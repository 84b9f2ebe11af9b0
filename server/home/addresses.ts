import { BlockList, isIPv6 } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'

/**
 * Networks that no router passes on to the world (RFC 1918, RFC 6598, RFC 3927, RFC 4193, RFC 4291), and the machine itself: Dulse calls
 * itself by addresses of these alone, and its certificates hold for no others.
 */
export const HOUSE_NETWORKS: readonly (readonly [address: string, prefix: number])[] = [
  ['127.0.0.0', 8],
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['100.64.0.0', 10],
  ['169.254.0.0', 16],
  ['::1', 128],
  ['fc00::', 7],
  ['fe80::', 10],
]
/** Endings that only a house's own names have (RFC 6762, RFC 8375, and what routers give out). */
export const HOUSE_ENDINGS = ['local', 'home.arpa', 'lan', 'internal', 'localhost'] as const

const house = new BlockList()
for (const [address, prefix] of HOUSE_NETWORKS) house.addSubnet(address, prefix, isIPv6(address) ? 'ipv6' : 'ipv4')

/** Whether an address belongs to a house rather than to the world. */
export const isOfHouse = (address: string) => house.check(address, isIPv6(address) ? 'ipv6' : 'ipv4')

const loopback = new BlockList()
loopback.addSubnet('127.0.0.0', 8, 'ipv4')
loopback.addAddress('::1', 'ipv6')
/** Whether an address is this machine talking to itself; an IPv4 address may come as IPv6. */
export function isLoopback(address: string): boolean {
  const plain = address.replace(/^::ffff:/, '')
  return loopback.check(plain, isIPv6(plain) ? 'ipv6' : 'ipv4')
}

/** What this machine is called in its house, most useful first. */
export interface Names {
  /** Names that somebody chose for it; among the names too. */
  given: string[]
  names: string[]
  addresses: string[]
}

/** Names and addresses of this machine. `DULSE_NAMES` adds names, separated by commas: of a proxy, or of a router's own. */
export function namesOfMachine(): Names {
  const own = hostname().toLowerCase().split('.')[0]!
  const given = (process.env.DULSE_NAMES ?? '')
    .split(',')
    .map(name => name.trim().toLowerCase())
    .filter(isName)
  const names = [...given, ...[`${own}.local`, own].filter(isName)]
  const addresses = Object.values(networkInterfaces())
    .flatMap(list => list ?? [])
    // An address with a scope cannot stand in a link.
    .filter(item => !item.internal && isOfHouse(item.address) && !item.scopeid)
    .map(item => item.address)
    .sort((a, b) => Number(isIPv6(a)) - Number(isIPv6(b)))
  return { given, names: [...new Set(names)], addresses: [...new Set(addresses)] }
}

/** What a certificate may hold: letters, figures and hyphens between dots. */
const isName = (name: string) => /^(?=.{1,253}$)[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?$/.test(name)

/** A name or address as the host of a link. */
export const hostOf = (name: string) => (isIPv6(name) ? `[${name}]` : name)
