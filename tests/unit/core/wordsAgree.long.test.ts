import { afterRun, assess, checkEntry, foldBatch, type Assessment } from '#core/batch'
import { FEEL_QUESTIONS, VERDICT_WORDS } from '#core/dryness'
import { InputError } from '#core/errors'
import { wayOf } from '#core/foods'
import type { BatchState, Entry, EntryBody } from '#core/log'
import { agendaOf, type Todo } from '#core/planning'
import { randomSource } from '#core/stats'
import { WAYS, type WayKey } from '#core/ways'
import { findFood } from '../../support/foods'
import { HOUR, HOUSEHOLD, MORNING } from '../../support/logbook'

/** What a page, its list and its verdict say of one state, whatever came before it. */
interface Told {
  of: string
  state: BatchState
  assessed: Assessment
  todos: Todo[]
}
const FOODS = ['beetroot', 'apple', 'tomato', 'hot-chili', 'basil', 'mushroom', 'beef-cooked']
const WAY_KEYS: WayKey[] = ['dehydrator', 'oven', 'sun', 'air', 'smoker', 'freeze-dryer']
/** Ten thousand were walked once without a contradiction; these are as many as a test has time for. */
const STATES = 3_000

/** A batch by chance, weighed rightly, wrongly or not at all, felt by careless and careful hands: what is said after each of its entries. */
function* statesOf(seed: number): Generator<Told> {
  const chance = randomSource(seed)
  const food = chance.pick(FOODS.map(key => findFood(key)!))
  const ways = WAY_KEYS.filter(key => food.cards.some(card => card.ways.some(({ way }) => way === key)))
  const way = chance.pick(ways)
  const card = food.cards.find(item => item.ways.some(item2 => item2.way === way))!
  const { temperatureC, usualHours } = wayOf(card, way)
  const { plainHeat, unheated } = WAYS[way]
  const usualH = Math.sqrt(usualHours.value.low * usualHours.value.high)
  const pace = Math.exp(0.6 * chance.normal())
  const between = (low: number, high: number) => low + (high - low) * chance.uniform()
  const loadedG = 2000
  const solids = 1 - (card.moisture ?? food.rawMoisture).value.mean
  let log: Entry[] = []
  let hour = 0
  const write = (body: EntryBody): boolean => {
    const at = MORNING + hour * HOUR
    const entry: Entry = { id: `w${seed}-${log.length}`, seq: log.length + 1, at, recordedAt: at, body }
    try {
      checkEntry(log, entry, {
        now: at + HOUR,
        find: findFood,
        machine: { name: 'Rack', kind: way, trays: 9, lowC: plainHeat ? 30 : undefined, highC: plainHeat ? 80 : undefined, taken: [] },
      } as Parameters<typeof checkEntry>[2])
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return false
    }
    log = [...log, entry]
    return true
  }
  const truly = (hours: number) => loadedG * (solids * 1.06 + (1 - solids * 1.06) * Math.exp((-3.5 * hours) / (usualH * pace)))
  const feel = (): EntryBody => ({
    kind: 'feel',
    check: {
      form: card.feelForm,
      answers: Object.fromEntries(FEEL_QUESTIONS[card.feelForm].map(({ key, answers }) => [key, chance.pick(answers).key])),
      cooled: chance.uniform() < 0.7,
      places: chance.integer(1, 5),
    },
  })
  const purpose = chance.pick(['powder', 'pieces'] as const)
  write({ kind: 'intake', foodKey: food.key, cardKey: card.key, purpose, source: 'Garden', weightG: 2500 })
  hour += 0.3
  if (!write({ kind: 'load', runId: 'r', machineId: 'm', positions: [1, 2, 3], totalG: loadedG, way })) return
  if (!unheated) write({ kind: 'heat', runId: 'r', setC: temperatureC })
  const steps: (() => EntryBody)[] = [
    () => ({ kind: 'weigh', runId: 'r', totalG: Math.round(truly(hour) * (chance.uniform() < 0.1 ? between(0.7, 1.3) : 1)) }),
    feel,
    () => ({ kind: 'unload', runId: 'r' }),
    () => ({ kind: 'rest' }),
    () => ({ kind: 'look', saw: chance.pick(['dry', 'dry', 'dry', 'clumps', 'moisture', 'mould'] as const) }),
    () => ({
      kind: 'jarAir',
      shown: between(0.1, 0.9),
      celsius: 20,
      closedHours: between(1, 10),
      calibration: { offset: 0, gain: 1, sd: 0.03 },
    }),
    () => ({ kind: 'heat', runId: 'r', setC: chance.uniform() < 0.5 ? null : temperatureC }),
    () => ({ kind: 'air', runId: 'r', roomC: between(10, 28), roomHumidity: between(0.3, 0.9) }),
  ]
  for (let i = 0; i < 14; i++) {
    hour += between(0.1, 0.35) * usualH
    write(chance.pick(steps)())
    const now = MORNING + (hour + between(0, 2)) * HOUR
    const state = foldBatch(log, findFood)!
    if (state.stage !== 'drying' && state.stage !== 'resting') continue
    const assessed = assess(state, now)
    if (!assessed) continue
    const of = `${seed}/${i} ${food.key} ${way} ${log.map(({ body }) => body.kind).join(' ')}`
    yield { of, state, assessed, todos: agendaOf(state, assessed, HOUSEHOLD) }
  }
}

