import { uuidv7 } from 'uuidv7'
import { foldBatch } from '#core/batch'
import type { EntryBody } from '#core/log'
import { InputError } from '#core/errors'
import { randomSource, type RandomSource } from '#core/stats'
import { batchList, batchPage, findAnything, nowPage, stageBand } from '#server/services/pages'
import { jarPage, recallPage, shelfPage } from '#server/services/shelf'
import { rebuildProjections } from '#server/services/projections'
import { Conflict, NotFound } from '#server/services/refusals'
import { logOnJar, logOnRun } from '#server/services/writeLog'
import { newEntry, newJarEntry, newRunEntry, type NewJarEntry, type NewRunEntry } from '#shared/contracts'
import { testBook, type TestBook } from '../../support/logbook'
import { findFood } from '../../support/foods'

/**
 * Logs put together by chance: whatever a hand may send in whatever order, it is either refused in
 * words or kept, and what is kept leaves every page open and the arithmetic whole.
 */
const PURPOSES = ['pieces', 'flakes', 'powder'] as const
const FOODS = [
  ['beetroot', 'slices-3'],
  ['tomato', 'slices-6'],
  ['kale', 'leaves'],
  ['garlic', 'slices-3'],
] as const

function anyBody(source: RandomSource, book: TestBook, runId: string, jarIds: string[], targets: string[]): EntryBody {
  const weightG = Math.round(Math.exp(Math.log(5) + source.uniform() * Math.log(400)))
  const position = source.integer(1, 7)
  const jarId = source.pick([...jarIds, uuidv7()])
  return source.pick<() => EntryBody>([
    () => ({
      kind: 'prep',
      step: source.pick(['trim', 'cut', 'roast', 'season']),
      effect: source.pick(['none', 'waste', 'water']),
      weightG: source.pick([undefined, weightG]),
    }),
    () => ({ kind: 'prep', step: 'season', effect: 'added', added: { saltG: weightG } }),
    () => ({ kind: 'load', runId, machineId: book.machineId, positions: [position, position + source.integer(0, 1)], totalG: weightG }),
    () => ({ kind: 'load', runId, machineId: book.machineId, positions: [position], trays: [{ position, weightG }], totalG: weightG }),
    () => ({ kind: 'weigh', totalG: weightG }),
    () => ({ kind: 'weigh', trays: [{ position, weightG }] }),
    () => ({
      kind: 'feel',
      check: {
        form: source.pick(['pieces', 'leaves']),
        answers: { bend: source.pick(['snaps', 'leathery', 'soft']), crumble: 'crumbles' },
        cooled: source.uniform() > 0.5,
        places: source.integer(1, 4),
      },
    }),
    () => ({ kind: 'unload', weightG: source.pick([undefined, weightG]), positions: source.pick([undefined, [position]]) }),
    () => ({
      kind: 'jarAir',
      shown: source.uniform() * 0.9 + 0.05,
      closedHours: source.integer(0, 30),
      calibration: { offset: 0, gain: 1, sd: 0.03 },
    }),
    () => ({ kind: 'rest' }),
    () => ({ kind: 'look', saw: source.pick(['dry', 'dry', 'moisture', 'clumps', 'mould']) }),
    () => ({ kind: 'restEnd', weightG: source.pick([undefined, weightG]) }),
    () => ({ kind: 'grind', dryInG: weightG, powderOutG: Math.max(1, Math.round(weightG * (0.7 + 0.4 * source.uniform()))) }),
    () => ({ kind: 'pack', jarId, netG: weightG, packageKey: 'screw-jar', place: 'Shelf' }),
    () => ({
      kind: 'pack',
      jarId,
      netG: weightG,
      packageKey: 'screw-jar',
      place: 'Shelf',
      topUp: true,
      moisture: source.pick([undefined, 0.04, 0.08]),
    }),
    () => ({ kind: 'finish' }),
    () => ({ kind: 'void', target: source.pick([...targets, uuidv7()]) }),
  ])()
}

