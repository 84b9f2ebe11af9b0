import { normalCdf, type Interval } from '../stats'
import { envelopeOf, factor, solve, type Factor } from './cholesky'

/** Something found in a finished batch, against what was to be expected of it. */
export interface Found<Kind extends string> {
  /** The batch that it was found in. */
  id?: string
  /** ln of what was found over what was expected. */
  log: number
  /** Doubt of that, standard deviation. */
  doubt?: number
  /** What it is an example of: its machine, its food. Kinds that are not known of it are left out. */
  of: Partial<Record<Kind, string>>
}

/** How far things of each kind may differ, before anything is found. Standard deviations of the logarithm. */
export interface EffectsModel<Kind extends string> {
  /** Each inside the next, such as cut, food, family. */
  nested: readonly Kind[]
  /** Those that cross all others, such as machine and person. */
  crossed: readonly Kind[]
  spread: (kind: Kind, key: string) => number
  /** How many times as far all but the lead may differ here, and what is believed of that. */
  scales: readonly (readonly [scale: number, belief: number])[]
  /** The kind that is reckoned with apart, with what may be believed of it: where it lies, and how many times its spread. */
  lead?: { kind: Kind; may: readonly { mean: number; scale: number; belief: number }[] }
  /** One thing alone may be far off, so many times its spread, while the others are not; and what is believed of that. */
  odd?: { scale: number; belief: number }
  /** What is known of one thing beforehand, such as of a machine whose dial was measured. */
  meanOf?: (kind: Kind, key: string) => number
  /** What is left between two that are alike in everything, and what is believed of that. */
  scatters: readonly (readonly [sd: number, belief: number])[]
  /** Of this kind older findings say less: one with so many newer ones after it counts half, and no more than `read` are read. */
  ages?: { kind: Kind; halfAfter: number; read: number }
  /** Found further off than so many standard deviations it is doubted more the further it is. */
  doubted: number
}

/** One thing by itself: how it differs, with its doubt, and what it was found in. */
export interface Effect {
  factor: Interval
  runs: number
}

/** A finding behind an effect, and how much it still counts beside a new one without doubt, 0–1. */
export interface Behind {
  id?: string
  log: number
  counts: number
}

export interface Effects<Kind extends string> {
  /** Factor for the next one of such, p10 to p90. */
  next: (of: Partial<Record<Kind, string>>) => Interval
  effectOf: (kind: Kind, key: string) => Effect | undefined
  /** What an effect rests on, newest first. */
  behind: (kind: Kind, key: string) => Behind[]
  /** How many of the findings share any of these things. */
  sharing: (of: Partial<Record<Kind, string>>) => number
  count: number
}

interface Cell {
  belief: number
  scatter: number
  scale: number
  lead: { mean: number; scale: number }
  /** The thing that is far off by itself. */
  odd?: string
  factor: Factor
  mean: Float64Array
}

/** Least difference of a machine before and after that is a change and no chance, in standard deviations and on the logarithm. */
const CHANGED = { sds: 3.6, log: 0.12, least: 3, most: 20 }
/** Nothing repeats itself more closely than this, as far as doubting goes. */
const LEAST_SCATTER = 0.1
/** Pairings of less belief than this do not count; scatters so far behind, as logarithm of the evidence, are not looked at. */
const PAIRINGS_KEPT = 2e-3
const SURELY_NOT = 9
/** Of so few findings all is worked out. */
const FEW = 40

/**
 * What findings teach of the things that they are examples of: on the logarithm the effects of all kinds add up. How far things
 * differ and how far like ones scatter is learned too: every pairing of both is reckoned with, by its evidence. What lies far off
 * all others counts less, and so does what is old; where a thing of the ageing kind has changed for good, what was before counts
 * as another thing.
 * @param found newest first
 */
