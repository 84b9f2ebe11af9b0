import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { simulateRun } from '#core/simulation'
import { DEVICES, type DeviceName, type SimulatedDevice } from './kinds'
import { openHook, openMailbox } from './receivers'
import { Sender } from './sender'
import { simulatedWeather } from './weather'
import { makeWorld, type RackTruth, type World } from './world'

const HOUR = 3_600_000
/** So far a forecast goes. */
const DAYS_AHEAD = 10
/** How often readings go out; at a fast pace many at once. */
const SEND_MS = 500

export const HELP = `Simulated devices for Dulse.

  npm run devices -- [--server http://127.0.0.1:4170] [--machine ID] [--speed 1] [--hours 0] [--rack FILE] [scale probe hygrometer controller weather]

  --server    where Dulse runs
  --machine   the machine with the rack; the rack file's, or the first in the set-up, when missing
  --speed     simulated seconds in a second; a fast device catches up with the present and then keeps time
  --hours     begin so many hours ago
  --rack      the simulated rack's truth, as the demo data writes it beside its logbook

  mailbox     a mailbox at port 2525 that shows the letters that come in; it is not opened unless it is named
  hook        an address of the web, http://127.0.0.1:2580/, that shows the messages that come in; likewise

  weather     sends a simulated forecast of ten days to the plan, once; it is not sent unless it is named

  DULSE_KEY   the device's key, where Dulse runs elsewhere in the house; NODE_EXTRA_CA_CERTS names the household's certificate then
`

const RECEIVERS = ['mailbox', 'hook'] as const
type ReceiverName = (typeof RECEIVERS)[number]

interface Options {
  server: string
  machine?: string
  speed: number
  hours: number
  rack?: string
  names: DeviceName[]
  weather: boolean
  receivers: ReceiverName[]
}

/** @throws Error naming the option that is wrong */
export function optionsOf(args: readonly string[], names?: DeviceName[]): Options {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      server: { type: 'string' },
      machine: { type: 'string' },
      speed: { type: 'string' },
      hours: { type: 'string' },
      rack: { type: 'string' },
    },
  })
  const number = (name: 'speed' | 'hours', usual: number, least: number, most: number) => {
    const value = values[name] === undefined ? usual : Number(values[name])
    if (!(value >= least && value <= most)) throw new Error(`--${name} must be a number from ${least} to ${most}; it is “${values[name]}”.`)
    return value
  }
  const others: readonly string[] = ['weather', ...RECEIVERS]
  const strange = positionals.find(name => !(name in DEVICES) && !others.includes(name))
  if (strange) throw new Error(`There is no device “${strange}”: ${[...Object.keys(DEVICES), ...others].join(', ')}.`)
  const devices = positionals.filter((name): name is DeviceName => name in DEVICES)
  const data = process.env.DULSE_DATA
  return {
    server: (values.server ?? 'http://127.0.0.1:4170').replace(/\/$/, ''),
    machine: values.machine,
    speed: number('speed', 1, 0.1, 100_000),
    hours: number('hours', 0, 0, 240),
    rack: values.rack ?? (data && existsSync(join(data, 'simulated-rack.json')) ? join(data, 'simulated-rack.json') : undefined),
    names: names ?? (positionals.length > 0 ? devices : (Object.keys(DEVICES) as DeviceName[])),
    weather: positionals.includes('weather'),
    receivers: RECEIVERS.filter(name => positionals.includes(name)),
  }
}

/** The instant in the simulated world: it starts `hours` ago, runs at `speed`, and never passes the present. */
export function simulatedClock(startedAt: number, hours: number, speed: number): (now: number) => number {
  return now => Math.min(now, startedAt - hours * HOUR + (now - startedAt) * speed)
}

/** What a device reads from one instant to another, at its own beat. */
export function readingsBetween(device: SimulatedDevice, world: World, from: number, to: number) {
  const readings: { channel: string; at: number; value: number }[] = []
  for (let at = Math.ceil((from + 1) / device.everyMs) * device.everyMs; at <= to; at += device.everyMs) {
    for (const reading of device.read(world, at)) readings.push({ ...reading, at })
  }
  return readings
}

