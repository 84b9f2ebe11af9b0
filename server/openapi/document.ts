import { anyBody } from '#core/log'
import * as z from 'zod'
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject } from 'zod-openapi'
import {
  boughtInQuestion,
  compareQuery,
  deviceSettings,
  findQuery,
  foodFile,
  foodSource,
  foodWish,
  forecastQuestion,
  householdChange,
  householdSettings,
  hygrometerSettings,
  importQuery,
  insightQuery,
  labelQuery,
  listQuery,
  logbookFile,
  machineSettings,
  newBatch,
  newEntry,
  newJarEntry,
  newRunEntry,
  numberQuery,
  ownCardSource,
  readingsPost,
  readingsQuery,
  recipe,
  sheetQuery,
  tableImport,
  tableQuery,
  toolSettings,
  trialQuery,
  upkeepDone,
} from '#shared/contracts'

const uuid = z.uuid()
const refusal = z
  .object({
    statusCode: z.number().int(),
    message: z.string(),
    problems: z.array(z.object({ field: z.string(), message: z.string() })),
  })
  .meta({ id: 'Refusal', description: 'Nothing was written. Each problem names its field and the mend.' })
const entry = z
  .object({ id: uuid, seq: z.number().int(), at: z.number().int(), recordedAt: z.number().int(), replaces: uuid.optional(), body: anyBody })
  .meta({ id: 'Entry', description: 'A line of the log as it stands.' })
const written = z
  .object({ entry, repeated: z.boolean() })
  .meta({ id: 'Written', description: '`repeated`: it was there already with the same content, and was not written again.' })
const kept = z
  .looseObject({ version: z.number().int() })
  .meta({ id: 'Kept', description: 'The row as it is kept now, with the version to send with the next change.' })
const stage = z.object({ stage: z.string(), count: z.number(), weightG: z.number(), share: z.number() }).meta({ id: 'Stage' })
const batch = z
  .looseObject({
    batchId: uuid,
    number: z.number().int(),
    title: z.string(),
    foodKey: z.string(),
    stage: z.string(),
    purpose: z.string(),
    startedAt: z.number(),
    rawG: z.number(),
    loadedG: z.number().optional(),
    dryG: z.number().optional(),
    powderG: z.number().optional(),
  })
  .meta({ id: 'Batch' })
const jar = z
  .looseObject({
    jarId: uuid,
    number: z.number().int(),
    foodKey: z.string(),
    purpose: z.string(),
    place: z.string(),
    netG: z.number(),
    leftG: z.number(),
    packedAt: z.number(),
    bestFrom: z.number(),
    bestTo: z.number(),
  })
  .meta({ id: 'Jar' })
const page = (what: string) => z.looseObject({}).meta({ description: what })
const list = (what: string) => z.array(z.looseObject({})).meta({ description: what })
const work = z
  .union([
    z.object({ progress: z.object({ phase: z.string(), done: z.number(), of: z.number() }) }),
    z.object({ answer: z.looseObject({}), written: z.boolean() }),
    z.object({ refused: refusal }),
  ])
  .meta({ id: 'WorkLine', description: 'A line of the answer. Hanging up stops the work, and nothing is written.' })

const REFUSED = { '4XX': { description: 'Refused, with the fields.', content: { 'application/json': { schema: refusal } } } }
type Params = ZodOpenApiOperationObject['requestParams']

function operation(
  tag: string,
  summary: string,
  answer: z.ZodType,
  more: { query?: z.ZodType; path?: z.ZodObject; body?: z.ZodType; type?: string; bodyTypes?: readonly string[] } = {},
): ZodOpenApiOperationObject {
  const { query, path, body, type = 'application/json', bodyTypes = ['application/json'] } = more
  const params = { ...(query && { query }), ...(path && { path }) } as Params
  return {
    tags: [tag],
    summary,
    ...((query || path) && { requestParams: params }),
    ...(body && {
      requestBody: {
        required: true,
        content: Object.fromEntries(bodyTypes.map(name => [name, { schema: name === 'application/json' ? body : z.string() }])),
      },
    }),
    responses: {
      200: {
        description: summary,
        content: { [type]: { schema: type === 'application/json' || type === 'application/x-ndjson' ? answer : z.string() } },
      },
      ...REFUSED,
    },
  }
}

