import { uuidv7 } from 'uuidv7'
import { assess, foldBatch, unusualOf } from '#core/batch'
import { cardOf, purposeFactor } from '#core/foods'
import { ofKind } from '#core/log'
import { randomSource, type RandomSource } from '#core/stats'
import { entriesOfBatch } from '#server/db/entries'
import { foodHours, foodPage } from '#server/services/foods'
import { forecast, forecastAlternatives } from '#server/services/forecast'
import { insightPage } from '#server/services/insight'
import { hoursInMachine, hoursLearned, learnedPage } from '#server/services/learning'
import { machineList, machinePage } from '#server/services/machines'
import { batchPage } from '#server/services/pages'
import { rebuildProjections } from '#server/services/projections'
import { saveMachine } from '#server/services/settings'
import { startBatch } from '#server/services/writeLog'
import { BEETROOT, HOUR, MORNING, testBook } from '../../support/logbook'
import { dryLot, years, type Dried, type LotTruth } from '../../support/householdYears'

const TOMATO = { foodKey: 'tomato', cardKey: 'slices-6' }
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!
/** Lots after so many own ones, in several households: for each count its lots. */
function after(counts: readonly number[], lotOf: (source: RandomSource, i: number) => LotTruth, households = 8): Dried[][] {
  const all = Array.from({ length: households }, (_, k) => {
    const source = randomSource(101 * k + 17)
    return years(Math.max(...counts) + 1, i => lotOf(source, i), source).dried
  })
  return counts.map(count => all.map(dried => dried[count]!))
}
const targetError = (dried: Dried[]) => median(dried.map(lot => Math.abs(lot.atHalf.targetG.p50 / lot.targetG - 1)))
const hoursError = (dried: Dried[]) => median(dried.map(lot => Math.abs(Math.sqrt(lot.said.low * lot.said.high) / lot.hours - 1)))
const near = (source: RandomSource, sd: number) => Math.exp(sd * source.normal())

describe('solids of own lots', () => {
  it.each([0.07, 0.04])('tomatoes of %d: the target weight at half is within 5 %% after three lots', solids => {
    const lot = (source: RandomSource): LotTruth => ({ ...TOMATO, solids: solids * near(source, 0.02), hours: near(source, 0.1) })
    const [first, fourth] = after([0, 3], lot).map(targetError)
    expect(first).toBeGreaterThan(0.12)
    expect(fourth).toBeLessThan(0.05)
  })
  it('are learned from lots that were taken out early, and of which somebody ate, and from those hardly weighed', () => {
    const early = (source: RandomSource): LotTruth => ({
      ...TOMATO,
      solids: 0.07 * near(source, 0.02),
      hours: near(source, 0.1),
      weighedAt: [0.3, 0.6, 0.9],
      tasted: 0.08,
    })
    expect(targetError(after([3], early)[0]!)).toBeLessThan(0.05)
    const once = (source: RandomSource): LotTruth => ({ ...early(source), weighedAt: [0.5, 1.1], tasted: 0 })
    expect(targetError(after([3], once)[0]!)).toBeLessThan(0.06)
  })
  it('stand on the food’s page, and in the log of the next basket; another cultivar is less sure', () => {
    const source = randomSource(3)
    const { book } = years(3, () => ({ ...TOMATO, solids: 0.07, hours: 1, cultivar: 'Ribbed' }), source)
    const { water } = foodPage(book.context, 'tomato').ownLots!
    expect(water!.lots).toBe(3)
    // Of whatever cultivar; the one that was dried is told more nearly.
    expect(water!.mean).toBeGreaterThan(0.925)
    expect(water!.mean).toBeLessThan(0.938)
    const intakeOf = (cultivar: string) => {
      const id = book.begin({ ...TOMATO, cultivar }, 2000)
      return ofKind(entriesOfBatch(book.context.db, id), 'intake')[0]!.body.rawWater!
    }
    expect(intakeOf('Ribbed').lots).toBe(3)
    expect(intakeOf('Ribbed').mean).toBeCloseTo(0.9305, 3)
    expect(intakeOf('Plum').sd).toBeGreaterThan(1.2 * intakeOf('Ribbed').sd)
    // What was never dried has the reference.
    expect(ofKind(entriesOfBatch(book.context.db, book.begin({}, 2001)), 'intake')[0]!.body.rawWater).toBeUndefined()
  })
})

