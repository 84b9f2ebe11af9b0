import { uuidv7 } from 'uuidv7'
import { ofKind } from '#core/log'
import type { LiveEvent, Reading } from '#shared/contracts'
import { readingsFromCsv } from '#server/devices/readingsCsv'
import { MOST_A_SECOND, ReadingIntake } from '#server/devices/readingIntake'
import { TooFast } from '#server/services/refusals'
import { entriesOfRun } from '#server/db/entries'
import { deviceList, readingSeries, saveDevice } from '#server/services/devices'
import { HOUR, testBook } from '../../support/logbook'

const MINUTE = 60_000

function desk() {
  const book = testBook()
  const probe = saveDevice(book.context, { id: uuidv7(), name: 'Probe', kind: 'probe', machineId: book.machineId })
  const intake = new ReadingIntake(book.context)
  const take = async (readings: unknown[], device = probe.id) => {
    const answer = intake.take({ device, readings })
    intake.flush()
    return answer
  }
  const celsius = (at: number, value: number): Reading => ({ channel: 'celsius', at, value })
  return { book, probe, intake, take, celsius }
}

describe('readings of devices', () => {
  it('are kept once they are on the disk, and answered then', async () => {
    const { book, take, celsius } = desk()
    const at = book.at(2)
    expect(await take([celsius(at - 1000, 55.1), celsius(at, 55.3)])).toEqual({ kept: 2, repeated: 0, thinned: 0, refused: [] })
    expect(deviceList(book.context)[0]!.last).toEqual([{ channel: 'celsius', at, value: 55.3 }])
  })
  it('are of the moment when they come without a time', async () => {
    const { book, take } = desk()
    const at = book.at(3)
    await take([{ channel: 'celsius', value: 20 }])
    expect(deviceList(book.context)[0]!.last[0]!.at).toBe(at)
  })
  it.each<[string, unknown, string, RegExp]>([
    ['text', { channel: 'celsius', value: 'warm' }, 'value', /not text/],
    ['NaN, which JSON writes as null', { channel: 'celsius', value: null }, 'value', /number/],
    ['a channel that there is none of', { channel: 'smell', value: 1 }, 'channel', /celsius, humidity/],
    ['more than a probe can read', { channel: 'celsius', value: 5000 }, 'value', /from −80 to 300/],
    ['humidity in percent', { channel: 'humidity', value: 54 }, 'value', /share from 0 to 1/],
    ['the future', { channel: 'celsius', at: 4e12, value: 20 }, 'at', /future/],
    ['the last century', { channel: 'celsius', at: 1, value: 20 }, 'at', /2000/],
    ['no reading at all', 'x', 'reading', /./],
  ])('that say %s are refused with the field and the mend, and the rest is kept', async (_, bad, field, message) => {
    const { book, take, celsius } = desk()
    const answer = await take([celsius(book.at(1), 50), bad, celsius(book.at(1) + 1000, 51)])
    expect(answer.kept).toBe(2)
    expect(answer.refused).toEqual([{ index: 1, field, code: expect.stringMatching(/^[a-z-]+$/), message: expect.stringMatching(message) }])
  })
  it('that come twice are passed over; another figure at the same instant is refused', async () => {
    const { book, take, celsius } = desk()
    const at = book.at(2)
    await take([celsius(at, 55)])
    expect(await take([celsius(at, 55)])).toMatchObject({ kept: 0, repeated: 1, refused: [] })
    expect(await take([celsius(at, 56)])).toMatchObject({
      kept: 0,
      refused: [{ index: 0, message: expect.stringContaining('read 55 already') }],
    })
  })
  it('at a thousand a second are thinned and counted', async () => {
    const { book, take, celsius } = desk()
    const at = Math.floor(book.at(2) / 1000) * 1000 - 2000
    const answer = await take(Array.from({ length: 2000 }, (_, i) => celsius(at + i, 50)))
    expect(answer).toEqual({ kept: 2 * MOST_A_SECOND, repeated: 0, thinned: 2000 - 2 * MOST_A_SECOND, refused: [] })
  })
  it('beyond what the disk can take are sent back', () => {
    const { book, intake, probe, celsius } = desk()
    const at = book.at(2)
    const post = (i: number) =>
      intake.take({ device: probe.id, readings: Array.from({ length: 5000 }, (_, n) => celsius(at - (i * 5000 + n) * 1000, 50)) })
    for (let i = 0; i < 4; i++) void post(i)
    expect(() => post(4)).toThrow(TooFast)
    intake.flush()
  })
  it('of a device that nobody knows are refused', () => {
    const { intake } = desk()
    expect(() => intake.take({ device: uuidv7(), readings: [{ channel: 'celsius', value: 1 }] })).toThrow('no device with this id')
  })
  it('are told to open pages, the newest of each channel', async () => {
    const { book, take, celsius, probe } = desk()
    const heard: LiveEvent[] = []
    const stop = book.context.live.listen(event => heard.push(event))
    const at = book.at(2)
    await take([celsius(at, 55), celsius(at - 1000, 54)])
    stop()
    await take([celsius(at - 2000, 53)])
    expect(heard).toEqual([
      { kind: 'readings', readings: [{ deviceId: probe.id, machineId: book.machineId, channel: 'celsius', at, value: 55 }] },
    ])
  })
  it('are given thinned: so many points, with the least and the greatest of each stretch', async () => {
    const { book, take, celsius, probe } = desk()
    const from = book.at(2)
    book.at(3)
    for (let part = 0; part < 4; part++)
      await take(Array.from({ length: 900 }, (_, i) => celsius(from + (part * 900 + i) * 1000, 50 + (i % 10))))
    const [series] = readingSeries(book.context, { machine: book.machineId, from, to: from + HOUR, points: 60 })
    expect(series).toMatchObject({ deviceId: probe.id, channel: 'celsius', count: 3600 })
    expect(series!.points.length).toBeLessThanOrEqual(61)
    for (const point of series!.points) {
      expect(point.low).toBe(50)
      expect(point.high).toBe(59)
      expect(point.value).toBeCloseTo(54.5, 0)
    }
    expect(readingSeries(book.context, { device: uuidv7(), from, to: from + HOUR, points: 60 })).toEqual([])
  })
})

