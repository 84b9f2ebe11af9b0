import { uuidv7 } from 'uuidv7'
import {
  findQuery,
  forecastQuestion,
  householdSettings,
  listQuery,
  machineSettings,
  newBatch,
  newEntry,
  newJarEntry,
  newRunEntry,
} from '#shared/contracts'
import { BEETROOT } from '../../support/logbook'

const entry = (body: unknown, more: object = {}) => ({ id: uuidv7(), at: 1_790_000_000_000, body, ...more })
const problems = (result: ReturnType<typeof newEntry.safeParse>) =>
  Object.fromEntries((result.error?.issues ?? []).map(issue => [issue.path.join('.'), issue.message]))

describe('an entry at the door', () => {
  it.each<[string, unknown, string, RegExp]>([
    ['text for a weight', { kind: 'weigh', totalG: 'heavy' }, 'body.totalG', /weight in grams/],
    ['a weight of nothing', { kind: 'weigh', totalG: 0 }, 'body.totalG', /above zero/],
    ['a negative weight', { kind: 'split', to: uuidv7(), weightG: -4 }, 'body.weightG', /above zero/],
    ['rounds of nothing', { kind: 'grind', dryInG: 5, powderOutG: 4, rounds: [{ inG: 0 }] }, 'body.rounds.0.inG', /above zero/],
    [
      'a sieve that is a basket',
      { kind: 'grind', dryInG: 5, powderOutG: 4, passes: [{ openingUm: 40_000, throughG: 1, overG: 1 }] },
      'body.passes.0.openingUm',
      /10 mm/,
    ],
    [
      'a product that is wet',
      { kind: 'pack', jarId: uuidv7(), netG: 5, packageKey: 'bag', place: 'x', moisture: 0.8 },
      'body.moisture',
      /not dry/,
    ],
    ['a jar’s taking in a batch’s log', { kind: 'take', jarId: uuidv7(), weightG: 4 }, 'body.kind', /./],
    ['a weight without end', { kind: 'weigh', totalG: Infinity }, 'body.totalG', /./],
    ['a basket of over a tonne', { ...BEETROOT, weightG: 2e6 }, 'body.weightG', /tonne/],
    ['a weighing of nothing', { kind: 'weigh' }, 'body.totalG', /not both and not neither/],
    ['a weighing of both', { kind: 'weigh', totalG: 5, trays: [{ position: 1, weightG: 5 }] }, 'body.totalG', /not both/],
    ['tray nought', { kind: 'weigh', trays: [{ position: 0, weightG: 5 }] }, 'body.trays.0.position', /count from 1/],
    ['half a tray', { kind: 'weigh', trays: [{ position: 1.5, weightG: 5 }] }, 'body.trays.0.position', /whole/],
    ['no trays', { kind: 'load', runId: uuidv7(), machineId: uuidv7(), positions: [], totalG: 5 }, 'body.positions', /at least one tray/],
    ['an unknown kind', { kind: 'dance' }, 'body.kind', /./],
    ['a field too many', { kind: 'note', text: 'x', loud: true }, 'body', /loud/],
    ['an empty note', { kind: 'note', text: '   ' }, 'body.text', /Write something/],
    ['a note without end', { kind: 'note', text: 'x'.repeat(3000) }, 'body.text', /At most 2000/],
    [
      'a feel without answers',
      { kind: 'feel', check: { form: 'pieces', answers: {}, cooled: true, places: 1 } },
      'body.check.answers',
      /at least one question/,
    ],
    ['an unknown package', { kind: 'pack', jarId: uuidv7(), netG: 5, packageKey: 'sock', place: 'x' }, 'body.packageKey', /packed in/],
    [
      'a jar in the oven',
      { kind: 'pack', jarId: uuidv7(), netG: 5, packageKey: 'bag', place: 'x', storageC: 90 },
      'body.storageC',
      /as hot as that/,
    ],
    ['an id that is none', { kind: 'void', target: 'x' }, 'body.target', /UUID/],
  ])('refuses %s', (_, body, field, words) => {
    expect(problems(newEntry.safeParse(entry(body)))[field]).toMatch(words)
  })
  it('refuses an envelope that is none', () => {
    expect(problems(newEntry.safeParse({ id: 'x', at: 'noon', body: { kind: 'note', text: 'x' } }))).toMatchObject({
      id: /./,
      at: expect.stringMatching(/milliseconds/),
    } as never)
    expect(newEntry.safeParse(null).success).toBe(false)
    expect(newEntry.safeParse([]).success).toBe(false)
  })
  it.each<[string, unknown, string, RegExp]>([
    ['taking less than nothing', { kind: 'take', jarId: uuidv7(), weightG: -4 }, 'body.weightG', /above zero/],
    ['a look that nobody has', { kind: 'lookJar', jarId: uuidv7(), saw: 'gold' }, 'body.saw', /what was seen/],
    ['a jar filled from none', { kind: 'fill', jarId: uuidv7(), from: [], packageKey: 'bag', place: 'x' }, 'body.from', /jar to fill from/],
    ['a spoon of nothing', { kind: 'measure', jarId: uuidv7(), ml: 0, weightG: 4 }, 'body.ml', /Above zero/],
    ['six points of five', { kind: 'review', again: 'yes', taste: 6 }, 'body.taste', /At most 5/],
    ['a basket in a jar’s log', BEETROOT, 'body.kind', /./],
  ])('on a jar refuses %s', (_, body, field, words) => {
    expect(problems(newJarEntry.safeParse(entry(body)) as ReturnType<typeof newEntry.safeParse>)[field]).toMatch(words)
  })
  it('takes what is right', () => {
    expect(newEntry.safeParse(entry({ kind: 'weigh', totalG: 812.5 })).success).toBe(true)
    expect(newBatch.safeParse({ id: uuidv7(), entry: entry(BEETROOT) }).success).toBe(true)
    expect(newRunEntry.safeParse(entry({ kind: 'heat', runId: uuidv7(), setC: null })).success).toBe(true)
    expect(newRunEntry.safeParse(entry({ kind: 'weigh', totalG: 5 })).success).toBe(false)
    expect(newRunEntry.safeParse(entry({ kind: 'heat', runId: uuidv7(), setC: 400 })).success).toBe(false)
  })
})