describe('what a basket gives', () => {
  it('is learned by cut and way of preparing: roasting lowers its own, not the others’', () => {
    const book = testBook()
    const source = randomSource(9)
    for (let i = 0; i < 3; i++)
      dryLot(book, { foodKey: 'tomato', cardKey: 'slices-6', solids: 0.058, hours: 1, prep: 0.9 }, i * 400, source)
    const before = forecastOf(book, 'slices-6')
    for (let i = 0; i < 3; i++)
      dryLot(book, { foodKey: 'tomato', cardKey: 'slices-12', solids: 0.058, hours: 1, prep: 0.6 }, (i + 4) * 400, source)
    expect(forecastOf(book, 'slices-12').preparedG.p50).toBeLessThan(0.75 * forecastOf(book, 'slices-6').preparedG.p50)
    expect(forecastOf(book, 'slices-6').preparedG.p50 / before.preparedG.p50).toBeGreaterThan(0.95)
  })
  it('is corrected to the target: lots taken out dry or damp give the same', () => {
    const lot = (weighedAt: number[]) => (source: RandomSource) => ({ ...TOMATO, solids: 0.058, hours: near(source, 0.05), weighedAt })
    const given = (weighedAt: number[]) => {
      const source = randomSource(21)
      const { book } = years(4, () => lot(weighedAt)(source), source)
      return forecastOf(book, 'slices-6').dryG.p50
    }
    expect(given([0.3, 0.6, 0.92]) / given([0.3, 0.6, 1, 1.3])).toBeCloseTo(1, 1)
  })
  const forecastOf = ({ context, machineId }: ReturnType<typeof testBook>, cardKey: string) =>
    forecast(context, { foodKey: 'tomato', cardKey, purpose: 'powder', weightG: 2000, machineId })
})

describe('a dial that was measured', () => {
  // At +6 °C food is dry in 0.84 of the hours, at −6 in 1.2: by Arrhenius and wet bulb as docs/method.md has them.
  it.each([
    [6, 0.84],
    [-6, 1.2],
    [0, 1],
  ])('at %d °C off is told no worse than one that was not, from the second run on', (dialC, hours) => {
    const lot = (measured: number) => (source: RandomSource) => ({
      ...TOMATO,
      solids: 0.058 * near(source, 0.04),
      hours: hours * near(source, 0.06),
      dialC,
      measured,
    })
    const counts = [1, 4]
    const [measured, plain] = [2, 0].map(times => after(counts, lot(times), 4).map(hoursError))
    counts.forEach((count, i) => {
      expect(measured![i]).toBeLessThan(Math.max(plain![i]! + 0.02, 0.08))
      // Before runs have told, the thermometer has.
      if (count === 1 && dialC > 0) expect(measured![i]).toBeLessThan(plain![i]!)
    })
  })
  it('moves the card’s hours before any run has finished, and says so', () => {
    const book = testBook()
    const runId = uuidv7()
    const batchId = book.begin()
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2, 3], totalG: 1700 })
    book.heat(runId, 1, 57)
    for (const hours of [2, 3, 4]) book.air(runId, hours, { chamberC: 65 })
    const food = book.context.foods.find('beetroot')!
    const [machine] = foodHours(book.context, 'beetroot').machines
    const told = machine!.cards['slices-3']!
    expect(told).toMatchObject({ runs: 0, by: 'dial' })
    expect(told.high).toBeLessThan(0.9 * cardOf(food, 'slices-3').usualHours.value.high)
  })
})