/** A load of nobody's, for when no rack file is there: four kilos of slices at the start of a long run. */
function someRack(loadedAt: number): RackTruth {
  const load = simulateRun(
    {
      trays: 6,
      startWeightG: 4000,
      solids: 0.13,
      slab: { diffusionRate: 0.25, slowing: 0.12, evaporationRate: 1, airHumidity: 0.09 },
      traySpread: 0.08,
      seed: 7,
    },
    36,
    0.25,
  )
  const hours = Array.from({ length: 145 }, (_, i) => i / 4)
  return { loadedAt, setC: 57, hours, weightG: hours.map(hour => load.weightAt(hour)), tareG: 6 * 310 }
}

/** Opens those who are told: they show what comes, until the process is ended. */
async function openReceivers(names: readonly ReceiverName[]): Promise<void> {
  const show = (what: string) => (message: unknown) =>
    console.log(`\n${what}:\n${typeof message === 'string' ? message : JSON.stringify(message, undefined, 2)}`)
  if (names.includes('mailbox')) {
    const { port } = await openMailbox(2525, show('A letter came'))
    console.log(`A mailbox listens: host 127.0.0.1, port ${port}, without encryption and without a user.`)
  }
  if (names.includes('hook')) {
    const { port } = await openHook(2580, show('A message came'))
    console.log(`An address of the web listens: http://127.0.0.1:${port}/`)
  }
}

/** Runs devices until the process is ended. */
export async function runDevices(options: Options): Promise<void> {
  const startedAt = Date.now()
  await openReceivers(options.receivers)
  if (options.weather) await sendWeather(options.server, startedAt)
  if (options.names.length === 0) return
  const file = options.rack ? (JSON.parse(readFileSync(options.rack, 'utf8')) as RackTruth & { machineId?: string }) : undefined
  const machineId = options.machine ?? file?.machineId ?? (await firstMachine(options.server))
  const clock = simulatedClock(startedAt, options.hours, options.speed)
  const world = makeWorld(file ?? someRack(clock(startedAt)))
  const devices = options.names.map(name => {
    const device: SimulatedDevice = DEVICES[name]
    return {
      device,
      sender: new Sender(options.server, {
        id: device.id,
        name: device.name,
        kind: device.kind,
        machineId: device.atRack ? (machineId ?? null) : null,
      }),
      from: clock(startedAt),
    }
  })
  console.log(`Simulated: ${devices.map(({ device }) => device.name).join(', ')} → ${options.server}, ${options.speed} × the clock.`)
  for (;;) {
    const to = clock(Date.now())
    for (const item of devices) {
      item.sender.add(readingsBetween(item.device, world, item.from, to))
      item.from = to
      await item.sender.send()
    }
    await new Promise(resolve => setTimeout(resolve, SEND_MS))
  }
}

/** @throws Error where Dulse does not take it */
async function sendWeather(server: string, now: number): Promise<void> {
  const household = (await fetch(`${server}/api/household`).then(response => response.json())) as { timeZone: string }
  const weather = simulatedWeather(now, DAYS_AHEAD, household.timeZone, Math.floor(now / (24 * HOUR)))
  const answer = await fetch(`${server}/api/plan/weather`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(weather),
  })
  if (!answer.ok) throw new Error(`Dulse did not take the forecast: ${await answer.text()}`)
  console.log(`Simulated: a forecast of ${DAYS_AHEAD} days → ${server}.`)
}

async function firstMachine(server: string): Promise<string | undefined> {
  const machines = await fetch(`${server}/api/machines`)
    .then(response => response.json() as Promise<{ id: string }[]>)
    .catch(() => undefined)
  if (!machines) throw new Error(`Dulse does not answer at ${server}. Start it first, or give --server.`)
  return machines[0]?.id
}

/** The way into a program of one device, or of all. */
export function main(names?: DeviceName[]): void {
  const args = process.argv.slice(2)
  if (args.includes('--help')) {
    console.log(HELP)
    return
  }
  Promise.resolve()
    .then(() => runDevices(optionsOf(args, names)))
    .catch((error: Error) => {
      console.error(error.message)
      process.exit(1)
    })
}
