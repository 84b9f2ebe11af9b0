import { checkEntry, foldBatch, partOf, type PartAsked } from '#core/batch'
import { InputError } from '#core/errors'
import { flowOf } from '#core/flow'
import type { Purpose } from '#core/foods'
import { targetIn } from '#core/foods'
import type { BatchState, Entry, EntryBody, Fate } from '#core/log'
import { STANDARD_WAY } from '#core/ways'
import { randomSource } from '#core/stats'
import { findFood } from './foods'
import { HOUR, MORNING } from './logbook'

/** What a batch truly is, g: nobody in the log knows it. */
interface Truth {
  weightG: number
  solidsG: number
  /** Of dry food, by form, with its water as one share. */
  forms: Record<Purpose, number>
  moisture: number
}

interface Line {
  id: string
  number: number
  log: Entry[]
  state: BatchState
  truth: Truth
  /** Solids that it truly began with, g. */
  bornSolidsG: number
  stage: 'prep' | 'drying' | 'dry'
  hour: number
}

/** One basket followed by whoever dries it, with all that it became. */
export interface Life {
  lines: Line[]
  /** Actions that a rule refused: the life went on without them. */
  refused: number
}

const FOODS = ['beetroot', 'carrot', 'apple', 'tomato', 'mushroom', 'zucchini', 'onion', 'pumpkin']
const FATES: Fate[] = ['eaten', 'frozen', 'given', 'thrown']
const FORMS: Purpose[] = ['pieces', 'flakes', 'powder']
const MACHINE = { name: 'Cabinet', kind: STANDARD_WAY, trays: 10, lowC: 30, highC: 75, taken: [] }

/**
 * A life by chance: trimmed or not, salted, parts eaten or kept apart, loaded in parts, weighed or not, rested, packed and ground in parts,
 * ground again, with slips put right and entries taken back. Every weight in the log is the true one on a kitchen scale of 1 g.
 */