describe('hours ahead', () => {
  it('are the same figure on every page that tells them, for every food and machine', () => {
    const { book } = years(4, i => ({ ...TOMATO, solids: 0.06, hours: 1.5 + 0.1 * i }), randomSource(5))
    const { context } = book
    saveMachine(context, { ...withoutFacts(machineList(context)[0]!), id: uuidv7(), name: 'Second', version: undefined } as never)
    let compared = 0
    for (const food of context.foods.foods.filter((_, i) => i % 6 === 0)) {
      const page = foodHours(context, food.key)
      const basket = {
        foodKey: food.key,
        cardKey: food.cards[0]!.key,
        purpose: 'powder' as const,
        weightG: 2000,
        machineId: book.machineId,
      }
      const rows = forecastAlternatives(context, basket)
      for (const { machineId, cards } of page.machines)
        for (const [cardKey, hours] of Object.entries(cards)) {
          const card = cardOf(food, cardKey)
          expect(
            hoursInMachine(context, machineId, { food, card, thicknessMm: undefined, cutBy: undefined, purpose: 'pieces', choices: {} }),
          ).toEqual(hours)
          const machine = machineList(context).find(item => item.id === machineId)!
          if (card.raw || card.temperatureC > machine.highC || card.temperatureC < machine.lowC) continue
          const { hoursPerLoad } = forecast(context, { ...basket, cardKey, machineId })
          // Six hundred draws of the same distribution.
          const crisp = purposeFactor(food, 'powder', machine.kind)
          expect(hoursPerLoad.p50 / (crisp * Math.sqrt(hours.low * hours.high))).toBeCloseTo(1, 1)
          const row = rows.find(item => item.machineId === machineId && item.cardKey === cardKey)
          if (row) expect(row.hoursPerLoad).toEqual(hoursPerLoad)
          compared++
        }
    }
    expect(compared).toBeGreaterThan(60)
    const batchId = book.begin({ foodKey: 'beetroot', cardKey: 'slices-3' }, 3000)
    expect(batchPage(context, batchId).learned[book.machineId]).toEqual(foodHours(context, 'beetroot').machines[0]!.cards['slices-3'])
  })
  it('are written down where whoever logs did not say them, sent again or corrected', () => {
    const { book } = years(3, () => ({ ...TOMATO, solids: 0.06, hours: 1.6 }), randomSource(6))
    const { context, machineId } = book
    const id = uuidv7()
    const input = { id, entry: { id: uuidv7(), at: book.at(3000), body: { ...BEETROOT, ...TOMATO } } }
    startBatch(context, input)
    // Sent again it is the same entry, though more stands in the log than was sent.
    expect(startBatch(context, input).repeated).toBe(true)
    const load = { kind: 'load' as const, runId: uuidv7(), machineId, positions: [1, 2, 3], totalG: 1700 }
    const first = book.log(id, 3001, load)
    const written = first.entry.body as typeof load & { usualHours?: { low: number; high: number; runs: number } }
    expect(written.usualHours!.runs).toBe(3)
    expect(written.usualHours!.low).toBeGreaterThan(9)
    // What has come of it since is no belief: here a dial that was measured meanwhile.
    book.air(load.runId, 3002, { chamberC: 90 })
    const corrected = book.log(id, 3001, { ...load, totalG: 1690 }, { replaces: first.entry.id })
    expect((corrected.entry.body as typeof written).usualHours).toEqual(written.usualHours)
  })
  it('are learned from what left its machine unpacked, and from hands alone', () => {
    const open = years(2, () => ({ ...TOMATO, solids: 0.06, hours: 1.5, open: true }), randomSource(7)).book
    expect(hoursLearned(open.context).runs).toBe(2)
    const book = testBook()
    const batchId = book.begin({ ...TOMATO })
    const runId = uuidv7()
    book.log(batchId, 1, { kind: 'load', runId, machineId: book.machineId, positions: [1, 2, 3], totalG: 1700 })
    book.heat(runId, 1, 57)
    const feel = (bend: string) => ({
      kind: 'feel' as const,
      check: { form: 'pieces' as const, answers: { bend, ...(bend === 'snaps' && { middle: 'even' }) }, cooled: true, places: 3 },
    })
    book.log(batchId, 15, feel('bends'))
    book.log(batchId, 19, feel('snaps'))
    book.log(batchId, 19.1, { kind: 'unload' })
    const { runs } = learnedPage(book.context, { kind: 'machine', key: book.machineId })
    expect(runs).toHaveLength(1)
    // Dry between fourteen and eighteen hours of heat: some 16 over the card's middle.
    const { low, high } = cardOf(book.context.foods.find('tomato')!, 'slices-6').usualHours.value
    expect(runs[0]!.hours * Math.sqrt(low * high)).toBeGreaterThan(13.5)
    expect(runs[0]!.hours * Math.sqrt(low * high)).toBeLessThan(18.5)
    // Felt wet early and never again, or dry by one warm piece: nobody knows when it was dry.
    const second = book.begin({ ...TOMATO }, 400)
    const other = uuidv7()
    book.log(second, 401, { kind: 'load', runId: other, machineId: book.machineId, positions: [1, 2, 3], totalG: 1700 })
    book.heat(other, 401, 57)
    book.log(second, 403, feel('bends'))
    const warm = feel('snaps')
    book.log(second, 410, { ...warm, check: { ...warm.check, cooled: false, places: 1 } })
    book.log(second, 416, { kind: 'unload' })
    expect(learnedPage(book.context, { kind: 'machine', key: book.machineId }).runs).toHaveLength(1)
  })
})