export function learnEffects<Kind extends string>(found: readonly Found<Kind>[], model: EffectsModel<Kind>): Effects<Kind> {
  const kinds = [...model.nested, ...model.crossed]
  type Thing = { kind: Kind; key: string; name: string }
  const nameOf = (kind: Kind, of: Partial<Record<Kind, string>>): string | undefined => {
    const at = model.nested.indexOf(kind)
    if (of[kind] === undefined) return undefined
    // What is nested is known by its place: the same cut of two foods is two cuts.
    return at < 0 ? `~ ${kind} ${of[kind]}` : [...model.nested.slice(at).map(outer => of[outer] ?? '')].reverse().join('|') + '|~'
  }
  const { ages } = model
  const ranks = new Map<string, number>()
  const aged: number[] = []
  const list = found.filter(({ of }) => {
    const key = ages && of[ages.kind]
    if (!ages || key === undefined) return aged.push(1)
    const rank = ranks.get(key) ?? 0
    ranks.set(key, rank + 1)
    if (rank >= ages.read) return false
    return aged.push(1 + (rank / ages.halfAfter) ** 3)
  })
  const logs = list.map(item => item.log)
  const doubts = list.map(item => (item.doubt ?? 0) ** 2)
  const names = list.map(item => kinds.map(kind => nameOf(kind, item.of)))

  /** The things in an order in which what is nested stands together, so that little has to be worked out. */
  const lay = () => {
    const seen = new Map<string, { kind: Kind; key: string }>()
    names.forEach((row, r) =>
      row.forEach((name, k) => {
        if (name !== undefined && !seen.has(name)) seen.set(name, { kind: kinds[k]!, key: list[r]!.of[kinds[k]!]! })
      }),
    )
    const sorted = [...seen.keys()].sort()
    const levels = new Map(sorted.map((name, i) => [name, i]))
    const rows = names.map(row => row.flatMap(name => (name === undefined ? [] : [levels.get(name)!])))
    const first = Int32Array.from(sorted, (_, i) => i)
    for (const row of rows) {
      const least = Math.min(...row)
      for (const i of row) first[i] = Math.min(first[i]!, least)
    }
    return {
      levels,
      envelope: envelopeOf(first),
      things: sorted.map((name): Thing => ({ ...seen.get(name)!, name })),
      rows,
    }
  }
  let laid = lay()

  /** What the findings weigh at one scatter: it is the same for all scales. */
  const gather = (scatter: number, trust: readonly number[]) => {
    const { envelope } = laid
    const gram = new Float64Array(envelope.kept)
    const right = new Float64Array(envelope.size)
    let evidence = 0
    laid.rows.forEach((row, r) => {
      const weight = trust[r]! / (scatter * scatter * aged[r]! + doubts[r]!)
      evidence += 0.5 * Math.log(weight) - 0.5 * weight * logs[r]! ** 2
      for (const i of row) {
        right[i]! += weight * logs[r]!
        for (const j of row) if (j <= i) gram[envelope.start[i]! + j]! += weight
      }
    })
    return { gram, right, evidence }
  }
  type Gathered = ReturnType<typeof gather>
  type May = NonNullable<(typeof model)['lead']>['may'][number]
  const priorOf = ({ kind, key, name }: Thing, cell: Pick<Cell, 'scale' | 'lead' | 'odd'>) => {
    const leads = kind === model.lead?.kind
    const scale = leads ? cell.lead.scale : name === cell.odd ? model.odd!.scale : cell.scale
    const spread = model.spread(kind, key) * scale
    return { spread, mean: (leads ? cell.lead.mean : 0) + (model.meanOf?.(kind, key) ?? 0) }
  }
  /** One pairing: the effects as a normal distribution, and the logarithm of its evidence. */
  const fit = ({ gram, right, evidence }: Gathered, scatter: number, scale: number, lead: Cell['lead'], odd?: string) => {
    const { envelope } = laid
    const precision = gram.slice()
    const pull = right.slice()
    let log = evidence
    laid.things.forEach((thing, i) => {
      const { spread, mean } = priorOf(thing, { scale, lead, odd })
      const own = 1 / spread ** 2
      precision[envelope.start[i]! + i]! += own
      pull[i]! += own * mean
      log += 0.5 * Math.log(own) - 0.5 * own * mean ** 2
    })
    const factored = factor(envelope, precision)
    const mean = solve(factored, pull)
    for (let i = 0; i < envelope.size; i++) log += 0.5 * pull[i]! * mean[i]!
    return { cell: { belief: 0, scatter, scale, lead, odd, factor: factored, mean }, log: log - factored.halfLogDeterminant }
  }
  const weigh = (trust: readonly number[], scales: EffectsModel<Kind>['scales'], leads: readonly May[], odd?: string): Cell[] => {
    const odds: [name: string | undefined, belief: number][] =
      odd === undefined
        ? [[undefined, 1]]
        : [
            [undefined, 1 - model.odd!.belief],
            [odd, model.odd!.belief],
          ]
    const gathered = model.scatters.map(([scatter, belief]) => ({ scatter, belief, sums: gather(scatter, trust) }))
    // How far like ones scatter is soon told: pairings of what it surely is not are not worth working out.
    const quick =
      list.length < FEW
        ? []
        : gathered.map(({ scatter, belief, sums }) => fit(sums, scatter, scales[0]![0], leads[0]!).log + Math.log(belief))
    const likely = list.length < FEW ? gathered : gathered.filter((_, i) => quick[i]! > Math.max(...quick) - SURELY_NOT)
    const fitted = likely.flatMap(({ scatter, belief, sums }) =>
      leads.flatMap(lead =>
        scales.flatMap(([scale, ofScale]) =>
          odds.map(([name, ofOdd]) => {
            const { cell, log } = fit(sums, scatter, scale, lead, name)
            return { cell, log: log + Math.log(belief * lead.belief * ofScale * ofOdd) }
          }),
        ),
      ),
    )
    const most = Math.max(...fitted.map(item => item.log))
    const cells = fitted.map(({ cell, log }) => ({ ...cell, belief: Math.exp(log - most) })).filter(cell => cell.belief > PAIRINGS_KEPT)
    const total = cells.reduce((sum, cell) => sum + cell.belief, 0)
    return cells.map(cell => ({ ...cell, belief: cell.belief / total }))
  }

  // First which findings are far off all others, in a household where all may differ; then all pairings without those.
  const wide: May[] = [{ mean: 0, scale: 2, belief: 1 }]
  let trust = list.map(() => 1)
  let odd: string | undefined
  for (let turn = 0; turn < (list.length > 2 ? 2 : 0); turn++) {
    const cells = weigh(trust, [[2, 1]], wide)
    odd = farthest(cells)
    const rest = laid.rows.map(
      (row, r) => logs[r]! - cells.reduce((sum, { belief, mean }) => sum + belief * row.reduce((all, i) => all + mean[i]!, 0), 0),
    )
    // What is usual here, by the middle of all that is left: one far off does not make itself usual.
    const usual = Math.max(LEAST_SCATTER, 1.4826 * middleOf(rest.map(Math.abs)))
    if (turn === 0 && ages && setChangedApart(rest)) laid = lay()
    else
      trust = rest.map((value, r) => {
        const sds = Math.abs(value) / Math.sqrt(usual ** 2 + doubts[r]!)
        return sds > model.doubted ? (model.doubted / sds) ** 4 : 1
      })
  }
  const cells = weigh(
    trust,
    model.scales,
    model.lead?.may ?? wide.map(may => ({ ...may, scale: 1 })),
    model.odd && (odd ?? farthest(weigh(trust, [[2, 1]], wide))),
  )

  /** The thing, not of the lead's kind, that is farthest from what is usual for its kind. */
  function farthest(of: readonly Cell[]): string | undefined {
    let best: { name: string; off: number } | undefined
    laid.things.forEach(({ kind, key, name }, i) => {
      if (kind === model.lead?.kind) return
      const off = Math.abs(of.reduce((sum, cell) => sum + cell.belief * cell.mean[i]!, 0)) / model.spread(kind, key)
      if (off > (best?.off ?? 0)) best = { name, off }
    })
    return best?.name
  }

  /** Where a thing has changed for good, what was found before is laid to another thing. */
  function setChangedApart(rest: readonly number[]): boolean {
    const at = kinds.indexOf(ages!.kind)
    let changed = false
    for (const name of new Set(names.map(row => row[at]))) {
      const mine = names.flatMap((row, r) => (name !== undefined && row[at] === name ? [r] : []))
      const since = changeIn(mine.map(r => rest[r]!))
      if (since === undefined) continue
      changed = true
      for (const r of mine.slice(since)) names[r]![at] = `${name} before`
    }
    return changed
  }

  /** Mean and variance of a sum of effects in one pairing; what was never found is its prior. */
  const sumOf = (cell: Cell, of: readonly Thing[]): { mean: number; variance: number } => {
    const ask = new Float64Array(laid.things.length)
    let mean = 0
    let variance = 0
    const known: number[] = []
    for (const thing of of) {
      const level = laid.levels.get(thing.name)
      if (level === undefined) {
        const prior = priorOf(thing, cell)
        variance += prior.spread ** 2
        mean += prior.mean
      } else {
        ask[level] = 1
        mean += cell.mean[level]!
        known.push(level)
      }
    }
    const answer = solve(cell.factor, ask)
    for (const level of known) variance += answer[level]!
    return { mean, variance }
  }
  const told = new Map<string, Interval>()
  const once = (key: string, work: () => Interval): Interval => {
    const known = told.get(key) ?? work()
    told.set(key, known)
    return known
  }
  const thingsIn = (of: Partial<Record<Kind, string>>) =>
    kinds.flatMap(kind => {
      const name = nameOf(kind, of)
      return name === undefined ? [] : [{ kind, key: of[kind]!, name }]
    })
  const rowsOf = (kind: Kind, key: string) => {
    const at = kinds.indexOf(kind)
    return list.flatMap((item, r) => (item.of[kind] === key && !names[r]![at]?.endsWith(' before') ? [r] : []))
  }
  const nameOfThing = (kind: Kind, key: string) => {
    const [row] = rowsOf(kind, key)
    return row === undefined ? undefined : nameOf(kind, list[row]!.of)
  }
  return {
    count: list.length,
    sharing: of => list.filter(item => kinds.some(kind => of[kind] !== undefined && item.of[kind] === of[kind])).length,
    next: of =>
      once(kinds.map(kind => nameOf(kind, of) ?? '').join(' / '), () =>
        mixed(
          cells.map(cell => {
            const { mean, variance } = sumOf(cell, thingsIn(of))
            return { belief: cell.belief, mean, sd: Math.sqrt(variance + cell.scatter ** 2) }
          }),
        ),
      ),
    effectOf: (kind, key) => {
      const name = nameOfThing(kind, key)
      if (name === undefined) return undefined
      const factor = once(`alone ${name}`, () =>
        mixed(
          cells.map(cell => {
            const { mean, variance } = sumOf(cell, [{ kind, key, name }])
            return { belief: cell.belief, mean, sd: Math.sqrt(variance) }
          }),
        ),
      )
      return { factor, runs: rowsOf(kind, key).length }
    },
    behind: (kind, key) =>
      rowsOf(kind, key).map(r => {
        const usual = cells.reduce((sum, cell) => sum + cell.belief * cell.scatter ** 2, 0)
        return { id: list[r]!.id, log: logs[r]!, counts: (trust[r]! * usual) / (usual * aged[r]! + doubts[r]!) }
      }),
  }
}