const batchId = z.object({ batchId: uuid })
const jarId = z.object({ jarId: uuid })
const file = z.string()

/** Every address of the server: a test holds this list against the routes. */
const PATHS: ZodOpenApiPathsObject = {
  '/api/now': { get: operation('pages', 'What needs hands, the machines, the jars to use first', page('See `NowAnswer`.')) },
  '/api/stages': { get: operation('pages', 'The stage band', z.array(stage)) },
  '/api/find': { get: operation('pages', 'Finds batches, jars and foods', list('Found.'), { query: findQuery }) },
  '/api/by-number': { get: operation('pages', 'The id behind the number of a label', z.object({ id: uuid }), { query: numberQuery }) },
  '/api/live': { get: operation('pages', 'Server-sent events: readings and writings as they happen', file, { type: 'text/event-stream' }) },
  '/api/batches': {
    get: operation('batches', 'Batches, newest first, sixty at a time', z.looseObject({ batches: z.array(batch) }), { query: listQuery }),
    post: operation(
      'batches',
      'Takes a basket in: a new batch. Send it again with the same ids and nothing is doubled',
      written.extend({ number: z.number().int() }),
      { body: newBatch },
    ),
  },
  '/api/batches/{batchId}': { get: operation('batches', 'A batch with its log', page('See `BatchAnswer`.'), { path: batchId }) },
  '/api/batches/{batchId}/entries': {
    post: operation('batches', 'Logs on a batch, or corrects (`replaces`) or voids an entry', written, { path: batchId, body: newEntry }),
  },
  '/api/batches/{batchId}/recall': {
    get: operation('batches', 'Every jar that a basket or packet went into', z.looseObject({ jars: z.array(jar) }), { path: batchId }),
  },
  '/api/batches/{batchId}/card.pdf': { get: operation('batches', 'Card for the wall', file, { path: batchId, type: 'application/pdf' }) },
  '/api/runs/{runId}/entries': {
    post: operation('batches', 'Logs heat, air, moved trays or ticks on a run, for all its batches', written, {
      path: z.object({ runId: uuid }),
      body: newRunEntry,
    }),
  },
  '/api/compare': {
    get: operation('batches', 'Finished runs of a food side by side', list('See `ComparedRun`.'), { query: compareQuery }),
  },
  '/api/trial': { get: operation('batches', 'Two batches beside each other', page('See `TrialAnswer`.'), { query: trialQuery }) },
  '/api/insight': { get: operation('batches', 'What finished batches taught', page('See `InsightAnswer`.'), { query: insightQuery }) },
  '/api/jars/{jarId}': { get: operation('shelf', 'A jar with its pedigree', page('See `JarAnswer`.'), { path: jarId }) },
  '/api/jars/{jarId}/entries': {
    post: operation('shelf', 'Logs on a jar: take, fill, blend, stock, pour, look and more', written, { path: jarId, body: newJarEntry }),
  },
  '/api/jars/{jarId}/recall': {
    get: operation('shelf', 'Every jar that what was bought in in this one went into', z.looseObject({ jars: z.array(jar) }), {
      path: jarId,
    }),
  },
  '/api/jars/{jarId}/label.svg': { get: operation('shelf', 'A label', file, { path: jarId, query: labelQuery, type: 'image/svg+xml' }) },
  '/api/jars/{jarId}/label.pdf': { get: operation('shelf', 'A label', file, { path: jarId, query: labelQuery, type: 'application/pdf' }) },
  '/api/labels/sheet.pdf': { get: operation('shelf', 'Labels on sheets', file, { query: sheetQuery, type: 'application/pdf' }) },
  '/api/labels/templates': { get: operation('shelf', 'Sizes of labels', list('See `LabelTemplateAnswer`.')) },
  '/api/shelf': {
    get: operation('shelf', 'The whole shelf', z.looseObject({ jars: z.array(jar), count: z.number().int(), totalG: z.number() })),
  },
  '/api/shelf/places': {
    get: operation('shelf', 'Places in use', z.array(z.object({ place: z.string(), storageC: z.number().optional() }))),
  },
  '/api/shelf/wishes': {
    put: operation('shelf', 'What the shelf should hold of a food, or what the shop asks', list('See `StockAnswer`.'), { body: foodWish }),
  },
  '/api/kitchen': {
    get: operation('kitchen', 'Jars as a cook needs them, recipes, and goods that may be bought in', page('See `KitchenAnswer`.')),
  },
  '/api/recipes': {
    get: operation('kitchen', 'Recipes', z.array(recipe)),
    put: operation('kitchen', 'Adds or changes a recipe', kept, { body: recipe }),
  },
  '/api/recipes/past': {
    get: operation('kitchen', 'Recipes as they stood before they were changed or removed', page('See `PastRecipe`.')),
  },
  '/api/recipes/{recipeId}': {
    delete: operation('kitchen', 'Removes a recipe', z.object({ removed: z.boolean() }), { path: z.object({ recipeId: uuid }) }),
  },
  '/api/household': {
    get: operation('workshop', 'Units, clock, nights, prices', householdSettings),
    put: operation('workshop', 'Changes some or all of them; what is left out stays', householdSettings, { body: householdChange }),
  },
  '/api/machines': {
    get: operation('workshop', 'Machines', list('See `MachineAnswer`.')),
    put: operation('workshop', 'Adds or changes a machine', kept, { body: machineSettings }),
  },
  '/api/machines/{machineId}': {
    get: operation('workshop', 'A machine and its run', page('See `MachinePageAnswer`.'), { path: z.object({ machineId: uuid }) }),
  },
  '/api/machines/{machineId}/upkeep': {
    post: operation('workshop', 'Notes that something was done for its upkeep', list('See `UpkeepState`.'), {
      path: z.object({ machineId: uuid }),
      body: upkeepDone,
    }),
  },
  '/api/tools': {
    get: operation('workshop', 'Grinders and sieves', list('See `ToolAnswer`.')),
    put: operation('workshop', 'Adds or changes one', kept, { body: toolSettings }),
  },
  '/api/hygrometers': {
    get: operation('workshop', 'Hygrometers for jars', list('See `HygrometerAnswer`.')),
    put: operation('workshop', 'Adds or changes one', kept, { body: hygrometerSettings }),
  },
  '/api/devices': {
    get: operation('devices', 'Scales, probes and the like', list('See `DeviceAnswer`.')),
    put: operation('devices', 'Adds or changes a device', kept, { body: deviceSettings }),
  },
  '/api/readings': {
    get: operation('devices', 'Readings over time, thinned', list('See `ReadingSeries`.'), { query: readingsQuery }),
    post: operation('devices', 'Takes readings, as JSON, or as CSV with the device in the query', page('See `ReadingsAnswer`.'), {
      body: readingsPost,
      bodyTypes: ['application/json', 'text/csv'],
    }),
  },
  '/api/forecast': { get: operation('planning', 'What a basket gives', page('A forecast.'), { query: forecastQuestion }) },
  '/api/forecast/ways': { get: operation('planning', 'Machines and cuts side by side', page('Ways.'), { query: forecastQuestion }) },
  '/api/forecast/bought-in': { get: operation('planning', 'Own peeling against bought-in', page('Both.'), { query: boughtInQuestion }) },
  '/api/foods': {
    get: operation('foods', 'Foods of the reference and own ones', list('See `FoodSummary`.')),
    put: operation('foods', 'Adds or changes an own food', page('The food.'), {
      body: z.object({ food: foodSource, version: z.number().int().optional() }),
    }),
  },
  '/api/foods/{foodKey}': {
    get: operation('foods', 'A food in full', page('See `FoodPageAnswer`.'), { path: z.object({ foodKey: z.string() }) }),
    delete: operation('foods', 'Removes an own food, or one of its cards', page('What was removed.'), {
      path: z.object({ foodKey: z.string() }),
      query: z.object({ card: z.string().optional() }),
    }),
  },
  '/api/foods/cards': { put: operation('foods', 'Adds or changes an own card', page('The food.'), { body: ownCardSource }) },
  '/api/foods/parts': { get: operation('foods', 'Families and forms', page('See `FoodPartsAnswer`.')) },
  '/api/foods/schools': { get: operation('foods', 'Questions on which practitioners disagree', list('See `SchoolQuestion`.')) },
  '/api/foods/export': {
    get: operation('foods', 'Own foods as a file', foodFile, {
      query: z.object({ food: z.string().optional() }),
      type: 'application/yaml',
    }),
  },
  '/api/foods/import': {
    post: operation('foods', 'Takes in a file of foods', page('See `ImportAnswer`.'), {
      body: foodFile,
      bodyTypes: ['application/yaml', 'application/json'],
    }),
  },
  '/api/export/logbook.json': {
    get: operation('data', 'The whole logbook; its schema is at `/api/schema/logbook.json`', logbookFile.meta({ id: 'Logbook' })),
  },
  '/api/export/logbook.xlsx': {
    get: operation('data', 'Tables as a spreadsheet, in the household’s units', file, {
      type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    }),
  },
  '/api/export/tables/{table}.csv': {
    get: operation('data', 'A tidy table, in the household’s units', file, { path: tableQuery, type: 'text/csv' }),
  },
  '/api/export.csv': { get: operation('data', 'Every line of the log as CSV, in grams and °C', file, { type: 'text/csv' }) },
  '/api/schema/logbook.json': { get: operation('data', 'JSON Schema of a whole logbook', page('JSON Schema 2020-12.')) },
  '/api/openapi.json': { get: operation('data', 'This document', page('OpenAPI 3.1.')) },
  '/api/calendar.ics': { get: operation('data', 'What needs hands, to subscribe to', file, { type: 'text/calendar' }) },
  '/api/backup.sqlite': { get: operation('data', 'A copy of the logbook while it is in use', file, { type: 'application/vnd.sqlite3' }) },
  '/api/restore': {
    post: operation(
      'data',
      'Puts a backup in the logbook’s place, after a check; what stood there is kept aside',
      page('See `Restored`.'),
      { body: z.string(), bodyTypes: ['application/vnd.sqlite3'] },
    ),
  },
  '/api/import/logbook': {
    post: operation('data', 'A whole logbook into an empty one, all or nothing', work, { body: logbookFile, type: 'application/x-ndjson' }),
  },
  '/api/import/table': {
    post: operation('data', 'Weigh-ins or an inventory from a table, all or nothing', work, {
      query: importQuery,
      body: tableImport,
      type: 'application/x-ndjson',
    }),
  },
}

let made: object | undefined

/** The HTTP interface as OpenAPI 3.1, made from the contracts that the routes parse by. */
export function openApiDocument(): object {
  made ??= createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Dulse',
      version: '1',
      license: { name: 'MIT', identifier: 'MIT' },
      description:
        'The logbook of a household that dries food. Weights are grams, temperatures °C, instants milliseconds since 1970 UTC, ids UUIDs made by whoever writes: the same id sent again is harmless.',
    },
    servers: [{ url: '/' }],
    paths: PATHS,
  })
  return made
}
