import { readFileSync } from 'node:fs'
import Ajv from 'ajv/dist/2020.js'
import addFormats from 'ajv-formats'
import { uuidv7 } from 'uuidv7'
import { PASSPHRASE } from './support/house'
import { expect, test, type Demo } from './support/demo'

/** Every route is called on the demo, and each answer held against the published schema by an independent validator. */
interface Operation {
  operationId: string
  responses: Record<string, { content: Record<string, { schema: object }> }>
}
interface Document {
  paths: Record<string, Record<string, Operation>>
  components: object
}

/** What each route is asked: path parameters and query; a body for those that write. */
type Params = Record<string, string>
type Asked = {
  path?: Params | ((demo: Demo) => Promise<Params>)
  query?: Record<string, string>
  body?: (demo: Demo) => Promise<unknown> | unknown
}
const json = async (demo: Demo, path: string, body?: object) =>
  (await (
    await fetch(
      demo.address + path,
      body && { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
    )
  ).json()) as Record<string, never> & Record<string, never>[]
const note = () => ({ id: uuidv7(), at: Date.now(), body: { kind: 'note', text: 'Looked at' } })

const ASKED = (demo: Demo): Record<string, Asked> => {
  const { ids } = demo
  const batchId = ids.beetroot!
  const jarId = ids.jar!
  const forecast = { foodKey: 'tomato', cardKey: 'slices-6', purpose: 'powder', weightG: '4000', machineId: ids.cabinet! }
  return {
    now: {},
    stages: {},
    find: { query: { q: 'beet' } },
    byNumber: { query: { kind: 'batch', number: '1' } },
    batches: {},
    batch: { path: { batchId } },
    batchRecall: { path: { batchId } },
    batchFlow: { path: { batchId } },
    compare: { query: { food: 'beetroot' } },
    insight: { query: { by: 'food' } },
    lessons: {},
    readLesson: { body: () => ({ text: readFileSync('core/practice/lessons/05-bedtime.yaml', 'utf8') }) },
    jar: { path: { jarId } },
    jarRecall: { path: { jarId } },
    labelTemplates: {},
    shelf: {},
    places: {},
    kitchen: {},
    recipes: {},
    pastRecipes: {},
    household: {},
    machines: {},
    machine: { path: { machineId: ids.cabinet! } },
    tools: {},
    hygrometers: {},
    alarms: {},
    saveAlarms: { body: () => ({ quiet: true }) },
    foodPictures: { path: { foodKey: 'kale' } },
    devices: {},
    readings: { query: { machine: ids.cabinet!, from: '0', to: String(Date.now()) } },
    clearTodo: {
      body: async d => {
        const [todo] = ((await json(d, '/api/now')) as unknown as { todos: { batchId: string; kind: string; from: number }[] }).todos
        return { batchId: todo!.batchId, kind: todo!.kind, from: todo!.from, reason: 'was done' }
      },
    },
    plan: {},
    planBook: {},
    planYear: {},
    savePlanBook: {
      body: async d =>
        (({ book, version }) => ({ ...book, handsMinutes: 200, version }))(
          (await json(d, '/api/plan/book')) as unknown as { book: object; version: number },
        ),
    },
    weather: { body: () => ({ source: 'radio', at: Date.now(), days: [{ day: '2026-12-01', sun: 0.5, rain: 0.2 }] }) },
    planCheck: {
      body: async d => ({
        problem: ((await json(d, '/api/plan')) as unknown as { problem: object }).problem,
        plan: { format: 'dulse-plan', form: 2, runs: [], lost: [] },
      }),
    },
    takePlan: { body: () => ({ plan: { format: 'dulse-plan', form: 2, runs: [], lost: [] } }) },
    dropPlan: {},
    forecast: { query: forecast },
    forecastWays: { query: forecast },
    forecastBoughtIn: {
      query: {
        foodKey: 'tomato',
        purpose: 'powder',
        ownPriceKg: '1',
        ownMinutesKg: '10',
        boughtPriceKg: '3',
        boughtMinutesKg: '1',
        hourWorth: '5',
      },
    },
    foods: {},
    food: { path: { foodKey: 'tomato' } },
    foodHours: { path: { foodKey: 'tomato' } },
    learned: { query: { kind: 'food', key: 'tomato' } },
    foodParts: {},
    schools: {},
    logOnBatch: { path: { batchId }, body: note },
    logTogether: { body: () => ({ entries: [{ batchId, entry: note() }] }) },
    startBatch: {
      body: () => ({
        id: uuidv7(),
        entry: {
          id: uuidv7(),
          at: Date.now(),
          body: { kind: 'intake', foodKey: 'carrot', cardKey: 'slices-3', source: 'Market', weightG: 900, purpose: 'powder' },
        },
      }),
    },
    logOnJar: { path: { jarId }, body: () => ({ id: uuidv7(), at: Date.now(), body: { kind: 'smell', jarId, smell: 'strong' } }) },
    upkeep: { path: { machineId: ids.cabinet! }, body: () => ({ id: uuidv7(), task: 'filter', at: Date.now() }) },
    wish: { body: () => ({ foodKey: 'beetroot', leastG: 120 }) },
    saveHousehold: { body: async d => ({ money: '€', version: (await json(d, '/api/household')).version }) },
    saveTool: { body: async d => ({ ...(await json(d, '/api/tools'))[0]!, name: 'Small mill' }) },
    saveHygrometer: {
      body: async d =>
        (({ testedAt: _, calibration: __, ...rest }) => ({ ...rest, name: 'Round one' }))((await json(d, '/api/hygrometers'))[0]!),
    },
    saveDevice: { body: () => ({ id: uuidv7(), name: 'New probe', kind: 'probe', machineId: null }) },
    saveMachine: {
      body: () => ({
        id: uuidv7(),
        name: 'New',
        kind: 'oven',
        trays: 2,
        trayAreaM2: 0.1,
        trayTareG: 0,
        trayTares: {},
        watts: 500,
        lowC: 50,
        highC: 120,
      }),
    },
    saveRecipe: { body: async d => ({ ...(await json(d, '/api/recipes'))[0]!, name: 'Another name' }) },
    takeReadings: {
      body: async d => ({ device: (await json(d, '/api/devices'))[0]!.id, readings: [{ channel: 'celsius', at: Date.now(), value: 20 }] }),
    },
    saveFood: {
      body: async d => ({
        food: {
          ...((await json(d, '/api/foods/carrot')) as unknown as { source: object }).source,
          key: 'own-carrot',
          name: 'Own carrot',
          others: [],
        },
      }),
    },
    saveCard: { body: () => ({ food: 'carrot', form: 'slices 9', hours: '14 to 22' }) },
    removeFood: { path: { foodKey: 'own-carrot' } },
    health: {},
    copies: {},
    makeCopy: { body: () => ({}) },
    copyLoss: { path: { name: copyOfToday } },
    restoreCopy: { path: { name: copyOfToday }, body: () => ({}) },
    whoAmI: {},
    setPassphrase: { body: () => ({ passphrase: PASSPHRASE }) },
    home: {},
    chooseHome: { body: () => ({ askHere: false }) },
    makeCode: { body: () => ({ role: 'cook' }) },
    enter: { body: () => ({ passphrase: PASSPHRASE, name: 'Phone' }) },
    pair: { body: async d => ({ code: (await json(d, '/api/home/codes', { role: 'cook' })).code, name: 'Tablet' }) },
    changeHomeDevice: { path: async d => ({ homeDeviceId: await anyDevice(d) }), body: () => ({ name: 'Other phone', role: 'cook' }) },
    removeHomeDevice: { path: async d => ({ homeDeviceId: await anyDevice(d) }) },
    makeToken: { body: () => ({ name: 'Calendar', use: 'calendar' }) },
    removeToken: {
      path: async d => ({ tokenId: ((await json(d, '/api/home')) as unknown as { tokens: { id: string }[] }).tokens[0]!.id }),
    },
    leave: { body: () => ({}) },
  }
}

const anyDevice = async (d: Demo) => ((await json(d, '/api/home')) as unknown as { devices: { id: string }[] }).devices[0]!.id
const copyOfToday = `logbook-${new Date().toISOString().slice(0, 10)}.sqlite`

/** Routes with tests of their own elsewhere: a run's log, a trial, a recipe that goes, files that come in whole. */
const ELSEWHERE = ['savePicture', 'tryAlarm', 'logOnRun', 'trial', 'removeRecipe', 'importFoods', 'restore']

test('every route that answers in JSON answers as its schema says', async ({ demo }) => {
  const document = (await (await fetch(`${demo.address}/api/openapi.json`)).json()) as Document
  const ajv = new Ajv({ strict: false, allErrors: false })
  addFormats(ajv)
  ajv.addSchema({ $id: 'api', components: document.components })
  const asked = ASKED(demo)
  const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({ path, method, operation })),
  )
  const byName = new Map(operations.map(item => [item.operation.operationId, item]))
  const answering = operations.filter(({ operation }) => {
    const schema = operation.responses[200]!.content['application/json']?.schema as { type?: string } | undefined
    return schema && JSON.stringify(schema) !== '{"type":"object"}'
  })
  expect(answering.map(({ operation }) => operation.operationId).filter(name => !(name in asked) && !ELSEWHERE.includes(name))).toEqual([])
  for (const [name, { path: given = {}, query, body }] of Object.entries(asked)) {
    const params = typeof given === 'function' ? await given(demo) : given
    const { path, method, operation } = byName.get(name)!
    const address = path.replace(/\{(\w+)\}/g, (_, key: string) => params[key]!) + (query ? `?${new URLSearchParams(query)}` : '')
    const sent = body ? JSON.stringify(await body(demo)) : undefined
    const response = await fetch(demo.address + address, {
      method: method.toUpperCase(),
      body: sent,
      headers: sent ? { 'content-type': 'application/json' } : undefined,
    })
    const text = await response.text()
    expect([name, response.status, response.status === 200 ? '' : text]).toEqual([name, 200, ''])
    const schema = JSON.parse(
      JSON.stringify(operation.responses[200]!.content['application/json']!.schema).replaceAll('"#/', '"api#/'),
    ) as object
    const valid = ajv.compile(schema)
    valid(JSON.parse(text))
    expect([name, ajv.errorsText(valid.errors)]).toEqual([name, 'No errors'])
  }
})

test('a refusal answers as its schema says, with a code', async ({ demo }) => {
  const document = (await (await fetch(`${demo.address}/api/openapi.json`)).json()) as Document
  const ajv = new Ajv({ strict: false })
  ajv.addSchema({ $id: 'api', components: document.components })
  const valid = ajv.compile({ $ref: 'api#/components/schemas/Refusal' })
  for (const [path, body] of [
    ['/api/batches/nobody', undefined],
    [`/api/batches/${demo.ids.beetroot}/entries`, { id: uuidv7(), at: Date.now(), body: { kind: 'weigh', totalG: 90_000 } }],
    [`/api/batches/${demo.ids.beetroot}/entries`, { id: 4 }],
  ] as const) {
    const response = await fetch(demo.address + path, {
      method: body ? 'POST' : 'GET',
      body: body && JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    })
    const refusal = (await response.json()) as { statusCode: number; problems: { field: string; code: string }[] }
    expect(valid(refusal)).toBe(true)
    expect(refusal.statusCode).toBe(response.status)
    for (const { field, code } of refusal.problems) expect([field, code]).toEqual([expect.any(String), expect.stringMatching(/^[a-z-]+$/)])
  }
})
