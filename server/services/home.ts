import type { CodeAnswer, HomeAnswer, NewToken, PassphraseChange, WhoAnswer } from '#shared/contracts'
import { findDevice } from '#server/db/devices'
import { refuse } from '#core/errors'
import type { Home, Tried } from '#server/home/home'
import { roleOf, type Who } from '#server/home/who'
import type { Context } from './context'
import { NotFound, TooFast } from './refusals'

/** Who asks, in a page's words. */
export function whoAnswer(home: Home, who: Who, fromHouse: boolean): WhoAnswer {
  return {
    role: roleOf(who),
    name: who.kind === 'device' ? who.device.name : undefined,
    fromHouse,
    hasPassphrase: home.keys.hasPassphrase,
  }
}

/** All of the home network, for a keeper. */
export function homePage(home: Home, who: Who, problem?: string): HomeAnswer {
  const { keys } = home
  return {
    hasPassphrase: keys.hasPassphrase,
    open: keys.open,
    askHere: keys.askHere,
    listening: home.listening !== undefined,
    problem,
    links: home.links,
    trustLinks: home.trustLinks,
    fingerprint: home.fingerprint,
    devices: keys.devices(),
    own: who.kind === 'device' ? who.device.id : undefined,
    tokens: keys.tokens(),
  }
}

/**
 * Opens or closes it, now and at each start.
 * @throws InputError where there is no passphrase, or this machine would lock itself out
 */
export async function chooseHome(home: Home, who: Who, { open, askHere }: { open?: boolean; askHere?: boolean }): Promise<HomeAnswer> {
  const { keys } = home
  if ((open || askHere) && !keys.hasPassphrase)
    refuse('passphrase', 'no-passphrase', 'Choose a passphrase first: without one, everybody in the house could write.')
  if (open === false && who.kind === 'device' && home.listening)
    refuse('open', 'would-cut-itself', 'This device comes by the home network: close it on the computer that Dulse runs on.')
  if (open) {
    try {
      await home.open()
    } catch (error) {
      refuse('open', 'cannot-listen', error instanceof Error ? error.message : 'It cannot listen.')
    }
  }
  keys.choose({ open, askHere })
  if (open === false) await home.close()
  return homePage(home, who)
}

/** Tries are counted before a passphrase or code is looked at. @throws TooFast with how long to wait */
async function countTry(home: Home, address: string, kind: Tried): Promise<void> {
  const seconds = await home.tryFrom(address, kind)
  if (seconds !== undefined)
    throw new TooFast(
      `Too many tries: wait ${seconds > 90 ? `${Math.ceil(seconds / 60)} minutes` : `${seconds} seconds`} and try again.`,
      'passphrase',
    )
}

/**
 * Chooses the passphrase. Where there is one, whoever changes it says it, so that a page left open is not enough.
 * @throws InputError for a wrong one, TooFast
 */
export async function setPassphrase(
  home: Home,
  who: Who,
  address: string,
  { passphrase, before, signOut }: PassphraseChange,
): Promise<HomeAnswer> {
  const { keys } = home
  if (keys.hasPassphrase) {
    await countTry(home, address, 'passphrase')
    if (before === undefined || !(await keys.isPassphrase(before)))
      refuse('before', 'wrong', 'This is not the passphrase until now. Whoever lost it: docs/security.md says how to begin anew.')
    await home.triedWell(address, 'passphrase')
  }
  await keys.setPassphrase(passphrase)
  if (signOut) keys.removeOtherDevices(who.kind === 'device' ? who.device.id : undefined)
  return homePage(home, who)
}

/** @throws InputError for a wrong passphrase, TooFast */
export async function enter(
  home: Home,
  address: string,
  { passphrase, name, role }: { passphrase: string; name: string; role: 'cook' | 'keeper' },
) {
  if (!home.keys.hasPassphrase)
    refuse('passphrase', 'no-passphrase', 'There is no passphrase yet: choose one on the computer that Dulse runs on.')
  await countTry(home, address, 'passphrase')
  if (!(await home.keys.isPassphrase(passphrase))) refuse('passphrase', 'wrong', 'That is not the passphrase.')
  await home.triedWell(address, 'passphrase')
  return home.keys.addDevice({ name, role, cameBy: 'passphrase' }, Date.now())
}

/** @throws InputError for a code that is wrong, used or over, TooFast */
export async function pair(home: Home, address: string, { code, name }: { code: string; name: string }) {
  await countTry(home, address, 'code')
  const role = home.codes.use(code, Date.now())
  if (!role) refuse('code', 'wrong', 'This code is wrong, was used already, or is older than two minutes: ask for a new one.')
  await home.triedWell(address, 'code')
  return home.keys.addDevice({ name, role, cameBy: 'code' }, Date.now())
}

export function makeCode(home: Home, role: 'cook' | 'keeper'): CodeAnswer {
  const { code, until } = home.codes.make(role, Date.now())
  const [link] = home.links
  return { code, until, link: link && `${link}/enter#${code}` }
}

/** @throws NotFound */
export function changeHomeDevice(home: Home, who: Who, id: string, change: { name: string; role: 'cook' | 'keeper' }): HomeAnswer {
  if (!home.keys.changeDevice(id, change)) throw new NotFound('homeDeviceId', 'There is no such device: it may have been taken off.')
  return homePage(home, who)
}
export function removeHomeDevice(home: Home, who: Who, id: string): HomeAnswer {
  if (!home.keys.removeDevice(id)) throw new NotFound('homeDeviceId', 'There is no such device: it may have been taken off already.')
  return homePage(home, who)
}
/** @returns the key, this once. @throws InputError for a device that is not there */
export function makeToken({ db }: Context, home: Home, who: Who, token: NewToken): { key: string; home: HomeAnswer } {
  if (token.deviceId !== undefined && !findDevice(db, token.deviceId))
    refuse('deviceId', 'no-such-device', 'There is no such scale or logger: add it in the set-up first.')
  const { key } = home.keys.addToken(token, Date.now())
  return { key, home: homePage(home, who) }
}
export function removeToken(home: Home, who: Who, id: string): HomeAnswer {
  if (!home.keys.removeToken(id)) throw new NotFound('tokenId', 'There is no such key: it may have been taken off already.')
  return homePage(home, who)
}
