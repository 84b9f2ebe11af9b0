import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { DEVICES } from '../../devices/kinds'
import { optionsOf, readingsBetween, simulatedClock } from '../../devices/program'
import { Sender } from '../../devices/sender'
import { makeWorld, type RackTruth } from '../../devices/world'

const HOUR = 3_600_000
const START = Date.UTC(2026, 9, 6, 8)
const TRUTH: RackTruth = { loadedAt: START, setC: 57, hours: [0, 2, 4, 8, 12], weightG: [3000, 1900, 1100, 500, 400], tareG: 1550 }
const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length

describe('the simulated world', () => {
  const world = makeWorld(TRUTH)
  it('weighs the food with its trays, less and less', () => {
    expect(world.scaleG(START - HOUR)).toBeGreaterThan(4545)
    expect(Math.abs(world.scaleG(START + 3 * HOUR) - 1550 - 1500)).toBeLessThan(4)
    expect(Math.abs(world.scaleG(START + 40 * HOUR) - 1950)).toBeLessThan(4)
  })
  it('has a machine that warms up and then swings about a heat that is not its dial’s', () => {
    const hours = Array.from({ length: 200 }, (_, i) => world.chamberC(START + 2 * HOUR + i * 47_000))
    expect(mean(hours)).toBeCloseTo(54, 0)
    expect(Math.max(...hours) - Math.min(...hours)).toBeGreaterThan(3)
    expect(world.chamberC(START - HOUR)).toBeLessThan(25)
    expect(world.chamberC(START + 60_000)).toBeLessThan(30)
  })
  it('has a freeze dryer that freezes first and then draws its vacuum', () => {
    const cycle = Math.ceil(START / (30 * HOUR)) * 30 * HOUR
    expect(world.freezeDryer(cycle + 4 * HOUR)).toMatchObject({ pressurePa: 101_325 })
    expect(world.freezeDryer(cycle + 4 * HOUR).celsius).toBeLessThan(-20)
    expect(world.freezeDryer(cycle + 12 * HOUR).pressurePa).toBeLessThan(200)
    expect(world.freezeDryer(cycle + 29 * HOUR).celsius).toBeGreaterThan(30)
  })
  it('is the same world when it is made again', () => {
    const again = makeWorld(TRUTH)
    for (const at of [START, START + 5 * HOUR])
      expect([again.scaleG(at), again.chamberC(at), again.room(at)]).toEqual([world.scaleG(at), world.chamberC(at), world.room(at)])
  })
})

describe('the programs', () => {
  it('run faster than time until they reach the present', () => {
    const clock = simulatedClock(START, 8, 600)
    expect(clock(START)).toBe(START - 8 * HOUR)
    expect(clock(START + 24_000)).toBe(START - 4 * HOUR + 0)
    expect(clock(START + 48_100)).toBeLessThanOrEqual(START + 48_100)
    expect(clock(START + HOUR)).toBe(START + HOUR)
  })
  it('read at their own beat, each instant once', () => {
    const world = makeWorld(TRUTH)
    const from = START + 1234
    const [a, b] = [
      readingsBetween(DEVICES.probe, world, from, from + 60_000),
      readingsBetween(DEVICES.probe, world, from + 60_000, from + 120_000),
    ]
    const at = [...a, ...b].map(reading => reading.at)
    expect(at).toHaveLength(12)
    expect(new Set(at.slice(1).map((instant, i) => instant - at[i]!))).toEqual(new Set([10_000]))
    expect(readingsBetween(DEVICES.hygrometer, world, from, from + 30_000).map(reading => reading.channel)).toEqual(['celsius', 'humidity'])
  })
  it('say which option is wrong', () => {
    expect(optionsOf(['--speed', '60', 'scale'])).toMatchObject({ speed: 60, names: ['scale'], server: 'http://127.0.0.1:4170' })
    expect(() => optionsOf(['--speed', 'fast'])).toThrow('--speed must be a number')
    expect(() => optionsOf(['toaster'])).toThrow('no device “toaster”')
    expect(() => optionsOf(['--colour', 'red'])).toThrow()
  })
})

describe('a device that sends', () => {
  it('keeps what does not arrive and sends it again, in order', async () => {
    const got: number[] = []
    let broken = true
    const server = createServer((request, response) => {
      let text = ''
      request.on('data', chunk => (text += chunk))
      request.on('end', () => {
        const readings = request.method === 'POST' ? (JSON.parse(text) as { readings: { at: number }[] }).readings : []
        if (broken && request.method === 'POST') return void response.writeHead(500).end('{}')
        got.push(...readings.map(reading => reading.at))
        response.end(JSON.stringify({ kept: readings.length, repeated: 0, thinned: 0, refused: [] }))
      })
    })
    await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
    const said: string[] = []
    const sender = new Sender(
      `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      { id: DEVICES.scale.id, name: 'Scale', kind: 'scale', machineId: null },
      words => said.push(words),
    )
    sender.add(Array.from({ length: 1500 }, (_, i) => ({ channel: 'weightG', at: START + i, value: i })))
    expect(await sender.send()).toBe(0)
    expect(said.join()).toContain('1500 readings wait')
    broken = false
    expect(await sender.send()).toBe(1500)
    expect(got).toEqual(Array.from({ length: 1500 }, (_, i) => START + i))
    await new Promise(resolve => server.close(resolve))
  })
})
