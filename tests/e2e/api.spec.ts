import { expect, test } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { startDulse, type RunningServer } from './support/server'

let server: RunningServer
let batchId: string
let machine: { id: string; version: number }
let household: Record<string, unknown>
const runId = uuidv7()
const now = () => Date.now()

const send = (method: string, path: string, body?: unknown, type = 'application/json') =>
  fetch(server.address + path, {
    method,
    headers: body === undefined ? {} : { 'content-type': type },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  })
const entry = (body: unknown, more: object = {}) => ({ id: uuidv7(), at: now() - 1000, body, ...more })
const intake = { kind: 'intake', foodKey: 'beetroot', source: 'Market', weightG: 2000, purpose: 'powder', cardKey: 'slices-3' }
const NOBODY = uuidv7()
const OCA = {
  key: 'oca',
  name: 'Oca',
  family: 'root',
  water: '83 ± 2',
  trim: '10 ± 4',
  waits: 20,
  colour: '#D2A05A',
  forms: { 'slices 3': '7 to 12' },
}
const log = async () => (await send('GET', '/api/export.csv')).text()

test.beforeAll(async () => {
  server = await startDulse()
  batchId = uuidv7()
  const [{ hoursRun: _, upkeep: __, evenness: ___, ...settings }] = (await (await send('GET', '/api/machines')).json()) as [
    Record<string, unknown>,
  ]
  machine = settings as typeof machine
  household = (await (await send('GET', '/api/household')).json()) as typeof household
  const at = now() - 5 * 3_600_000
  for (const [path, body] of [
    ['/api/batches', { id: batchId, entry: entry(intake, { at: at - 1000 }) }],
    [`/api/batches/${batchId}/entries`, entry({ kind: 'load', runId, machineId: machine.id, positions: [1, 2], totalG: 1700 }, { at })],
    [`/api/runs/${runId}/entries`, entry({ kind: 'heat', runId, setC: 57 }, { at })],
  ] as const)
    expect((await send('POST', path, body)).status).toBe(200)
})
test.afterAll(() => server.stop())

