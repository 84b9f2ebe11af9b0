import * as z from 'zod'
import {
  alarmChoice,
  alarmTrial,
  boughtInQuestion,
  codeWish,
  compareQuery,
  deviceChange,
  deviceSettings,
  entrance,
  findQuery,
  foodFile,
  foodSource,
  foodWish,
  forecastQuestion,
  homeChoice,
  householdChange,
  hygrometerSettings,
  importQuery,
  insightQuery,
  learnedQuery,
  lessonFile,
  labelQuery,
  listQuery,
  logbookFile,
  machineSettings,
  newBatch,
  newEntry,
  newJarEntry,
  newRunEntry,
  newTogether,
  newToken,
  numberQuery,
  pairing,
  passphraseChange,
  planBookChange,
  planCheck,
  planTaken,
  ownCardSource,
  readingsPost,
  readingsQuery,
  recipe,
  sheetQuery,
  tableImport,
  todoCleared,
  toolSettings,
  trialQuery,
  upkeepDone,
  weather,
} from '../contracts'
import type { Answers } from './answers'
import type { RouteOf } from './route'

const get = <Path extends string, More extends object = object>(
  path: Path,
  tag: RouteOf['tag'],
  summary: string,
  more: More = {} as More,
) => ({ method: 'GET' as const, path, tag, summary, ...more })
const send = <Method extends 'POST' | 'PUT' | 'DELETE', Path extends string, More extends object>(
  method: Method,
  path: Path,
  tag: RouteOf['tag'],
  summary: string,
  more: More,
) => ({ method, path, tag, summary, ...more })

const NDJSON = 'application/x-ndjson'
/** Largest picture: browsers make theirs small. */
const PICTURE_KB = 300
const SQLITE = 'application/vnd.sqlite3'

