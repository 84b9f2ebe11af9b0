import type { H3Event } from 'h3'
import {
  changeHomeDevice,
  chooseHome,
  enter,
  homePage,
  makeCode,
  makeToken,
  pair,
  removeHomeDevice,
  removeToken,
  setPassphrase,
  whoAnswer,
} from '#server/services/home'
import type { Handlers } from '../utils/route'

const letIn = async (event: H3Event, made: { id: string; key: string }) => {
  const home = useHome()
  await signIn(event, made)
  const device = home.keys.device(made.id, made.key, Date.now())!
  return whoAnswer(home, { kind: 'device', device }, home.isFromHouse(event.node.req))
}

/** The door of the house. */
export const home = {
  whoAmI: ({ event }) => whoAnswer(useHome(), event.context.who, useHome().isFromHouse(event.node.req)),
  enter: async ({ event, body }) => letIn(event, await enter(useHome(), addressOfCaller(event), body)),
  pair: async ({ event, body }) => letIn(event, await pair(useHome(), addressOfCaller(event), body)),
  leave: async ({ event }) => {
    const { who } = event.context
    if (who.kind === 'device') useHome().keys.removeDevice(who.device.id)
    await signOut(event)
    // Pictures too, which are kept since they never change.
    setResponseHeader(event, 'clear-site-data', '"cache"')
    return { left: who.kind === 'device' }
  },
  home: ({ event }) => homePage(useHome(), event.context.who, homeProblem()),
  chooseHome: ({ event, body }) => chooseHome(useHome(), event.context.who, body),
  setPassphrase: ({ event, body }) => setPassphrase(useHome(), event.context.who, addressOfCaller(event), body),
  makeCode: ({ body }) => makeCode(useHome(), body.role),
  changeHomeDevice: ({ event, params, body }) => changeHomeDevice(useHome(), event.context.who, params.homeDeviceId, body),
  removeHomeDevice: ({ event, params }) => removeHomeDevice(useHome(), event.context.who, params.homeDeviceId),
  makeToken: ({ event, context, body }) => makeToken(context, useHome(), event.context.who, body),
  removeToken: ({ event, params }) => removeToken(useHome(), event.context.who, params.tokenId),
} satisfies Partial<Handlers>