describe('settings and questions at the door', () => {
  const household = {
    name: 'Home',
    timeZone: 'Europe/Lisbon',
    weightUnit: 'g',
    temperatureUnit: 'C',
    clockHours: 24,
    sleepFrom: 1350,
    sleepTo: 390,
    pantryC: 18,
    jarMl: 250,
    version: 1,
  }
  const machine = {
    id: uuidv7(),
    name: 'Cabinet',
    kind: 'dehydrator',
    trays: 9,
    trayAreaM2: 0.14,
    trayTareG: 310,
    watts: 800,
    lowC: 30,
    highC: 74,
  }
  it.each([
    [{ timeZone: 'Mars/Olympus' }],
    [{ weightUnit: 'stone' }],
    [{ clockHours: 13 }],
    [{ sleepTo: 1350 }],
    [{ pantryC: 80 }],
    [{ jarMl: 2.5 }],
    [{ name: '' }],
  ])('refuses a household with %j', change => {
    expect(householdSettings.safeParse({ ...household, ...change }).success).toBe(false)
    expect(householdSettings.safeParse(household).success).toBe(true)
  })
  it.each([
    [{ trays: 0 }],
    [{ trays: 41 }],
    [{ trayAreaM2: 0 }],
    [{ trayTareG: -1 }],
    [{ watts: 0.5 }],
    [{ highC: 20 }],
    [{ kind: 'rocket' }],
  ])('refuses a machine with %j', change => {
    expect(machineSettings.safeParse({ ...machine, ...change }).success).toBe(false)
    expect(machineSettings.safeParse(machine).success).toBe(true)
  })
  it('reads queries, which are text', () => {
    expect(
      forecastQuestion.parse({ foodKey: 'kale', cardKey: 'leaves', purpose: 'powder', weightG: '850', machineId: uuidv7() }).weightG,
    ).toBe(850)
    expect(
      forecastQuestion.safeParse({ foodKey: 'kale', cardKey: 'leaves', purpose: 'powder', weightG: 'lots', machineId: uuidv7() }).success,
    ).toBe(false)
    expect(listQuery.safeParse({ stage: 'limbo' }).success).toBe(false)
    expect(listQuery.parse({ before: '12' }).before).toBe(12)
    expect(findQuery.safeParse({ q: 'x'.repeat(100) }).success).toBe(false)
  })
})