/** What concerns a jar. */
function anyJarBody(source: RandomSource, jarId: string, jarIds: string[], targets: string[]): NewJarEntry['body'] {
  const weightG = Math.round(Math.exp(Math.log(2) + source.uniform() * Math.log(60)))
  const other = source.pick(jarIds)
  return source.pick<() => NewJarEntry['body']>([
    () => ({ kind: 'take', jarId, weightG }),
    () => ({ kind: 'pour', jarId, from: { jarId: other, weightG } }),
    () => ({ kind: 'smell', jarId, smell: source.pick(['strong', 'none']) }),
    () => ({ kind: 'lookJar', jarId, saw: source.pick(['loose', 'loose', 'loose', 'clumps', 'mould']) }),
    () => ({ kind: 'measure', jarId, ml: 15, weightG: 7 }),
    () => ({ kind: 'moveJar', jarId, place: 'Cellar', storageC: source.pick([undefined, 4, 28]) }),
    () => ({ kind: 'discard', jarId, cause: 'Old' }),
    () => ({ kind: 'void', target: source.pick([...targets, uuidv7()]) }),
  ])()
}

/** What concerns the run rather than the batch. */
function anyRunBody(source: RandomSource, runId: string, targets: string[]): EntryBody {
  const from = source.integer(1, 7)
  const to = 1 + ((from + source.integer(0, 5)) % 7)
  return source.pick<() => EntryBody>([
    () => ({ kind: 'heat', runId, setC: source.pick([null, 40, 57, 67, 99]) }),
    () => ({ kind: 'air', runId, roomC: 20, roomHumidity: source.uniform() * 0.8 + 0.1, chamberC: source.pick([undefined, 50]) }),
    () => ({ kind: 'move', runId, trays: [{ from, to }] }),
    () => ({
      kind: 'move',
      runId,
      trays: [
        { from, to },
        { from: to, to: from },
      ],
    }),
    () => ({ kind: 'tick', runId, list: 'start', item: source.pick(['clear', 'drain']) }),
    () => ({ kind: 'void', target: source.pick([...targets, uuidv7()]) }),
  ])()
}

/** A jar that is filled anew: split off, blended of two, or bought in. */
function newJarBody(source: RandomSource, jarId: string, known: string[]) {
  const head = { jarId: uuidv7(), packageKey: 'screw-jar' as const, place: 'Door' }
  const other = source.pick(known)
  const weightG = source.integer(1, 60)
  const blend = { name: 'Mix', ...(source.uniform() < 0.3 && { sifted: { openingUm: 500, overG: source.integer(0, 20) } }) }
  return source.pick<() => { kind: 'fill' | 'stock'; jarId: string }>([
    () => ({ kind: 'fill', ...head, from: [{ jarId, weightG }] }),
    () => ({
      kind: 'fill',
      ...head,
      from: [
        { jarId, weightG, ...(source.uniform() < 0.3 && { toastedG: weightG * (0.8 + 0.3 * source.uniform()) }) },
        { jarId: other, weightG: source.integer(1, 20) },
      ],
      blend,
    }),
    () => ({
      kind: 'stock',
      ...head,
      foodKey: source.pick(['cumin', 'salt', 'beetroot', 'mist']),
      purpose: 'powder',
      netG: source.integer(5, 200),
      ...(source.uniform() < 0.3 && { bestTo: Date.UTC(2027, 1, 1), price: 2 }),
    }),
  ])()
}