const middleOf = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!

/**
 * How many of the newest are after a lasting change; undefined where there is none.
 * @param rest what each is off by all that is known of it, newest first
 */
function changeIn(rest: readonly number[]): number | undefined {
  if (rest.length < 2 * CHANGED.least) return undefined
  let best: { since: number; sds: number } | undefined
  for (let since = CHANGED.least; since <= Math.min(CHANGED.most, rest.length - CHANGED.least); since++) {
    const after = rest.slice(0, since)
    const before = rest.slice(since, since + 30)
    const [a, b] = [middleOf(after), middleOf(before)]
    // The middle of all that is off, as a standard deviation: one run far off does not make a change.
    const sd = Math.max(0.05, 1.4826 * middleOf([...after.map(value => Math.abs(value - a)), ...before.map(value => Math.abs(value - b))]))
    const sds = Math.abs(a - b) / (1.25 * sd * Math.sqrt(1 / after.length + 1 / before.length))
    if (Math.abs(a - b) > CHANGED.log && sds > CHANGED.sds && sds > (best?.sds ?? 0)) best = { since, sds }
  }
  return best?.since
}

/** Percentiles of a mixture of normal distributions of the logarithm, as factors. */
function mixed(parts: readonly { belief: number; mean: number; sd: number }[]): Interval {
  const below = (log: number) => parts.reduce((sum, { belief, mean, sd }) => sum + belief * normalCdf((log - mean) / sd), 0)
  const at = (share: number) => {
    let low = Math.min(...parts.map(({ mean, sd }) => mean - 4 * sd))
    let high = Math.max(...parts.map(({ mean, sd }) => mean + 4 * sd))
    for (let i = 0; i < 40; i++) {
      const middle = 0.5 * (low + high)
      if (below(middle) < share) low = middle
      else high = middle
    }
    return Math.exp(0.5 * (low + high))
  }
  return { p10: at(0.1), p50: at(0.5), p90: at(0.9) }
}