const entries = () => `/api/batches/${batchId}/entries`
interface Bad {
  name: string
  method: string
  path: () => string
  body?: () => unknown
  type?: string
  status: number
  words: RegExp
}
const BAD: Bad[] = [
  {
    name: 'text for a weight',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'weigh', totalG: 'heavy' }),
    status: 400,
    words: /body\.totalG.*weight in grams/,
  },
  {
    name: 'more than was loaded',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'weigh', totalG: 4000 }),
    status: 422,
    words: /totalG.*more than the 1700 g/,
  },
  {
    name: 'a date in the future',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'weigh', totalG: 400 }, { at: now() + 86_400_000 }),
    status: 422,
    words: /"at".*future/,
  },
  {
    name: 'a jar of what was not ground',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'pack', jarId: uuidv7(), netG: 50, packageKey: 'bag', place: 'x' }),
    status: 422,
    words: /Grind before packing/,
  },
  {
    name: 'a correction of nothing',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'weigh', totalG: 400 }, { replaces: uuidv7() }),
    status: 422,
    words: /no such entry/,
  },
  {
    name: 'an unknown machine',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'load', runId: uuidv7(), machineId: uuidv7(), positions: [1], totalG: 5 }),
    status: 422,
    words: /in a machine already|no such machine/,
  },
  {
    name: 'an unknown batch',
    method: 'POST',
    path: () => `/api/batches/${uuidv7()}/entries`,
    body: () => entry({ kind: 'note', text: 'x' }),
    status: 404,
    words: /no such batch/,
  },
  {
    name: 'an id that is none',
    method: 'POST',
    path: () => '/api/batches/27/entries',
    body: () => entry({ kind: 'note', text: 'x' }),
    status: 404,
    words: /not one of Dulse/,
  },
  { name: 'broken JSON', method: 'POST', path: entries, body: () => '{"id": "x', status: 400, words: /not JSON/ },
  { name: 'an empty body', method: 'POST', path: entries, body: () => ' ', status: 400, words: /body is empty/ },
  {
    name: 'a body of 2 MB',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'note', text: 'x'.repeat(2_000_000) }),
    status: 413,
    words: /over 64 kB/,
  },
  {
    name: 'JSON that is not called so',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'note', text: 'x' }),
    type: 'text/plain',
    status: 415,
    words: /Send JSON/,
  },
  { name: 'a list for an entry', method: 'POST', path: entries, body: () => [], status: 400, words: /./ },
  {
    name: 'a basket of an unknown food',
    method: 'POST',
    path: () => '/api/batches',
    body: () => ({ id: uuidv7(), entry: entry({ ...intake, foodKey: 'cloud' }) }),
    status: 422,
    words: /not a food in the reference/,
  },
  {
    name: 'a basket of nothing',
    method: 'POST',
    path: () => '/api/batches',
    body: () => ({ id: uuidv7(), entry: entry({ ...intake, weightG: 0 }) }),
    status: 400,
    words: /above zero/,
  },
  {
    name: 'a batch that is there',
    method: 'POST',
    path: () => '/api/batches',
    body: () => ({ id: batchId, entry: entry(intake) }),
    status: 409,
    words: /with this id already/,
  },
  {
    name: 'a heat beyond the machine',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'heat', runId, setC: 140 }),
    status: 422,
    words: /goes from 35 °C to 75/,
  },
  {
    name: 'text for a heat',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'heat', runId, setC: 'hot' }),
    status: 400,
    words: /Give a temperature/,
  },
  {
    name: 'an unknown run',
    method: 'POST',
    path: () => `/api/runs/${uuidv7()}/entries`,
    body: () => entry({ kind: 'heat', runId: uuidv7(), setC: 50 }),
    status: 404,
    words: /no such run/,
  },
  {
    name: 'a household on Mars',
    method: 'PUT',
    path: () => '/api/household',
    body: () => ({ ...household, timeZone: 'Mars/Olympus' }),
    status: 400,
    words: /not a time zone/,
  },
  {
    name: 'an old version of the household',
    method: 'PUT',
    path: () => '/api/household',
    body: () => ({ ...household, name: 'Other', version: 99 }),
    status: 409,
    words: /changed elsewhere/,
  },
  {
    name: 'a machine without trays',
    method: 'PUT',
    path: () => '/api/machines',
    body: () => ({ ...machine, trays: 0 }),
    status: 400,
    words: /At least one tray/,
  },
  {
    name: 'a machine that gives up a tray in use',
    method: 'PUT',
    path: () => '/api/machines',
    body: () => ({ ...machine, trays: 1 }),
    status: 422,
    words: /Tray 2 is in use/,
  },
  {
    name: 'a load into another kind of machine',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'load', runId: uuidv7(), machineId: machine.id, positions: [1], totalG: 5, way: 'kettle' }),
    status: 400,
    words: /way.*Choose a way/,
  },
  {
    name: 'a caution that there is not',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'caution', rule: 'luck' }),
    status: 422,
    words: /no caution/,
  },
  {
    name: 'a hold nowhere',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'hold', place: 'shed' }),
    status: 400,
    words: /Say where it is kept/,
  },
  {
    name: 'a hold in a machine',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'hold', place: 'freezer' }),
    status: 422,
    words: /in a machine/,
  },
  {
    name: 'dusk after midnight',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'outlook', runId, duskMinute: 1500 }),
    status: 400,
    words: /1439 minutes/,
  },
  {
    name: 'a thermometer on fire',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'prep', step: 'cook', effect: 'none', coreC: 400 }),
    status: 400,
    words: /check the thermometer/,
  },
  {
    name: 'a step that there is not',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'prep', step: 'dance', effect: 'none' }),
    status: 400,
    words: /step of preparing/,
  },
  {
    name: 'a food of 130 % water',
    method: 'PUT',
    path: () => '/api/foods',
    body: () => ({ food: { ...OCA, water: '130 ± 2' } }),
    status: 400,
    words: /food\.water.*130 is not possible/,
  },
  {
    name: 'a food of a name that is taken',
    method: 'PUT',
    path: () => '/api/foods',
    body: () => ({ food: { ...OCA, name: 'Carrot' } }),
    status: 422,
    words: /"name".*“Carrot” already/,
  },
  {
    name: 'a card of an unknown food',
    method: 'PUT',
    path: () => '/api/foods/cards',
    body: () => ({ food: 'cloud', form: 'slices 3', hours: '3 to 4' }),
    status: 422,
    words: /no food “cloud”/,
  },
  {
    name: 'a card of negative hours',
    method: 'PUT',
    path: () => '/api/foods/cards',
    body: () => ({ food: 'carrot', form: 'slices 7', hours: '-3 to 4' }),
    status: 400,
    words: /not negative/,
  },
  {
    name: 'a file of foods of the wrong shape',
    method: 'POST',
    path: () => '/api/foods/import',
    body: () => 'carrots: many\n',
    type: 'application/yaml',
    status: 422,
    words: /begins with “dulse: foods 1”/,
  },
  {
    name: 'a file of foods that is too large',
    method: 'POST',
    path: () => '/api/foods/import',
    body: () => `# ${'x'.repeat(600_000)}`,
    type: 'application/yaml',
    status: 413,
    words: /over 512 kB/,
  },
  {
    name: 'a file of foods that is called a picture',
    method: 'POST',
    path: () => '/api/foods/import',
    body: () => 'dulse: foods 1',
    type: 'image/png',
    status: 422,
    words: /application\/yaml/,
  },
  { name: 'a food that there is not', method: 'GET', path: () => '/api/foods/cloud', status: 404, words: /no such food/ },
  {
    name: 'taking a food of the reference away',
    method: 'DELETE',
    path: () => '/api/foods/carrot',
    status: 404,
    words: /those of the reference stay/,
  },
  {
    name: 'ways for a basket of nothing',
    method: 'GET',
    path: () => `/api/forecast/ways?foodKey=kale&cardKey=leaves&purpose=powder&weightG=0&machineId=${machine.id}`,
    status: 400,
    words: /above zero/,
  },
  {
    name: 'minutes below zero',
    method: 'GET',
    path: () =>
      '/api/forecast/bought-in?foodKey=garlic&purpose=powder&ownPriceKg=1&ownMinutesKg=-5&boughtPriceKg=8&boughtMinutesKg=1&hourWorth=0',
    status: 400,
    words: /ownMinutesKg.*not negative/,
  },
  {
    name: 'a forecast of text',
    method: 'GET',
    path: () => `/api/forecast?foodKey=kale&cardKey=leaves&purpose=powder&weightG=lots&machineId=${machine.id}`,
    status: 400,
    words: /weightG/,
  },
  {
    name: 'a forecast of an unknown machine',
    method: 'GET',
    path: () => `/api/forecast?foodKey=kale&cardKey=leaves&purpose=powder&weightG=900&machineId=${uuidv7()}`,
    status: 404,
    words: /no such machine/,
  },
  { name: 'a list of an unknown stage', method: 'GET', path: () => '/api/batches?stage=limbo', status: 400, words: /stage of the band/ },
  { name: 'an unknown batch’s page', method: 'GET', path: () => `/api/batches/${uuidv7()}`, status: 404, words: /no such batch/ },
  { name: 'an unknown jar', method: 'GET', path: () => `/api/jars/${uuidv7()}`, status: 404, words: /no such jar/ },
  { name: 'an unknown jar’s label', method: 'GET', path: () => `/api/jars/${uuidv7()}/label.svg`, status: 404, words: /no such jar/ },
  { name: 'an unknown jar’s PDF', method: 'GET', path: () => `/api/jars/${uuidv7()}/label.pdf`, status: 404, words: /no such jar/ },
  {
    name: 'taking from an unknown jar',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () => entry({ kind: 'take', jarId: NOBODY, weightG: 5 }),
    status: 404,
    words: /no such jar/,
  },
  {
    name: 'an entry of another jar',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () => entry({ kind: 'fill', jarId: uuidv7(), from: [{ jarId: uuidv7(), weightG: 5 }], packageKey: 'bag', place: 'x' }),
    status: 422,
    words: /belongs to another jar/,
  },
  {
    name: 'a jar filled from one that is not',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () => entry({ kind: 'fill', jarId: NOBODY, from: [{ jarId: uuidv7(), weightG: 5 }], packageKey: 'bag', place: 'x' }),
    status: 422,
    words: /from\.jarId.*no such jar/,
  },
  {
    name: 'a taking in a batch’s log',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'take', jarId: uuidv7(), weightG: 5 }),
    status: 400,
    words: /body/,
  },
  {
    name: 'a sieve series out of order',
    method: 'POST',
    path: entries,
    body: () => entry({ kind: 'grind', dryInG: 50, powderOutG: 40, passes: [{ openingUm: 0, throughG: 1, overG: 1 }] }),
    status: 400,
    words: /passes\.0\.openingUm.*20 µm/,
  },
  {
    name: 'a batch from a jar that is not',
    method: 'POST',
    path: () => '/api/batches',
    body: () => ({ id: uuidv7(), entry: entry({ ...intake, weightG: 20, fromJars: [{ jarId: uuidv7(), weightG: 20 }] }) }),
    status: 422,
    words: /fromJars\.jarId.*no such jar/,
  },
  {
    name: 'a grinder without a cup',
    method: 'PUT',
    path: () => '/api/tools',
    body: () => ({ id: uuidv7(), kind: 'grinder', name: 'Mill', watts: 150, cupCm: 7, fineness: 'fine' }),
    status: 400,
    words: /cupMl.*cup’s volume/,
  },
  {
    name: 'a tool that is neither',
    method: 'PUT',
    path: () => '/api/tools',
    body: () => ({ id: uuidv7(), kind: 'hammer', name: 'Hammer' }),
    status: 400,
    words: /grinder or a sieve/,
  },
  {
    name: 'a wish for an unknown food',
    method: 'PUT',
    path: () => '/api/shelf/wishes',
    body: () => ({ foodKey: 'cloud', leastG: 100 }),
    status: 422,
    words: /not a food in the reference/,
  },
  {
    name: 'a wish for nothing',
    method: 'PUT',
    path: () => '/api/shelf/wishes',
    body: () => ({ foodKey: 'kale', leastG: 0 }),
    status: 400,
    words: /leastG.*Above zero/,
  },
  { name: 'insight by the moon', method: 'GET', path: () => '/api/insight?by=moon', status: 400, words: /food, card, purpose or machine/ },
  { name: 'a trial of one', method: 'GET', path: () => `/api/trial?batches=${batchId}`, status: 400, words: /two batches/ },
  {
    name: 'a trial against itself',
    method: 'GET',
    path: () => `/api/trial?batches=${batchId},${batchId}`,
    status: 400,
    words: /against itself/,
  },
  {
    name: 'a trial with what is not there',
    method: 'GET',
    path: () => `/api/trial?batches=${batchId},${uuidv7()}`,
    status: 404,
    words: /not there/,
  },
  {
    name: 'a recall of an unknown batch',
    method: 'GET',
    path: () => `/api/batches/${uuidv7()}/recall`,
    status: 404,
    words: /no such batch/,
  },
  {
    name: 'a card of an unknown batch',
    method: 'GET',
    path: () => `/api/batches/${uuidv7()}/card.pdf`,
    status: 404,
    words: /no such batch/,
  },
  { name: 'a sheet of no labels', method: 'GET', path: () => '/api/labels/sheet.pdf?jars=', status: 400, words: /Choose a jar/ },
  {
    name: 'a sheet on unknown paper',
    method: 'GET',
    path: () => `/api/labels/sheet.pdf?jars=${uuidv7()}&template=a5-2`,
    status: 422,
    words: /no template/,
  },
  { name: 'a number that nobody has', method: 'GET', path: () => '/api/by-number?kind=jar&number=77', status: 404, words: /no jar 77/ },
  { name: 'a number of nothing', method: 'GET', path: () => '/api/by-number?kind=hat&number=1', status: 400, words: /jar or a batch/ },
  { name: 'looking for nothing', method: 'GET', path: () => '/api/find', status: 400, words: /words to look for/ },
  {
    name: 'a move from an empty place',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'move', runId, trays: [{ from: 5, to: 6 }] }),
    status: 422,
    words: /trays\.0\.from.*No tray stands at 5/,
  },
  {
    name: 'a move onto another tray',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'move', runId, trays: [{ from: 1, to: 2 }] }),
    status: 422,
    words: /Two trays would stand at 2/,
  },
  {
    name: 'a move that moves nothing',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'move', runId, trays: [{ from: 1, to: 1 }] }),
    status: 400,
    words: /stays as it is/,
  },
  {
    name: 'a tick of another machine’s list',
    method: 'POST',
    path: () => `/api/runs/${runId}/entries`,
    body: () => entry({ kind: 'tick', runId, list: 'start', item: 'drain' }),
    status: 422,
    words: /not on this machine’s list/,
  },
  {
    name: 'upkeep of another machine',
    method: 'POST',
    path: () => `/api/machines/${machine.id}/upkeep`,
    body: () => ({ id: uuidv7(), task: 'oil', at: now() }),
    status: 422,
    words: /not a task of this kind of machine: filter/,
  },
  {
    name: 'upkeep of no machine',
    method: 'POST',
    path: () => `/api/machines/${uuidv7()}/upkeep`,
    body: () => ({ id: uuidv7(), task: 'oil', at: now() }),
    status: 404,
    words: /no such machine/,
  },
  { name: 'an unknown machine’s page', method: 'GET', path: () => `/api/machines/${uuidv7()}`, status: 404, words: /no such machine/ },
  {
    name: 'a machine of no kind',
    method: 'PUT',
    path: () => '/api/machines',
    body: () => ({ ...machine, kind: 'kiln' }),
    status: 400,
    words: /Choose a kind of machine/,
  },
  {
    name: 'a tray’s weight that is none',
    method: 'PUT',
    path: () => '/api/machines',
    body: () => ({ ...machine, trayTares: { top: 300 } }),
    status: 400,
    words: /Trays count from 1 to 40/,
  },
  {
    name: 'a device of no kind',
    method: 'PUT',
    path: () => '/api/devices',
    body: () => ({ id: uuidv7(), name: 'x', kind: 'toaster', machineId: null }),
    status: 400,
    words: /Choose a kind of device/,
  },
  {
    name: 'a device at no machine',
    method: 'PUT',
    path: () => '/api/devices',
    body: () => ({ id: uuidv7(), name: 'x', kind: 'probe', machineId: uuidv7() }),
    status: 422,
    words: /machineId.*no such machine/,
  },
  {
    name: 'readings of an unknown device',
    method: 'POST',
    path: () => '/api/readings',
    body: () => ({ device: uuidv7(), readings: [{ channel: 'celsius', value: 20 }] }),
    status: 404,
    words: /no device with this id/,
  },
  {
    name: 'no readings',
    method: 'POST',
    path: () => '/api/readings',
    body: () => ({ device: uuidv7(), readings: [] }),
    status: 400,
    words: /at least one reading/,
  },
  {
    name: 'too many readings',
    method: 'POST',
    path: () => '/api/readings',
    body: () => ({ device: uuidv7(), readings: Array.from({ length: 5001 }, () => 1) }),
    status: 400,
    words: /At most 5000/,
  },
  {
    name: 'a table without its columns',
    method: 'POST',
    path: () => `/api/readings?device=${uuidv7()}`,
    body: () => 'a,b\n1,2\n',
    type: 'text/csv',
    status: 422,
    words: /Missing: channel, value/,
  },
  {
    name: 'readings to no end',
    method: 'GET',
    path: () => `/api/readings?machine=${machine.id}&from=5&to=5`,
    status: 400,
    words: /end must be after the start/,
  },
  { name: 'readings of nothing', method: 'GET', path: () => '/api/readings?from=1&to=5', status: 400, words: /Name a device or a machine/ },
  { name: 'a comparison of nothing', method: 'GET', path: () => '/api/compare', status: 400, words: /food/ },
  {
    name: 'a recipe of an unknown food',
    method: 'PUT',
    path: () => '/api/recipes',
    body: () => ({ id: uuidv7(), kind: 'dish', name: 'Soup', powders: [{ foodKey: 'cloud', amount: { by: 'weight', grams: 5 } }] }),
    status: 422,
    words: /powders\.0\.foodKey.*neither a food/,
  },
  {
    name: 'a recipe by the handful',
    method: 'PUT',
    path: () => '/api/recipes',
    body: () => ({ id: uuidv7(), kind: 'blend', name: 'Rub', parts: [{ foodKey: 'cumin', amount: { by: 'handful', count: 1 } }] }),
    status: 400,
    words: /parts\.0\.amount.*by weight, by spoons/,
  },
  {
    name: 'a recipe into an unknown product',
    method: 'PUT',
    path: () => '/api/recipes',
    body: () => ({
      id: uuidv7(),
      kind: 'dish',
      name: 'Soup',
      powders: [{ foodKey: 'tomato', amount: { by: 'product', grams: 5, product: 'mist' } }],
    }),
    status: 422,
    words: /is no product/,
  },
  { name: 'a recipe that is not there', method: 'DELETE', path: () => `/api/recipes/${uuidv7()}`, status: 404, words: /no such recipe/ },
  {
    name: 'a packet of an unknown spice',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () => entry({ kind: 'stock', jarId: NOBODY, foodKey: 'unicorn', purpose: 'powder', netG: 20, packageKey: 'bag', place: 'x' }),
    status: 422,
    words: /neither a food nor a bought-in good/,
  },
  {
    name: 'a packet hotter at its mildest',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () =>
      entry({
        kind: 'stock',
        jarId: NOBODY,
        foodKey: 'cumin',
        purpose: 'powder',
        netG: 20,
        packageKey: 'bag',
        place: 'x',
        heat: { low: 500, high: 100 },
      }),
    status: 400,
    words: /heat\.high.*below the milder/,
  },
  {
    name: 'a blend of jars that are not',
    method: 'POST',
    path: () => `/api/jars/${NOBODY}/entries`,
    body: () =>
      entry({
        kind: 'fill',
        jarId: NOBODY,
        from: [{ jarId: uuidv7(), weightG: 5 }],
        packageKey: 'bag',
        place: 'x',
        blend: { name: 'Rub' },
      }),
    status: 422,
    words: /from\.jarId.*no such jar/,
  },
  {
    name: 'a table that is not there',
    method: 'GET',
    path: () => '/api/export/tables/secrets.csv',
    status: 400,
    words: /Choose a table: batches/,
  },
  {
    name: 'a table of another kind',
    method: 'POST',
    path: () => '/api/import/table',
    body: () => ({ kind: 'wishes', text: 'a', settings: {} }),
    status: 400,
    words: /weigh-ins or an inventory/,
  },
  {
    name: 'a table without its settings',
    method: 'POST',
    path: () => '/api/import/table?check=perhaps',
    body: () => ({ kind: 'inventory', text: 'a' }),
    status: 400,
    words: /check=true or check=false/,
  },
  {
    name: 'a logbook that is called a picture',
    method: 'POST',
    path: () => '/api/import/logbook',
    body: () => 'x',
    type: 'image/png',
    status: 422,
    words: /application\/json/,
  },
  {
    name: 'a backup that is called a form',
    method: 'POST',
    path: () => '/api/restore',
    body: () => 'x',
    type: 'text/plain',
    status: 422,
    words: /application\/vnd\.sqlite3/,
  },
  {
    name: 'a backup that is text',
    method: 'POST',
    path: () => '/api/restore',
    body: () => 'not a database at all, but long enough to be looked at',
    type: 'application/vnd.sqlite3',
    status: 422,
    words: /no SQLite database/,
  },
  { name: 'a recall of an unknown jar', method: 'GET', path: () => `/api/jars/${uuidv7()}/recall`, status: 404, words: /no such jar/ },
  {
    name: 'cups of another country',
    method: 'PUT',
    path: () => '/api/household',
    body: () => ({ ...household, measures: 'japanese' }),
    status: 400,
    words: /US or metric/,
  },
  {
    name: 'dates of another tongue',
    method: 'PUT',
    path: () => '/api/household',
    body: () => ({ ...household, locale: 'xx' }),
    status: 400,
    words: /how dates are written/,
  },
  { name: 'an address that is not there', method: 'GET', path: () => '/api/cellar', status: 404, words: /not an address of Dulse/ },
  {
    name: 'a verb that is not there',
    method: 'DELETE',
    path: () => `/api/batches/${batchId}`,
    status: 404,
    words: /not an address of Dulse/,
  },
]