export function randomLife(seed: number): Life {
  const chance = randomSource(seed)
  const lines: Line[] = []
  let refused = 0
  let ids = 0
  const id = () => `00000000-0000-7000-8000-${String(seed % 1e6).padStart(6, '0')}${String(ids++).padStart(6, '0')}`
  const yes = (share: number) => chance.uniform() < share
  const between = (low: number, high: number) => low + (high - low) * chance.uniform()
  const scale = (grams: number) => Math.max(1, Math.round(grams))
  /** Within two and a half standard deviations, as nature is nearly always. */
  const drawn = ({ mean, sd }: { mean: number; sd: number }) => mean + sd * Math.max(-2.5, Math.min(2.5, chance.normal()))

  function write(line: Line, body: EntryBody, more: { replaces?: string; at?: number } = {}): boolean {
    const at = more.at ?? MORNING + line.hour * HOUR
    const entry: Entry = { id: id(), seq: line.log.length + 1, at, recordedAt: at, replaces: more.replaces, body }
    try {
      checkEntry(line.log, entry, { now: at + HOUR, find: findFood, machine: MACHINE })
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      refused++
      return false
    }
    line.log.push(entry)
    line.state = foldBatch(line.log, findFood)!
    return true
  }

  /** What is written is now and then a slip, put right later; or something that did not happen, taken back. */
  function tell(line: Line, body: EntryBody): boolean {
    if ('weightG' in body && body.weightG !== undefined && yes(0.08)) {
      const slip = { ...body, weightG: scale(body.weightG * between(0.7, 1.1)) } as EntryBody
      if (!write(line, slip)) return write(line, body)
      const wrong = line.log.at(-1)!
      return write(line, body, { replaces: wrong.id, at: wrong.at }) || undo(line, wrong.id)
    }
    return write(line, body)
  }
  function undo(line: Line, target: string): false {
    write(line, { kind: 'void', target })
    return false
  }

  function begin(body: Extract<EntryBody, { kind: 'intake' }>, truth: Pick<Truth, 'weightG' | 'solidsG'>, at: number): Line {
    const line: Line = {
      id: id(),
      number: lines.length + 1,
      log: [],
      state: undefined as unknown as BatchState,
      truth: { ...truth, forms: { pieces: 0, flakes: 0, powder: 0 }, moisture: 0 },
      bornSolidsG: truth.solidsG,
      stage: 'prep',
      hour: (at - MORNING) / HOUR,
    }
    if (!write(line, body, { at })) throw new Error(`no intake: ${JSON.stringify(body)}`)
    lines.push(line)
    return line
  }

  /** A part leaves as what it is, for good or as a batch of its own. */
  function leave(line: Line, grams: number, form: PartAsked['form'], weighed = true): boolean {
    const weightG = scale(grams)
    const own = lines.length < 4 && yes(0.5)
    const to = own ? id() : undefined
    const before = line.state
    const asked: PartAsked = { batchId: line.id, number: line.number, form, grams: weightG, sdG: weighed ? 0 : 0.08 * weightG }
    const at = MORNING + line.hour * HOUR
    const said = {
      kind: 'split' as const,
      weightG,
      weightSdG: weighed ? undefined : 0.08 * weightG,
      form: form === 'prepared' ? undefined : form,
    }
    if (!tell(line, own ? { ...said, to } : { ...said, fate: chance.pick(FATES) })) return false
    const { truth } = line
    const solidsG = form === 'prepared' ? (truth.solidsG * grams) / truth.weightG : grams * (1 - truth.moisture)
    if (form === 'prepared') {
      truth.weightG -= grams
      truth.solidsG -= solidsG
    } else truth.forms[form] -= grams
    if (!own) return true
    const part = partOf(before, at, asked)
    const child = begin(part.intake, { weightG: grams, solidsG }, part.at)
    for (const item of part.history) write(child, item.body, { at: item.at })
    child.hour = line.hour + 0.1
    if (form !== 'prepared') {
      child.stage = 'dry'
      child.truth.forms[form] = grams
      child.truth.moisture = truth.moisture
    }
    return true
  }

  function prepare(line: Line): void {
    const { truth, state } = line
    const trim = state.food.trimShare.value
    line.hour += between(0.1, 0.5)
    if (state.intake.body.prepared === undefined) {
      const offG = truth.weightG * Math.max(0.01, drawn(trim))
      const written = yes(0.7)
      if (!written || tell(line, { kind: 'prep', step: 'trim', effect: 'waste', weightG: yes(0.7) ? scale(offG) : undefined })) {
        truth.solidsG *= 1 - offG / truth.weightG
        truth.weightG -= offG
      }
    }
    line.hour += 0.2
    if (yes(0.3) && tell(line, { kind: 'prep', step: 'cut', effect: 'none' })) line.hour += 0.1
    if (yes(0.15)) {
      const saltG = scale(0.01 * truth.weightG)
      if (tell(line, { kind: 'prep', step: 'season', effect: 'added', added: { saltG } })) {
        truth.weightG += saltG
        truth.solidsG += saltG
      }
    }
    line.hour += 0.1
    for (let times = 0; times < 2; times++)
      if (yes(0.3) && truth.weightG > 300) leave(line, truth.weightG * between(0.1, 0.4), 'prepared', yes(0.7))
    line.hour += 0.1
  }

  function dry(line: Line): void {
    const { truth } = line
    const runId = id()
    const weighed = yes(0.75)
    if (yes(0.3) && truth.weightG > 400) leave(line, truth.weightG * between(0.2, 0.5), 'prepared', weighed)
    const expected = line.state.balance.weightG
    const totalG = weighed ? scale(truth.weightG) : scale(expected.p50)
    const weightSdG = weighed ? undefined : Math.max(1, 0.1 * totalG)
    if (!tell(line, { kind: 'load', runId, machineId: 'cabinet', positions: [1, 2, 3], totalG, weightSdG })) return
    write(line, { kind: 'heat', runId, setC: line.state.run!.way.temperatureC })
    line.stage = 'drying'
    const { low, high } = line.state.run!.way.usualHours.value
    const hours = between(low, high)
    const begun = line.hour
    const target = targetIn(line.state.food, line.state.purpose, STANDARD_WAY)
    const moisture = target * between(0.75, 1.25)
    const dryG = truth.solidsG / (1 - moisture)
    // Free water falls by the same share each hour, to a balance somewhat below where it is taken out.
    const balanceG = truth.solidsG / (1 - 0.6 * moisture)
    const fall = Math.log((truth.weightG - balanceG) / (dryG - balanceG))
    for (const share of [0.4, 0.7, 0.9]) {
      if (!yes(0.4)) continue
      line.hour = begun + share * hours
      tell(line, { kind: 'weigh', totalG: scale(balanceG + (truth.weightG - balanceG) * Math.exp(-fall * share)) })
    }
    line.hour = begun + hours
    if (!tell(line, { kind: 'unload', weightG: yes(0.75) ? scale(dryG) : undefined })) return
    line.stage = 'dry'
    truth.forms.pieces = dryG
    truth.moisture = moisture
    truth.weightG = dryG
    line.hour += 0.3
  }

  /** Some of it was not dry: that goes back, and the rest stays out. */
  function backIn(line: Line): void {
    const { truth } = line
    if (yes(0.6)) leave(line, truth.forms.pieces * between(0.2, 0.6), 'pieces')
    const runId = id()
    const grams = truth.forms.pieces
    if (!tell(line, { kind: 'load', runId, machineId: 'cabinet', positions: [1], totalG: scale(grams) })) return
    write(line, { kind: 'heat', runId, setC: line.state.run!.way.temperatureC })
    line.hour += between(1, 3)
    const drier = truth.moisture * between(0.7, 0.95)
    const outG = (grams * (1 - truth.moisture)) / (1 - drier)
    if (!tell(line, { kind: 'unload', weightG: yes(0.8) ? scale(outG) : undefined })) return
    truth.forms.pieces = outG
    truth.moisture = drier
    line.hour += 0.3
  }

  function use(line: Line): void {
    const { truth } = line
    if (line.state.run && truth.forms.pieces > 60 && yes(0.2)) backIn(line)
    if (line.state.run) {
      if (yes(0.6)) {
        tell(line, { kind: 'rest', jars: [{ name: 'One' }, { name: 'Two' }] })
        line.hour += between(24, 96)
        tell(line, { kind: 'look', saw: 'dry' })
        if (yes(0.15)) {
          const outG = truth.forms.pieces * between(0.1, 0.3)
          if (tell(line, { kind: 'restOut', jar: 1, weightG: scale(outG), cause: 'dropped' })) truth.forms.pieces -= outG
        }
      }
      line.hour += 0.2
      tell(line, { kind: 'restEnd', weightG: yes(0.4) ? scale(truth.forms.pieces) : undefined })
    }
    const turns = chance.integer(1, 6)
    for (let turn = 0; turn < turns && line.state.stage !== 'shelf'; turn++) {
      line.hour += between(0.2, 5)
      const deed = chance.pick(['grind', 'grind', 'again', 'pack', 'pack', 'leave', 'oven'] as const)
      if (deed === 'grind') grind(line, 'pieces', truth.forms.pieces * (yes(0.5) ? 1 : between(0.2, 0.9)))
      else if (deed === 'again') {
        const form: Purpose = truth.forms.flakes > 20 ? 'flakes' : 'powder'
        grind(line, form, truth.forms[form])
      } else if (deed === 'pack') pack(line, chance.pick(FORMS), yes(0.5) ? 1 : between(0.2, 0.9))
      else if (deed === 'leave') {
        const form = chance.pick(FORMS)
        if (truth.forms[form] > 20) leave(line, truth.forms[form] * between(0.1, 0.6), form)
      } else oven(line)
    }
    if (yes(0.5)) for (const form of FORMS) pack(line, form, 1)
  }

  function grind(line: Line, from: Purpose, grams: number): void {
    if (grams < 15) return
    const again = from !== 'pieces'
    const makes = from === 'flakes' ? 'powder' : yes(0.3) ? 'flakes' : 'powder'
    if (again && from === 'powder' && makes === 'flakes') return
    const outG = grams * between(0.88, 0.99)
    if (!tell(line, { kind: 'grind', dryInG: scale(grams), powderOutG: scale(outG), again: again || undefined, makes })) return
    line.truth.forms[from] -= grams
    line.truth.forms[makes] += outG
  }

  function pack(line: Line, form: Purpose, share: number): void {
    const grams = line.truth.forms[form] * share
    if (grams < 3) return
    if (tell(line, { kind: 'pack', jarId: id(), netG: scale(grams), form, packageKey: 'screw-jar', place: 'Board' }))
      line.truth.forms[form] -= grams
  }

  function oven(line: Line): void {
    const { forms, moisture } = line.truth
    if (forms.powder < 20 || forms.flakes > 1 || forms.pieces > 1) return
    const drier = moisture * between(0.6, 0.95)
    const afterG = (forms.powder * (1 - moisture)) / (1 - drier)
    if (!tell(line, { kind: 'powderDry', how: 'low-oven', minutes: 15, beforeG: scale(forms.powder), afterG: scale(afterG) })) return
    forms.powder = afterG
    line.truth.moisture = drier
  }

  const food = findFood(chance.pick(FOODS))!
  const weightG = scale(between(400, 6000))
  const water = drawn(food.rawMoisture.value)
  begin(
    { kind: 'intake', foodKey: food.key, source: 'Garden', weightG, purpose: chance.pick(FORMS), cardKey: food.cards[0]!.key },
    { weightG, solidsG: weightG * (1 - Math.min(0.985, water)) },
    MORNING,
  )
  const stopAt = chance.integer(0, 5)
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!
    if (line.stage === 'prep') prepare(line)
    if (stopAt === 0 && i === 0) continue
    if (line.stage === 'prep') dry(line)
    if (line.stage === 'dry' && stopAt !== 1) use(line)
  }
  return { lines, refused }
}