/** What contradicts itself in what is said of a state. */
function contradictions({ state, assessed, todos }: Told): string[] {
  const { verdict, estimate, finish } = assessed
  const { run, rest, stage } = state
  const kinds = todos.map(todo => todo.kind)
  const saysWet = verdict.witnesses.filter(({ says }) => says === 'wet').map(({ name }) => name)
  const isDone = verdict.level === 'rest' || verdict.level === 'grind' || verdict.level === 'seal'
  const isOut = run?.unloadedAt !== undefined && rest?.startedAt === undefined
  const target = verdict.discard ? undefined : assessed.estimate.targetWeightG
  const said = (wrong: boolean, words: string) => (wrong ? [words] : [])
  return [
    ...said(isDone && saysWet.length > 0, `${verdict.level} though ${saysWet.join()} says wet`),
    ...said(!!verdict.discard && !kinds.includes('discard'), 'to be discarded, and its list does not say so'),
    ...said(kinds.includes('discard') && !verdict.discard, 'its list discards it, and its verdict does not'),
    ...said(kinds.includes('rest') && isOut && afterRun(state, assessed).is === 'wet', 'its list closes it in a jar, its page says wet'),
    ...said(
      kinds.includes('rest') && saysWet.length > 0 && verdict.level === 'keep-drying',
      `closed in a jar though ${saysWet.join()} says wet`,
    ),
    ...said(
      kinds.includes('takeOut') && stage === 'drying' && verdict.level === 'keep-drying' && !WAYS[run!.way.way].underVacuum,
      'taken out, and to be dried on',
    ),
    ...said(
      stage === 'drying' && verdict.level === 'rest' && !kinds.some(kind => kind === 'takeOut' || kind === 'danger' || kind === 'round'),
      'dry, and nobody takes it out',
    ),
    ...said(verdict.ask === 'unload' && verdict.level !== 'rest', 'asked out before it is dry'),
    ...said(
      !verdict.discard && !['Dry it again', 'Look at the jar', VERDICT_WORDS[verdict.level]].includes(verdict.headline),
      `its headline "${verdict.headline}" is not its level`,
    ),
    ...said(!(finish.from <= finish.middle && finish.middle <= finish.to), 'its end is before its beginning'),
    ...said(
      !(estimate.moistureNow.p10 <= estimate.moistureNow.p50 && estimate.moistureNow.p50 <= estimate.moistureNow.p90),
      'its water is no window',
    ),
    ...said(target !== undefined && !(target.p10 <= target.p90 && target.p10 > 0), 'its target is no weight'),
    ...said(estimate.waterLeftG.p50 > run!.loadedG, 'more water than went in'),
    ...todos.flatMap(todo => said(todo.to !== undefined && todo.to < todo.from, `${todo.kind} ends before it begins`)),
  ]
}

it(`what a page, its list and its verdict say agrees, over ${STATES} states`, () => {
  let count = 0
  const found: string[] = []
  for (let seed = 1; count < STATES; seed++)
    for (const told of statesOf(seed)) {
      count++
      for (const wrong of contradictions(told)) found.push(`${wrong} · ${told.of}`)
    }
  const kinds = new Map<string, number>()
  for (const line of found) kinds.set(line.split(' · ')[0]!, (kinds.get(line.split(' · ')[0]!) ?? 0) + 1)
  expect({ kinds: [...kinds], first: found.slice(0, 8) }).toEqual({ kinds: [], first: [] })
})