/** Every route of the server, under the name by which its handler and its callers know it. */
export const ROUTES = {
  now: get('/api/now', 'pages', 'What needs hands, the machines, the jars to use first'),
  clearTodo: send('POST', '/api/now/cleared', 'pages', 'A late thing that need not be done, with the reason', { body: todoCleared }),
  stages: get('/api/stages', 'pages', 'The stage band'),
  find: get('/api/find', 'pages', 'Finds batches, jars and foods', { query: findQuery }),
  byNumber: get('/api/by-number', 'pages', 'The id behind the number of a label', { query: numberQuery }),
  live: get('/api/live', 'pages', 'Server-sent events: readings as they come, and word that something was written', {
    gives: 'text/event-stream',
  }),

  savePicture: send('POST', '/api/pictures', 'batches', 'Keeps a picture, as its bytes are; answers the name by which the log knows it', {
    takes: ['image/jpeg', 'image/webp'],
    mostKb: PICTURE_KB,
  }),
  picture: get('/api/pictures/{picture}', 'batches', 'A picture by its name', { gives: 'image/jpeg' }),
  foodPictures: get('/api/foods/{foodKey}/pictures', 'foods', 'The household’s pictures of a food, newest first'),

  batches: get('/api/batches', 'batches', 'Batches, newest first, sixty at a time', { query: listQuery }),
  startBatch: send(
    'POST',
    '/api/batches',
    'batches',
    'Takes a basket in: a new batch. Send it again with the same ids and nothing is doubled',
    { tells: true, body: newBatch },
  ),
  batch: get('/api/batches/{batchId}', 'batches', 'A batch with its log'),
  logOnBatch: send('POST', '/api/batches/{batchId}/entries', 'batches', 'Logs on a batch, or corrects (`replaces`) or voids an entry', {
    tells: true,
    body: newEntry,
  }),
  batchRecall: get('/api/batches/{batchId}/recall', 'batches', 'Every jar that a basket or packet went into'),
  batchFlow: get(
    '/api/batches/{batchId}/flow',
    'batches',
    'Where the food of a basket went: each batch of it with what is there, what left and what came of it, in grams and grams of solids',
  ),
  batchCard: get('/api/batches/{batchId}/card.pdf', 'batches', 'Card for the wall', { gives: 'application/pdf' }),
  logOnRun: send('POST', '/api/runs/{runId}/entries', 'batches', 'Logs heat, air, moved trays or ticks on a run, for all its batches', {
    tells: true,
    body: newRunEntry,
  }),
  logTogether: send('POST', '/api/log', 'batches', 'Logs several entries, on batches, runs and jars, all of them or none', {
    tells: true,
    body: newTogether,
  }),
  compare: get('/api/compare', 'batches', 'Finished runs of a food side by side', { query: compareQuery }),
  trial: get('/api/trial', 'batches', 'Two batches beside each other', { query: trialQuery }),
  insight: get('/api/insight', 'batches', 'What finished batches taught', { query: insightQuery }),

  lessons: get('/api/practice/lessons', 'practice', 'Lessons to play on paper, with their foods', { apart: true }),
  readLesson: send('POST', '/api/practice/read', 'practice', 'Reads a lesson that somebody wrote: nothing of it is kept', {
    body: lessonFile,
    mostKb: 128,
  }),

  learned: get('/api/learned', 'batches', 'What runs taught of a machine, a food or a person, and which runs', { query: learnedQuery }),

  jar: get('/api/jars/{jarId}', 'shelf', 'A jar with its pedigree'),
  logOnJar: send('POST', '/api/jars/{jarId}/entries', 'shelf', 'Logs on a jar: take, fill, blend, stock, pour, look and more', {
    tells: true,
    body: newJarEntry,
  }),
  jarRecall: get('/api/jars/{jarId}/recall', 'shelf', 'Every jar that what was bought in in this one went into'),
  labelSvg: get('/api/jars/{jarId}/label.svg', 'shelf', 'A label', { query: labelQuery, gives: 'image/svg+xml' }),
  labelPdf: get('/api/jars/{jarId}/label.pdf', 'shelf', 'A label', { query: labelQuery, gives: 'application/pdf' }),
  labelSheet: get('/api/labels/sheet.pdf', 'shelf', 'Labels on sheets', { query: sheetQuery, gives: 'application/pdf' }),
  labelTemplates: get('/api/labels/templates', 'shelf', 'Sizes of labels', { apart: true }),
  shelf: get('/api/shelf', 'shelf', 'The whole shelf'),
  places: get('/api/shelf/places', 'shelf', 'Places in use, with the warmth that was last logged of each'),
  wish: send('PUT', '/api/shelf/wishes', 'shelf', 'What the shelf should hold of a food, or what the shop asks', { body: foodWish }),

  kitchen: get('/api/kitchen', 'kitchen', 'Jars as a cook needs them, recipes, and goods that may be bought in'),
  recipes: get('/api/recipes', 'kitchen', 'Recipes', { apart: true }),
  saveRecipe: send('PUT', '/api/recipes', 'kitchen', 'Adds or changes a recipe', { body: recipe }),
  pastRecipes: get('/api/recipes/past', 'kitchen', 'Recipes as they stood before they were changed or removed', { apart: true }),
  removeRecipe: send('DELETE', '/api/recipes/{recipeId}', 'kitchen', 'Removes a recipe', {}),

  household: get('/api/household', 'workshop', 'Units, clock, nights, prices', { apart: true }),
  saveHousehold: send('PUT', '/api/household', 'workshop', 'Changes some or all of them; what is left out stays', {
    body: householdChange,
    who: 'keeper',
  }),
  machines: get('/api/machines', 'workshop', 'Machines'),
  saveMachine: send('PUT', '/api/machines', 'workshop', 'Adds or changes a machine', { body: machineSettings, who: 'keeper' }),
  machine: get('/api/machines/{machineId}', 'workshop', 'A machine and its run'),
  upkeep: send('POST', '/api/machines/{machineId}/upkeep', 'workshop', 'Notes that something was done for its upkeep', {
    body: upkeepDone,
  }),
  tools: get('/api/tools', 'workshop', 'Grinders and sieves', { apart: true }),
  saveTool: send('PUT', '/api/tools', 'workshop', 'Adds or changes one', { body: toolSettings, who: 'keeper' }),
  hygrometers: get('/api/hygrometers', 'workshop', 'Hygrometers for jars', { apart: true }),
  saveHygrometer: send('PUT', '/api/hygrometers', 'workshop', 'Adds or changes one', { body: hygrometerSettings, who: 'keeper' }),

  alarms: get('/api/alarms', 'workshop', 'Who is told of what is due, and what was told', { apart: true, who: 'keeper' }),
  saveAlarms: send('PUT', '/api/alarms', 'workshop', 'Chooses who is told of what', { body: alarmChoice, who: 'keeper' }),
  tryAlarm: send('POST', '/api/alarms/trial', 'workshop', 'Sends a message to see whether it arrives', {
    body: alarmTrial,
    who: 'keeper',
  }),

  devices: get('/api/devices', 'devices', 'Scales, probes and the like', { apart: true }),
  saveDevice: send('PUT', '/api/devices', 'devices', 'Adds or changes a device', { body: deviceSettings, who: 'keeper' }),
  readings: get('/api/readings', 'devices', 'Readings over time, thinned', { apart: true, query: readingsQuery }),
  takeReadings: send('POST', '/api/readings', 'devices', 'Takes readings, as JSON, or as CSV with the device in the query', {
    tells: true,
    body: readingsPost,
    takes: ['application/json', 'text/csv'],
    mostKb: 1024,
    token: 'readings',
  }),

  plan: get('/api/plan', 'planning', 'What there is to plan: baskets, machines, nights and hands'),
  planYear: get('/api/plan/year', 'planning', 'Twelve months of harvests against machine nights and hands, wishes, what to buy'),
  planCheck: send('POST', '/api/plan/check', 'planning', 'What a plan breaks of a problem, by whatever program it was made', {
    body: planCheck,
    mostKb: 4000,
  }),
  takePlan: send('PUT', '/api/plan/taken', 'planning', 'Takes a plan to work by: its times go to Now and to the calendar', {
    body: planTaken,
    mostKb: 500,
  }),
  dropPlan: send('DELETE', '/api/plan/taken', 'planning', 'Works by no plan any more', {}),
  planBook: get('/api/plan/book', 'planning', 'Harvests, wishes, absences, hands and prices of power', { apart: true }),
  savePlanBook: send('PUT', '/api/plan/book', 'planning', 'Writes them anew', { body: planBookChange, mostKb: 200 }),
  weather: send('PUT', '/api/plan/weather', 'planning', 'What the sky is to be, from a file or a service', { body: weather }),
  forecast: get('/api/forecast', 'planning', 'What a basket gives', { query: forecastQuestion }),
  forecastWays: get('/api/forecast/ways', 'planning', 'Machines and cuts side by side', { query: forecastQuestion }),
  forecastBoughtIn: get('/api/forecast/bought-in', 'planning', 'Own peeling against bought-in', { query: boughtInQuestion }),

  foods: get('/api/foods', 'foods', 'Foods of the reference and own ones', { apart: true }),
  saveFood: send('PUT', '/api/foods', 'foods', 'Adds or changes an own food', {
    body: z.strictObject({ food: foodSource, version: z.number().int().min(1).optional() }),
  }),
  food: get('/api/foods/{foodKey}', 'foods', 'A food in full', { apart: true }),
  foodHours: get('/api/foods/{foodKey}/hours', 'foods', 'Usual hours of each cut in each machine, as own runs have taught them'),
  removeFood: send('DELETE', '/api/foods/{foodKey}', 'foods', 'Removes an own food, or one of its cards', {
    query: z.object({ card: z.string().max(80).optional() }),
    who: 'keeper',
  }),
  saveCard: send('PUT', '/api/foods/cards', 'foods', 'Adds or changes an own card', { body: ownCardSource }),
  foodParts: get('/api/foods/parts', 'foods', 'Families and forms', { apart: true }),
  schools: get('/api/foods/schools', 'foods', 'Questions on which practitioners disagree', { apart: true }),
  exportFoods: get('/api/foods/export', 'foods', 'Own foods as a file', {
    query: z.object({ food: z.string().max(60).optional() }),
    gives: 'application/yaml',
    who: 'keeper',
  }),
  importFoods: send('POST', '/api/foods/import', 'foods', 'Takes in a file of foods', {
    body: foodFile,
    takes: ['application/yaml', 'application/json'],
    mostKb: 512,
    who: 'keeper',
  }),

  logbookJson: get('/api/export/logbook.json', 'data', 'The whole logbook; its schema is at `/api/schema/logbook.json`', {
    gives: 'application/json',
    who: 'keeper',
  }),
  spreadsheet: get('/api/export/logbook.xlsx', 'data', 'Tables as a spreadsheet, in the household’s units', {
    gives: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    who: 'keeper',
  }),
  tableCsv: get('/api/export/tables/{table}.csv', 'data', 'A tidy table, in the household’s units', { gives: 'text/csv', who: 'keeper' }),
  logCsv: get('/api/export.csv', 'data', 'Every line of the log as CSV, in grams and °C', { gives: 'text/csv', who: 'keeper' }),
  logbookSchema: get('/api/schema/logbook.json', 'data', 'JSON Schema of a whole logbook', { gives: 'application/schema+json' }),
  openApi: get('/api/openapi.json', 'data', 'This document', { gives: 'application/json' }),
  calendar: get('/api/calendar.ics', 'data', 'What needs hands, to subscribe to', { gives: 'text/calendar', token: 'calendar' }),
  backup: get('/api/backup.sqlite', 'data', 'A copy of the logbook while it is in use', { gives: SQLITE, who: 'keeper' }),
  health: get('/api/health', 'data', 'How the file of the logbook stands, and the server’s clock', { apart: true }),
  copies: get('/api/copies', 'data', 'Copies that Dulse made by itself, newest first', { apart: true, who: 'keeper' }),
  makeCopy: send('POST', '/api/copies', 'data', 'Makes the copy of today, or makes it anew', { who: 'keeper' }),
  copyLoss: get('/api/copies/{name}', 'data', 'What putting a copy back would lose: what was written since', { who: 'keeper' }),
  restoreCopy: send(
    'POST',
    '/api/copies/{name}/restore',
    'data',
    'Puts a copy in the logbook’s place; what stood there is kept beside it',
    { who: 'keeper' },
  ),
  restore: send('POST', '/api/restore', 'data', 'Puts a backup in the logbook’s place, after a check; what stood there is kept aside', {
    takes: [SQLITE],
    who: 'keeper',
  }),
  importLogbook: send('POST', '/api/import/logbook', 'data', 'A whole logbook into an empty one, all or nothing', {
    body: logbookFile,
    takes: ['application/json'],
    gives: NDJSON,
    mostKb: 400 * 1024,
    who: 'keeper',
  }),
  importTable: send('POST', '/api/import/table', 'data', 'Weigh-ins or an inventory from a table, all or nothing', {
    query: importQuery,
    body: tableImport,
    gives: NDJSON,
    mostKb: 32 * 1024,
    who: 'keeper',
  }),

  whoAmI: get('/api/home/me', 'home', 'Who asks, as the server sees it', { apart: true, who: 'anyone' }),
  enter: send('POST', '/api/home/enter', 'home', 'Signs a device in by the household’s passphrase', { body: entrance, who: 'anyone' }),
  pair: send('POST', '/api/home/pair', 'home', 'Signs a device in by a code of two minutes', { body: pairing, who: 'anyone' }),
  leave: send('POST', '/api/home/leave', 'home', 'Signs this device out', { who: 'anyone' }),
  home: get('/api/home', 'home', 'The home network: addresses, devices, keys', { apart: true, who: 'keeper' }),
  chooseHome: send('PUT', '/api/home', 'home', 'Opens it to the house or closes it', { body: homeChoice, who: 'keeper' }),
  setPassphrase: send('PUT', '/api/home/passphrase', 'home', 'Chooses or changes the passphrase', {
    body: passphraseChange,
    who: 'keeper',
  }),
  makeCode: send('POST', '/api/home/codes', 'home', 'A code that lets one device in, for two minutes', { body: codeWish, who: 'keeper' }),
  changeHomeDevice: send('PUT', '/api/home/devices/{homeDeviceId}', 'home', 'Names a device, or makes it a cook’s or a keeper’s', {
    body: deviceChange,
    who: 'keeper',
  }),
  removeHomeDevice: send('DELETE', '/api/home/devices/{homeDeviceId}', 'home', 'Takes a device off', { who: 'keeper' }),
  makeToken: send('POST', '/api/home/tokens', 'home', 'A key for a scale, a logger or a calendar; shown once', {
    body: newToken,
    who: 'keeper',
  }),
  removeToken: send('DELETE', '/api/home/tokens/{tokenId}', 'home', 'Takes a key off', { who: 'keeper' }),
} satisfies Record<string, RouteOf> & Record<keyof Answers, RouteOf>

export type RouteName = keyof typeof ROUTES
/** A route by its name, whatever it declares. */
export const routeOf = (name: RouteName): RouteOf => ROUTES[name]
export const ROUTE_NAMES = Object.keys(ROUTES) as RouteName[]