/** How far a life's accounts are from each other, and from the truth. */
export interface Breach {
  /** Weights that do not add up, as a share of the basket. */
  weights: number
  /** Solids that do not add up with the stated doubt counted in, as a share of the basket's. */
  solids: number
  /** The stated doubt over its own standard deviation. */
  doubt: number
  /** What is missing without a word, or over, beyond the grams of a few weighings, as a share of the basket. */
  unsaid: number
  /** True solids of the basket from what is said of them, in standard deviations of the stated doubt. */
  truth: number
}

/** What is no fault: an arrow under a twentieth of a gram is not drawn, and nature lies within five standard deviations. */
export const BEARABLE: Breach = { weights: 2e-3, solids: 1e-9, doubt: 5, unsaid: 0.02, truth: 5 }
const FEW_WEIGHINGS_G = 3

export function breachOf({ state, log, hour, bornSolidsG }: Pick<Line, 'state' | 'log' | 'hour' | 'bornSolidsG'>): Breach {
  const flow = flowOf(state, log, MORNING + (hour + 1) * HOUR)
  const { weightG } = flow.basket
  const sum = (of: (item: { weightG: number; solidsG: number }) => number) =>
    flow.arrows.reduce((total, arrow) => total + of(arrow), 0) +
    flow.open.reduce((total, lot) => total + of({ weightG: lot.weightG.p50, solidsG: lot.solidsG.p50 }), 0)
  const believedG = weightG * (1 - state.ledger.rawMoisture.mean)
  const missing = flow.arrows.filter(({ kind }) => kind === 'unsaid' || kind === 'scale').map(arrow => Math.abs(arrow.weightG))
  return {
    weights: Math.abs(sum(item => item.weightG) - weightG) / weightG,
    solids: Math.abs(sum(item => item.solidsG) + flow.doubt.solidsG - believedG) / believedG,
    doubt: Math.abs(flow.doubt.solidsG) / flow.doubt.sdG,
    unsaid: Math.max(0, ...missing.map(grams => grams - FEW_WEIGHINGS_G)) / weightG,
    truth: Math.abs(flow.basket.solidsG - bornSolidsG) / flow.doubt.sdG,
  }
}