describe.each([1, 2, 3, 4, 5, 6, 7, 8])('a log by chance, number %i', seed => {
  const source = randomSource(seed)
  const book = testBook()
  const { context } = book
  const kinds = new Map<string, number>()
  let refused = 0

  const jarTargets: string[] = []
  const onAJar = (jarId: string, known: string[], hours: number) => {
    const id = uuidv7()
    const body = source.uniform() < 0.25 ? newJarBody(source, jarId, known) : anyJarBody(source, jarId, known, jarTargets)
    const input = newJarEntry.parse({ id, at: book.at(hours), body })
    try {
      logOnJar(context, body.kind === 'fill' || body.kind === 'stock' ? body.jarId : jarId, input)
      jarTargets.push(id)
      kinds.set(body.kind, (kinds.get(body.kind) ?? 0) + 1)
    } catch (error) {
      expect([InputError, NotFound, Conflict].some(type => error instanceof type) ? 'refused' : error).toBe('refused')
      refused++
    }
  }

  it('is taken or refused in words, entry by entry, and leaves nothing impossible', () => {
    for (let batch = 0; batch < 4; batch++) {
      const [foodKey, cardKey] = source.pick(FOODS)
      const batchId = book.begin({ foodKey, cardKey, weightG: source.integer(200, 3000), purpose: source.pick(PURPOSES) }, batch * 500)
      const runId = uuidv7()
      const targets: string[] = []
      const runTargets: string[] = []
      for (let i = 0; i < 70; i++) {
        const jarIds = foldBatch(batchPage(context, batchId).entries, findFood)!.jars.map(jar => jar.jarId)
        const known = shelfPage(context).jars.map(jar => jar.jarId)
        if (known.length > 0 && source.uniform() < 0.3) {
          onAJar(source.pick(known), known, batch * 500 + i)
          continue
        }
        const onRun = source.uniform() < 0.2
        const body = onRun ? anyRunBody(source, runId, runTargets) : anyBody(source, book, runId, jarIds, targets)
        const id = uuidv7()
        const replaces = !onRun && source.uniform() < 0.08 && targets.length > 0 ? source.pick(targets) : undefined
        const parsed = (onRun ? newRunEntry : newEntry).safeParse({ id, at: book.at(batch * 500 + i), replaces, body })
        expect(parsed.error?.issues).toBeUndefined()
        try {
          if (onRun) logOnRun(context, runId, parsed.data as NewRunEntry)
          else book.log(batchId, batch * 500 + i, body as Parameters<TestBook['log']>[2], { id, replaces })
          ;(onRun ? runTargets : targets).push(id)
          kinds.set(body.kind, (kinds.get(body.kind) ?? 0) + 1)
        } catch (error) {
          expect([InputError, NotFound, Conflict].some(type => error instanceof type) ? 'refused' : error).toBe('refused')
          expect((error as Error).message.length).toBeGreaterThan(10)
          refused++
        }
      }
    }
    // Chance must have reached both sides for this to say anything.
    expect(refused).toBeGreaterThan(20)
    expect([...kinds.values()].reduce((a, b) => a + b)).toBeGreaterThan(20)
  })

  it('has mass in order: no more in jars than there was to pack, none below nothing', () => {
    for (const { batchId } of batchList(context, {}).batches) {
      const state = foldBatch(batchPage(context, batchId).entries, findFood)!
      const inJars = recallPage(context, batchId)
      expect(inJars.eatenG + inJars.jars.reduce((sum, jar) => sum + jar.partLeftG, 0)).toBeLessThanOrEqual(2 * state.packedG + 1)
      const packable = state.purpose === 'pieces' ? state.dryG : state.powderG
      expect(state.packedG).toBeLessThanOrEqual((packable ?? 0) * 1.02 + 1)
      expect(state.balance.solidsG.p90).toBeLessThanOrEqual(state.balance.weightG.p90)
      for (const run of [...state.earlierRuns, ...(state.run ? [state.run] : [])]) {
        for (const weighing of run.weighings) expect(weighing.hours).toBeGreaterThanOrEqual(0)
      }
    }
  })

  it('opens on every page', () => {
    const now = nowPage(context)
    expect(now.racks).toHaveLength(1)
    for (const todo of now.todos) expect(Number.isFinite(todo.from) && todo.why.length > 0).toBe(true)
    expect(stageBand(context).reduce((sum, stage) => sum + (stage.stage === 'shelf' ? 0 : stage.count), 0)).toBeLessThanOrEqual(4)
    for (const jar of shelfPage(context).jars) {
      const page = jarPage(context, jar.jarId)
      expect([...page.pedigree, ...page.packets].reduce((sum, lot) => sum + lot.leftG, 0)).toBeCloseTo(page.leftG, 6)
    }
    expect(findAnything(context, 'e').length).toBeGreaterThan(0)
  })

  it('comes out the same when its views are made anew', () => {
    const read = () =>
      ['batch_view', 'jar_view', 'jar_part', 'jar_use', 'todo'].map(table =>
        context.db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all(),
      )
    const before = read()
    rebuildProjections(context)
    const after = read()
    // Bands are estimated afresh at the same instant with the same seed: nothing may differ.
    expect(after).toEqual(before)
  })
})