describe('what devices measure at a machine', () => {
  it('goes into the run’s log as means of ten minutes: every half hour, or when it changes', async () => {
    const { book, take, celsius } = desk()
    const batchId = book.begin()
    const runId = uuidv7()
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1], totalG: 600 })
    book.heat(runId, 1, 57)
    const start = book.at(1)
    book.at(4)
    // A thermostat that swings by two degrees about 53, and falls to 45 in the third hour.
    for (let minute = 0; minute < 175; minute += 1)
      await take([celsius(start + minute * MINUTE, (minute < 130 ? 53 : 45) + 2 * Math.sin(minute))])
    const airs = ofKind(entriesOfRun(book.context.db, runId), 'air')
    expect(airs.length).toBeGreaterThanOrEqual(5)
    expect(airs.length).toBeLessThanOrEqual(8)
    // Nothing of the first half hour, when the machine is on its way.
    expect(airs[0]!.at).toBeGreaterThanOrEqual(start + 30 * MINUTE)
    expect(airs[0]!.body.chamberC).toBeCloseTo(53, 0)
    expect(airs.at(-1)!.body.chamberC).toBeLessThan(47)
    const changed = airs.find(entry => entry.body.chamberC! < 51)!
    expect(changed.at).toBeLessThanOrEqual(start + 145 * MINUTE)
  })
  it('is not logged where nothing runs', async () => {
    const { book, take, celsius } = desk()
    await take([celsius(book.at(2), 53)])
    expect(book.context.db.prepare('SELECT count(*) AS n FROM entry').get()).toEqual({ n: 0 })
  })
})

describe('devices', () => {
  it('make themselves known again without a change, and are changed by version only', () => {
    const { book, probe } = desk()
    const { last: _, version, ...plain } = probe
    expect(saveDevice(book.context, plain)).toEqual(probe)
    expect(() => saveDevice(book.context, { ...plain, name: 'Other' })).toThrow('changed elsewhere')
    expect(saveDevice(book.context, { ...plain, name: 'Other', version }).name).toBe('Other')
    expect(() => saveDevice(book.context, { ...plain, id: uuidv7(), machineId: uuidv7() })).toThrow('no such machine')
  })
})

describe('readings as CSV', () => {
  it('have named columns in any order', () => {
    expect(readingsFromCsv('value,at,channel\n55.3,2026-10-06T10:00:00Z,celsius\n0.41,1791280800000,humidity\n20,,celsius\n')).toEqual([
      { channel: 'celsius', value: 55.3, at: Date.UTC(2026, 9, 6, 10) },
      { channel: 'humidity', value: 0.41, at: 1_791_280_800_000 },
      { channel: 'celsius', value: 20 },
    ])
  })
  it('go on as text where they are no figures or no instants, to be refused by line', async () => {
    const { take } = desk()
    const answer = await take(readingsFromCsv('channel,value,at\ncelsius,"55,3",\ncelsius,55,2026-10-06 10:00\n'))
    expect(answer.refused.map(item => `${item.index} ${item.field}`)).toEqual(['0 value', '1 at'])
  })
  it('need their columns', () => {
    expect(() => readingsFromCsv('a,b\n1,2')).toThrow('Missing: channel, value')
  })
})