for (const bad of BAD) {
  test(`refuses ${bad.name}`, async () => {
    const before = await log()
    const answer = await send(bad.method, bad.path(), bad.body?.(), bad.type)
    const text = await answer.text()
    expect(answer.status).toBe(bad.status)
    expect(text).toMatch(bad.words)
    const refusal = JSON.parse(text) as { statusCode: number; message: string; problems: unknown[] }
    expect(refusal.statusCode).toBe(bad.status)
    expect(refusal.message.length).toBeGreaterThan(5)
    expect(text).not.toMatch(/node_modules|at .*\.mjs/)
    expect(await log()).toBe(before)
  })
}

test('a repeated write is harmless', async () => {
  const body = entry({ kind: 'weigh', totalG: 900 })
  const first = (await (await send('POST', entries(), body)).json()) as { repeated: boolean }
  const second = (await (await send('POST', entries(), body)).json()) as { repeated: boolean }
  expect([first.repeated, second.repeated]).toEqual([false, true])
  expect((await log()).split(body.id)).toHaveLength(2)
  expect((await send('POST', entries(), { ...body, body: { kind: 'weigh', totalG: 901 } })).status).toBe(409)
})

test('a device sends by JSON and by CSV, and an open line tells of it', async () => {
  const device = uuidv7()
  expect((await send('PUT', '/api/devices', { id: device, name: 'Probe', kind: 'probe', machineId: null })).status).toBe(200)
  const line = await fetch(`${server.address}/api/live`)
  const reader = line.body!.getReader()
  const at = now() - 60_000
  const json = (await (
    await send('POST', '/api/readings', {
      device,
      readings: [
        { channel: 'celsius', at, value: 51 },
        { channel: 'celsius', at: 'soon', value: 52 },
      ],
    })
  ).json()) as unknown
  expect(json).toEqual({
    kept: 1,
    repeated: 0,
    thinned: 0,
    refused: [{ index: 1, field: 'at', code: 'invalid-type', message: expect.any(String) }],
  })
  const csv = (await (
    await send(
      'POST',
      `/api/readings?device=${device}`,
      `channel,value,at\ncelsius,53,${new Date(at + 1000).toISOString()}\ncelsius,cold,\n`,
      'text/csv',
    )
  ).json()) as unknown
  expect(csv).toMatchObject({ kept: 1, refused: [{ index: 1, field: 'value' }] })
  let heard = ''
  while (!heard.includes('"value":53')) heard += new TextDecoder().decode((await reader.read()).value)
  expect(heard).toContain('"kind":"readings"')
  await reader.cancel()
  const [series] = (await (await send('GET', `/api/readings?device=${device}&from=${at - 1000}&to=${at + 5000}`)).json()) as {
    count: number
    points: { value: number }[]
  }[]
  expect(series!.count).toBe(2)
  expect(series!.points.map(point => point.value)).toEqual([51, 53])
})