/** What so many lives came to. */
export interface Lives {
  lines: number
  entries: number
  refused: number
  worst: Breach
  /** Each breach that is not bearable, in words. */
  faults: string[]
}

/** Lives by seeds from one on: each line at its end, and as it stood after one of its entries, where only the sums must hold. */
export function liveThrough(first: number, count: number): Lives {
  const lives: Lives = { lines: 0, entries: 0, refused: 0, worst: { weights: 0, solids: 0, doubt: 0, unsaid: 0, truth: 0 }, faults: [] }
  for (let seed = first; seed < first + count; seed++) {
    const { lines, refused } = randomLife(seed)
    lives.refused += refused
    for (const line of lines) {
      lives.lines++
      lives.entries += line.log.length
      const part = line.log.slice(0, 1 + (seed % line.log.length))
      const then = foldBatch(part, findFood)
      const sums = then && breachOf({ ...line, log: part, state: then, hour: (part.at(-1)!.at - MORNING) / HOUR })
      const found: [string, Partial<Breach>][] = [
        ['at its end', breachOf(line)],
        ['on its way', sums ? { weights: sums.weights, solids: sums.solids } : {}],
      ]
      for (const [when, breach] of found) {
        for (const [name, value] of Object.entries(breach) as [keyof Breach, number][]) {
          lives.worst[name] = Math.max(lives.worst[name], value)
          if (!(value <= BEARABLE[name])) lives.faults.push(`life ${seed}, batch ${line.number} ${when}: ${name} ${value}`)
        }
      }
    }
  }
  return lives
}