describe('the runs behind what was learned', () => {
  it('are listed; one that is left out teaches nothing, and teaches again when that is voided', () => {
    const { book, dried } = years(4, i => ({ ...TOMATO, solids: 0.06, hours: i === 2 ? 3 : 1.4 }), randomSource(8))
    const { context, machineId } = book
    const page = () => learnedPage(context, { kind: 'machine', key: machineId })
    expect(page().runs.map(run => run.number)).toEqual([4, 3, 2, 1])
    expect(page().effect!.runs).toBe(4)
    const odd = page().runs[1]!
    expect(odd.hours).toBeGreaterThan(2)
    const hours = () => foodHours(context, 'tomato').machines[0]!.cards['slices-6']!
    book.at(3000)
    const wide = hours()
    const { entry } = book.log(dried[2]!.batchId, 3000, { kind: 'leaveOut', reason: 'The door stood open.' })
    expect(page().effect!.runs).toBe(3)
    expect(page().runs[1]).toMatchObject({
      batchId: dried[2]!.batchId,
      counts: 0,
      leftOut: { reason: 'The door stood open.', entryId: entry.id },
    })
    expect(hours().high / hours().low).toBeLessThan(wide.high / wide.low)
    expect(foodPage(context, 'tomato').ownLots!.water!.lots).toBe(3)
    rebuildProjections(context)
    expect(page().runs[1]!.leftOut).toBeDefined()
    book.log(dried[2]!.batchId, 3001, { kind: 'void', target: entry.id })
    expect(hours()).toEqual(wide)
    expect(() => learnedPage(context, { kind: 'machine', key: 'none' })).toThrow(/no such machine/)
  })
  it('a machine without any is told how its first one teaches most', () => {
    const book = testBook()
    const told = machinePage(book.context, book.machineId).calibration!
    expect(told.foods).toHaveLength(3)
    expect(told.worth).toBeGreaterThanOrEqual(2)
    book.whole()
    expect(machinePage(book.context, book.machineId).calibration).toBeUndefined()
  })
  it('insight shows how error and width fell', () => {
    const { book } = years(12, () => ({ ...TOMATO, solids: 0.06, hours: 1.7 }), randomSource(4))
    const { learning } = insightPage(book.context, { by: 'food' })
    expect(learning.length).toBeGreaterThan(6)
    expect(learning[0]!.error).toBeGreaterThan(2 * learning.at(-1)!.error)
    expect(learning.at(-1)!.width).toBeLessThan(learning[0]!.width)
  })
})

describe('a loading that was logged late', () => {
  it('is asked about, and both starts are reckoned with', () => {
    const book = testBook()
    const lot: LotTruth = { ...TOMATO, solids: 0.057, hours: 1, lateStart: 2, weighedAt: [0.25, 0.5, 0.75, 1.1], open: true }
    const { batchId, hours, atHalf } = dryLot(book, lot, 0, randomSource(2))
    expect(atHalf.hours.p10).toBeLessThan(hours)
    expect(atHalf.hours.p90).toBeGreaterThan(hours)
    const log = entriesOfBatch(book.context.db, batchId).filter(entry => entry.body.kind !== 'unload' && entry.body.kind !== 'feel')
    const state = foldBatch(log, book.context.foods.find)!
    const at = MORNING + 12 * HOUR
    expect(unusualOf(state, assess(state, at)!, at)).toContainEqual({ kind: 'lateStart', hours: expect.any(Number) as number })
    const onTime = dryLot(book, { ...lot, lateStart: 0 }, 400, randomSource(2))
    const { estimate } = assess(foldBatch(entriesOfBatch(book.context.db, onTime.batchId), book.context.foods.find)!, 0)!
    expect(estimate.lateStart).toBeUndefined()
  })
})

/** A machine's settings, as they are saved. */
function withoutFacts({ hoursRun, upkeep, thermostat, evenness, pace, ...settings }: ReturnType<typeof machineList>[number]) {
  void [hoursRun, upkeep, thermostat, evenness, pace]
  return settings
}
